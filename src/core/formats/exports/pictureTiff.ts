import { pictureOf } from '@/core/formats/pictures/pictureOf';
import { encodeTiff } from '@/core/formats/pictures/tiff';
import { defineExport } from './definition';
import { shown, space } from './shared';

export const pictureTiff = defineExport({
  label: 'TIFF picture, 16 bit',
  purposes: ['print', 'program'],
  extension: 'tif',
  type: 'image/tiff',
  settings: { shown, space },
  make: ({ plainly, ppi, step }, chosen) =>
    plainly((picture) => {
      const raster = pictureOf(picture, chosen.shown, 16, chosen.space, step);
      return { bytes: encodeTiff(raster, ppi, chosen.space), px: [raster.width, raster.height] as const };
    }),
});
