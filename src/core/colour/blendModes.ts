/**
 * Blend modes of the W3C standard "Compositing and Blending Level 1" (sections 9.1 and 9.2). Colours are encoded sRGB,
 * 0..1, not multiplied by their alpha: `b` is the backdrop, `s` the source.
 */
export const BLEND_MODES = [
  'normal',
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
] as const;
export type BlendMode = (typeof BLEND_MODES)[number];

/** Blends one channel. */
type Separable = (b: number, s: number) => number;
/** Blends three channels at once, into `out` at `at`. */
type Whole = (b: readonly number[], s: readonly number[], out: Float32Array, at: number, step: number) => void;

const multiply: Separable = (b, s) => b * s;
const screen: Separable = (b, s) => b + s - b * s;
const hardLight: Separable = (b, s) => (s <= 0.5 ? multiply(b, 2 * s) : screen(b, 2 * s - 1));

function softLight(b: number, s: number): number {
  if (s <= 0.5) return b - (1 - 2 * s) * b * (1 - b);
  const d = b <= 0.25 ? ((16 * b - 12) * b + 4) * b : Math.sqrt(b);
  return b + (2 * s - 1) * (d - b);
}

const SEPARABLE: Partial<Record<BlendMode, Separable>> = {
  normal: (_, s) => s,
  multiply,
  screen,
  overlay: (b, s) => hardLight(s, b),
  darken: Math.min,
  lighten: Math.max,
  'color-dodge': (b, s) => (b <= 0 ? 0 : s >= 1 ? 1 : Math.min(1, b / (1 - s))),
  'color-burn': (b, s) => (b >= 1 ? 1 : s <= 0 ? 0 : 1 - Math.min(1, (1 - b) / s)),
  'hard-light': hardLight,
  'soft-light': softLight,
  difference: (b, s) => Math.abs(b - s),
  exclusion: (b, s) => b + s - 2 * b * s,
};

const lum = ([r, g, b]: readonly number[]) => 0.3 * r + 0.59 * g + 0.11 * b;
const sat = ([r, g, b]: readonly number[]) => Math.max(r, g, b) - Math.min(r, g, b);

/** Less than any colour on a screen differs by. */
const NOTHING = 1e-9;

/** Sets a colour to a luminosity and clips it into the cube (SetLum, ClipColor). */
function setLum(c: readonly number[], l: number, out: Float32Array, at: number, step: number): void {
  const d = l - lum(c);
  const [r, g, b] = [c[0] + d, c[1] + d, c[2] + d];
  const now = lum([r, g, b]);
  const low = Math.min(r, g, b);
  const high = Math.max(r, g, b);
  let k = 1;
  // a grey that rounding has taken out of the cube is no colour to be pulled back
  if (low < 0 && now - low > NOTHING) k = now / (now - low);
  if (high > 1 && high - now > NOTHING) k = Math.min(k, (1 - now) / (high - now));
  out[at] = now + (r - now) * k;
  out[at + step] = now + (g - now) * k;
  out[at + 2 * step] = now + (b - now) * k;
}

/** The colour with another saturation, its least channel at 0 (SetSat). */
function setSat(c: readonly number[], s: number): number[] {
  const low = Math.min(c[0], c[1], c[2]);
  const range = Math.max(c[0], c[1], c[2]) - low;
  return range > 0 ? c.map((v) => ((v - low) * s) / range) : [0, 0, 0];
}

const WHOLE: Partial<Record<BlendMode, Whole>> = {
  hue: (b, s, ...to) => setLum(setSat(s, sat(b)), lum(b), ...to),
  saturation: (b, s, ...to) => setLum(setSat(b, sat(s)), lum(b), ...to),
  color: (b, s, ...to) => setLum(s, lum(b), ...to),
  luminosity: (b, s, ...to) => setLum(b, lum(s), ...to),
};

const blended = new Float32Array(3);
const below = [0, 0, 0];
const above = [0, 0, 0];

/**
 * Composites a source over an opaque backdrop in place: co = (1 - as) cb + as B(cb, cs).
 * @param rgb rows of red, green and blue, `step` apart, in which the backdrop stands at `at`
 */
export function blendOver(
  mode: BlendMode,
  rgb: Float32Array,
  at: number,
  step: number,
  r: number,
  g: number,
  b: number,
  alpha: number,
): void {
  const one = SEPARABLE[mode];
  if (one) {
    const [i, j] = [at + step, at + 2 * step];
    rgb[at] += alpha * (one(rgb[at], r) - rgb[at]);
    rgb[i] += alpha * (one(rgb[i], g) - rgb[i]);
    rgb[j] += alpha * (one(rgb[j], b) - rgb[j]);
    return;
  }
  for (let c = 0; c < 3; c++) below[c] = rgb[at + c * step];
  above[0] = r;
  above[1] = g;
  above[2] = b;
  WHOLE[mode]!(below, above, blended, 0, 1);
  for (let c = 0; c < 3; c++) rgb[at + c * step] += alpha * (blended[c] - below[c]);
}

/**
 * Composites a run of pixels over opaque colours in place.
 * @param rgb rows of red, green and blue, `step` apart @param pixels codes 0xAABBGGRR, the run begins at `from`
 * @param opacity share of all of them @param shares share of each pixel, at the same places, or undefined
 */
export function blendRow(
  mode: BlendMode,
  rgb: Float32Array,
  step: number,
  count: number,
  pixels: Uint32Array,
  from: number,
  opacity: number,
  shares: Float32Array | undefined,
): void {
  for (let x = 0; x < count; x++) {
    const v = pixels[from + x];
    if (v < 0x01000000) continue;
    const alpha = (v >>> 24) * BYTE * opacity * (shares ? shares[from + x] : 1);
    blendOver(mode, rgb, x, step, (v & 255) * BYTE, ((v >>> 8) & 255) * BYTE, ((v >>> 16) & 255) * BYTE, alpha);
  }
}
const BYTE = 1 / 255;

/**
 * Composites a source over a backdrop that may be see-through (section 5 of the standard): what the source covers of
 * the backdrop is blended, what it covers of nothing is its own colour.
 * @param rgba colours 0..1 with alpha; the backdrop, replaced by the result
 */
export function blendOnto(mode: BlendMode, rgba: Float32Array, r: number, g: number, b: number, alpha: number): void {
  const backdrop = rgba[3];
  const all = alpha + backdrop * (1 - alpha);
  if (all <= 0) return;
  for (let c = 0; c < 3; c++) blended3[c] = rgba[c];
  blendOver(mode, blended3, 0, 1, r, g, b, 1);
  above[0] = r;
  above[1] = g;
  above[2] = b;
  for (let c = 0; c < 3; c++) {
    const source = (1 - backdrop) * above[c] + backdrop * blended3[c];
    rgba[c] = (alpha * source + (1 - alpha) * backdrop * rgba[c]) / all;
  }
  rgba[3] = all;
}
const blended3 = new Float32Array(3);
