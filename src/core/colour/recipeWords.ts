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

/** An amount beside one part of a mixture, in words: "a trace of", "a touch of", "a tenth of", "half as much". */
export function amountWords(amount: number): string {
  if (amount < 0.004) return 'a trace of';
  if (amount < 0.035) return 'a touch of';
  if (amount < 0.15) return 'a little';
  if (amount < 0.4) return 'a quarter as much';
  if (amount < 0.75) return 'half as much';
  return amount < 1.4 ? 'as much' : 'twice as much';
}

/**
 * A mixture whose parts sum to 1 as numbers that a painter would write down: the smallest that counts is about one
 * part, three digits each.
 */
export function inParts(mixture: Mixture): Record<string, number> {
  const parts = recipeInParts(mixture).filter(({ parts: n }) => n !== 'touch');
  const total = Object.values(mixture).reduce((p, q) => p + q, 0);
  const [first] = parts;
  const unit = mixture[first.id] / total / (first.parts as number);
  return Object.fromEntries(
    Object.entries(mixture)
      .filter(([, n]) => n > 0)
      .map(([id, n]) => [id, Number((n / total / unit).toPrecision(3))]),
  );
}

/** How near a recipe comes to what was asked, in words with the number. */
export const missWords = (deltaE: number): string =>
  `${deltaE < 1 ? 'met' : deltaE < 3 ? 'nearly met' : 'these tubes do not reach it'}, Delta E ${deltaE.toFixed(1)}`;
