import { maths } from '@/core/maths/maths';
import { z } from '@/core/schema';

/** A reading of the hand on a pad: time in ms from the beginning, place in pad units (as wide as high), pressure 0..1. */
const reading = z.tuple([
  z.number().min(0).max(1e6),
  z.number().min(-20).max(20),
  z.number().min(-20).max(20),
  z.number().min(0).max(1),
]);
const MOST_STROKES = 60;
const MOST_READINGS = 4000;

/** A signature or a monogram as it was drawn. */
export const signatureSchema = z.array(z.array(reading).min(1).max(MOST_READINGS)).min(1).max(MOST_STROKES);
export type Signature = readonly (readonly (readonly [t: number, x: number, y: number, pressure: number])[])[];

/** Where it is to stand. */
export interface SignaturePlace {
  /** Its middle, mm. */
  readonly x: number;
  readonly y: number;
  /** Height of what was drawn, mm, and its turn, degrees clockwise. */
  readonly heightMm: number;
  readonly turn: number;
}

interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** The box around what was drawn, pad units. */
export function boxOf(signature: Signature): Box {
  const all = signature.flat();
  const low = (axis: 1 | 2) => all.reduce((least, r) => Math.min(least, r[axis]), Infinity);
  const high = (axis: 1 | 2) => all.reduce((most, r) => Math.max(most, r[axis]), -Infinity);
  const [left, top] = [low(1), low(2)];
  return { left, top, width: high(1) - left, height: high(2) - top };
}

/** Least height and width that is scaled by: a single dot stays a dot. */
const LEAST = 0.02;

/**
 * The strokes of a signature on the canvas.
 * @returns readings of each: [t ms, x mm, y mm, pressure]; quick where the hand was quick
 */
export function placedStrokes(signature: Signature, { x, y, heightMm, turn }: SignaturePlace): number[][][] {
  const { left, top, width, height } = boxOf(signature);
  const scale = heightMm / Math.max(LEAST, height);
  const [middleX, middleY] = [left + width / 2, top + height / 2];
  const angle = (turn * Math.PI) / 180;
  const [cos, sin] = [maths.cos(angle), maths.sin(angle)];
  return signature.map((stroke) =>
    stroke.map(([t, u, v, pressure]) => {
      const [across, down] = [(u - middleX) * scale, (v - middleY) * scale];
      return [t - stroke[0][0], x + cos * across - sin * down, y + sin * across + cos * down, pressure];
    }),
  );
}

/** Figures as they are written with one hand: ways through a field one wide and two high. */
// prettier-ignore
const FIGURES: Readonly<Record<string, readonly (readonly (readonly [number, number])[])[]>> = {
  '0': [[[0.5, 0], [0.05, 0.5], [0, 1.2], [0.25, 1.9], [0.6, 2], [0.95, 1.5], [1, 0.7], [0.75, 0.1], [0.5, 0]]],
  '1': [[[0.2, 0.4], [0.6, 0], [0.55, 2]]],
  '2': [[[0.05, 0.5], [0.3, 0.05], [0.75, 0.05], [0.9, 0.5], [0.5, 1.2], [0, 1.95], [0.5, 1.85], [1, 2]]],
  '3': [[[0.1, 0.2], [0.5, 0], [0.9, 0.3], [0.75, 0.75], [0.4, 0.95], [0.9, 1.15], [0.95, 1.65], [0.5, 2], [0.05, 1.75]]],
  '4': [[[0.6, 0], [0, 1.3], [1, 1.25]], [[0.7, 0.8], [0.65, 2]]],
  '5': [[[0.25, 0.1], [0.15, 0.85], [0.6, 0.75], [0.95, 1.2], [0.85, 1.75], [0.4, 2], [0, 1.8]], [[0.25, 0.1], [0.9, 0.05]]],
  '6': [[[0.8, 0], [0.25, 0.7], [0, 1.4], [0.3, 1.95], [0.8, 1.85], [0.95, 1.4], [0.6, 1.05], [0.1, 1.3]]],
  '7': [[[0, 0.1], [0.95, 0.05], [0.55, 0.9], [0.35, 2]]],
  '8': [[[0.85, 0.3], [0.5, 0], [0.15, 0.3], [0.3, 0.75], [0.75, 1.15], [0.95, 1.6], [0.5, 2], [0.05, 1.6], [0.3, 1.1], [0.8, 0.65], [0.85, 0.3]]],
  '9': [[[0.9, 0.5], [0.6, 0.05], [0.15, 0.2], [0.1, 0.75], [0.5, 0.95], [0.85, 0.6], [0.9, 0.3], [0.75, 1.3], [0.5, 2]]],
  '.': [[[0.3, 1.95], [0.36, 2]]],
};
/** From one figure to the next, and readings between two corners of a way. */
const ADVANCE = 1.45;
const BETWEEN = 5;
const MS_A_READING = 9;

/** A date in strokes, as high as 1 pad unit. @param text figures and points alone */
export function writtenDate(text: string): Signature {
  return [...text].flatMap((figure, place) =>
    (FIGURES[figure] ?? []).map((way) => {
      const readings = smooth(way).map(([x, y]) => [(x + place * ADVANCE) / 2, y / 2] as const);
      return readings.map(([x, y], i) => {
        const s = i / Math.max(1, readings.length - 1);
        return [i * MS_A_READING, x, y, 0.55 * Math.min(1, 0.4 + 4 * s, 0.4 + 4 * (1 - s))] as const;
      });
    }),
  );
}

/** A way through corners as a hand goes it: Catmull and Rom 1974. */
function smooth(way: readonly (readonly [number, number])[]): [number, number][] {
  const at = (i: number) => way[Math.max(0, Math.min(way.length - 1, i))];
  const out: [number, number][] = [];
  for (let i = 0; i < way.length - 1; i++) {
    const [a, b, c, d] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
    for (let k = 0; k < BETWEEN; k++) {
      const t = k / BETWEEN;
      const between = (axis: 0 | 1) =>
        b[axis] +
        0.5 *
          t *
          (c[axis] -
            a[axis] +
            t *
              (2 * a[axis] - 5 * b[axis] + 4 * c[axis] - d[axis] + t * (3 * (b[axis] - c[axis]) + d[axis] - a[axis])));
      out.push([between(0), between(1)]);
    }
  }
  const [x, y] = at(way.length - 1);
  out.push([x, y]);
  return out;
}

/** A signature with a date under its right half, smaller. */
export function withDate(signature: Signature, text: string): Signature {
  if (text === '') return signature;
  const box = boxOf(signature);
  const written = writtenDate(text);
  const own = boxOf(written);
  const height = Math.max(LEAST, box.height) * DATE_HIGH;
  const scale = height / own.height;
  const left = box.left + box.width - own.width * scale;
  const top = box.top + box.height + height * DATE_BELOW;
  const moved = written.map((stroke) =>
    stroke.map(([t, x, y, p]) => [t, left + (x - own.left) * scale, top + (y - own.top) * scale, p] as const),
  );
  return [...signature, ...moved];
}
const DATE_HIGH = 0.32;
const DATE_BELOW = 0.45;
