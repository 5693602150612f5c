import { greyOfCode } from '@/core/picture/valueView';
import type { LookingAid } from './definition';

export const values: LookingAid = {
  name: 'Value',
  hint: 'See values only, on canvas and photo (V)',
  key: 'v',
  onSill: true,
  seeCode: greyOfCode,
};
