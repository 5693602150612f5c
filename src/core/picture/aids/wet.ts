import { wetCode } from '@/core/picture/wetView';
import type { LookingAid } from './definition';

export const wet: LookingAid = {
  name: 'Wet',
  hint: 'See what is wet (blue-green; water blue), damp (pale blue), tacky (amber) and dry (grey)',
  onSill: true,
  see: (code, painting, x, y) => wetCode(painting, code, x, y),
};
