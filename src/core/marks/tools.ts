import { STICKS, type StickForm, type StickName } from './stickForms';
import { WASH_FORMS, type WashForm, type WashFormName } from './washForms';
import { FINGER, formOf, FORMS, type BrushForm, type FormName } from './brushForms';

/** What a tool is made of, and so how its strokes are made. */
export type ToolKind =
  | 'brush' | 'knife' | 'stick' | 'finger' | 'kneaded' | 'eraser' | 'spatter' | 'spray' | 'gel' | 'wash' | 'drops' | 'splatter' | 'ink'
  | 'keep-off' | 'salt'; // prettier-ignore

interface ToolData {
  readonly kind: ToolKind;
  /** Size at which it is first taken up, mm. */
  readonly sizeMm: number;
  /** Whether there is one of soft hair beside the one of bristle. */
  readonly hairs?: boolean;
  /** Held at first: a blender only blends, a sponge dabs. */
  readonly start?: Partial<ToolSettings>;
}

const brush = (sizeMm: number, start?: Partial<ToolSettings>): ToolData => ({ kind: 'brush', sizeMm, start });
const wash = (sizeMm: number, water = 0.65, start?: Partial<ToolSettings>): ToolData => ({
  kind: 'wash',
  sizeMm,
  start: { water, strength: 0.5, ...start },
});
const hairs = (sizeMm: number): ToolData => ({ kind: 'brush', sizeMm, hairs: true });

/** All tools, in the order of the roll. */
const TOOLS = {
  flat: hairs(12),
  bright: hairs(10),
  filbert: hairs(9),
  round: hairs(5),
  rigger: brush(2, { body: 0.25, thin: 0.3 }),
  fan: hairs(16),
  house: hairs(40),
  worn: brush(22),
  roller: brush(50),
  sponge: brush(24, { touch: 'dab' }),
  'blender-soft': brush(14),
  'blender-bristle': brush(14),
  stump: brush(8),
  rag: brush(18),
  knife: { kind: 'knife', sizeMm: 16 },
  scraper: { kind: 'knife', sizeMm: 24 },
  gel: { kind: 'gel', sizeMm: 20 },
  spatter: { kind: 'spatter', sizeMm: 1.2, start: { distanceMm: 120, body: 0.15, thin: 0.2 } },
  spray: { kind: 'spray', sizeMm: 24, start: { distanceMm: 80, body: 0.05, strength: 0.5 } },
  graphite: { kind: 'stick', sizeMm: 0.7, start: { into: 'sketch' } },
  charcoal: { kind: 'stick', sizeMm: 12 },
  'charcoal-pressed': { kind: 'stick', sizeMm: 10 },
  chalk: { kind: 'stick', sizeMm: 12 },
  'pastel-soft': { kind: 'stick', sizeMm: 16 },
  'pastel-hard': { kind: 'stick', sizeMm: 10 },
  finger: { kind: 'finger', sizeMm: 9 },
  'eraser-kneaded': { kind: 'kneaded', sizeMm: 8 },
  eraser: { kind: 'eraser', sizeMm: 6 },
  'wash-round': wash(7),
  mop: wash(16, 0.75),
  'wash-flat': wash(22, 0.7),
  hake: wash(45, 0.75),
  'wash-rigger': wash(1.2, 0.5),
  'dry-brush': wash(12, 0.1),
  'sponge-natural': wash(22, 0.4, { touch: 'dab' }),
  gouache: wash(4, 0.3),
  thirsty: wash(7, 0.12),
  dropper: { kind: 'drops', sizeMm: 4, start: { water: 0.9, strength: 0.5 } },
  splatter: { kind: 'splatter', sizeMm: 1.2, start: { water: 0.8, strength: 0.5, distanceMm: 120 } },
  salt: { kind: 'salt', sizeMm: 1.1 },
  masking: { kind: 'keep-off', sizeMm: 1.6 },
  crepe: { kind: 'keep-off', sizeMm: 14 },
  wax: { kind: 'keep-off', sizeMm: 8 },
  'ink-fast': { kind: 'ink', sizeMm: 0.7 },
  'ink-soluble': { kind: 'ink', sizeMm: 0.7 },
  'pen-bold': { kind: 'ink', sizeMm: 3 },
  marker: { kind: 'ink', sizeMm: 4 },
} as const satisfies Record<string, ToolData>;

export type ToolId = keyof typeof TOOLS;
export const TOOL_IDS = Object.keys(TOOLS) as [ToolId, ...ToolId[]];

/** How a tool is held: everything a painter sets. */
export interface ToolSettings {
  readonly tool: ToolId;
  readonly sizeMm: number;
  /** Ceiling of what one stroke may leave, share of the film at full strength. */
  readonly strength: number;
  /** 0 only lays, 1 only moves what it finds. */
  readonly blend: number;
  /** Of the paint that is loaded next: stiffness, and shares of medium, solvent (water in acrylic), gel and retarder. */
  readonly body: number;
  readonly thin: number;
  readonly solvent: number;
  readonly gel: number;
  readonly retarder: number;
  readonly vehicle: 'oil' | 'acrylic';
  /** What the brush is made of. */
  readonly hair: 'bristle' | 'soft';
  /** Drawn along, or in scattered dabs. */
  readonly touch: 'drag' | 'dab';
  /** Rub-out: a hard or soft tip. */
  readonly tip: 'hard' | 'soft';
  /** Knife: how it is held. Stick: its side, its edge or its point. */
  readonly hold: 'flat' | 'edge' | 'tip';
  /** Pencil: -6 (6H, hard and pale) .. 0 (HB) .. 8 (8B, soft and dark). */
  readonly grade: number;
  /** Where a stick draws when a paint layer is chosen: on the sketch that is kept apart, or into the paint layer. */
  readonly into: 'sketch' | 'layer';
  /** On a mask: 0 black, which hides .. 1 white, which shows. */
  readonly grey: number;
  /** Spatter and spray: distance from the painting. */
  readonly distanceMm: number;
  /** Watercolour: how wet the brush is when it is loaded, 0 squeezed out .. 1 dripping. */
  readonly water: number;
  /** Whether it is loaded again, by itself, for every stroke. */
  readonly keepLoaded: boolean;
  /** The pen: least pressure, and the exponent of its curve (below 1 a light hand counts more). */
  readonly floor: number;
  readonly curve: number;
}

export const kindOf = (tool: ToolId): ToolKind => TOOLS[tool].kind;

/** Whether a tool comes in bristle and in soft hair. */
export const hasHairs = (tool: ToolId): boolean => 'hairs' in TOOLS[tool];

/** Whether paint can be loaded on a tool. */
export const takesPaint = (tool: ToolId): boolean =>
  tool === 'wax' ||
  (!['eraser', 'gel', 'salt', 'keep-off', 'finger', 'kneaded'].includes(kindOf(tool)) &&
    !['rag', 'scraper', 'graphite'].includes(tool));

/** Whether a tool carries water, and paints in washes. */
export const isWash = (tool: ToolId): boolean => ['wash', 'drops', 'splatter'].includes(kindOf(tool));

/** Whether a tool gives by time, so that it goes on where it is held still. */
export const givesByTime = (tool: ToolId): boolean => ['spray', 'drops'].includes(kindOf(tool));

/** Whether a tool is for paper and water: what it leaves is dissolved, carried or held off by washes. */
export const isWatercolour = (tool: ToolId): boolean =>
  isWash(tool) || ['ink', 'keep-off', 'salt'].includes(kindOf(tool));

/** Whether a tool is worn down instead of being filled: it is always what it was loaded with. */
export const isStick = (tool: ToolId): boolean => kindOf(tool) === 'stick' || tool === 'wax';

/** The form of a stick. */
export const stickForm = (tool: ToolId): StickForm => STICKS[tool as StickName];

/** Whether a tool belongs on a drawing layer. */
export const draws = (tool: ToolId): boolean =>
  ['stick', 'finger', 'kneaded', 'eraser', 'ink'].includes(kindOf(tool)) || tool === 'stump' || tool === 'wax';

/** The form of a watercolour brush. */
export const washForm = (tool: ToolId): WashForm => WASH_FORMS[tool as WashFormName];

/** Whether a tool only moves the paint that it finds, until it is told otherwise. */
export const isBlender = (tool: ToolId): boolean =>
  kindOf(tool) === 'brush' && FORMS[tool as FormName].naturalBlend === 1;

/** The form of a brush as it is held. */
export const brushForm = (settings: Pick<ToolSettings, 'tool' | 'hair'>): BrushForm =>
  settings.tool === 'finger'
    ? FINGER
    : formOf(settings.tool as FormName, hasHairs(settings.tool) ? settings.hair : 'bristle');

/** How a tool is held when it is first taken up. */
export function startSettings(tool: ToolId): ToolSettings {
  const data: ToolData = TOOLS[tool];
  return {
    tool,
    sizeMm: data.sizeMm,
    strength: 1,
    blend:
      data.kind === 'brush'
        ? FORMS[tool as FormName].naturalBlend
        : tool === 'scraper'
          ? 1
          : data.kind === 'knife'
            ? 0.3
            : 0,
    body: 0.6,
    thin: 0,
    solvent: 0,
    gel: data.kind === 'gel' ? 1 : 0,
    retarder: 0,
    vehicle: 'oil',
    hair: 'bristle',
    touch: 'drag',
    tip: 'hard',
    hold: 'flat',
    grade: 0,
    into: 'layer',
    grey: 0,
    distanceMm: 100,
    water: 0,
    keepLoaded: false,
    floor: 0,
    curve: 1,
    ...data.start,
  };
}
