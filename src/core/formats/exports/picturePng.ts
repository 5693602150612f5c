import { pictureOf } from '@/core/formats/pictures/pictureOf';
import { pictureRaster } from '@/core/formats/planes';
import { encodePng } from '@/core/formats/png';
import { defineExport } from './definition';
import { bits, depth, shown, space } from './shared';

export const picturePng = defineExport({
  label: 'PNG picture',
  purposes: ['web', 'program', 'print'],
  extension: 'png',
  type: 'image/png',
  goesTo: 'print-shop',
  settings: { shown, depth, space },
  make: ({ plainly, ppi, step }, chosen) =>
    plainly((picture) => {
      // what is seen on the screen, code by code, where nothing finer is asked for
      const asShown =
        chosen.depth === '8' && chosen.space === 'srgb' && (chosen.shown === 'lit' || chosen.shown === 'unlit');
      const raster = asShown
        ? pictureRaster(picture, chosen.shown === 'lit')
        : pictureOf(picture, chosen.shown, bits(chosen.depth), chosen.space, step);
      return { bytes: encodePng(raster, ppi, chosen.space), px: [raster.width, raster.height] as const };
    }),
});
