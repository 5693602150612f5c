import { pictureOf } from '@/core/formats/pictures/pictureOf';
import { defineExport } from './definition';
import { litOrNot, quality } from './shared';

export const pictureWebp = defineExport({
  label: 'WebP picture',
  purposes: ['web'],
  extension: 'webp',
  type: 'image/webp',
  settings: { shown: litOrNot, quality },
  async make({ plainly, webp }, chosen) {
    const raster = plainly((picture) => pictureOf(picture, chosen.shown, 8, 'srgb'));
    return { bytes: await webp(raster, chosen.quality), px: [raster.width, raster.height] as const };
  },
});
