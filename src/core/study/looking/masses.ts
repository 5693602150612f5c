import { greyOfValue, isThere, valueOf, type CodeImage } from './image';

/** Values in so many steps, 0..10. */
const BINS = 200;
const binOf = (value: number): number => Math.min(BINS - 1, Math.floor((value / 10) * BINS));

/** A few masses that a picture falls into by value. */
export interface Masses {
  /** Values between them, rising; one fewer than masses. */
  readonly borders: readonly number[];
  /** Of each mass: its mean value, and its share of the area, 0..1. */
  readonly of: readonly { readonly value: number; readonly share: number }[];
}

/** How often each value occurs. */
export function valueCounts({ codes }: Pick<CodeImage, 'codes'>): Float64Array {
  const counts = new Float64Array(BINS);
  for (const code of codes) if (isThere(code)) counts[binOf(valueOf(code))]++;
  return counts;
}

/**
 * The borders between masses that leave the least variance of value within them (Otsu 1979; for several, found exactly
 * by dynamic programming over the histogram, Fisher 1958).
 * @param count 2 to 5; fewer come out where a picture has fewer values
 */
export function findMasses(counts: ArrayLike<number>, count: number): Masses {
  const weight = new Float64Array(BINS + 1);
  const sum = new Float64Array(BINS + 1);
  const square = new Float64Array(BINS + 1);
  for (let i = 0; i < BINS; i++) {
    const v = ((i + 0.5) / BINS) * 10;
    weight[i + 1] = weight[i] + counts[i];
    sum[i + 1] = sum[i] + counts[i] * v;
    square[i + 1] = square[i] + counts[i] * v * v;
  }
  if (weight[BINS] === 0) return { borders: [], of: [] };
  const within = (a: number, b: number): number => {
    const w = weight[b] - weight[a];
    if (w <= 0) return 0;
    const s = sum[b] - sum[a];
    return Math.max(0, square[b] - square[a] - (s * s) / w);
  };
  const used = Array.from({ length: BINS }, (_, i) => counts[i]).filter((c) => c > 0).length;
  const most = Math.max(1, Math.min(count, used));
  // best[k][b]: least variance of the values below b in k masses, and where the last of them begins
  let best = Float64Array.from({ length: BINS + 1 }, (_, b) => within(0, b));
  const begins: Int32Array[] = [new Int32Array(BINS + 1)];
  for (let k = 1; k < most; k++) {
    const next = new Float64Array(BINS + 1).fill(Infinity);
    const from = new Int32Array(BINS + 1);
    for (let b = k + 1; b <= BINS; b++) {
      for (let a = k; a < b; a++) {
        const v = best[a] + within(a, b);
        if (v < next[b]) {
          next[b] = v;
          from[b] = a;
        }
      }
    }
    best = next;
    begins.push(from);
  }
  const ends = [BINS];
  for (let k = most - 1; k > 0; k--) ends.unshift(begins[k][ends[0]]);
  // a border lies in the middle of the values that nothing has
  const borders = ends.slice(0, -1).map((end) => {
    let [a, b] = [end, end];
    while (a > 0 && counts[a - 1] === 0) a--;
    while (b < BINS && counts[b] === 0) b++;
    return ((a + b) / 2 / BINS) * 10;
  });
  return { borders, of: massesWithin(counts, borders) };
}

/** Value and share of masses between borders that are given. */
export function massesWithin(counts: ArrayLike<number>, borders: readonly number[]): Masses['of'] {
  const sums = Array.from({ length: borders.length + 1 }, () => ({ weight: 0, sum: 0 }));
  let all = 0;
  for (let i = 0; i < BINS; i++) {
    const v = ((i + 0.5) / BINS) * 10;
    const mass = sums[placeOf(borders, v)];
    mass.weight += counts[i];
    mass.sum += counts[i] * v;
    all += counts[i];
  }
  return sums.map(({ weight, sum }) => ({ value: weight > 0 ? sum / weight : 0, share: all > 0 ? weight / all : 0 }));
}

/** Which mass a value falls into. */
function placeOf(borders: readonly number[], value: number): number {
  let place = 0;
  while (place < borders.length && value >= borders[place]) place++;
  return place;
}

/** Which mass a code falls into. */
export const massAt = (code: number, { borders }: Masses): number => placeOf(borders, valueOf(code));

/** A picture in its masses: each place in the mean value of its mass. */
export function inMasses({ codes }: CodeImage, { borders, of }: Masses): Uint32Array {
  if (of.length === 0) return codes;
  const greys = of.map(({ value }) => greyOfValue(value));
  return codes.map((code) => (isThere(code) ? greys[placeOf(borders, valueOf(code))] : 0));
}
