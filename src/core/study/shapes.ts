/** Geometrical shapes as ways for a hand: drawn with the tool in hand, or as outlines. Lengths in mm. */
import { hypot, maths } from '@/core/maths/maths';
import type { Place } from './register';

export const SHAPE_KINDS = ['line', 'arc', 'rectangle', 'ellipse', 'polygon'] as const;
export type ShapeKind = (typeof SHAPE_KINDS)[number];

/** Shapes whose way ends where it began. */
export const isClosed = (kind: ShapeKind): boolean => kind !== 'line' && kind !== 'arc';

/** Angle to which a straight line is held, radians. */
const HELD_TO = Math.PI / 12;
/** Farthest that a way on a curve is from the curve, mm. */
const TRUE_MM = 0.02;

/**
 * The other end of a shape that is kept regular: a square or a circle, a line at a multiple of 15 degrees.
 * @param from where it was begun
 */
export function regular(kind: ShapeKind, from: Place, to: Place): Place {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  if (kind === 'rectangle' || kind === 'ellipse') {
    const side = Math.max(Math.abs(dx), Math.abs(dy));
    return { x: from.x + side * (dx < 0 ? -1 : 1), y: from.y + side * (dy < 0 ? -1 : 1) };
  }
  const angle = Math.round(maths.atan2(dy, dx) / HELD_TO) * HELD_TO;
  const length = hypot(dx, dy);
  return { x: from.x + length * maths.cos(angle), y: from.y + length * maths.sin(angle) };
}

/**
 * The way of a shape, corner by corner; curves in steps so short that nobody sees them.
 * @param points line: its ends; arc: its ends, and a place that it goes through; rectangle and ellipse: two corners of
 *   the box; polygon: its corners
 * @returns places in their order, the first again at the end of a closed one; fewer than two where it is no shape yet
 */
export function wayOf(kind: ShapeKind, points: readonly Place[]): readonly Place[] {
  const [a, b, c] = points;
  if (!a || !b) return points;
  switch (kind) {
    case 'line':
      return [a, b];
    case 'rectangle':
      return [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }, a];
    case 'ellipse':
      return ellipseWay(a, b);
    case 'arc':
      return c ? arcWay(a, b, c) : [a, b];
    case 'polygon':
      return points.length > 2 ? [...points, a] : points;
  }
}

/** Steps that a circle of a radius is gone round in. */
const stepsRound = (radius: number): number =>
  Math.max(24, Math.ceil(Math.PI / maths.acos(Math.max(0, 1 - TRUE_MM / Math.max(TRUE_MM, radius)))));

function ellipseWay(a: Place, b: Place): Place[] {
  const [x, y] = [(a.x + b.x) / 2, (a.y + b.y) / 2];
  const [rx, ry] = [Math.abs(b.x - a.x) / 2, Math.abs(b.y - a.y) / 2];
  const steps = stepsRound(Math.max(rx, ry));
  return Array.from({ length: steps + 1 }, (_, i) => {
    const turn = ((i % steps) / steps) * 2 * Math.PI;
    return { x: x + rx * maths.cos(turn), y: y + ry * maths.sin(turn) };
  });
}

/** The arc from one place to another through a third: of the circle around the three, or straight where they are in line. */
function arcWay(from: Place, to: Place, through: Place): Place[] {
  const [bx, by] = [to.x - from.x, to.y - from.y];
  const [cx, cy] = [through.x - from.x, through.y - from.y];
  const cross = 2 * (bx * cy - by * cx);
  const span = hypot(bx, by);
  // flatter than anybody draws: the circle would be larger than the room
  if (Math.abs(cross) < 1e-4 * span * span) return [from, to];
  const [bb, cc] = [bx * bx + by * by, cx * cx + cy * cy];
  const middle = { x: from.x + (cy * bb - by * cc) / cross, y: from.y + (bx * cc - cx * bb) / cross };
  const radius = hypot(from.x - middle.x, from.y - middle.y);
  const angle = (p: Place) => maths.atan2(p.y - middle.y, p.x - middle.x);
  const round = (v: number) => v - 2 * Math.PI * Math.floor(v / (2 * Math.PI));
  const start = angle(from);
  const [all, part] = [round(angle(to) - start), round(angle(through) - start)];
  const turn = part <= all ? all : all - 2 * Math.PI;
  const steps = Math.max(2, Math.ceil((stepsRound(radius) * Math.abs(turn)) / (2 * Math.PI)));
  const on = Array.from({ length: steps - 1 }, (_, i) => {
    const at = start + (turn * (i + 1)) / steps;
    return { x: middle.x + radius * maths.cos(at), y: middle.y + radius * maths.sin(at) };
  });
  return [from, ...on, to];
}

/** How a hand presses along a way, 0..1 of it: what it is called, and by how much of the full pressure. */
export const PRESSURES = {
  even: { name: 'even', of: () => 1 },
  swelling: { name: 'light, heavy, light', of: (s: number) => maths.sin(Math.PI * s) },
  falling: { name: 'heavy to light', of: (s: number) => 1 - s },
  rising: { name: 'light to heavy', of: (s: number) => s },
} as const satisfies Record<string, { name: string; of: (s: number) => number }>;
export type PressureKind = keyof typeof PRESSURES;

/** Pressures between which the curves go, and how fast the hand is: unhurried, with a reading about each half millimetre. */
const LEAST = 0.12;
const FULL = 0.72;
const MM_PER_S = 90;
const READING_MM = 0.5;

export const lengthOf = (way: readonly Place[]): number =>
  way.reduce((sum, p, i) => (i === 0 ? 0 : sum + hypot(p.x - way[i - 1].x, p.y - way[i - 1].y)), 0);

/**
 * Readings of a hand that draws a way: [t ms, x mm, y mm, pressure 0..1], rounded as those of a pen are. Corners are
 * readings of their own, so that they stay corners.
 */
export function handAlong(way: readonly Place[], pressure: PressureKind): [number, number, number, number][] {
  const whole = lengthOf(way);
  if (whole === 0) return [];
  const { of } = PRESSURES[pressure];
  const read = (p: Place, gone: number): [number, number, number, number] => [
    round((gone / MM_PER_S) * 1000, 10),
    round(p.x, 1000),
    round(p.y, 1000),
    round(LEAST + (FULL - LEAST) * of(gone / whole), 1000),
  ];
  const readings = [read(way[0], 0)];
  let gone = 0;
  for (let i = 1; i < way.length; i++) {
    const [a, b] = [way[i - 1], way[i]];
    const length = hypot(b.x - a.x, b.y - a.y);
    const steps = Math.max(1, Math.round(length / READING_MM));
    if (length === 0) continue;
    for (let n = 1; n <= steps; n++) {
      const k = n / steps;
      readings.push(read({ x: a.x + (b.x - a.x) * k, y: a.y + (b.y - a.y) * k }, gone + length * k));
    }
    gone += length;
  }
  // two readings of one moment are one
  return readings.filter(([t], i) => i === 0 || t > readings[i - 1][0]);
}

const round = (v: number, steps: number): number => Math.round(v * steps) / steps;
