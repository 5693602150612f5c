import { derivePaint } from '@/core/colour/derivePaint';
import type { OwnPaint } from '@/core/colour/ownPaints';
import { PainterError } from '@/core/errors';
import { readCgats } from './cgats';
import { readCxf } from './cxf';
import { resampled, type SpectralSample } from './spectra';

/** Samples of a file of either kind, told apart by how it begins. @throws PainterError with a sentence */
export function readSpectra(text: string): SpectralSample[] {
  if (text.trim() === '') throw new PainterError('This file is empty.');
  if (text.includes('\u0000')) throw new PainterError('This is no text: spectra come as CGATS text or CxF3 XML.');
  return /^\uFEFF?\s*</.test(text) ? readCxf(text) : readCgats(text);
}

/** Which of the samples of a file is the masstone and which the tint, by their names and how light they are. */
export function pairUp(samples: readonly SpectralSample[]): { masstone: SpectralSample; tint: SpectralSample } {
  if (samples.length < 2) {
    throw new PainterError(
      `The file has ${samples.length === 1 ? `“${samples[0].name}” alone` : 'no sample'}: a paint is known from two, its masstone and a tint with white.`,
    );
  }
  const named = (word: RegExp) => samples.find((s) => word.test(s.name));
  const masstone = named(/mass|full|pure/i);
  const tint = named(/tint|white|reduc/i);
  if (masstone && tint && masstone !== tint) return { masstone, tint };
  const light = (s: SpectralSample) => s.reflectance.reduce((p, q) => p + q, 0) / s.reflectance.length;
  const [dark, pale] = [...samples]
    .sort((p, q) => light(p) - light(q))
    .filter((_, i, all) => i === 0 || i === all.length - 1);
  return { masstone: dark, tint: pale };
}

/**
 * A paint from two measured samples.
 * @param whiteParts parts of titanium white to one part of paint in the tint
 * @throws PainterError with a sentence when they do not tell a paint
 */
export function paintFrom(name: string, masstone: SpectralSample, tint: SpectralSample, whiteParts: number): OwnPaint {
  try {
    return derivePaint({ name, masstone: resampled(masstone), tint: resampled(tint), whiteParts });
  } catch (error) {
    if (error instanceof RangeError) throw new PainterError(error.message);
    throw error;
  }
}
