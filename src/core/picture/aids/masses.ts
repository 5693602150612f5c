import type { CodeImage } from '@/core/study/looking/image';
import { findMasses, inMasses, massesWithin, valueCounts, type Masses } from '@/core/study/looking/masses';
import { squint } from '@/core/study/looking/squint';
import type { Looking, LookingAid } from './definition';

/** Masses of a picture as they are set: found, or between borders set by hand. */
export function massesOf(whole: CodeImage, { squintMm, masses: count, borders }: Looking): Masses {
  const counts = valueCounts({ codes: squint(whole, squintMm) });
  return borders ? { borders, of: massesWithin(counts, borders) } : findMasses(counts, count);
}

export const masses: LookingAid = {
  name: 'Masses',
  hint: 'See the few masses that it falls into by value',
  prepare: (whole, how): Masses => massesOf(whole, how),
  look: (image, _, prepared) => inMasses(image, prepared as Masses),
};
