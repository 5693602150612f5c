import { randomFrom } from './noise';
import type { HeightField } from './heightField';
import { blurred, resampled, standardised } from './periodicNoise';

/**
 * The tooth as a dry stick feels it. The sheet gives way under it, most in its smallest bumps; and what is finer than the
 * made grain counts: fibres and fines between grain and cell are heights of their own, what is finer than a cell is a
 * deviation within it. Coarse cells have less of the one and more of the other, so that a stick meets the same share of
 * the sheet at every resolution.
 */
export interface FineTooth {
  /** Height that stands against a stick, um, laid out like `HeightField.um`; mean 0. */
  readonly um: Float32Array;
  /** Deviation of it over the sheet, um. */
  readonly deepUm: number;
  /** Deviation of heights within a cell, um. */
  readonly withinUm: number;
}

/** Size of a knot of fibres, mm; share of the deviation that is of this size (the rest is finer than any cell). */
const KNOT_MM = 0.085;
const KNOTS = 0.55;
const MOST = 1024;
/** Share of the deviation that is finer than any cell; and how much counts of what a coarse cell has beyond: a touch is not spread as evenly as it. */
const LEAST_WITHIN = 0.3;
const COUNTS = 0.85;
/** Bumps of this size are half pressed flat, mm. */
const PRESSED_MM = 0.13;
const PRESSED = 0.6;

const kept = new WeakMap<Float32Array, FineTooth>();

export function fineTooth(field: HeightField, mmPerPx: number): FineTooth {
  let fine = kept.get(field.um);
  if (!fine) kept.set(field.um, (fine = make(field, mmPerPx)));
  return fine;
}

const square = (field: Float32Array) => {
  let sum = 0;
  for (let i = 0; i < field.length; i++) sum += field[i] * field[i];
  return sum / field.length;
};

function make({ size, um, fineUm, firm, depthUm }: HeightField, mmPerPx: number): FineTooth {
  const made = Math.max(16, Math.min(MOST, Math.round((size * mmPerPx) / KNOT_MM)));
  const random = randomFrom(90703);
  const knots = new Float32Array(made * made);
  for (let i = 0; i < knots.length; i++) knots[i] = random() + random() + random() - 1.5;
  const out = resampled(standardised(knots), made, size);
  for (let i = 0; i < out.length; i++) out[i] *= KNOTS * fineUm;
  const within = fineUm * fineUm - square(out);
  if (depthUm > 0) {
    const wide = blurred(um, size, PRESSED_MM / mmPerPx);
    for (let i = 0; i < out.length; i++) out[i] += firm * (um[i] + PRESSED * (wide[i] - um[i]));
  }
  const least = LEAST_WITHIN * fineUm * fineUm;
  const withinUm = Math.sqrt(least + COUNTS * Math.max(0, within - least));
  return { um: out, deepUm: Math.sqrt(square(out)), withinUm };
}
