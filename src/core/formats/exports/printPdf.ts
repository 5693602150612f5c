import { pictureOf } from '@/core/formats/pictures/pictureOf';
import { recipeBook } from '@/core/formats/recipes/recipeBook';
import { defineExport } from './definition';
import { litOrNot } from './shared';

/** Below so many pixels an inch a print looks soft from arm's length. */
const ENOUGH_PPI = 200;

export const printPdf = defineExport({
  label: 'PDF at its real size',
  purposes: ['print'],
  extension: 'pdf',
  type: 'application/pdf',
  goesTo: 'print-shop',
  settings: {
    shown: litOrNot,
    margin: { kind: 'number', label: 'Margin', unit: 'mm', least: 0, most: 100, step: 1, first: 12 },
    bleed: { kind: 'number', label: 'Bleed', unit: 'mm', least: 0, most: 20, step: 0.5, first: 3 },
    marks: { kind: 'switch', label: 'Crop marks', first: true },
    packed: {
      kind: 'choice',
      label: 'Picture in it',
      choices: { exact: 'As it is', jpeg: 'Packed (JPEG)' },
      first: 'exact',
    },
    paints: { kind: 'switch', label: 'Paint list as second page', first: false },
  },
  async make({ plainly, ppi, title, studio, step }, chosen) {
    const { spec } = studio.painting;
    const [raster, paints] = plainly((picture) => [
      pictureOf(picture, chosen.shown, 8, 'srgb', step),
      chosen.paints ? recipeBook(picture, studio) : undefined,
    ]);
    // a page that only offers it need not load what writes it
    const { picturePdf } = await import('@/core/formats/print/picturePdf');
    const bytes = await picturePdf(raster, ppi, {
      widthMm: spec.widthMm,
      heightMm: spec.heightMm,
      marginMm: chosen.margin,
      bleedMm: chosen.bleed,
      cropMarks: chosen.marks,
      ...(chosen.packed === 'jpeg' && { quality: 95 }),
      title,
      paints,
    });
    const coarse =
      ppi < ENOUGH_PPI
        ? [
            `It has ${Math.round(ppi)} pixels an inch at ${Math.round(spec.widthMm)} x ${Math.round(spec.heightMm)} mm: soft from near. Painted at a finer resolution it would be sharper.`,
          ]
        : [];
    return { bytes, px: [raster.width, raster.height] as const, says: coarse };
  },
});
