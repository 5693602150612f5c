import type { Triple } from '@/core/colour/colorimetry';
import { noise2 } from '@/core/surface/noise';

/**
 * What a painter has in mind before the first stroke: values and colours in masses, CIELAB, on a grid of cells. It has
 * no texture and is never shown; strokes take their colours from it, and end where it changes.
 */

/** Cells for each millimetre. */
export const CELLS = 4;

export const clamp = (v: number, low = 0, high = 1): number => Math.min(high, Math.max(low, v));
export const smoothstep = (from: number, to: number, v: number): number => {
  const t = clamp((v - from) / (to - from));
  return t * t * (3 - 2 * t);
};
export const towards = (a: Readonly<Triple>, b: Readonly<Triple>, share: number): Triple =>
  a.map((v, i) => v + (b[i] - v) * share) as Triple;
export const plus = (a: Readonly<Triple>, b: Readonly<Triple>, times = 1): Triple =>
  a.map((v, i) => v + times * b[i]) as Triple;
export const apart = (a: Readonly<Triple>, b: Readonly<Triple>): number =>
  Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
/** A hill of height 1. */
export const hill = (x: number, y: number): number => Math.exp(-x * x - y * y);
/** Noise of three octaves, 0..1. */
export const torn = (x: number, y: number, seed: number): number =>
  (noise2(x, y, seed) + 0.5 * noise2(2 * x + 7, 2 * y + 3, seed) + 0.25 * noise2(4 * x + 1, 4 * y + 9, seed)) / 1.75;

/** Values on the grid, looked up by places in mm. */
export class Field {
  readonly values: Float64Array;

  constructor(
    readonly wide: number,
    readonly high: number,
    values?: Float64Array,
  ) {
    this.values = values ?? new Float64Array(wide * high);
  }

  static of(widthMm: number, heightMm: number, at: (x: number, y: number) => number): Field {
    const field = new Field(widthMm * CELLS, heightMm * CELLS);
    for (let j = 0; j < field.high; j++)
      for (let i = 0; i < field.wide; i++) field.values[j * field.wide + i] = at(i / CELLS, j / CELLS);
    return field;
  }

  /** Index of the cell at a place; the nearest one where it lies beyond the edges. */
  cell(x: number, y: number): number {
    const i = clamp(Math.floor(x * CELLS), 0, this.wide - 1);
    return clamp(Math.floor(y * CELLS), 0, this.high - 1) * this.wide + i;
  }

  at(x: number, y: number): number {
    return this.values[this.cell(x, y)];
  }

  map(change: (v: number, index: number) => number): Field {
    return new Field(this.wide, this.high, this.values.map(change));
  }

  /** Twice a moving mean along rows and columns. @param reach cells on either side */
  blurred(reach: number): Field {
    const k = Math.max(1, Math.round(reach));
    const { wide, high } = this;
    let from = this.values;
    for (let pass = 0; pass < 2; pass++) {
      for (const along of [1, wide]) {
        const [lines, length, across] = along === 1 ? [high, wide, wide] : [wide, high, 1];
        const to = new Float64Array(from.length);
        for (let line = 0; line < lines; line++) {
          const at = (n: number) => from[line * across + clamp(n, 0, length - 1) * along];
          let sum = 0;
          for (let n = -k; n <= k; n++) sum += at(n);
          for (let n = 0; n < length; n++) {
            to[line * across + n * along] = sum / (2 * k + 1);
            sum += at(n + k + 1) - at(n - k);
          }
        }
        from = to;
      }
    }
    return new Field(wide, high, from);
  }
}

/** Colours on the grid. */
export class Idea {
  constructor(private readonly planes: readonly [Field, Field, Field]) {}

  static of(widthMm: number, heightMm: number, at: (x: number, y: number) => Triple): Idea {
    const planes = [0, 1, 2].map(() => new Field(widthMm * CELLS, heightMm * CELLS));
    const { wide, high } = planes[0];
    for (let j = 0; j < high; j++)
      for (let i = 0; i < wide; i++) at(i / CELLS, j / CELLS).forEach((v, c) => (planes[c].values[j * wide + i] = v));
    return new Idea(planes as [Field, Field, Field]);
  }

  at(x: number, y: number): Triple {
    const cell = this.planes[0].cell(x, y);
    return [this.planes[0].values[cell], this.planes[1].values[cell], this.planes[2].values[cell]];
  }

  blurred(reach: number): Idea {
    return new Idea(this.planes.map((plane) => plane.blurred(reach)) as [Field, Field, Field]);
  }

  shifted(by: Readonly<Triple>): Idea {
    return new Idea(this.planes.map((plane, c) => plane.map((v) => v + by[c])) as [Field, Field, Field]);
  }

  /** A sum of its lightness and its other coordinates. */
  mixed(weights: Readonly<Triple>): Field {
    const [l, a, b] = this.planes;
    return l.map((v, i) => weights[0] * v + weights[1] * a.values[i] + weights[2] * b.values[i]);
  }
}

/** Cells inside a closed outline, mm: 1, the others 0. */
export function inside(widthMm: number, heightMm: number, outline: readonly (readonly [number, number])[]): Field {
  const field = new Field(widthMm * CELLS, heightMm * CELLS);
  for (let j = 0; j < field.high; j++) {
    const y = (j + 0.5) / CELLS;
    const crossings: number[] = [];
    outline.forEach(([x0, y0], n) => {
      const [x1, y1] = outline[(n + 1) % outline.length];
      if (y0 <= y !== y1 <= y) crossings.push(x0 + ((y - y0) / (y1 - y0)) * (x1 - x0));
    });
    crossings.sort((a, b) => a - b);
    for (let n = 0; n + 1 < crossings.length; n += 2) {
      const right = Math.min(field.wide - 1, Math.floor(crossings[n + 1] * CELLS - 0.5));
      for (let i = Math.max(0, Math.ceil(crossings[n] * CELLS - 0.5)); i <= right; i++)
        field.values[j * field.wide + i] = 1;
    }
  }
  return field;
}
