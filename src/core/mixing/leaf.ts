/** What a set of tubes can reach: the leaves of a book of colours, and the outline of each value. */
import type { Triple } from '@/core/colour/colorimetry';
import type { Recipe, RecipeSolver } from './recipe';
import { lch } from './relations';

/** Hues of the leaves, degrees; values and chromas of the chips. */
export const LEAF_HUES: readonly number[] = Array.from({ length: 20 }, (_, i) => i * 18 + 9);
export const LEAF_VALUES: readonly number[] = [90, 80, 70, 60, 50, 40, 30, 20, 10];
export const LEAF_CHROMAS: readonly number[] = [4, 12, 20, 28, 36, 44, 52, 60, 68, 76, 84];
/** A chip is there when the tubes come this near, Delta E 2000. */
export const REACHED = 2;

export interface Chip {
  readonly L: number;
  readonly C: number;
  /** The colour of the chip as it should be. */
  readonly asked: Triple;
  /** What the tubes make of it; absent where they do not reach. */
  readonly recipe?: Recipe;
}

/** One row of a leaf: chips of one value, from dull to strong. Beyond two misses nothing more is looked for. */
export function leafRow(solver: RecipeSolver, h: number, L: number): Chip[] {
  let misses = 0;
  return LEAF_CHROMAS.map((C) => {
    const asked = lch(L, C, h);
    if (misses >= 2) return { L, C, asked };
    const recipe = solver.solve(asked);
    if (recipe.deltaE <= REACHED) return { L, C, asked, recipe };
    misses++;
    return { L, C, asked };
  });
}

/** A whole leaf, lightest row first. */
export const leaf = (solver: RecipeSolver, h: number): Chip[][] => LEAF_VALUES.map((L) => leafRow(solver, h, L));

/** The strongest chroma of a hue that tubes reach at a value, to about one step of two. */
export function strongestChroma(solver: RecipeSolver, h: number, L: number): number {
  let [low, high] = [0, 110];
  for (let i = 0; i < 6; i++) {
    const C = (low + high) / 2;
    if (solver.solve(lch(L, C, h), { perTube: 0, enough: REACHED }).deltaE <= REACHED) low = C;
    else high = C;
  }
  return low;
}

/** Hues at which the outline of a value is looked for, degrees. */
export const OUTLINE_HUES: readonly number[] = Array.from({ length: 30 }, (_, i) => i * 12);
