import { maths } from '@/core/maths/maths';
import { GRAPHITE } from '@/core/colour/pigments';
import type { Mixture } from '@/core/colour/mixture';

/** A dry stick: how it meets the tooth, and what it leaves there. Depths and heights in um. */
export interface StickForm {
  /** How far below the peaks it reaches, share of the depth of the tooth: at no pressure, and what full pressure adds. */
  readonly rests: number;
  readonly presses: number;
  /** How gradually it meets the tooth. */
  readonly soft: number;
  /** Dust that one stroke leaves where it meets the tooth fully, and how high dust can stand above the peaks. */
  readonly most: number;
  readonly crest: number;
  /** How fast it wears: strokes in which most of that is left; share of the tooth on which crumbs fall in a stroke. */
  readonly wears: number;
  readonly crumbs: number;
  /** How much of the dust that lies there it takes up again and mixes with its own. */
  readonly drags: number;
  /** Unevenness of the stick itself, 0..1. */
  readonly uneven: number;
  /** What it is made of, where the painter has not said. */
  readonly mixture: Mixture;
  /** Its dust is not taken up by water. */
  readonly fast?: true;
  /** Leaves wax, which keeps washes off. */
  readonly waxy?: true;
  /** Always drawn with its point: a pencil. */
  readonly pointed?: true;
}

const pastel: StickForm = {
  rests: 0.05, presses: 0.3, soft: 14, most: 30, crest: 26, wears: 1.5, crumbs: 0.28, drags: 0.07, uneven: 0.25,
  mixture: { PW6: 1 },
}; // prettier-ignore

export const STICKS = {
  graphite: { ...pastel, rests: 0.08, presses: 0.62, soft: 12, most: 8, crest: 4, wears: 1.2, crumbs: 0.02, drags: 0.01, uneven: 0.05, mixture: { [GRAPHITE]: 1 }, fast: true, pointed: true },
  charcoal: { ...pastel, rests: 0.06, presses: 0.34, soft: 16, most: 8, crest: 7, wears: 1.6, crumbs: 0.25, drags: 0.05, uneven: 0.35, mixture: { PBk9: 1 } },
  'charcoal-pressed': { ...pastel, rests: 0.05, presses: 0.42, soft: 12, most: 16, crest: 10, wears: 1.4, crumbs: 0.1, drags: 0.04, uneven: 0.15, mixture: { PBk9: 1 } },
  chalk: { ...pastel, rests: 0.05, presses: 0.32, soft: 12, most: 15, crest: 12, wears: 1.3, crumbs: 0.14, drags: 0.05, uneven: 0.3 },
  'pastel-soft': pastel,
  'pastel-hard': { ...pastel, rests: 0.03, presses: 0.32, soft: 9, most: 13, crest: 9, wears: 1.1, crumbs: 0.06, drags: 0.03, uneven: 0.15 },
  wax: { ...pastel, rests: 0.06, presses: 0.36, soft: 12, most: 14, crest: 8, wears: 1.2, crumbs: 0.02, drags: 0.02, uneven: 0.2, fast: true, waxy: true },
} as const satisfies Record<string, StickForm>; // prettier-ignore
export type StickName = keyof typeof STICKS;

/** A pencil of another grade: B leaves more and reaches deeper, H less. @param grade -6 (6H) .. 0 (HB) .. 8 (8B) */
export const graded = (form: StickForm, grade: number): StickForm =>
  grade === 0
    ? form
    : { ...form, most: form.most * maths.pow(2, grade / 5), presses: form.presses * (1 + 0.04 * grade), soft: form.soft * (1 + 0.05 * grade) }; // prettier-ignore
