import { liftedDarks } from '@/core/study/looking/maps';
import type { LookingAid } from './definition';

export const lifted: LookingAid = {
  name: 'Lifted darks',
  hint: 'See into the darks: what is below a value is brightened, in the view alone',
  look: (image, { liftBelow }) => liftedDarks(image, liftBelow),
};
