import type { Pigment } from '@/core/colour/pigments';
import { masstoneLab } from '@/core/colour/mixture';
import { chroma, hue } from '@/core/colour/colorimetry';

/** What tubes can be looked for by, beside their name. */
export const FILTERS = [
  { value: 'transparent', label: 'transparent' },
  { value: 'semi', label: 'half transparent' },
  { value: 'opaque', label: 'opaque' },
  { value: 'strong', label: 'strong tinting' },
  { value: 'weak', label: 'weak tinting' },
  { value: 'granulating', label: 'granulating' },
  { value: 'staining', label: 'staining' },
  { value: 'lifting', label: 'lifts off' },
  { value: 'fast', label: 'dries fast' },
  { value: 'slow', label: 'dries slowly' },
  { value: 'lightfast', label: 'lightfast I' },
  { value: 'own', label: 'own paints' },
] as const;
export type Filter = (typeof FILTERS)[number]['value'];

export function passes(p: Pigment, filter: Filter): boolean {
  switch (filter) {
    case 'transparent':
    case 'semi':
    case 'opaque':
      return p.transparency === filter;
    case 'strong':
      return p.tintingStrength >= 2;
    case 'weak':
      return p.tintingStrength > 0 && p.tintingStrength < 0.3;
    case 'granulating':
      return p.granulation >= 0.5;
    case 'staining':
      return p.staining >= 0.65;
    case 'lifting':
      return p.staining <= 0.3;
    case 'fast':
      return p.dryFactor <= 0.8;
    case 'slow':
      return p.dryFactor >= 1.2;
    case 'lightfast':
      return p.lightfast === 'I';
    case 'own':
      return p.id.startsWith('own-');
  }
}

/** The family that a tube is sought under, by its masstone and tint. */
export function familyOf(p: Pigment): string {
  const lab = masstoneLab({ [p.id]: 1, PW6: p.tintingStrength > 0 ? 3 : 0 });
  const [C, h] = [chroma(lab), hue(lab)];
  if (C < 8) return lab[0] > 80 ? 'white' : 'black grey';
  if (h < 20 || h >= 330) return 'red rose';
  if (h < 45) return 'red earth';
  if (h < 70) return 'orange brown earth';
  if (h < 110) return 'yellow';
  if (h < 195) return 'green';
  return h < 295 ? 'blue' : 'violet';
}

const tinting = (s: number) =>
  s === 0 ? 'white' : s < 0.3 ? 'weak' : s < 1.5 ? 'medium' : s < 3.5 ? 'strong' : 'very strong';
const drying = (f: number) => (f <= 0.8 ? 'fast' : f <= 1.15 ? 'middling' : 'slow');
const share = (v: number, words: readonly [string, string, string]) => words[v < 0.3 ? 0 : v < 0.6 ? 1 : 2];

/** What the label of a tube says, name and value. */
export const factsOf = (p: Pigment): readonly (readonly [string, string])[] => [
  ['Hides', `${Math.round(p.hiding * 100)} %`],
  ['Tinting', tinting(p.tintingStrength)],
  ['Grain', share(p.granulation, ['smooth', 'some', 'granulates'])],
  ['Stain', share(p.staining, ['lifts', 'some', 'stains'])],
  ['Dries', drying(p.dryFactor)],
  ['Lightfast', p.lightfast ?? 'not tested'],
];
