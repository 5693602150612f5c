import { recipeInParts, type Mixture } from '@/core/colour/mixture';
import { pigmentName } from '@/core/colour/pigments';

/** Tube names as they are said over a bench: without the shade in brackets or what everybody knows. */
export const shortName = (id: string): string =>
  pigmentName(id)
    .replace(/ \(.*\)/, '')
    .replace(/^(Titanium|Ivory|Quinacridone|Naphthol) /, '')
    .replace(/^Ultramarine Blue$/, 'Ultramarine');

/** A mixture in words: "3 White, 1 Yellow Ochre, a touch of Black". */
export function recipeWords(mixture: Mixture): string {
  const parts = recipeInParts(mixture);
  if (parts.length === 1) return shortName(parts[0].id);
  return parts
    .map(({ id, parts: n }) => (n === 'touch' ? `a touch of ${shortName(id)}` : `${n} ${shortName(id)}`))
    .join(', ');
}
