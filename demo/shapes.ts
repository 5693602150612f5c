/** Shapes that a wash is laid into: how far each place lies from the edge, and lines along the edge. Lengths in mm. */

export type Place = readonly [x: number, y: number];
export type Inside = (x: number, y: number) => boolean;

/** Fineness at which shapes are looked at, mm. */
const GRID = 0.4;

export interface Shape {
  /** Distance to the nearest place outside; 0 outside. */
  depth(x: number, y: number): number;
  /** Lines that keep a distance from the edge, as long as they are. */
  contours(distance: number): Place[][];
  readonly box: readonly [x0: number, y0: number, x1: number, y1: number];
}

/** Whether a place lies in a closed polygon. */
export const polygon =
  (points: readonly Place[]): Inside =>
  (x, y) => {
    let within = false;
    for (let i = 0, j = points.length - 1; i < points.length; j = i++) {
      const [xi, yi] = points[i];
      const [xj, yj] = points[j];
      if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) within = !within;
    }
    return within;
  };

/** Looks at a shape within a box. What lies beyond the box counts as inside, so that washes may run off a sheet. */
export function shapeOf(inside: Inside, [x0, y0, x1, y1]: readonly [number, number, number, number]): Shape {
  const wide = Math.ceil((x1 - x0) / GRID) + 1;
  const high = Math.ceil((y1 - y0) / GRID) + 1;
  const far = new Float32Array(wide * high);
  for (let j = 0; j < high; j++) {
    for (let i = 0; i < wide; i++) far[j * wide + i] = inside(x0 + i * GRID, y0 + j * GRID) ? 1e6 : 0;
  }
  // distances to the outside, by chamfers (Borgefors 1986)
  const near = (at: number, i: number, j: number, di: number, dj: number, step: number) => {
    if (i + di < 0 || i + di >= wide || j + dj < 0 || j + dj >= high) return;
    far[at] = Math.min(far[at], far[at + dj * wide + di] + step * GRID);
  };
  const sweep = (i: number, j: number, s: 1 | -1) => {
    const at = j * wide + i;
    near(at, i, j, -s, 0, 1);
    near(at, i, j, 0, -s, 1);
    near(at, i, j, -s, -s, Math.SQRT2);
    near(at, i, j, s, -s, Math.SQRT2);
  };
  for (let j = 0; j < high; j++) for (let i = 0; i < wide; i++) sweep(i, j, 1);
  for (let j = high - 1; j >= 0; j--) for (let i = wide - 1; i >= 0; i--) sweep(i, j, -1);

  const depth = (x: number, y: number) => {
    const u = Math.max(0, Math.min(wide - 1.001, (x - x0) / GRID));
    const v = Math.max(0, Math.min(high - 1.001, (y - y0) / GRID));
    const i = Math.floor(u);
    const j = Math.floor(v);
    const at = j * wide + i;
    const [a, b] = [u - i, v - j];
    return (far[at] * (1 - a) + far[at + 1] * a) * (1 - b) + (far[at + wide] * (1 - a) + far[at + wide + 1] * a) * b;
  };
  return {
    depth,
    contours: (distance) =>
      chained(isoSegments(far, wide, high, distance)).map((line) =>
        line.map(([i, j]): Place => [x0 + i * GRID, y0 + j * GRID]),
      ),
    box: [x0, y0, x1, y1],
  };
}

/** Pieces of the line at a level, by marching squares. */
function isoSegments(values: Float32Array, wide: number, high: number, level: number): [Place, Place][] {
  const out: [Place, Place][] = [];
  for (let j = 0; j < high - 1; j++) {
    for (let i = 0; i < wide - 1; i++) {
      const corners: [number, number, number][] = [
        [i, j, values[j * wide + i]],
        [i + 1, j, values[j * wide + i + 1]],
        [i + 1, j + 1, values[(j + 1) * wide + i + 1]],
        [i, j + 1, values[(j + 1) * wide + i]],
      ];
      const crossings: Place[] = [];
      corners.forEach(([x, y, v], k) => {
        const [nx, ny, nv] = corners[(k + 1) % 4];
        if (v < level === nv < level) return;
        const t = (level - v) / (nv - v);
        crossings.push([x + (nx - x) * t, y + (ny - y) * t]);
      });
      for (let k = 0; k + 1 < crossings.length; k += 2) out.push([crossings[k], crossings[k + 1]]);
    }
  }
  return out;
}

/** Pieces that meet, as long lines. */
function chained(pieces: readonly [Place, Place][]): Place[][] {
  const key = ([x, y]: Place) => `${Math.round(x * 50)},${Math.round(y * 50)}`;
  const ends = new Map<string, number[]>();
  pieces.forEach((piece, n) => piece.forEach((p) => ends.set(key(p), [...(ends.get(key(p)) ?? []), n])));
  const used = new Set<number>();
  const lines: Place[][] = [];
  for (let n = 0; n < pieces.length; n++) {
    if (used.has(n)) continue;
    used.add(n);
    const line: Place[] = [...pieces[n]];
    for (const atEnd of [true, false]) {
      for (;;) {
        const tip = atEnd ? line[line.length - 1] : line[0];
        const next = (ends.get(key(tip)) ?? []).find((m) => !used.has(m));
        if (next === undefined) break;
        used.add(next);
        const [a, b] = pieces[next];
        const beyond = key(a) === key(tip) ? b : a;
        if (atEnd) line.push(beyond);
        else line.unshift(beyond);
      }
    }
    lines.push(line);
  }
  return lines;
}
