import { PainterError } from '@/core/errors';
import { encodeJpeg, jpegWithin } from '@/core/formats/pictures/jpeg';
import { pictureOf } from '@/core/formats/pictures/pictureOf';
import { smaller } from '@/core/formats/pictures/smaller';
import { defineExport } from './definition';
import { litOrNot, quality, space } from './shared';

export const pictureJpeg = defineExport({
  label: 'JPEG picture',
  purposes: ['web', 'print'],
  extension: 'jpg',
  type: 'image/jpeg',
  settings: { shown: litOrNot, quality, space },
  make: ({ plainly, ppi, step }, chosen) =>
    plainly((picture) => {
      const raster = pictureOf(picture, chosen.shown, 8, chosen.space, step);
      const bytes = encodeJpeg(raster, Math.round(chosen.quality), Math.round(ppi), chosen.space);
      return { bytes, px: [raster.width, raster.height] as const };
    }),
});

/** A web copy is looked at on screens: they have no size in inches. */
const WEB_PPI = 72;
const KB = 1000;

export const webCopy = defineExport({
  label: 'Web copy',
  goesTo: 'gallery',
  purposes: ['web'],
  extension: 'jpg',
  type: 'image/jpeg',
  settings: {
    longest: { kind: 'number', label: 'Longest side', unit: 'px', least: 64, most: 8000, step: 1, first: 2000 },
    most: { kind: 'number', label: 'No more than', unit: 'KB', least: 10, most: 20_000, step: 10, first: 800 },
    sharp: { kind: 'switch', label: 'Sharpened for its size', first: true },
    shown: litOrNot,
  },
  make: ({ plainly, step }, chosen) =>
    plainly((picture) => {
      const raster = smaller(
        pictureOf(picture, chosen.shown, 8, 'srgb', step),
        Math.round(chosen.longest),
        chosen.sharp,
      );
      const bytes = jpegWithin(raster, chosen.most * KB, 92, WEB_PPI, 'srgb');
      if (!bytes)
        throw new PainterError(
          `At ${raster.width} x ${raster.height} pixels it takes more than ${chosen.most} KB: make it smaller, or allow more.`,
        );
      return { bytes, px: [raster.width, raster.height] as const };
    }),
});
