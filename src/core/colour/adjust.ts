import { z } from '@/core/schema';
import { hypot, maths } from '@/core/maths/maths';
import { decodeFast, encodeFast } from './rgbBands';

/**
 * Adjustments of a finished picture: levels, curves, hue and saturation, warmth, blur. They work on encoded sRGB, 0..1,
 * and stay changeable: an adjustment is data on a layer, or done to the pixels of a picture.
 */

const unit = z.number().min(0).max(1);
const levels = z.strictObject({
  black: unit.default(0).describe('What becomes the darkest'),
  white: unit.default(1).describe('What becomes the lightest'),
  gamma: z.number().min(0.1).max(10).default(1).describe('Over 1 lightens the middle'),
  outBlack: unit.default(0),
  outWhite: unit.default(1),
});
const curve = z
  .array(z.tuple([unit, unit]))
  .min(2)
  .max(16)
  .describe('Points of a curve, from left to right');

export const adjustmentSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('levels'),
    all: levels.prefault({}),
    red: levels.optional(),
    green: levels.optional(),
    blue: levels.optional(),
  }),
  z.strictObject({
    kind: z.literal('curves'),
    all: curve.optional(),
    red: curve.optional(),
    green: curve.optional(),
    blue: curve.optional(),
  }),
  z.strictObject({
    kind: z.literal('hue'),
    turn: z.number().min(-180).max(180).default(0).describe('Degrees round the circle of hues'),
    saturation: z.number().min(-1).max(1).default(0).describe('-1 grey .. 1 twice as strong'),
    lightness: z.number().min(-1).max(1).default(0),
  }),
  z.strictObject({
    kind: z.literal('warmth'),
    warmth: z.number().min(-1).max(1).default(0).describe('-1 as in shade .. 1 as by a lamp'),
    tint: z.number().min(-1).max(1).default(0).describe('-1 green .. 1 magenta'),
  }),
  z.strictObject({ kind: z.literal('blur'), radiusMm: z.number().min(0.05).max(30).default(1) }),
]);
export type Adjustment = z.infer<typeof adjustmentSchema>;
export type AdjustmentKind = Adjustment['kind'];
export type Levels = z.infer<typeof levels>;
export type Curve = z.infer<typeof curve>;

/** Changes the first `count` colours in place: rows of red, green and blue that stand `step` apart. */
export interface Adjuster {
  (rgb: Float32Array, step: number, count: number): void;
  /** Where each channel is changed by itself: what becomes of it, at even places. */
  readonly tables?: readonly Float32Array[];
}

const clamp = (v: number) => (v < 0 ? 0 : v > 1 ? 1 : v);

/** A value through levels. */
export function throughLevels({ black, white, gamma, outBlack, outWhite }: Levels, v: number): number {
  const t = clamp((v - black) / Math.max(1 / 1024, white - black));
  return outBlack + (outWhite - outBlack) * maths.pow(t, 1 / gamma);
}

/**
 * A smooth curve through points that does not overshoot (monotone cubic after Fritsch and Carlson 1980).
 * @returns the value of the curve at a place, 0..1
 */
export function curveThrough(points: Curve): (x: number) => number {
  const sorted = [...points].sort((p, q) => p[0] - q[0]).filter((p, i, all) => i === 0 || p[0] > all[i - 1][0]);
  const n = sorted.length;
  if (n === 1) return () => sorted[0][1];
  const slope = sorted.slice(1).map(([x, y], i) => (y - sorted[i][1]) / (x - sorted[i][0]));
  const m = sorted.map((_, i) => {
    if (i === 0) return slope[0];
    if (i === n - 1) return slope[n - 2];
    return slope[i - 1] * slope[i] <= 0 ? 0 : (slope[i - 1] + slope[i]) / 2;
  });
  slope.forEach((d, i) => {
    if (d === 0) {
      m[i] = m[i + 1] = 0;
      return;
    }
    const over = hypot(m[i] / d, m[i + 1] / d);
    if (over > 3) {
      m[i] *= 3 / over;
      m[i + 1] *= 3 / over;
    }
  });
  return (x) => {
    if (x <= sorted[0][0]) return sorted[0][1];
    if (x >= sorted[n - 1][0]) return sorted[n - 1][1];
    const i = sorted.findLastIndex((p) => p[0] <= x);
    const h = sorted[i + 1][0] - sorted[i][0];
    const t = (x - sorted[i][0]) / h;
    const [a, b] = [sorted[i][1], sorted[i + 1][1]];
    const t2 = t * t;
    const t3 = t2 * t;
    return clamp(
      (2 * t3 - 3 * t2 + 1) * a + (t3 - 2 * t2 + t) * h * m[i] + (3 * t2 - 2 * t3) * b + (t3 - t2) * h * m[i + 1],
    );
  };
}

/** Steps of the tables of adjusters; they have two values more. */
export const TABLE_STEPS = 1024;
type OneChannel = (v: number) => number;

/** Three functions of one channel each, by tables. */
function perChannel(channels: readonly OneChannel[]): Adjuster {
  return byTables(
    channels.map((f) => Float32Array.from({ length: TABLE_STEPS + 2 }, (_, i) => f(Math.min(1, i / TABLE_STEPS)))),
  );
}

function byTables(tables: readonly Float32Array[]): Adjuster {
  const adjust = (rgb: Float32Array, step: number, count: number): void => {
    for (let c = 0; c < 3; c++) {
      const table = tables[c];
      for (let k = c * step, end = k + count; k < end; k++) {
        const v = rgb[k];
        const t = v <= 0 ? 0 : v >= 1 ? TABLE_STEPS : v * TABLE_STEPS;
        const i = t | 0;
        rgb[k] = table[i] + (t - i) * (table[i + 1] - table[i]);
      }
    }
  };
  return Object.assign(adjust, { tables });
}

/** One adjustment that does what two do, where both change each channel by itself. */
export function fused(first: Adjuster, second: Adjuster): Adjuster | undefined {
  const { tables } = second;
  if (!first.tables || !tables) return undefined;
  return perChannel(first.tables.map((low, c) => (v: number) => lookUp(tables[c], lookUp(low, v))));
}

function lookUp(table: Float32Array, v: number): number {
  const t = clamp(v) * TABLE_STEPS;
  const i = t | 0;
  return table[i] + (t - i) * (table[i + 1] - table[i]);
}

/** Hue is turned and chroma scaled round the grey of the same luma (rotation in the plane of constant luma). */
function hueAdjuster({ turn, saturation, lightness }: Extract<Adjustment, { kind: 'hue' }>): Adjuster {
  const k = saturation < 0 ? 1 + saturation : 1 + saturation * saturation + saturation;
  const angle = (turn * Math.PI) / 180;
  const cos = maths.cos(angle) * k;
  const sin = (maths.sin(angle) * k) / Math.sqrt(3);
  const gain = lightness < 0 ? 1 + lightness : 1 - lightness;
  const lift = Math.max(0, lightness);
  return (rgb, step, count) => {
    for (let at = 0; at < count; at++) {
      const r = rgb[at];
      const g = rgb[at + step];
      const b = rgb[at + 2 * step];
      const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
      const mean = (r + g + b) / 3;
      // turned about the grey axis, then brought back to the luma that it had
      const x = mean + (r - mean) * cos + (b - g) * sin;
      const y = mean + (g - mean) * cos + (r - b) * sin;
      const z = mean + (b - mean) * cos + (g - r) * sin;
      const shift = luma - (0.2126 * x + 0.7152 * y + 0.0722 * z);
      rgb[at] = clamp((x + shift) * gain + lift);
      rgb[at + step] = clamp((y + shift) * gain + lift);
      rgb[at + 2 * step] = clamp((z + shift) * gain + lift);
    }
  };
}

/** The light gets warmer or cooler (gains on linear light), its luminance kept. */
function warmthAdjuster({ warmth, tint }: Extract<Adjustment, { kind: 'warmth' }>): Adjuster {
  const gains = [0.55 * warmth + 0.2 * tint, -0.3 * tint, -0.7 * warmth + 0.2 * tint].map((v) => maths.pow(2, v));
  const white = 0.2126 * gains[0] + 0.7152 * gains[1] + 0.0722 * gains[2];
  return perChannel(gains.map((gain) => (v: number) => encodeFast((decodeFast(v) * gain) / white)));
}

/** What an adjustment does to a colour; nothing for blur, which needs the colours around. */
export function adjuster(adjustment: Adjustment): Adjuster | undefined {
  switch (adjustment.kind) {
    case 'levels': {
      const { all, red, green, blue } = adjustment;
      return perChannel(
        [red, green, blue].map((own) => (v: number) => {
          const w = throughLevels(all, v);
          return own ? throughLevels(own, w) : w;
        }),
      );
    }
    case 'curves': {
      const through = (points?: Curve): OneChannel => (points ? curveThrough(points) : (v) => v);
      const all = through(adjustment.all);
      return perChannel(
        [adjustment.red, adjustment.green, adjustment.blue].map((own) => {
          const mine = through(own);
          return (v: number) => mine(all(v));
        }),
      );
    }
    case 'hue':
      return hueAdjuster(adjustment);
    case 'warmth':
      return warmthAdjuster(adjustment);
    case 'blur':
      return undefined;
  }
}
