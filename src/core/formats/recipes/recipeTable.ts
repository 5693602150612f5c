import { pigmentName } from '@/core/colour/pigments';
import { recipeWords } from '@/core/colour/recipeWords';
import type { RecipeBook } from './recipeBook';

/** Quotes a field of CSV (RFC 4180); what a spreadsheet would take for a formula is kept text by an apostrophe. */
function field(value: string | number): string {
  if (typeof value === 'number') return `${value}`;
  const text = /^[=+\-@\t\r]/.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text;
}

const line = (...fields: readonly (string | number)[]) => fields.map(field).join(',');
const round = (v: number, digits: number) => Number(v.toFixed(digits));

/** The recipe book as CSV in UTF-8: the tubes, then an empty line, then the mixtures. */
export function recipeCsv({ tubes, recipes, blended }: RecipeBook): string {
  return [
    line('tube', 'code', 'ml on canvas', 'ml needed', 'tubes to buy (ml)'),
    ...tubes.map(({ id, ml, needed, tubes: sizes }) =>
      line(pigmentName(id), id, round(ml, 2), round(needed, 2), sizes.join(' + ')),
    ),
    '',
    line('number', 'mixture', 'parts', 'colour', 'per cent of picture', 'x mm', 'y mm', 'first stroke', 'layer'),
    ...recipes.map(({ mixture, hex, share, place, firstStroke, layer }, i) =>
      line(
        i + 1,
        recipeWords(mixture),
        Object.entries(mixture)
          .sort(([, p], [, q]) => q - p)
          .map(([id, part]) => `${id} ${round(part, 4)}`)
          .join('; '),
        hex,
        round(100 * share, 2),
        round(place.x, 1),
        round(place.y, 1),
        firstStroke ?? '',
        layer ?? '',
      ),
    ),
    line('', 'blended on the canvas', '', '', round(100 * blended, 2), '', '', '', ''),
    '',
  ].join('\r\n');
}
