import { chromaMap } from '@/core/study/looking/maps';
import type { LookingAid } from './definition';

export const chroma: LookingAid = {
  name: 'Chroma',
  hint: 'See how strong colours are: neutral is dark, strong is light',
  look: (image) => chromaMap(image),
};
