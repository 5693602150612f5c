/** Times in one run, as absolute figures and as ratios to a plain copy of memory, so that machines can be compared. */

export interface Figure {
  /** Median time of one piece of work, ms. */
  ms: number;
  /** How often `unit`s are done in a second. */
  perSecond: number;
  unit: string;
  /** Time of one piece of work over the time of copying 16 MiB, in the same run. */
  toCopy: number;
}

const MIB16 = 4 * 2 ** 20;
const from = new Float32Array(MIB16).fill(1.5);
const to = new Float32Array(MIB16);

/** Median of the times of a piece of work, ms. */
export function median(times: number[]): number {
  const sorted = [...times].sort((a, b) => a - b);
  return sorted[sorted.length >> 1];
}

export const percentile = (times: number[], share: number): number =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))];

/** Time of one copy of 16 MiB, ms. */
export function copyTime(): number {
  const times: number[] = [];
  for (let i = 0; i < 25; i++) {
    const start = performance.now();
    to.set(from);
    times.push(performance.now() - start);
  }
  return median(times);
}

/** Runs a piece of work `runs` times after one for warmth; `units` is how much one run does. */
export function figure(work: () => void, units: number, unit: string, runs = 7): Figure {
  work();
  const times: number[] = [];
  const copies: number[] = [];
  for (let i = 0; i < runs; i++) {
    copies.push(copyTime());
    const start = performance.now();
    work();
    times.push(performance.now() - start);
  }
  const ms = median(times);
  return { ms: round(ms), perSecond: round((units / ms) * 1000), unit, toCopy: round(ms / median(copies)) };
}

export const round = (v: number): number => Number(v.toPrecision(4));
