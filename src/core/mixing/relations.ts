/** Relations of a colour on the circle of hues (CIELAB), each solved for the tubes at hand. */
import { chroma, hue, type Triple } from '@/core/colour/colorimetry';
import { maths } from '@/core/maths/maths';
import type { Recipe, RecipeSolver } from './recipe';

/** Turns from the colour in hand, degrees. */
export const RELATIONS = {
  complement: { name: 'Complement', turns: [180] },
  split: { name: 'Split complement', turns: [150, 210] },
  analogous: { name: 'Analogous', turns: [-30, 30] },
  triad: { name: 'Triad', turns: [120, 240] },
  tetrad: { name: 'Tetrad', turns: [90, 180, 270] },
} as const satisfies Record<string, { name: string; turns: readonly number[] }>;

export type Relation = keyof typeof RELATIONS;

/** CIELAB from lightness, chroma and hue (degrees). */
export const lch = (L: number, C: number, h: number): Triple => [
  L,
  C * maths.cos((h * Math.PI) / 180),
  C * maths.sin((h * Math.PI) / 180),
];

/** The colours that stand in a relation to one: as light and as strong, and what the tubes make of them. */
export function related(
  lab: Readonly<Triple>,
  relation: Relation,
  solver: RecipeSolver,
): (Recipe & { asked: Triple })[] {
  const [L, C, h] = [lab[0], chroma(lab), hue(lab)];
  return RELATIONS[relation].turns.map((turn) => {
    const asked = lch(L, C, h + turn);
    return { ...solver.solve(asked), asked };
  });
}
