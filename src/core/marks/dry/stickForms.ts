import { maths } from '@/core/maths/maths';
import { GRAPHITE } from '@/core/colour/pigments';
import type { Mixture } from '@/core/colour/mixture';

/** A dry stick: how it meets the tooth, and what it leaves there. Depths and heights in um. */
export interface StickForm {
  /**
   * How deep it gives into the sheet, and the sheet into it, mean over what it touches: hardly pressed, and what full
   * pressure adds. The load of the hand over the area of the contact: a point embosses the sheet by tens of um, a side
   * rides on its peaks.
   */
  readonly rests: number;
  readonly presses: number;
  /** Depth of contact in which it leaves most (1 - 1/e) of what it can. */
  readonly soft: number;
  /** Roughness of its own face, and of the streaks that it has along its way. */
  readonly rough: number;
  readonly streaks: number;
  /** How far its face falls off to the rim. */
  readonly rounded: number;
  /** Dust that one stroke leaves where it meets the sheet fully, and how many such strokes fill the tooth. */
  readonly most: number;
  readonly fills: number;
  /** How fast it wears: strokes in which most of that is left; share of the dust that crumbs off into the valleys. */
  readonly wears: number;
  readonly crumbs: number;
  /** How much of the dust that lies there it takes up again and mixes with its own. */
  readonly drags: number;
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
  rests: 1,
  presses: 12.5,
  soft: 12,
  rough: 9,
  streaks: 6,
  rounded: 30,
  most: 16,
  fills: 1.8,
  wears: 1.45,
  crumbs: 0.32,
  drags: 0.012,
  mixture: { PW6: 1 },
};

export const STICKS = {
  graphite: {
    ...pastel,
    rests: 0.8,
    presses: 24,
    soft: 7,
    rough: 3,
    streaks: 0,
    rounded: 9,
    most: 3.5,
    fills: 1.9,
    wears: 1.1,
    crumbs: 0.02,
    drags: 0.01,
    mixture: { [GRAPHITE]: 1 },
    fast: true,
    pointed: true,
  },
  charcoal: {
    ...pastel,
    rests: 0.6,
    presses: 11,
    soft: 9,
    rough: 10,
    streaks: 7,
    rounded: 30,
    most: 8,
    fills: 1.7,
    wears: 1.2,
    crumbs: 0.2,
    drags: 0.05,
    mixture: { PBk9: 1 },
  },
  'charcoal-pressed': {
    ...pastel,
    rests: 0.7,
    presses: 17,
    soft: 11,
    rough: 12,
    streaks: 4,
    rounded: 20,
    most: 10,
    fills: 2,
    wears: 1.3,
    crumbs: 0.26,
    drags: 0.04,
    mixture: { PBk9: 1 },
  },
  chalk: {
    ...pastel,
    rests: 0.7,
    presses: 12,
    soft: 9,
    rough: 9,
    streaks: 7,
    rounded: 24,
    most: 12,
    fills: 1.8,
    wears: 1.2,
    crumbs: 0.14,
    drags: 0.05,
  },
  'pastel-soft': pastel,
  'pastel-hard': {
    ...pastel,
    rests: 0.7,
    presses: 13,
    soft: 9,
    rough: 6,
    streaks: 4,
    rounded: 22,
    most: 12,
    fills: 1.8,
    wears: 1.1,
    crumbs: 0.06,
    drags: 0.03,
  },
  wax: {
    ...pastel,
    rests: 1.5,
    presses: 22,
    soft: 9,
    rough: 5,
    streaks: 4,
    rounded: 20,
    most: 10,
    fills: 1.8,
    wears: 1.2,
    crumbs: 0.02,
    drags: 0.02,
    fast: true,
    waxy: true,
  },
} as const satisfies Record<string, StickForm>;
export type StickName = keyof typeof STICKS;

/**
 * A pencil of another grade. Clay for graphite: a soft lead leaves more, wears faster, gives more and has a coarser
 * face; a hard one leaves a thin grey that no number of strokes makes dark. @param grade -6 (6H) .. 0 (HB) .. 8 (8B)
 */
export const graded = (form: StickForm, grade: number): StickForm => {
  if (grade === 0) return form;
  const by = (grades: number) => maths.pow(2, grade / grades);
  return {
    ...form,
    most: form.most * by(grade > 0 ? 6.5 : 3.6),
    fills: form.fills * by(grade > 0 ? 40 : 16),
    presses: form.presses * by(40),
    rough: form.rough * by(7),
    wears: form.wears * by(14),
    crumbs: form.crumbs * by(3),
  };
};
