/**
 * The forms of brushes and of everything that works like one, as data. Thicknesses in um, lengths in mm; shares and
 * rates without unit. What the numbers do is told in contact.ts (exchange), footprint.ts (form) and reservoir.ts
 * (paint carried).
 */
export type BrushShape = 'flat' | 'filbert' | 'round' | 'dome' | 'fan' | 'roller';

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
  /** Size of the unevenness that is not of bristles, mm; 0 for the usual, fine one along the hair. */
  readonly patchMm: number;
  /** Stiffness of the hair, 0 sable .. 1 hog. */
  readonly stiffness: number;
  /** Paint on the outside, which touches, and inside, which feeds it. */
  readonly tipUm: number;
  readonly tuftUm: number;
  /** Rates of giving and taking for each contact length travelled. */
  readonly deposit: number;
  readonly pickup: number;
  /** Whether it takes as much when it is full, as a cloth does. */
  readonly thirsty: boolean;
  /** How deep hair goes into the grain: dry, and where it carries paint. */
  readonly reach: number;
  readonly wetReach: number;
  /** Width over which contact comes on. */
  readonly softnessUm: number;
  /** Unsteadiness of single bristles. */
  readonly wiggleUm: number;
  /** How far its width grows with the pressure: 0 as wide at any, 1 as a flat opens. */
  readonly spreads: number;
  /** How much paint is pushed aside. */
  readonly plough: number;
  /** How unevenly clumps take paint up, share, and how readily neighbours share it. */
  readonly unevenness: number;
  readonly sharing: number;
  /** How hard hair works fresh paint into what is below it, for each contact length at full pressure. */
  readonly working: number;
  /** How fast the heel gets dirty. */
  readonly soiling: number;
  /** Width of the rising edge, share of the half width: how much wider pressing makes the mark. */
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

const FLAT: BrushForm = {
  shape: 'flat',
  aspect: 0.3,
  roughnessUm: 100,
  comb: 0.8,
  clumps: 0.6,
  patchMm: 0,
  stiffness: 0.75,
  tipUm: 220,
  tuftUm: 2200,
  deposit: 0.55,
  pickup: 0.36,
  thirsty: false,
  reach: 0,
  wetReach: 0.9,
  softnessUm: 35,
  wiggleUm: 6,
  spreads: 1,
  plough: 0.8,
  unevenness: 0.3,
  sharing: 0.015,
  working: 9,
  soiling: 0.12,
  edge: 0.06,
  spacing: 0.12,
  spacingMaxMm: 0.5,
  spacingMaxPerWidth: 0.005,
  rideMm: 3.5,
  rideStiffness: 0.15,
  naturalBlend: 0.3,
};

const ROUND: BrushForm = {
  ...FLAT,
  spreads: 0,
  shape: 'round',
  aspect: 1,
  roughnessUm: 70,
  comb: 0.6,
  stiffness: 0.6,
  deposit: 0.9,
  tuftUm: 1400,
  spacing: 0.05,
  spacingMaxPerWidth: 0.05,
};

/** What carries no paint of its own and only moves what it finds. */
const BLENDER: BrushForm = {
  ...FLAT,
  spreads: 0,
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
};

export const FORMS = {
  flat: FLAT,
  bright: { ...FLAT, aspect: 0.22, stiffness: 0.95, roughnessUm: 84, tipUm: 300, tuftUm: 1600 },
  filbert: { ...FLAT, shape: 'filbert', aspect: 0.42, roughnessUm: 105, stiffness: 0.7 },
  round: ROUND,
  rigger: {
    ...ROUND,
    roughnessUm: 15,
    comb: 0.4,
    stiffness: 0.2,
    deposit: 1.2,
    tuftUm: 7000,
    plough: 0.2,
    reach: 1.2,
    rideMm: 1.2,
    rideStiffness: 0.05,
  },
  fan: {
    ...FLAT,
    shape: 'fan',
    aspect: 0.16,
    roughnessUm: 260,
    comb: 0.95,
    clumps: 1,
    stiffness: 0.6,
    tuftUm: 1000,
    tipUm: 160,
    edge: 0.2,
  },
  house: {
    ...FLAT,
    aspect: 0.18,
    edge: 0.1,
    roughnessUm: 130,
    comb: 0.9,
    clumps: 0.8,
    stiffness: 0.85,
    tuftUm: 3000,
    tipUm: 240,
  },
  worn: {
    ...FLAT,
    aspect: 0.4,
    roughnessUm: 300,
    comb: 0.2,
    clumps: 1,
    patchMm: 1.1,
    stiffness: 0.9,
    tuftUm: 1300,
    tipUm: 170,
    plough: 0.4,
    wetReach: 1,
    edge: 0.3,
  },
  sponge: {
    ...BLENDER,
    roughnessUm: 240,
    comb: 0,
    patchMm: 1.4,
    stiffness: 0.4,
    deposit: 1,
    pickup: 0.4,
    tipUm: 200,
    tuftUm: 1500,
    reach: 0.4,
    wetReach: 1.4,
    edge: 0.3,
    naturalBlend: 0.3,
  },
  roller: {
    ...FLAT,
    spreads: 0,
    shape: 'roller',
    aspect: 0.16,
    roughnessUm: 190,
    patchMm: 0.8,
    reach: 0.45,
    comb: 0,
    stiffness: 0.6,
    deposit: 1,
    pickup: 0.7,
    plough: 0,
    tuftUm: 800,
    tipUm: 160,
    wiggleUm: 4,
    soiling: 0.05,
  },
  'blender-soft': BLENDER,
  'blender-bristle': {
    ...FLAT,
    aspect: 0.35,
    roughnessUm: 200,
    reach: 1.2,
    comb: 0.95,
    clumps: 1,
    stiffness: 0.9,
    deposit: 0.75,
    pickup: 0.75,
    tuftUm: 200,
    tipUm: 120,
    soiling: 0,
    wiggleUm: 18,
    naturalBlend: 1,
  },
  stump: {
    ...BLENDER,
    aspect: 1.1,
    roughnessUm: 5,
    comb: 0,
    stiffness: 0.6,
    deposit: 0.6,
    pickup: 0.9,
    plough: 0.35,
    tuftUm: 100,
    tipUm: 150,
    reach: 1.4,
    wiggleUm: 2,
    edge: 0.3,
  },
  rag: {
    ...BLENDER,
    aspect: 0.8,
    roughnessUm: 50,
    comb: 0,
    patchMm: 1.2,
    stiffness: 0.7,
    deposit: 0,
    pickup: 1.6,
    thirsty: true,
    plough: 0.15,
    tuftUm: 20000,
    tipUm: 10,
    reach: 0.7,
    wiggleUm: 4,
    soiling: 0.5,
    edge: 0.25,
  },
} satisfies Record<string, BrushForm>;

/** A finger drawn through wet paint: soft, tight to the ground, carrying what it picks up on its skin. */
export const FINGER: BrushForm = {
  ...BLENDER,
  aspect: 1.15,
  roughnessUm: 14,
  comb: 0,
  patchMm: 0.5,
  stiffness: 0.85,
  deposit: 0.7,
  pickup: 0.9,
  plough: 0.55,
  tuftUm: 60,
  tipUm: 130,
  reach: 0.9,
  wiggleUm: 1,
  working: 14,
  edge: 0.4,
};

export type FormName = keyof typeof FORMS;

/** The same brush in soft hair: it gives way, follows the ground, shares its paint, and leaves no furrows. */
const softHair = (form: BrushForm): BrushForm => ({
  ...form,
  roughnessUm: form.roughnessUm * 0.06,
  comb: 0,
  clumps: 0,
  unevenness: 0.02,
  sharing: 3,
  working: form.working * 0.4,
  stiffness: 0.25,
  plough: form.plough * 0.1,
  reach: Math.max(1, form.reach),
  wiggleUm: Math.min(0.5, form.wiggleUm),
  rideMm: 1.25,
  rideStiffness: 0.3,
});

const soft = new Map<FormName, BrushForm>();

/** The form of a brush in bristle or soft hair; one object for each. */
export function formOf(name: FormName, hair: 'bristle' | 'soft'): BrushForm {
  if (hair === 'bristle') return FORMS[name];
  let form = soft.get(name);
  if (!form) soft.set(name, (form = softHair(FORMS[name])));
  return form;
}
