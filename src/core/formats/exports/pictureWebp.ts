import { pictureOf } from '@/core/formats/pictures/pictureOf';
import { defineExport } from './definition';
import { litOrNot, quality } from './shared';

export const pictureWebp = defineExport({
  label: 'WebP picture',
  purposes: ['web'],
  extension: 'webp',
  type: 'image/webp',
  settings: { shown: litOrNot, quality },
  async make({ plainly, webp, step }, chosen) {
    const raster = plainly((picture) => pictureOf(picture, chosen.shown, 8, 'srgb', step));
    return { bytes: await webp(raster, chosen.quality), px: [raster.width, raster.height] as const };
  },
});
