import { BANDS, type BandSet } from './bands';
import { linearToLab, type Triple } from './colorimetry';
import { filmReflectance, infiniteReflectance, toExternal, toInternal } from './kubelkaMunk';
import { pigmentIndex } from './pigments';

/** Parts by mass of tube paint, keyed by pigment id. Only the ratios matter. */
export type Mixture = Readonly<Record<string, number>>;

/** External reflectance of the white priming under every painting. */
export const PRIMING_EXTERNAL = 0.9;

/** The same mixture with parts that sum to 1. Parts of zero are dropped. */
export function normalise(mixture: Mixture): Record<string, number> {
  const entries = Object.entries(mixture).filter(([, part]) => part > 0);
  const total = entries.reduce((sum, [, part]) => sum + part, 0);
  return Object.fromEntries(entries.map(([id, part]) => [id, part / total]));
}

/** Absorption and scattering of `coats` of a mixture in reduced bands. */
function absorptionScattering(mixture: Mixture, coats: number, bands: BandSet) {
  const A = new Float64Array(bands.count);
  const S = new Float64Array(bands.count);
  for (const [id, part] of Object.entries(normalise(mixture))) {
    const row = pigmentIndex(id) * bands.count;
    for (let b = 0; b < bands.count; b++) {
      A[b] += part * coats * bands.K[row + b];
      S[b] += part * coats * bands.S[row + b];
    }
  }
  return { A, S };
}

/** Internal reflectance, in reduced bands, of `coats` of a mixture over a substrate (bands, or one value). */
export function filmBands(
  mixture: Mixture,
  coats: number,
  substrate: number | ArrayLike<number>,
  bands: BandSet = BANDS,
): Float64Array {
  const { A, S } = absorptionScattering(mixture, coats, bands);
  return A.map((a, b) => filmReflectance(a, S[b], typeof substrate === 'number' ? substrate : substrate[b]));
}

/** Internal reflectance, in reduced bands, of a mixture too thick to see through. */
export function masstoneBands(mixture: Mixture, bands: BandSet = BANDS): Float64Array {
  const { A, S } = absorptionScattering(mixture, 1, bands);
  return A.map((a, b) => infiniteReflectance(a, S[b]));
}

/** Linear sRGB of a surface whose internal reflectance in reduced bands is given. */
export function bandsToLinear(internal: ArrayLike<number>, bands: BandSet = BANDS): Triple {
  const rgb: Triple = [0, 0, 0];
  for (let b = 0; b < bands.count; b++) {
    const seen = toExternal(internal[b]);
    for (let c = 0; c < 3; c++) rgb[c] += seen * bands.toRgb[c * bands.count + b];
  }
  return rgb;
}

/** CIELAB of the masstone of a mixture. */
export const masstoneLab = (mixture: Mixture, bands: BandSet = BANDS): Triple =>
  linearToLab(bandsToLinear(masstoneBands(mixture, bands), bands));

/** Linear sRGB of the masstone of a mixture. */
export const masstoneLinear = (mixture: Mixture): Triple => bandsToLinear(masstoneBands(mixture));

/** Internal reflectance of the ground of a painting: priming, under two coats of the tone where there is one. */
/** @param paper external reflectance of bare paper at 420, 550 and 650 nm, in place of the priming */
export function groundBands(
  tone: Mixture | undefined,
  paper?: readonly [number, number, number],
  bands: BandSet = BANDS,
): Float64Array {
  const priming = new Float64Array(bands.count).fill(toInternal(PRIMING_EXTERNAL));
  if (paper) {
    const [blue, green, red] = paper;
    for (let b = 0; b < bands.count; b++) {
      const nm = bands.wavelengths[b];
      const t = nm < 550 ? Math.max(0, (nm - 420) / 130) : Math.min(1, (nm - 550) / 100);
      priming[b] = toInternal(nm < 550 ? blue + (green - blue) * t : green + (red - green) * t);
    }
  }
  return tone ? filmBands(tone, 2, priming, bands) : priming;
}

/**
 * Parts as a painter says them: small whole numbers, strongest first, with "a touch" for what is less than
 * a fifteenth of the largest part. Parts under 0.2 % of the whole are left out.
 */
export function recipeInParts(mixture: Mixture): { id: string; parts: number | 'touch' }[] {
  const parts = Object.entries(normalise(mixture))
    .filter(([, share]) => share >= 0.002)
    .sort((p, q) => q[1] - p[1]);
  if (parts.length === 0) return [];
  const largest = parts[0][1];
  const main = parts.filter(([, share]) => share >= largest / 15);
  const smallest = main[main.length - 1][1];
  let best = { error: Infinity, unit: smallest };
  for (let n = 1; n <= 4; n++) {
    const unit = smallest / n;
    const error = main.reduce((e, [, s]) => e + Math.abs(s / unit - Math.round(s / unit)) / (s / unit), 0) + 0.08 * n;
    if (error < best.error) best = { error, unit };
  }
  return parts.map(([id, share]) => ({
    id,
    parts: share < largest / 15 ? ('touch' as const) : Math.max(1, Math.round(share / best.unit)),
  }));
}
