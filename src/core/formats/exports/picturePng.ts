import { pictureRaster } from '@/core/formats/planes';
import { encodePng } from '@/core/formats/png';
import type { ExportDefinition } from './definition';

const png = (label: string, lit: boolean): ExportDefinition => ({
  label,
  extension: 'png',
  type: 'image/png',
  make: ({ plainly, ppi }) => plainly((picture) => encodePng(pictureRaster(picture, lit), ppi)),
});

export const litPng = png('PNG picture, lit as you see it', true);
export const unlitPng = png('PNG picture, colour only', false);
