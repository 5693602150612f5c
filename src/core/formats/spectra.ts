import { PainterError } from '@/core/errors';
import { WAVELENGTHS } from '@/core/colour/spectrum';

/** A measured sample: what every file of spectra comes down to. */
export interface SpectralSample {
  readonly name: string;
  /** Rising, nm; and reflectance 0..1 at each. */
  readonly wavelengths: readonly number[];
  readonly reflectance: readonly number[];
}

/** Largest file of spectra, bytes; and most samples in one. */
export const MAX_SPECTRA_BYTES = 8 * 2 ** 20;
export const MAX_SAMPLES = 5000;
/** A spectrum must reach over this, nm, to be used. */
const NEEDED: readonly [number, number] = [410, 700];

/** @throws PainterError when a file is empty or larger than such a file can be */
export function checkSize(bytes: number): void {
  if (bytes === 0) throw new PainterError('This file is empty.');
  if (bytes > MAX_SPECTRA_BYTES) {
    throw new PainterError(
      `This file is larger than ${MAX_SPECTRA_BYTES / 2 ** 20} MB: measurements of paints are small.`,
    );
  }
}

/** @throws PainterError when a sample cannot be a reflectance */
export function checkSample({ name, wavelengths, reflectance }: SpectralSample): void {
  if (wavelengths.some((nm, i) => i > 0 && !(nm > wavelengths[i - 1]))) {
    throw new PainterError(`The wavelengths of “${name}” do not rise.`);
  }
  const wrong = reflectance.findIndex((r) => !Number.isFinite(r) || r < -0.02 || r > 2);
  if (wrong >= 0) {
    throw new PainterError(`“${name}” has ${reflectance[wrong]} at ${wavelengths[wrong]} nm, which is no reflectance.`);
  }
}

/**
 * Reflectance at the engine's wavelengths (380 to 730 nm in steps of 10), straight between those measured and held
 * beyond their ends.
 * @throws PainterError when the measurement leaves out too much of what the eye sees
 */
export function resampled(sample: SpectralSample): number[] {
  const { name, wavelengths: nm, reflectance: r } = sample;
  if (nm.length < 2 || nm[0] > NEEDED[0] || nm[nm.length - 1] < NEEDED[1]) {
    const range = nm.length > 0 ? `${nm[0]} to ${nm[nm.length - 1]} nm` : 'nothing';
    throw new PainterError(`“${name}” covers ${range}; a paint needs at least ${NEEDED[0]} to ${NEEDED[1]} nm.`);
  }
  return WAVELENGTHS.map((w) => {
    if (w <= nm[0]) return clip(r[0]);
    if (w >= nm[nm.length - 1]) return clip(r[r.length - 1]);
    const k = nm.findIndex((v) => v >= w);
    const t = (w - nm[k - 1]) / (nm[k] - nm[k - 1]);
    return clip(r[k - 1] + (r[k] - r[k - 1]) * t);
  });
}

const clip = (r: number) => Math.min(1, Math.max(0, r));

/** A name that fits into a file: one line, no quotes, not too long. */
export const plainName = (name: string): string =>
  name
    .replace(/["\u0000-\u001f\u007f]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 80) || 'sample';
