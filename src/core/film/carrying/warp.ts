import type { From, FromCell } from './resample';

/** Ways to carry a picture elsewhere, in cells: each says for a place where its paint comes from. */

export type Affine = readonly [a: number, b: number, c: number, d: number, e: number, f: number];
export type Corner = readonly [x: number, y: number];
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** The inverse of x' = a x + c y + e, y' = b x + d y + f. @returns undefined when everything falls on a line */
export function inverse([a, b, c, d, e, f]: Affine): Affine | undefined {
  const det = a * d - b * c;
  if (Math.abs(det) < 1e-9) return undefined;
  const [i, j, k, l] = [d / det, -b / det, -c / det, a / det];
  return [i, j, k, l, -(i * e + k * f), -(j * e + l * f)];
}

export const apply = ([a, b, c, d, e, f]: Affine, x: number, y: number): [number, number] => [
  a * x + c * y + e,
  b * x + d * y + f,
];

/** A homography as nine numbers, row by row, that takes a rectangle's corners (clockwise from the upper left) to others. */
export function toCorners({ left, top, right, bottom }: Box, [p0, p1, p2, p3]: readonly Corner[]): number[] {
  // unit square to quadrilateral, after Heckbert (1989)
  const dx1 = p1[0] - p2[0];
  const dx2 = p3[0] - p2[0];
  const dy1 = p1[1] - p2[1];
  const dy2 = p3[1] - p2[1];
  const sx = p0[0] - p1[0] + p2[0] - p3[0];
  const sy = p0[1] - p1[1] + p2[1] - p3[1];
  const det = dx1 * dy2 - dx2 * dy1 || 1e-12;
  const g = (sx * dy2 - dx2 * sy) / det;
  const h = (dx1 * sy - sx * dy1) / det;
  const square = [
    p1[0] - p0[0] + g * p1[0],
    p3[0] - p0[0] + h * p3[0],
    p0[0],
    p1[1] - p0[1] + g * p1[1],
    p3[1] - p0[1] + h * p3[1],
    p0[1],
    g,
    h,
    1,
  ];
  const [w, t] = [1 / (right - left), 1 / (bottom - top)];
  return multiply(square, [w, 0, -left * w, 0, t, -top * t, 0, 0, 1]);
}

const multiply = (m: readonly number[], n: readonly number[]): number[] =>
  Array.from({ length: 9 }, (_, i) => {
    const [r, c] = [Math.floor(i / 3) * 3, i % 3];
    return m[r] * n[c] + m[r + 1] * n[c + 3] + m[r + 2] * n[c + 6];
  });

/** Inverse of a 3 x 3 matrix. @returns undefined when there is none */
export function inverse3(m: readonly number[]): number[] | undefined {
  const [a, b, c, d, e, f, g, h, i] = m;
  const det = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
  if (!(Math.abs(det) > 1e-12)) return undefined;
  return [
    e * i - f * h,
    c * h - b * i,
    b * f - c * e,
    f * g - d * i,
    a * i - c * g,
    c * d - a * f,
    d * h - e * g,
    b * g - a * h,
    a * e - b * d,
  ].map((v) => v / det);
}

/** Through a homography; undefined behind the vanishing line. */
export function project(m: readonly number[], x: number, y: number): [number, number] | undefined {
  const w = m[6] * x + m[7] * y + m[8];
  if (w <= 1e-9) return undefined;
  return [(m[0] * x + m[1] * y + m[2]) / w, (m[3] * x + m[4] * y + m[5]) / w];
}

/** Steps into which each part of a mesh is cut, so that it bends smoothly. */
const FINE = 8;

/** A mesh of points laid over a box, row by row, moved elsewhere: smooth between its points (Catmull and Rom 1974). */
export class Mesh {
  private readonly across: number;
  private readonly down: number;
  private readonly grid: [number, number][];
  /** Where it comes to lie. */
  readonly bounds: Box;

  constructor(
    private readonly box: Box,
    columns: number,
    rows: number,
    points: readonly Corner[],
  ) {
    this.across = (columns - 1) * FINE;
    this.down = (rows - 1) * FINE;
    const at = (i: number, j: number, c: 0 | 1): number => {
      // beyond its edge a mesh goes on straight
      if (i < 0) return 2 * at(0, j, c) - at(-i, j, c);
      if (i > columns - 1) return 2 * at(columns - 1, j, c) - at(2 * (columns - 1) - i, j, c);
      if (j < 0) return 2 * at(i, 0, c) - at(i, -j, c);
      if (j > rows - 1) return 2 * at(i, rows - 1, c) - at(i, 2 * (rows - 1) - j, c);
      return points[j * columns + i][c];
    };
    const spline = (p: (k: number) => number, t: number) => {
      const i = Math.floor(t);
      const s = t - i;
      const [a, b, c, d] = [p(i - 1), p(i), p(i + 1), p(i + 2)];
      return b + 0.5 * s * (c - a + s * (2 * a - 5 * b + 4 * c - d + s * (3 * (b - c) + d - a)));
    };
    this.grid = [];
    for (let v = 0; v <= this.down; v++) {
      for (let u = 0; u <= this.across; u++) {
        const own = (c: 0 | 1) =>
          spline((j) => spline((i) => at(i, j, c), Math.min(columns - 1, u / FINE)), Math.min(rows - 1, v / FINE));
        this.grid.push([own(0), own(1)]);
      }
    }
    const xs = this.grid.map(([x]) => x);
    const ys = this.grid.map(([, y]) => y);
    this.bounds = { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
  }

  /** How much it grows, in area. */
  get growth(): number {
    let area = 0;
    for (let v = 0; v < this.down; v++) {
      for (let u = 0; u < this.across; u++) {
        const [p, q, r, s] = this.quad(u, v);
        area += Math.abs((q[0] - p[0]) * (s[1] - p[1]) - (s[0] - p[0]) * (q[1] - p[1])) / 2;
        area += Math.abs((q[0] - r[0]) * (s[1] - r[1]) - (s[0] - r[0]) * (q[1] - r[1])) / 2;
      }
    }
    const { left, top, right, bottom } = this.box;
    return area / ((right - left) * (bottom - top));
  }

  private quad(u: number, v: number) {
    const at = v * (this.across + 1) + u;
    return [
      this.grid[at],
      this.grid[at + 1],
      this.grid[at + this.across + 2],
      this.grid[at + this.across + 1],
    ] as const;
  }

  /**
   * Where each place comes from, on a raster of middles of cells over its bounds; between them it is interpolated.
   * Where the mesh lies over itself, what comes later lies on top.
   */
  from(): From {
    const left = Math.floor(this.bounds.left) - 1;
    const top = Math.floor(this.bounds.top) - 1;
    const width = Math.ceil(this.bounds.right) + 2 - left;
    const height = Math.ceil(this.bounds.bottom) + 2 - top;
    const sx = new Float32Array(width * height).fill(NaN);
    const sy = new Float32Array(width * height).fill(NaN);
    const { box } = this;
    const place = (u: number, v: number): [number, number] => [
      box.left + ((box.right - box.left) * u) / this.across,
      box.top + ((box.bottom - box.top) * v) / this.down,
    ];
    const triangle = (p: readonly Corner[], s: readonly Corner[]) => {
      const det = (p[1][0] - p[0][0]) * (p[2][1] - p[0][1]) - (p[2][0] - p[0][0]) * (p[1][1] - p[0][1]);
      if (Math.abs(det) < 1e-9) return;
      const [x0, x1] = [Math.min(p[0][0], p[1][0], p[2][0]), Math.max(p[0][0], p[1][0], p[2][0])];
      const [y0, y1] = [Math.min(p[0][1], p[1][1], p[2][1]), Math.max(p[0][1], p[1][1], p[2][1])];
      for (let y = Math.floor(y0 - 0.5); y <= Math.ceil(y1); y++) {
        for (let x = Math.floor(x0 - 0.5); x <= Math.ceil(x1); x++) {
          const [dx, dy] = [x + 0.5 - p[0][0], y + 0.5 - p[0][1]];
          const b = (dx * (p[2][1] - p[0][1]) - dy * (p[2][0] - p[0][0])) / det;
          const c = (dy * (p[1][0] - p[0][0]) - dx * (p[1][1] - p[0][1])) / det;
          if (b < -1e-6 || c < -1e-6 || b + c > 1 + 1e-6) continue;
          const at = (y - top) * width + x - left;
          sx[at] = s[0][0] + b * (s[1][0] - s[0][0]) + c * (s[2][0] - s[0][0]);
          sy[at] = s[0][1] + b * (s[1][1] - s[0][1]) + c * (s[2][1] - s[0][1]);
        }
      }
    };
    for (let v = 0; v < this.down; v++) {
      for (let u = 0; u < this.across; u++) {
        const [p, q, r, t] = this.quad(u, v);
        const [a, b, c, d] = [place(u, v), place(u + 1, v), place(u + 1, v + 1), place(u, v + 1)];
        triangle([p, q, r], [a, b, c]);
        triangle([p, r, t], [a, c, d]);
      }
    }
    return (x, y) => {
      const [cx, cy] = [Math.floor(x), Math.floor(y)];
      const [i, j] = [cx - left, cy - top];
      if (i < 0 || j < 0 || i >= width || j >= height) return undefined;
      const at = j * width + i;
      if (Number.isNaN(sx[at])) return undefined;
      // at the edge of the mesh it goes on as it came
      const slope = (plane: Float32Array, step: number, on: boolean, back: boolean) => {
        const ahead = on ? plane[at + step] - plane[at] : NaN;
        if (!Number.isNaN(ahead)) return ahead;
        const behind = back ? plane[at] - plane[at - step] : NaN;
        return Number.isNaN(behind) ? 0 : behind;
      };
      const [u, v] = [x - cx - 0.5, y - cy - 0.5];
      const [right, below, left1, above] = [i + 1 < width, j + 1 < height, i > 0, j > 0];
      return [
        sx[at] + u * slope(sx, 1, right, left1) + v * slope(sx, width, below, above),
        sy[at] + u * slope(sy, 1, right, left1) + v * slope(sy, width, below, above),
      ];
    };
  }
}

/** A quarter, half or three quarters turn clockwise about a pivot whose coordinates are both whole or both halves. */
export function turnedAbout(turn: 90 | 180 | 270, px: number, py: number): FromCell {
  // middles of cells: x' - px = -(y - py), y' - py = x - px for a quarter; turned back here
  if (turn === 90) return (x, y) => [px + (y + 0.5 - py) - 0.5, py - (x + 0.5 - px) - 0.5];
  if (turn === 180) return (x, y) => [2 * px - x - 1, 2 * py - y - 1];
  return (x, y) => [px - (y + 0.5 - py) - 0.5, py + (x + 0.5 - px) - 0.5];
}

/**
 * The pivot nearest to the middle of a box about which quarter turns take cells to cells. After four turns, each about
 * the pivot of where things have come to lie, everything is back.
 */
export function pivotOf({ left, top, right, bottom }: Box): [number, number] {
  const [x, y] = [(left + right) / 2, (top + bottom) / 2];
  if (Number.isInteger(x) === Number.isInteger(y)) return [x, y];
  return Number.isInteger(x) ? [x + 0.5, y] : [x - 0.5, y];
}
