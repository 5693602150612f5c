import { BANDS } from './bands';
import { decodeSrgb, encodeSrgb } from './colorimetry';

/**
 * From bands to colours on a screen and back. Coming back, a colour is carried by the bands that were there before: what
 * it differs by is spread over three smooth spectra, so that colours come out exactly and greys stay flat.
 */

const { count, toRgb } = BANDS;

/**
 * Spectra that add one channel of linear sRGB and nothing of the others, [channel * bands + band]: the smallest ones
 * (least squares) that together are flat.
 */
export const CHANNEL_SPECTRA = channelSpectra();

function channelSpectra(): Float64Array {
  const row = (c: number, b: number) => toRgb[c * count + b];
  const gram = [0, 1, 2].map((c) =>
    [0, 1, 2].map((d) => {
      let sum = 0;
      for (let b = 0; b < count; b++) sum += row(c, b) * row(d, b);
      return sum;
    }),
  );
  const [[a, b, c], [d, e, f], [g, h, i]] = gram;
  const det = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
  const inverse = [
    [e * i - f * h, c * h - b * i, b * f - c * e],
    [f * g - d * i, a * i - c * g, c * d - a * f],
    [d * h - e * g, b * g - a * h, a * e - b * d],
  ].map((line) => line.map((v) => v / det));
  const out = new Float64Array(3 * count);
  for (let band = 0; band < count; band++) {
    let sum = 0;
    for (let k = 0; k < 3; k++) {
      for (let m = 0; m < 3; m++) out[k * count + band] += row(m, band) * inverse[m][k];
      sum += out[k * count + band];
    }
    // all three together: exactly flat
    for (let k = 0; k < 3; k++) out[k * count + band] += (1 - sum) / 3;
  }
  return out;
}

/** Steps of the tables below; between them it is interpolated. */
export const CURVE_STEPS = 2048;
const STEPS = CURVE_STEPS;
/** The transfer curve at the squares of even places, for kernels. */
export const encoded = Float32Array.from({ length: STEPS + 2 }, (_, i) => encodeSrgb((i / STEPS) ** 2));
const decoded = Float32Array.from({ length: STEPS + 2 }, (_, i) => decodeSrgb(i / STEPS));

/** sRGB transfer curve from a table, within 2e-5; outside 0..1 it is cut off. */
export function encodeFast(v: number): number {
  if (v <= 0) return 0;
  if (v >= 1) return 1;
  const t = Math.sqrt(v) * STEPS;
  const i = t | 0;
  return encoded[i] + (t - i) * (encoded[i + 1] - encoded[i]);
}

/** The inverse of encodeFast. */
export function decodeFast(v: number): number {
  if (v <= 0) return 0;
  if (v >= 1) return 1;
  const t = v * STEPS;
  const i = t | 0;
  return decoded[i] + (t - i) * (decoded[i + 1] - decoded[i]);
}
