import { findMasses, inMasses, valueCounts, type Masses } from '@/core/study/looking/masses';
import { squint } from '@/core/study/looking/squint';
import type { LookingAid } from './definition';

export const masses: LookingAid = {
  name: 'Masses',
  hint: 'See the few masses that it falls into by value',
  prepare(whole, { squintMm, masses: count }): Masses {
    return findMasses(valueCounts({ codes: squint(whole, squintMm) }), count);
  },
  look: (image, _, prepared) => inMasses(image, prepared as Masses),
};
