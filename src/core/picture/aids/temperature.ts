import { temperatureMap, temperatureReach } from '@/core/study/looking/maps';
import type { LookingAid } from './definition';

export const temperature: LookingAid = {
  name: 'Temperature',
  hint: 'See what is warmer (amber) and cooler (striped blue) than what is around it',
  reachMm: ({ aroundMm }) => temperatureReach(aroundMm),
  broadMm: ({ aroundMm }) => aroundMm,
  later: {},
  look: (image, { aroundMm }, _, at, broad) => temperatureMap(image, aroundMm, at, broad),
};
