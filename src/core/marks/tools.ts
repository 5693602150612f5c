/**
 * The tools, as data. Thicknesses in um, lengths in mm; shares and rates without unit. What the numbers do is told
 * in contact.ts (exchange), footprint.ts (form) and reservoir.ts (paint carried).
 */
export type BrushShape = 'flat' | 'filbert' | 'round' | 'dome';

export interface BrushForm {
  readonly shape: BrushShape;
  /** Length of the footprint along the motion, in widths. */
  readonly aspect: number;
  /** Unevenness of the bristle tips. */
  readonly roughnessUm: number;
  /** How far streaks come from single bristles (1) rather than from all over (0). */
  readonly comb: number;
  /** How strongly bristles stick together in clumps. */
  readonly clumps: number;
  /** Stiffness of the hair, 0 sable .. 1 hog. */
  readonly stiffness: number;
  /** Paint on the outside, which touches, and inside, which feeds it. */
  readonly tipUm: number;
  readonly tuftUm: number;
  /** Rates of giving and taking for each contact length travelled. */
  readonly deposit: number;
  readonly pickup: number;
  /** How deep hair goes into the grain: dry, and where it carries paint. */
  readonly reach: number;
  readonly wetReach: number;
  /** Width over which contact comes on. */
  readonly softnessUm: number;
  /** Unsteadiness of single bristles. */
  readonly wiggleUm: number;
  /** How much paint is pushed aside. */
  readonly plough: number;
  /** How fast the heel gets dirty. */
  readonly soiling: number;
  /** Width of the rising edge, share of the half width. */
  readonly edge: number;
  /** Distance of stamps in contact lengths, and its ceiling: mm, and mm for each mm of width. */
  readonly spacing: number;
  readonly spacingMaxMm: number;
  readonly spacingMaxPerWidth: number;
  /** Length over which the tuft forgets the ground it rode on. */
  readonly rideMm: number;
  /** How evenly the tuft rides. */
  readonly rideStiffness: number;
  /** The lay-blend setting for which the rates above hold. */
  readonly naturalBlend: number;
}

const BRISTLE: BrushForm = {
  shape: 'flat',
  aspect: 0.3,
  roughnessUm: 100,
  comb: 0.8,
  clumps: 0.6,
  stiffness: 0.75,
  tipUm: 220,
  tuftUm: 2200,
  deposit: 0.55,
  pickup: 0.36,
  reach: 0,
  wetReach: 0.9,
  softnessUm: 35,
  wiggleUm: 6,
  plough: 0.8,
  soiling: 0.12,
  edge: 0.06,
  spacing: 0.12,
  spacingMaxMm: 0.5,
  spacingMaxPerWidth: 0.005,
  rideMm: 3.5,
  rideStiffness: 0.15,
  naturalBlend: 0.3,
};

export type Tool =
  | { readonly kind: 'brush'; readonly id: string; readonly form: BrushForm }
  | { readonly kind: 'pencil'; readonly id: string }
  | { readonly kind: 'eraser'; readonly id: string };

const brush = (id: string, changes: Partial<BrushForm> = {}): Tool => ({
  kind: 'brush',
  id,
  form: { ...BRISTLE, ...changes },
});

const TOOL_LIST: readonly Tool[] = [
  brush('flat'),
  brush('filbert', { shape: 'filbert', aspect: 0.42, roughnessUm: 105, stiffness: 0.7 }),
  brush('round', {
    shape: 'round',
    aspect: 1,
    roughnessUm: 70,
    comb: 0.6,
    stiffness: 0.6,
    deposit: 0.9,
    tuftUm: 1400,
    spacing: 0.05,
    spacingMaxPerWidth: 0.05,
  }),
  brush('blender-soft', {
    shape: 'dome',
    aspect: 0.9,
    roughnessUm: 12,
    comb: 0.3,
    stiffness: 0.25,
    deposit: 0.3,
    pickup: 0.3,
    plough: 0.1,
    tuftUm: 200,
    tipUm: 120,
    reach: 1.2,
    soiling: 0,
    wiggleUm: 5,
    softnessUm: 50,
    edge: 0.5,
    spacingMaxPerWidth: 0.05,
    naturalBlend: 1,
  }),
  { kind: 'pencil', id: 'graphite' },
  { kind: 'eraser', id: 'eraser' },
];

export const TOOL_IDS = ['flat', 'filbert', 'round', 'blender-soft', 'graphite', 'eraser'] as const;
export type ToolId = (typeof TOOL_IDS)[number];

const tools = new Map(TOOL_LIST.map((tool) => [tool.id, tool]));

/** The tool with an id. */
export const toolOf = (id: ToolId): Tool => tools.get(id)!;

/** How a tool is held: everything a painter sets. */
export interface ToolSettings {
  readonly tool: ToolId;
  readonly sizeMm: number;
  /** Ceiling of what one stroke may leave, share of the film at full strength. */
  readonly strength: number;
  /** 0 only lays, 1 only moves what it finds. */
  readonly blend: number;
  /** Stiffness of the paint that is loaded next. */
  readonly body: number;
  /** Share of medium in the paint that is loaded next. */
  readonly thin: number;
  /** Rub-out: a hard or soft tip. */
  readonly tip: 'hard' | 'soft';
}
