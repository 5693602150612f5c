import type { Mixture } from '@/core/colour/mixture';
import { BANDS } from '@/core/colour/bands';
import { pigmentIndex } from '@/core/colour/pigments';

/** Strengths of a row: parts of black for one part of the colour, then parts of white. */
const SHADES = [0.5, 0.22, 0.08];
const TINTS = [1, 3, 9];

/** How much a tube colours, by its strongest absorption: weak tubes need less white in a tint of the same lightness. */
function strength(id: string): number {
  const at = pigmentIndex(id) * BANDS.count;
  let most = 0;
  for (let b = 0; b < BANDS.count; b++) most = Math.max(most, BANDS.K[at + b]);
  return most;
}

/**
 * A row of sticks of one tube: three shades, the colour, three tints. Black and white are the palette's own where it
 * has them.
 */
export function stickRow(id: string, tubes: readonly string[]): Mixture[] {
  const black = tubes.find((t) => t.startsWith('PBk')) ?? 'PBk9';
  const white = tubes.find((t) => t.startsWith('PW')) ?? 'PW6';
  if (id.startsWith('PW'))
    return [
      [black, 0.6],
      [black, 0.25],
      [black, 0.1],
      [black, 0.04],
      [black, 0.016],
      [black, 0.006],
    ]
      .map(([b, n]) => ({ [id]: 10, [b]: n as number }))
      .concat([{ [id]: 1 }]) as Mixture[];
  if (id.startsWith('PBk')) return [{ [id]: 1 }, ...[0.5, 2, 6, 16, 40, 100].map((n) => ({ [id]: 1, [white]: n }))];
  const lift = Math.min(4, Math.max(0.25, strength(id) / 100));
  const deep = Math.min(1.5, Math.max(0.2, strength(id) / 100));
  return [
    ...SHADES.map((n) => ({ [id]: 1, [black]: n * deep })),
    { [id]: 1 },
    ...TINTS.map((n) => ({ [id]: 1, [white]: n * lift })),
  ];
}
