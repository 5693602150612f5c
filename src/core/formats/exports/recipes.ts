import { pictureOf } from '@/core/formats/pictures/pictureOf';
import { recipeBook } from '@/core/formats/recipes/recipeBook';
import { recipeCsv } from '@/core/formats/recipes/recipeTable';
import { defineExport } from './definition';

export const recipesPdf = defineExport({
  label: 'Recipe book, PDF',
  purposes: ['paint'],
  extension: 'pdf',
  type: 'application/pdf',
  settings: {},
  async make({ plainly, studio, title, step }) {
    const { widthMm, heightMm } = studio.painting.spec;
    const [book, raster] = plainly((picture) => [
      recipeBook(picture, studio),
      pictureOf(picture, 'unlit', 8, 'srgb', step),
    ]);
    const { recipePdf } = await import('@/core/formats/recipes/recipePdf');
    return { bytes: await recipePdf(book, raster, { title, widthMm, heightMm }), says: saysOf(book) };
  },
});

export const recipesCsv = defineExport({
  label: 'Recipe book, table (CSV)',
  purposes: ['paint'],
  extension: 'csv',
  type: 'text/csv',
  settings: {},
  make: ({ plainly, studio }) =>
    plainly((picture) => {
      const book = recipeBook(picture, studio);
      return { bytes: new TextEncoder().encode(recipeCsv(book)), says: saysOf(book) };
    }),
});

const saysOf = ({ tubes, recipes }: ReturnType<typeof recipeBook>) => [
  `${tubes.length} tubes, ${recipes.length} mixtures that cover more than half a per cent.`,
];
