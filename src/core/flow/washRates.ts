import { BANDS } from '@/core/colour/bands';
import { GRAPHITE, pigmentIndex, tubeAt } from '@/core/colour/pigments';

/**
 * The constants of washes, at a reference cell of a 150th of an inch, a flow cell of two of them, and steps of 1/20 s.
 * Depths in washes. Where they come from: Curtis et al. 1997, Chu and Tai 2005, and what came out of measuring.
 */
export const STEP_SECONDS = 0.05;

export const FLOW = {
  /** Speed gained in a step from one wash of difference; friction of a film one wash deep. */
  gravity: 0.2,
  drag: 0.035,
  /** Difference of depth that a thin film ahead holds back, below which depth, and how unevenly. */
  yielding: 0.12,
  yieldDepth: 0.3,
  uneven: 1.5,
  /** Fastest motion, reference cells a step. */
  fastest: 0.45,
  /** Difference of depth to which a degree of tilt amounts. */
  tiltPerDegree: 0.008,
  /** How far a wet sheet of the usual weight bulges, washes (rms); thicker paper less. */
  cockle: 0.06,
  /** Film that evaporates in bone dry air, washes a second; how humid the air is. */
  evaporation: 0.016,
  humidity: 0.45,
  /** How much faster it is at the rim, and how uneven by the sheet's blotches. */
  rimEvaporation: 2.4,
  blotchEvaporation: 0.18,
  /** Length over which the rim is felt, flow cells. */
  rimReach: 1.15,
  /** Film that unsized dry paper drinks, washes a second; drying of bare damp paper against a film. */
  absorption: 0.06,
  paperEvaporation: 0.4,
  /** Creeping in saturated paper, flow cells squared a step; and at most, where a step is long. */
  capillary: 0.01,
  capillaryMost: 0.08,
  /** A film thinner than this breaks. */
  breaks: 0.02,
  /** Depth of film that creeps onto dry and onto saturated paper; how much tooth and felt vary that. */
  barrierDry: 2.2,
  barrierDamp: 0.1,
  barrierRough: 1.15,
  /** Cover that a front gains in a step for each wash above the barrier, and at most. */
  frontRate: 0.5,
  frontMost: 0.34,
  /** How much easier a gap between wet cells is closed. */
  tension: 0.5,
  /** How much the front's curve over a flow cell or two holds or helps it. */
  curve: 3.5,
  /** Depths between which paint comes to spread freely. */
  openFrom: 0.2,
  openTo: 0.75,
  /** Spreading into thinner paint, cells squared a step; load that counts as clear; blur of what drives it. */
  disperse: 0.5,
  traces: 0.02,
  loadBlur: 0.1,
  /** Drift to the rim, cells a step for each unit of the rim's gradient. */
  rimDrift: 0.006,
  /** How uneven that is along the rim, and how unevenly paint spreads, by the sheet's lobes. */
  rimUneven: 0.9,
  fingers: 0.8,
  spreadMost: 0.4,
  /** In finer cells a rim is as dark and narrower: the drift goes with this power of a reference cell over a cell. */
  rimFine: 0.9,
  /** Diffusion of paint, cells squared a step. */
  diffusion: 0.011,
  /** Rolling down the bed, cells a step for each unit of slope. */
  roll: 0.016,
  /** Settling by weight and by staining, dissolving of what stains not at all: shares a second. */
  settle: 0.0022,
  adsorb: 0.0022,
  lift: 0.075,
  /** How much faster paint settles at the drying rim. */
  rimSettle: 1.2,
  /** What of a wash a fully staining pigment keeps for ever. */
  stainFloor: 0.06,
  /** Soluble ink dissolves so much faster than the least staining paint; what lies under later washes, slower. */
  inkLift: 14,
  underLift: 1,
  /** Paint waits at most so many steps, and travels at most so far (cells), before it is moved. */
  mostWaited: 3,
  mostTravel: 0.45,
  /** Cells finer than the reference smear paint more than they must, up to so many times: rims stay as wide. */
  mostSmear: 1.5,
} as const;

/** How a pigment behaves in a wash. */
export interface WashRates {
  /** Coats of a wash of full strength: what makes all pigments alike where amounts are compared. */
  readonly unit: number;
  /** Share of the water's motion that it follows. */
  readonly mobile: number;
  /** Diffusion, reference cells squared a step. */
  readonly diffusion: number;
  /** Rolling into valleys on each of the two beds. */
  readonly rollA: number;
  readonly rollB: number;
  /** Shares a second. */
  readonly settle: number;
  readonly lift: number;
  /** How much more settles in valleys, and coats that are never given up. */
  readonly valley: number;
  readonly floor: number;
  /** 0 lifts entirely .. 1 not at all. */
  readonly stain: number;
}

/** How dark a wash at full strength is: its strongest absorption, in Kubelka-Munk terms; scattering counts for less. */
const FULL_STRENGTH = 3.2;
const SCATTERING_COUNTS = 0.3;

const strength = (pigment: number): number => {
  let most = 0;
  for (let b = 0; b < BANDS.count; b++) {
    const at = pigment * BANDS.count + b;
    most = Math.max(most, BANDS.K[at] + SCATTERING_COUNTS * BANDS.S[at]);
  }
  return most;
};

/** Coats of a mixture (parts summing to 1, by table index) that make a wash of full strength, one wash deep. */
export function fullWash(parts: ReadonlyMap<number, number>): number {
  let most = 0;
  for (let b = 0; b < BANDS.count; b++) {
    let sum = 0;
    for (const [p, part] of parts)
      sum += part * (BANDS.K[p * BANDS.count + b] + SCATTERING_COUNTS * BANDS.S[p * BANDS.count + b]);
    most = Math.max(most, sum);
  }
  return FULL_STRENGTH / Math.max(most, 1e-3);
}

/** Height of dust that is as strong as one wash of full strength, um: sticks of strong pigments have more chalk in them. */
const DUST_UM_PER_WASH = 8.6;

/** Height that a coat of a pigment stands as dust, um: grains of stick with air between them. */
export const dustUm = (pigment: number): number => DUST_UM_PER_WASH / washRates(pigment).unit;

/** Coats of each pigment of a mixture (parts summing to 1, by table index) in a um of its dust. */
export function dustCoats(parts: readonly { readonly pigment: number; readonly part: number }[]): number[] {
  const um = parts.reduce((sum, { pigment, part }) => sum + part * dustUm(pigment), 0);
  return parts.map(({ part }) => part / um);
}

/**
 * Dust lies in grains and flakes: spread over a cell, a height of it covers 1 - exp(-height / this) of the cell (grains
 * that fall at random), and stands the higher there. Flakes of graphite are thin, crumbs of chalk thick; um.
 */
const COVERS_UM = 3.6;
const CHAR_COVERS_UM = 2.8;
const FLAKES_COVER_UM = 2.3;
const CHAR = pigmentIndex('PBk9');
const FLAKES = pigmentIndex(GRAPHITE);

/** How often a coat of a pigment as dust would cover its cell, were no grain to lie on another. */
export const dustLies = (pigment: number): number =>
  dustUm(pigment) / (pigment === FLAKES ? FLAKES_COVER_UM : pigment === CHAR ? CHAR_COVERS_UM : COVERS_UM);

/** Share of a cell that dust covers which lies there so often: 1 - exp(-times), near enough. */
export const dustCovers = (times: number): number =>
  1 - 1 / (1 + times * (1 + times * (0.5 + times * (0.16667 + times * 0.05))));

/** Scattering that the air between the grains adds, for a um of dust; fixative fills that air. */
const AIR_SCATTERS = 0.02;
const CHAR_AIR_SCATTERS = 0.004;

/** Scattering that a coat of a pigment gains as dust. */
export const dustAir = (pigment: number): number =>
  pigment === FLAKES ? 0 : dustUm(pigment) * (pigment === CHAR ? CHAR_AIR_SCATTERS : AIR_SCATTERS);

const known = new Map<number, WashRates>();

/** Rates of a pigment by table index, on paper whose tooth has a relief of 1 (scale `roll` and `valley` by it). */
export function washRates(pigment: number): WashRates {
  let rates = known.get(pigment);
  if (!rates) known.set(pigment, (rates = makeRates(pigment)));
  return rates;
}

function makeRates(pigment: number): WashRates {
  const label = tubeAt(pigment);
  // below a twentieth grains are too fine to be seen
  const granulation = Math.max(0, (label?.granulation ?? 0.2) - 0.05) / 0.95;
  const stain = label?.staining ?? 0.5;
  const weight = 2 * (label?.settling ?? 0.4);
  const unit = FULL_STRENGTH / Math.max(strength(pigment), 1e-3);
  // each pigment clumps in a way of its own
  const turn = (pigment * 0.618034) % 1;
  const roll = FLOW.roll * granulation;
  return {
    unit,
    mobile: 1 - 0.16 * weight,
    diffusion: FLOW.diffusion * (1.25 - 0.28 * weight),
    rollA: roll * turn,
    rollB: roll * (1 - turn),
    settle: FLOW.settle * (1 + weight) * (0.4 + granulation) + FLOW.adsorb * stain,
    lift: FLOW.lift * (1 - stain) ** 2,
    valley: 0.9 * granulation,
    floor: FLOW.stainFloor * stain * unit,
    stain,
  };
}
