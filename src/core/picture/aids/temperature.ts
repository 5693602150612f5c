import { temperatureMap, temperatureReach } from '@/core/study/looking/maps';
import type { LookingAid } from './definition';

export const temperature: LookingAid = {
  name: 'Temperature',
  hint: 'See what is warmer (amber) and cooler (striped blue) than what is around it',
  reachMm: ({ aroundMm }) => temperatureReach(aroundMm),
  look: (image, { aroundMm }, _, { x, y }) => temperatureMap(image, aroundMm, x, y),
};
