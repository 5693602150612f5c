import { formOf, FORMS, type BrushForm, type FormName } from './brushForms';

/** What a tool is made of, and so how its strokes are made. */
export type ToolKind = 'brush' | 'knife' | 'pencil' | 'eraser' | 'spatter' | 'spray' | 'gel';

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
  graphite: { kind: 'pencil', sizeMm: 0.7 },
  eraser: { kind: 'eraser', sizeMm: 6 },
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
  /** Knife: how it is held. */
  readonly hold: 'flat' | 'edge' | 'tip';
  /** Spatter and spray: distance from the painting. */
  readonly distanceMm: number;
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
  !['pencil', 'eraser', 'gel'].includes(kindOf(tool)) && tool !== 'rag' && tool !== 'scraper';

/** Whether a tool only moves the paint that it finds, until it is told otherwise. */
export const isBlender = (tool: ToolId): boolean =>
  kindOf(tool) === 'brush' && FORMS[tool as FormName].naturalBlend === 1;

/** The form of a brush as it is held. */
export const brushForm = (settings: Pick<ToolSettings, 'tool' | 'hair'>): BrushForm =>
  formOf(settings.tool as FormName, hasHairs(settings.tool) ? settings.hair : 'bristle');

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
    distanceMm: 100,
    keepLoaded: false,
    floor: 0,
    curve: 1,
    ...data.start,
  };
}
