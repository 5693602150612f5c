import type { Command } from '@/core/commands/commands';
import { MESH_SIDE, meshOver, type Corner, type Moving } from './pieceStore';

/** What handles do to the corners of a piece that is moved. Places are mm on the canvas. */

export type Handle =
  | { readonly what: 'move' }
  | { readonly what: 'turn' }
  | { readonly what: 'corner'; readonly at: number }
  | { readonly what: 'side'; readonly at: number }
  | { readonly what: 'point'; readonly at: number };

const middleOf = (corners: readonly Corner[]): Corner => [
  corners.reduce((s, [x]) => s + x, 0) / corners.length,
  corners.reduce((s, [, y]) => s + y, 0) / corners.length,
];

/** Middles of the sides, each between a corner and the next. */
export const sidesOf = (corners: readonly Corner[]): Corner[] =>
  corners.map(([x, y], i) => {
    const [u, v] = corners[(i + 1) & 3];
    return [(x + u) / 2, (y + v) / 2];
  });

/** Through an affine map about a place. */
const about = (corners: readonly Corner[], [px, py]: Corner, [a, b, c, d]: readonly number[]): Corner[] =>
  corners.map(([x, y]) => [px + a * (x - px) + c * (y - py), py + b * (x - px) + d * (y - py)]);

/**
 * Corners after a handle was pulled from one place to another.
 * @param from corners when the hand came down
 * @param free a corner scales with its sides apart; a side slides along itself in place of scaling
 */
export function pulled(from: readonly Corner[], handle: Handle, start: Corner, now: Corner, free: boolean): Corner[] {
  const [dx, dy] = [now[0] - start[0], now[1] - start[1]];
  switch (handle.what) {
    case 'move':
      return from.map(([x, y]) => [x + dx, y + dy]);
    case 'turn': {
      const m = middleOf(from);
      let angle = Math.atan2(now[1] - m[1], now[0] - m[0]) - Math.atan2(start[1] - m[1], start[0] - m[0]);
      if (free) angle = (Math.round((angle * 180) / Math.PI / 15) * 15 * Math.PI) / 180;
      const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
      return about(from, m, [cos, sin, -sin, cos]);
    }
    case 'corner': {
      // the corner across stays; along the two sides it grows
      const fixed = from[(handle.at + 2) & 3];
      const [u, v] = axes(from);
      const [a0, b0] = along(fixed, from[handle.at], u, v);
      let [a1, b1] = along(fixed, now, u, v);
      if (!free) {
        const k = Math.abs(a1 / a0) > Math.abs(b1 / b0) ? a1 / a0 : b1 / b0;
        [a1, b1] = [a0 * k, b0 * k];
      }
      return stretched(from, fixed, u, v, a1 / a0, b1 / b0);
    }
    case 'side': {
      const opposite = sidesOf(from)[(handle.at + 2) & 3];
      const [u, v] = axes(from);
      if (free) {
        // skewed: the side moves, the one across stays
        const moves = [handle.at, (handle.at + 1) & 3];
        const way = handle.at % 2 === 0 ? u : v;
        const length = Math.hypot(way[0], way[1]) || 1;
        const by = (dx * way[0] + dy * way[1]) / length;
        return from.map(([x, y], i) =>
          moves.includes(i) ? [x + (by * way[0]) / length, y + (by * way[1]) / length] : [x, y],
        );
      }
      const [a0, b0] = along(opposite, sidesOf(from)[handle.at], u, v);
      const [a1, b1] = along(opposite, now, u, v);
      return handle.at % 2 === 0
        ? stretched(from, opposite, u, v, 1, b1 / b0)
        : stretched(from, opposite, u, v, a1 / a0, 1);
    }
    case 'point':
      return from.map(([x, y], i) => (i === handle.at ? [x + dx, y + dy] : [x, y]));
  }
}

/** Directions of the upper and the left side. */
function axes(corners: readonly Corner[]): [Corner, Corner] {
  const [a, b, , d] = corners;
  return [
    [b[0] - a[0], b[1] - a[1]],
    [d[0] - a[0], d[1] - a[1]],
  ];
}

/** A place as shares of two directions from another. */
function along([ox, oy]: Corner, [x, y]: Corner, u: Corner, v: Corner): [number, number] {
  const det = u[0] * v[1] - u[1] * v[0] || 1e-9;
  const [dx, dy] = [x - ox, y - oy];
  return [(dx * v[1] - dy * v[0]) / det, (u[0] * dy - u[1] * dx) / det];
}

function stretched(corners: readonly Corner[], fixed: Corner, u: Corner, v: Corner, ku: number, kv: number): Corner[] {
  const safe = (k: number) => (Math.abs(k) < 0.02 ? 0.02 * (Math.sign(k) || 1) : k);
  return corners.map((p) => {
    const [a, b] = along(fixed, p, u, v);
    const [s, t] = [a * safe(ku), b * safe(kv)];
    return [fixed[0] + s * u[0] + t * v[0], fixed[1] + s * u[1] + t * v[1]];
  });
}

/** The CSS matrix that lays a picture of a size over four places on the screen. */
export function cssMatrix(width: number, height: number, p: readonly { x: number; y: number }[]): string {
  const [p0, p1, p2, p3] = p;
  const [dx1, dx2, sx] = [p1.x - p2.x, p3.x - p2.x, p0.x - p1.x + p2.x - p3.x];
  const [dy1, dy2, sy] = [p1.y - p2.y, p3.y - p2.y, p0.y - p1.y + p2.y - p3.y];
  const det = dx1 * dy2 - dx2 * dy1 || 1e-9;
  const g = (sx * dy2 - dx2 * sy) / det;
  const h = (dx1 * sy - sx * dy1) / det;
  const m = [
    (p1.x - p0.x + g * p1.x) / width,
    (p1.y - p0.y + g * p1.y) / width,
    0,
    g / width,
    (p3.x - p0.x + h * p3.x) / height,
    (p3.y - p0.y + h * p3.y) / height,
    0,
    h / height,
    0,
    0,
    1,
    0,
    p0.x,
    p0.y,
    0,
    1,
  ];
  return `matrix3d(${m.map((v) => Number(v.toPrecision(9))).join()})`;
}

const round = (v: number) => Math.round(v * 1000) / 1000;
const places = (list: readonly Corner[]): [number, number][] => list.map(([x, y]) => [round(x), round(y)]);

/** The command that carries a piece to where it was moved; nothing when it was not. */
export function moveCommand(
  { piece: { box }, corners, mesh }: Moving,
  way: 'free' | 'corners' | 'mesh',
  layers: readonly string[],
  copy: boolean,
): Extract<Command, { do: 'transform' }> | undefined {
  const from: Corner[] = [
    [box.left, box.top],
    [box.right, box.top],
    [box.right, box.bottom],
    [box.left, box.bottom],
  ];
  const common: { do: 'transform'; layers: string[]; copy?: boolean } = {
    do: 'transform',
    layers: [...layers],
    ...(copy && { copy }),
  };
  const same = (a: readonly Corner[], b: readonly Corner[]) =>
    a.every(([x, y], i) => Math.hypot(x - b[i][0], y - b[i][1]) < 1e-3);
  if (way === 'mesh') {
    if (same(mesh, meshOver(from))) return undefined;
    return { ...common, from: places(from), mesh: { columns: MESH_SIDE, rows: MESH_SIDE, points: places(mesh) } };
  }
  if (same(corners, from)) return undefined;
  if (way === 'corners') return { ...common, from: places(from), corners: places(corners) };
  const [w, h] = [box.right - box.left, box.bottom - box.top];
  const [a, b] = [(corners[1][0] - corners[0][0]) / w, (corners[1][1] - corners[0][1]) / w];
  const [c, d] = [(corners[3][0] - corners[0][0]) / h, (corners[3][1] - corners[0][1]) / h];
  const exact = (v: number, to: number) => (Math.abs(v - to) < 1e-9 ? to : v);
  const m = [exact(a, 1), exact(b, 0), exact(c, 0), exact(d, 1)];
  const e = corners[0][0] - m[0] * box.left - m[2] * box.top;
  const f = corners[0][1] - m[1] * box.left - m[3] * box.top;
  return { ...common, matrix: [...m, e, f] };
}
