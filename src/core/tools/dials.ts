import type { HeldTool } from '@/core/marks/heldTool';

/** Something that a painter sets on a scale. */
export interface Dial {
  readonly label: string;
  readonly hint?: string;
  /** Place on its scale, 0..1. */
  readonly at: (held: HeldTool) => number;
  /** What is set at a place of the scale. */
  readonly set: (at: number) => Partial<HeldTool>;
  readonly say: (at: number) => string;
  /** Settings that are taken at once, in words. */
  readonly presets?: readonly { readonly name: string; readonly at: number }[];
}

/** One of a few ways in which a tool can be held. */
export interface Way {
  readonly label: string;
  /** Key that goes on to the next. */
  readonly key?: string;
  readonly at: (held: HeldTool) => string;
  readonly options: readonly { readonly name: string; readonly value: string; readonly set: Partial<HeldTool> }[];
}

/** What is set to go on from the way in which a tool is held to the next. */
export function nextOf({ at, options }: Way, held: HeldTool): Partial<HeldTool> {
  const now = options.findIndex(({ value }) => value === at(held));
  return options[(now + 1) % options.length].set;
}

export const percent = (v: number): string => `${Math.round(v * 100)} %`;
export const hundredths = (v: number): number => Math.round(v * 100) / 100;

type Share = { [K in keyof HeldTool]: HeldTool[K] extends number ? K : never }[keyof HeldTool];

/** A share of one, 0..1. */
const share = (key: Share, label: string, hint?: string, say: (v: number) => string = percent, least = 0): Dial => ({
  label,
  hint,
  say,
  at: (held) => held[key],
  set: (at) => ({ [key]: Math.max(least, hundredths(at)) }),
});

/** How stiff paint is, in words. */
export const bodyWords = (v: number): string => (v < 0.25 ? 'fluid' : v < 0.7 ? 'normal' : v < 0.9 ? 'stiff' : 'paste');

/** How wet a brush is, in words. */
export const wetnessWords = (water: number): string =>
  water < 0.15 ? 'nearly dry' : water < 0.4 ? 'damp' : water < 0.65 ? 'moist' : water < 0.85 ? 'wet' : 'dripping';

/** A pencil's grade as it is stamped on it. */
export const gradeWords = (grade: number): string => (grade === 0 ? 'HB' : grade < 0 ? `${-grade}H` : `${grade}B`);

/** Sizes on the rule, mm: it runs evenly over their logarithm. */
const LEAST_MM = 0.3;
const MOST_MM = 80;
const onRule = (at: number): number => {
  const mm = LEAST_MM * (MOST_MM / LEAST_MM) ** at; // eslint-disable-line no-restricted-syntax -- a rule, and no paint
  return mm < 10 ? Math.round(mm * 10) / 10 : Math.round(mm);
};

/** Where a size stands on the rule, 0..1. */
const onRuleAt = (mm: number): number => Math.log(mm / LEAST_MM) / Math.log(MOST_MM / LEAST_MM); // eslint-disable-line no-restricted-syntax -- a rule, and no paint

export const DIALS = {
  size: {
    label: 'Size',
    at: ({ sizeMm }) => onRuleAt(sizeMm),
    set: (at) => ({ sizeMm: onRule(at) }),
    say: (at) => `${onRule(at)} mm`,
    presets: [
      { name: 'fine, 1 mm', mm: 1 },
      { name: 'small, 3 mm', mm: 3 },
      { name: 'middle, 8 mm', mm: 8 },
      { name: 'large, 20 mm', mm: 20 },
      { name: 'house, 50 mm', mm: 50 },
    ].map(({ name, mm }) => ({ name, at: onRuleAt(mm) })),
  },
  strength: share('strength', 'Strength', undefined, percent, 0.02),
  howStrong: share('strength', 'How strong', undefined, percent, 0.02),
  howWet: share('water', 'How wet', 'How much water is taken up when it is loaded next', wetnessWords),
  blend: share('blend', 'Lay – blend', 'From only laying paint to only moving what is there'),
  body: share('body', 'Body', 'How stiff the paint is that is loaded next', bodyWords),
  solvent: share('solvent', 'Solvent', 'Wet with solvent it takes tacky paint and the stain'),
  gel: share('gel', 'Gel', 'What is not gel is more of the same paint'),
  grade: {
    label: 'Grade',
    hint: 'Hard and pale to soft and dark',
    at: ({ grade }) => (grade + 6) / 14,
    set: (at) => ({ grade: Math.round(at * 14) - 6 }),
    say: (at) => gradeWords(Math.round(at * 14) - 6),
  },
  distance: {
    label: 'Distance',
    hint: 'How far the tool is held from the painting',
    at: ({ distanceMm }) => Math.sqrt((distanceMm - 20) / 380),
    set: (at) => ({ distanceMm: Math.round(20 + 380 * at * at) }),
    say: (at) => `${Math.round((20 + 380 * at * at) / 10)} cm`,
  },
} as const satisfies Record<string, Dial>;

type Choice = 'hair' | 'touch' | 'hold' | 'tip' | 'into';

/** A choice among the values of one setting. */
const choice = <K extends Choice>(
  key: K,
  label: string,
  options: readonly [value: HeldTool[K], name: string][],
): Way => ({
  label,
  at: (held) => held[key],
  options: options.map(([value, name]) => ({ name, value, set: { [key]: value } })),
});

export const WAYS = {
  hair: choice('hair', 'Hair', [
    ['bristle', 'Bristle'],
    ['soft', 'Soft'],
  ]),
  touch: choice('touch', 'Drawn or dabbed', [
    ['drag', 'Drawn'],
    ['dab', 'Dabs'],
  ]),
  blade: {
    ...choice('hold', 'Side of the knife (K)', [
      ['flat', 'Flat'],
      ['edge', 'Edge'],
      ['tip', 'Tip'],
    ]),
    key: 'k',
  },
  stick: choice('hold', 'Held by', [
    ['flat', 'Side'],
    ['edge', 'Edge'],
    ['tip', 'Point'],
  ]),
  into: choice('into', 'Where it draws', [
    ['sketch', 'On the sketch'],
    ['layer', 'In the paint'],
  ]),
  tip: choice('tip', 'Tip', [
    ['hard', 'Hard tip'],
    ['soft', 'Soft tip'],
  ]),
} as const;
