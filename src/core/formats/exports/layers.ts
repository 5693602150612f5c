import { openRaster } from '@/core/formats/layered/openRaster';
import { defineExport } from './definition';

export const layersOra = defineExport({
  label: 'OpenRaster, in layers',
  purposes: ['program'],
  extension: 'ora',
  type: 'image/openraster',
  settings: {},
  make: ({ plainly, step }) =>
    plainly(({ painting }) => {
      const { bytes, laidIn } = openRaster(painting, step);
      return { bytes, px: [painting.width, painting.height] as const, says: laidIn };
    }),
});
