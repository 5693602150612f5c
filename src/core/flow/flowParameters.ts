import { maths } from '@/core/maths/maths';
import type { Basin, CoarsePlane } from '@/core/film/basin';
import type { Painting } from '@/core/film/painting';
import { WATER } from '@/core/kernels/water';
import type { Bed } from './bed';
import { FLOW, STEP_SECONDS } from './washRates';

/** What water flows in, with the scale of its cells: for a reference cell, and for a reference flow cell. */
export interface Flowing {
  readonly painting: Painting;
  readonly bed: Bed;
  readonly basin: Basin;
  readonly fine: number;
  readonly coarse: number;
  readonly gravity: number;
}

/**
 * Fills the parameter block of the kernels for a basin and a step.
 * @param block word address, @param k length of the step in usual ones
 * @param calm takes that share of gravity, so that long steps stay stable
 */
export function aimWater(
  block: number,
  { painting, bed, basin, fine, coarse, gravity }: Flowing,
  k: number,
  calm: number,
): void {
  const { arena } = painting;
  const { i32, f32 } = arena;
  const planes: CoarsePlane[] = [
    'water',
    'moisture',
    'rim',
    'u',
    'v',
    'load',
    'share',
    'depth',
    'open',
    'fluxX',
    'fluxY',
    'mass',
    'stream',
    'paintU',
    'paintV',
    'nextA',
    'nextB',
  ];
  planes.forEach((name) => (i32[block + WATER[name]] = basin.at[name]));
  const ints = {
    cover: basin.cover,
    permeable: bed.permeable,
    resistance: bed.resistance,
    lobes: bed.lobes,
    blotches: bed.blotches,
    currents: bed.currents,
    fallX: bed.fallX,
    fallY: bed.fallY,
    tooth: bed.tooth,
    bedA: bed.bedA,
    bedB: bed.bedB,
    stride: basin.stride,
    coverStride: basin.coverStride,
    bedStride: bed.bedStride,
    fineStride: bed.fineStride,
    factor: basin.factor,
    side: basin.side,
  };
  for (const [name, v] of Object.entries(ints)) i32[block + WATER[name as keyof typeof ints]] = v;
  const seconds = k * STEP_SECONDS;
  // valleys of a rough sheet keep their water longer
  const dries = FLOW.evaporation * (1 - FLOW.humidity) * (1.15 - 0.16 * Math.min(1.4, bed.relief)) * seconds;
  const reach = FLOW.rimReach * coarse;
  const floats = {
    gravity: gravity * k * k * calm,
    drag: FLOW.drag * k,
    yielding: FLOW.yielding,
    yieldDepth: FLOW.yieldDepth,
    uneven: FLOW.uneven,
    fastest: FLOW.fastest / Math.max(1, coarse),
    tiltX: (FLOW.tiltPerDegree * painting.flow.tilt[0]) / coarse,
    tiltY: (FLOW.tiltPerDegree * painting.flow.tilt[1]) / coarse,
    transfer: 0.5 * coarse,
    openFrom: FLOW.openFrom,
    openOver: 1 / (FLOW.openTo - FLOW.openFrom),
    evaporation: dries,
    rimEvaporation: FLOW.rimEvaporation,
    blotchEvaporation: FLOW.blotchEvaporation,
    rimBlur: 1 / (1 + 4 * reach * reach),
    absorption: FLOW.absorption * (1 - 0.8 * bed.sizing) * seconds,
    capacity: bed.capacity,
    paperEvaporation: dries * FLOW.paperEvaporation,
    // in long steps moisture would swing to and fro, and grow
    capillary: Math.min(FLOW.capillaryMost, FLOW.capillary * coarse * coarse * k),
    breaks: FLOW.breaks,
    barrierDry: FLOW.barrierDry,
    barrierDamp: FLOW.barrierDamp,
    barrierRough: FLOW.barrierRough,
    frontRate: FLOW.frontRate * k * fine,
    frontMost: Math.min(1, FLOW.frontMost * fine),
    tension: FLOW.tension,
    relief: Math.min(1.2, bed.relief),
    loadBlur: FLOW.loadBlur,
    disperse: FLOW.disperse * k * coarse,
    traces: FLOW.traces,
    rimDrift: FLOW.rimDrift * k * coarse * Math.min(1, maths.pow(fine, -FLOW.rimFine)),
    step: k,
    cells: fine,
    rimUneven: FLOW.rimUneven,
    fingers: FLOW.fingers,
    curve: FLOW.curve,
    spreadMost: FLOW.spreadMost / Math.max(1, coarse),
    smear: Math.max(1, Math.min(FLOW.mostSmear, fine)),
  };
  for (const [name, v] of Object.entries(floats)) f32[block + WATER[name as keyof typeof floats]] = v;
}
