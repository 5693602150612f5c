import { PainterError } from '@/core/errors';

/** Heights of a relief on a grid, mm, row by row from the top; each point is in the middle of a cell. */
export interface Relief {
  readonly columns: number;
  readonly rows: number;
  readonly heights: Float32Array;
  /** Distance of points, mm. */
  readonly step: number;
}

/** A closed surface: corners in mm (x right, y up, z towards the eye), triangles seen anticlockwise from outside. */
export interface Solid {
  readonly corners: Float32Array;
  readonly triangles: Uint32Array;
}

/** A grid of less than two points has no surface. */
const LEAST = 2;

/**
 * A relief as a solid: its surface, a flat bottom `base` mm below its lowest point, and four walls. Watertight: every edge
 * is of two triangles, for the bottom has the same net of points as the surface.
 */
export function reliefSolid({ columns, rows, heights, step }: Relief, base: number): Solid {
  if (columns < LEAST || rows < LEAST) throw new PainterError('The relief is too small to be a solid.');
  const points = columns * rows;
  const corners = new Float32Array(points * 6);
  let lowest = Infinity;
  for (const height of heights) lowest = Math.min(lowest, height);
  for (let i = 0; i < points; i++) {
    const x = (i % columns) * step;
    const y = (rows - 1 - Math.floor(i / columns)) * step;
    corners.set([x, y, heights[i] - lowest + base], 3 * i);
    corners.set([x, y, 0], 3 * (points + i));
  }
  const faces = (columns - 1) * (rows - 1) * 4 + (columns - 1 + rows - 1) * 4;
  const triangles = new Uint32Array(3 * faces);
  let at = 0;
  /** Corners in the order in which they are seen anticlockwise from outside. */
  const quad = (a: number, b: number, c: number, d: number) => {
    triangles.set([a, b, c, a, c, d], at);
    at += 6;
  };
  for (let y = 0; y < rows - 1; y++) {
    for (let x = 0; x < columns - 1; x++) {
      const i = y * columns + x;
      quad(i, i + columns, i + columns + 1, i + 1);
      quad(points + i, points + i + 1, points + i + columns + 1, points + i + columns);
    }
  }
  const wall = (a: number, b: number) => quad(a, b, points + b, points + a);
  for (let x = 0; x < columns - 1; x++) {
    wall(x, x + 1);
    const low = (rows - 1) * columns + x;
    wall(low + 1, low);
  }
  for (let y = 0; y < rows - 1; y++) {
    wall((y + 1) * columns, y * columns);
    const right = y * columns + columns - 1;
    wall(right, right + columns);
  }
  return { corners, triangles };
}
