import type { Mixture } from '@/core/colour/mixture';

/** A mixture that is kept ready. */
export interface Pot {
  /** What the painter calls it; '' where nothing was said. */
  readonly name: string;
  readonly mixture: Mixture;
}

/** Pots in a row; an empty place is null. */
export type Pots = readonly (Pot | null)[];

/** How many stand in a row, and how many rows there can be. */
export const ROW = 16;
export const MOST_ROWS = 2;

export const NO_POTS: Pots = new Array<null>(ROW * MOST_ROWS).fill(null);

/** As many places as there are, whatever was written. */
export const inPlaces = (pots: Pots): Pots => NO_POTS.map((_, i) => pots[i] ?? null);

const same = (a: Mixture, b: Mixture): boolean => {
  const tubes = Object.keys(a);
  return tubes.length === Object.keys(b).length && tubes.every((id) => a[id] === b[id]);
};

/** Where a mixture stands already; -1 where in none. */
export const placeOf = (pots: Pots, mixture: Mixture): number =>
  pots.findIndex((pot) => pot !== null && same(pot.mixture, mixture));

/** Fills a place with a mixture; one that stood there is gone, with its name. */
export const filled = (pots: Pots, place: number, mixture: Mixture): Pots =>
  pots.map((pot, i) => (i === place ? { name: '', mixture } : pot));

/**
 * Keeps mixtures in the next empty pots; those that stand in one already stay there.
 * @param rows how many rows stand on the bench
 * @returns undefined when there is no room for all of them
 */
export function kept(pots: Pots, mixtures: readonly Mixture[], rows: number): Pots | undefined {
  let now = pots;
  for (const mixture of mixtures) {
    if (placeOf(now, mixture) >= 0) continue;
    const place = now.slice(0, rows * ROW).indexOf(null);
    if (place < 0) return undefined;
    now = filled(now, place, mixture);
  }
  return now;
}

/** Two pots change places. */
export const swapped = (pots: Pots, one: number, other: number): Pots =>
  pots.map((pot, i) => (i === one ? pots[other] : i === other ? pots[one] : pot));

export const emptied = (pots: Pots, place: number): Pots => pots.map((pot, i) => (i === place ? null : pot));

export const renamed = (pots: Pots, place: number, name: string): Pots =>
  pots.map((pot, i) => (i === place && pot ? { ...pot, name: name.trim().slice(0, 60) } : pot));

/** The next pot that has something in it, from a place on, around both ends; -1 where all are empty. */
export function nextFilled(pots: Pots, from: number, by: 1 | -1): number {
  for (let n = 1; n <= pots.length; n++) {
    const place = (((from + by * n) % pots.length) + pots.length) % pots.length;
    if (pots[place]) return place;
  }
  return -1;
}
