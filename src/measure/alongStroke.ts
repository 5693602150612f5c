import type { Studio } from '@/core/journal/studio';
import { filmAt } from './bench';

/** A stroke's paint in its own direction: rows along it, one beside the other, whatever way it was drawn. */
export interface Swath {
  /** Cells along and across. */
  readonly along: number;
  readonly across: number;
  /** Row by row from one side to the other: thickness (um) or mass (coats). */
  readonly values: Float64Array;
  readonly mmPerPx: number;
  /** Direction of the stroke, radians. */
  readonly angle: number;
}

/** A straight way over a canvas, mm. */
export interface Way {
  readonly x: number;
  readonly y: number;
  readonly angle: number;
}

export const placeOn = ({ x, y, angle }: Way, along: number, aside = 0): [number, number] => [
  x + along * Math.cos(angle) - aside * Math.sin(angle),
  y + along * Math.sin(angle) + aside * Math.cos(angle),
];

/**
 * Reads a plane of the film beside a way, cell by cell of the canvas where it is straight, the nearest cell where not.
 * @param from, to along the way, and `half` to both sides, mm
 */
export function swath(studio: Studio, way: Way, from: number, to: number, half: number, plane = 'volume'): Swath {
  const { mmPerPx, width, height } = studio.painting;
  const along = Math.round((to - from) / mmPerPx);
  const across = Math.round((2 * half) / mmPerPx);
  const values = new Float64Array(along * across);
  for (let j = 0; j < across; j++) {
    for (let i = 0; i < along; i++) {
      const [x, y] = placeOn(way, from + (i + 0.5) * mmPerPx, (j + 0.5) * mmPerPx - half);
      const [px, py] = [Math.floor(x / mmPerPx), Math.floor(y / mmPerPx)];
      if (px >= 0 && py >= 0 && px < width && py < height) values[j * along + i] = filmAt(studio, plane, px, py);
    }
  }
  return { along, across, values, mmPerPx, angle: way.angle };
}

/** Where there is more than so much. */
export const covered = (s: Swath, um = 3): Swath => ({ ...s, values: s.values.map((v) => (v > um ? 1 : 0)) });

const average = (v: Iterable<number>, count: number) => {
  let sum = 0;
  for (const x of v) sum += x;
  return sum / count;
};
export const meanOf = ({ values }: Swath): number => average(values, values.length);

export const rowOf = ({ along, values }: Swath, j: number): Float64Array => values.subarray(j * along, (j + 1) * along);
export const rowMeans = (s: Swath): number[] =>
  Array.from({ length: s.across }, (_, j) => average(rowOf(s, j), s.along));
export function columnMeans({ along, across, values }: Swath): number[] {
  const sums = new Array<number>(along).fill(0);
  values.forEach((v, at) => (sums[at % along] += v / across));
  return sums;
}

/** Power of a swath by spatial frequency. */
interface Spectrum {
  /** Calls back with frequencies along and across (1/mm, signed) and the power there. */
  each(visit: (fx: number, fy: number, power: number) => void): void;
}

/** Discrete Fourier transform of a swath less its mean, under a Hann window; rows, then columns, from the definition. */
export function spectrum({ along, across, values, mmPerPx }: Swath): Spectrum {
  const m = average(values, values.length);
  const hann = (i: number, n: number) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / (n - 1));
  const re = new Float64Array(along * across);
  const im = new Float64Array(along * across);
  const transform = (
    count: number,
    read: (i: number) => [number, number],
    write: (k: number, a: number, b: number) => void,
  ) => {
    const [cos, sin] = [Math.cos, Math.sin].map((f) =>
      Float64Array.from({ length: count }, (_, i) => f((-2 * Math.PI * i) / count)),
    );
    const input = Array.from({ length: count }, (_, i) => read(i));
    for (let k = 0; k < count; k++) {
      let [a, b] = [0, 0];
      for (let i = 0; i < count; i++) {
        const t = (i * k) % count;
        a += input[i][0] * cos[t] - input[i][1] * sin[t];
        b += input[i][0] * sin[t] + input[i][1] * cos[t];
      }
      write(k, a, b);
    }
  };
  for (let j = 0; j < across; j++) {
    const row = j * along;
    transform(
      along,
      (i) => [(values[row + i] - m) * hann(i, along) * hann(j, across), 0],
      (k, a, b) => {
        re[row + k] = a;
        im[row + k] = b;
      },
    );
  }
  for (let k = 0; k < along; k++) {
    transform(
      across,
      (j) => [re[j * along + k], im[j * along + k]],
      (j, a, b) => {
        re[j * along + k] = a;
        im[j * along + k] = b;
      },
    );
  }
  const frequency = (k: number, n: number) => (k < n / 2 ? k : k - n) / (n * mmPerPx);
  return {
    each(visit) {
      for (let j = 0; j < across; j++) {
        for (let k = 0; k < along; k++) {
          if (k === 0 && j === 0) continue;
          const at = j * along + k;
          visit(frequency(k, along), frequency(j, across), re[at] ** 2 + im[at] ** 2);
        }
      }
    },
  };
}

/** Unevenness of a line: deviation (mm) of places along it from the parabola that fits them best. */
export function raggedness(places: readonly number[]): number {
  const n = places.length;
  // Legendre polynomials of 0 to 2 are nearly orthogonal on an even grid: fit them in turn, twice
  let rest = [...places];
  const basis = [0, 1, 2].map((k) =>
    places.map((_, i) => {
      const u = n > 1 ? (2 * i) / (n - 1) - 1 : 0;
      return k === 0 ? 1 : k === 1 ? u : 1.5 * u * u - 0.5;
    }),
  );
  for (let pass = 0; pass < 2; pass++) {
    for (const b of basis) {
      const scale = rest.reduce((s, v, i) => s + v * b[i], 0) / b.reduce((s, v) => s + v * v, 0);
      rest = rest.map((v, i) => v - scale * b[i]);
    }
  }
  return Math.sqrt(rest.reduce((s, v) => s + v * v, 0) / n);
}
