import { linearToLab, type Triple } from '@/core/colour/colorimetry';
import { Picture } from '@/core/picture/picture';
import type { Studio } from '@/core/journal/studio';
import type { Area } from './bench';

/** How a passage looks cell by cell, without relief: what tells tone from two-valued noise. */

/** Lightness L* of the cells of an area, row by row. */
export interface Tones {
  readonly width: number;
  readonly values: readonly number[];
  /** Side of a cell, mm. */
  readonly mmPerPx: number;
}

/** Unlit colour of squares of an area, CIELAB, row by row: the mean of their light, as from farther away. */
export interface Seen {
  readonly width: number;
  readonly colours: readonly Triple[];
  readonly mmPerPx: number;
}

/** @param cells side of the squares, cells */
export function seenFrom(studio: Studio, [x, y, w, h]: Area, cells = 1, picture = new Picture(studio.painting)): Seen {
  const { mmPerPx } = studio.painting;
  const [left, top] = [x, y].map((mm) => Math.round(mm / (mmPerPx * cells)) * cells);
  const [wide, high] = [w, h].map((mm) => Math.round(mm / (mmPerPx * cells)));
  const colours: Triple[] = [];
  for (let j = 0; j < high; j++) {
    for (let i = 0; i < wide; i++) {
      const sum: Triple = [0, 0, 0];
      for (let v = 0; v < cells; v++) {
        for (let u = 0; u < cells; u++) {
          const light = picture.linearAt(left + i * cells + u, top + j * cells + v);
          for (let c = 0; c < 3; c++) sum[c] += light[c] / cells ** 2;
        }
      }
      colours.push(linearToLab(sum));
    }
  }
  return { width: wide, colours, mmPerPx: mmPerPx * cells };
}

export const tonesIn = ({ width, colours, mmPerPx }: Seen): Tones => ({
  width,
  values: colours.map(([L]) => L),
  mmPerPx,
});
export const tonesOf = (studio: Studio, area: Area): Tones => tonesIn(seenFrom(studio, area));

const sorted = (values: readonly number[]) => [...values].sort((a, b) => a - b);
const at = (v: readonly number[], share: number) => v[Math.min(v.length - 1, Math.floor(share * (v.length - 1)))];

/** Share of cells between 20 and 80 % of the range (2nd to 98th percentile) of the passage itself. */
export function middleShare({ values }: Tones): number {
  const v = sorted(values);
  const [low, high] = [at(v, 0.02), at(v, 0.98)];
  const [a, b] = [low + 0.2 * (high - low), low + 0.8 * (high - low)];
  return values.filter((x) => x > a && x < b).length / values.length;
}

/** Earth mover's distance of two distributions of lightness, L*: mean distance of their quantiles. */
export function apart(a: Tones, b: Tones): number {
  const [p, q] = [sorted(a.values), sorted(b.values)];
  let sum = 0;
  for (let k = 0; k < 200; k++) sum += Math.abs(at(p, (k + 0.5) / 200) - at(q, (k + 0.5) / 200));
  return sum / 200;
}

/** Distance at which the tone along rows and columns has forgotten itself (autocorrelation 1/e, interpolated), mm. */
export function grainLength({ width, values, mmPerPx }: Tones): number {
  const mean = values.reduce((s, v) => s + v, 0) / values.length;
  const height = values.length / width;
  const d = (x: number, y: number) => values[y * width + x] - mean;
  let zero = 0;
  for (const v of values) zero += (v - mean) ** 2 / values.length;
  let before = 1;
  for (let lag = 1; lag < Math.min(width, height) / 2; lag++) {
    let sum = 0;
    let n = 0;
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        if (x + lag < width) [sum, n] = [sum + d(x, y) * d(x + lag, y), n + 1];
        if (y + lag < height) [sum, n] = [sum + d(x, y) * d(x, y + lag), n + 1];
      }
    }
    const now = sum / n / zero;
    if (now < 1 / Math.E) return (lag - 1 + (before - 1 / Math.E) / (before - now)) * mmPerPx;
    before = now;
  }
  return Infinity;
}
