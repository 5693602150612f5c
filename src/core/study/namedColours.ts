/**
 * Colours by name: tubes by their name or Colour Index name, and ready-mixed colours of the trade (a Payne's grey, a sap
 * green) by what is usually in them. What is not at hand is made of what is, and what differs is said.
 */
import { PIGMENTS, type Pigment } from '@/core/colour/pigments';
import { masstoneLab, normalise, type Mixture } from '@/core/colour/mixture';
import type { RecipeSolver } from '@/core/mixing/recipe';
import { compareColours } from './compare';

/** A colour that has a name in the trade. */
export interface NamedColour {
  readonly name: string;
  /** The tube, or what the trade mixes for it. */
  readonly mixture: Mixture;
  /** Whether it is a tube of one pigment here. */
  readonly tube: boolean;
  /** Colour Index name of a tube. */
  readonly colourIndex?: string;
}

/**
 * Ready-mixed colours by the pigments that labels commonly list for them; makers differ, so the parts are chosen so that
 * masstone and tint are of the kind that the name stands for.
 */
const READY_MIXED: readonly (readonly [name: string, mixture: Mixture])[] = [
  ['Payne’s grey', { PB29: 4, PBk9: 5 }],
  ['Neutral tint', { PBk9: 6, PB15_3: 0.3, PV19: 0.5 }],
  ['Davy’s grey', { PBk9: 2, PG23: 6, PW6: 3 }],
  ['Charcoal grey', { PBk9: 4, PBr7BU: 1, PW6: 1 }],
  ['Indigo', { PB27: 3, PBk9: 3, PV19: 0.4 }],
  ['Sepia', { PBr7BU: 3, PBk9: 3 }],
  ['Van Dyke brown', { PBr7BU: 5, PBk9: 2 }],
  ['Brown madder', { PR83: 1, PBr7BS: 4 }],
  ['Light red', { PR101V: 4, PY43: 2 }],
  ['Naples yellow', { PW6: 8, PY35: 1.5, PY43: 2 }],
  ['Naples yellow reddish', { PW6: 8, PY37: 1.2, PR108L: 0.3 }],
  ['Jaune brillant', { PW6: 7, PY37: 2, PO20: 0.2 }],
  ['Flesh tint', { PW6: 12, PR108L: 0.7, PY43: 2 }],
  ['Gamboge', { PY150: 4, PY74: 3 }],
  ['Indian yellow', { PY150: 5, PO20: 0.4 }],
  ['Vermilion', { PR108L: 5, PO20: 2 }],
  ['Sap green', { PG36: 1, PY150: 7, PBr7BU: 1 }],
  ['Hooker’s green', { PG36: 2, PY150: 4, PB15_3: 0.3 }],
  ['Olive green', { PY150: 5, PBk9: 2, PG36: 0.6 }],
  ['Cadmium green', { PY35: 8, PG18: 1.5 }],
  ['Emerald green', { PG7: 1, PY3: 2, PW6: 8 }],
  ['Terre verte dark', { PG23: 5, PBk9: 1 }],
  ['Turquoise', { PB15_3: 1, PG7: 1, PW6: 8 }],
  ['Royal blue', { PB29: 5, PW6: 6 }],
  ['King’s blue', { PB28: 4, PW6: 7 }],
  ['Mauve', { PV23: 1, PB29: 1 }],
  ['Caput mortuum', { PR101I: 5, PV23: 0.3 }],
];

const NAMES: readonly NamedColour[] = [
  ...PIGMENTS.map(tubeNamed),
  ...READY_MIXED.map(([name, mixture]): NamedColour => ({ name, mixture, tube: false })),
];

function tubeNamed({ id, name, colourIndex }: Pigment): NamedColour {
  return { name, mixture: { [id]: 1 }, tube: true, colourIndex };
}

/** Words of a name without accents, apostrophes and spelling that differs between countries. */
const wordsOf = (text: string): readonly string[] =>
  text
    .normalize('NFD')
    .replace(/[\u0300-\u036f'’`´]/g, '')
    .toLowerCase()
    .replace(/gray/g, 'grey')
    .replace(/\bhue\b/g, '')
    .split(/[^a-z0-9]+/)
    .filter(Boolean);

/** A Colour Index name as it is compared: "P.B. 15:3" is "pb153". */
const indexOf = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '');

/**
 * Colours that a typed name may mean, the nearest first.
 * @param text name or Colour Index name; the beginnings of words are enough
 * @param own own paints, which are found by their names too
 */
export function namedColours(text: string, own: readonly Pigment[] = []): readonly NamedColour[] {
  const sought = wordsOf(text);
  if (sought.length === 0) return [];
  const index = /^\s*[np]\.?\s*(w|y|o|r|v|b|g|br|bk)\.?\s*\d/i.test(text) ? indexOf(text) : undefined;
  const found = [...NAMES, ...own.map(tubeNamed)].flatMap((colour) => {
    const score = index ? indexScore(colour, index) : nameScore(colour, sought);
    return score > 0 ? [{ colour, score }] : [];
  });
  return found.sort((a, b) => b.score - a.score).map(({ colour }) => colour);
}

function indexScore({ colourIndex }: NamedColour, sought: string): number {
  if (!colourIndex) return 0;
  // of several pigments in one tube, each is a name of it
  const own = colourIndex.replace(/\(.*/, '').split('/').map(indexOf);
  const hit = own.some((index) => index.startsWith(sought) && !/^\d/.test(index.slice(sought.length)));
  return !hit ? 0 : own.length === 1 && own[0] === sought ? 2 : 1;
}

/** What words in the order of the name count for. */
const IN_ORDER = 0.1;

/** How much of the name was typed, and whether in its order; 0 when a word of it is of another colour. */
function nameScore({ name }: NamedColour, sought: readonly string[]): number {
  const words = wordsOf(name);
  const places = sought.map((typed) => words.findIndex((word) => word.startsWith(typed)));
  if (places.includes(-1)) return 0;
  const typed = sought.reduce((sum, word, i) => sum + word.length / words[places[i]].length, 0) / words.length;
  return places.every((place, i) => i === 0 || place > places[i - 1]) ? typed + IN_ORDER : typed;
}

/** What is made of a named colour with the tubes at hand. */
export interface NamedAtHand {
  readonly mixture: Mixture;
  /** Whether it is that colour itself, by its own tubes. */
  readonly itself: boolean;
  /** Delta E 2000 of the masstone, and of the tint with white. */
  readonly deltaE: number;
  readonly deltaETint: number;
  /** What differs, in a sentence; '' when nothing does. */
  readonly differs: string;
}

/** Below this a mixture's colour shows in its tint and not in its masstone, CIELAB lightness. */
const DARK = 38;
const tinted = (mixture: Mixture): Mixture => {
  const parts = normalise(mixture);
  return { ...parts, PW6: (parts.PW6 ?? 0) + 6 };
};

/**
 * A named colour by the tubes at hand.
 * @param tubes at hand
 * @param solver of those tubes
 * @param mostTubes in a recipe
 */
export function namedAtHand(
  { mixture: named, name }: NamedColour,
  tubes: readonly string[],
  solver: RecipeSolver,
  mostTubes?: number,
): NamedAtHand {
  if (Object.keys(named).every((id) => tubes.includes(id)) && Object.keys(named).length <= (mostTubes ?? Infinity)) {
    return { mixture: named, itself: true, deltaE: 0, deltaETint: 0, differs: '' };
  }
  const asked = masstoneLab(named);
  const made = solver.solve(asked, { mostTubes }).mixture;
  // darks of any hue are nearly black in the mass: they may be met better by what they are with white
  const byTint = asked[0] < DARK ? bySolvedTint(named, solver, mostTubes) : undefined;
  const first = { mixture: made, ...apart(made, named) };
  const second = byTint && { mixture: byTint, ...apart(byTint, named) };
  const { mixture, mass, tint } = second && far(second) < far(first) ? second : first;
  const said = [
    mass.words !== 'the same' && `${mass.words} in the mass`,
    tint.words !== 'the same' && `${tint.words} with white`,
  ].filter(Boolean);
  return {
    mixture,
    itself: false,
    deltaE: mass.deltaE,
    deltaETint: tint.deltaE,
    differs: said.length > 0 ? `Beside ${name}: ${said.join('; ')}.` : '',
  };
}

/** How a mixture stands beside a colour, thick and with white. */
const apart = (mixture: Mixture, named: Mixture) => ({
  mass: compareColours(masstoneLab(mixture), masstoneLab(named)),
  tint: compareColours(masstoneLab(tinted(mixture)), masstoneLab(tinted(named))),
});
const far = ({ mass, tint }: ReturnType<typeof apart>): number => mass.deltaE + tint.deltaE;

/** The mixture whose tint is that of the named colour; undefined where it would be all white. */
function bySolvedTint(named: Mixture, solver: RecipeSolver, mostTubes?: number): Mixture | undefined {
  const most = mostTubes && Math.min(4, mostTubes + 1);
  const { PW6: _, PW4: __, PW1H: ___, ...rest } = solver.solve(masstoneLab(tinted(named)), { mostTubes: most }).mixture;
  return Object.keys(rest).length > 0 ? normalise(rest) : undefined;
}
