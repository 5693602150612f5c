/** Few tubes that cover given colours best. */
import { maths } from '@/core/maths/maths';
import type { Triple } from '@/core/colour/colorimetry';
import { RecipeSolver, type Recipe } from './recipe';

export interface WeighedColour {
  readonly lab: Triple;
  /** Share of the picture. */
  readonly weight: number;
}

export interface LimitedSet {
  readonly tubes: readonly string[];
  /** Weighed mean Delta E 2000 of what they make of the colours. */
  readonly error: number;
  /** Each colour with its recipe, in the order given. */
  readonly recipes: readonly Recipe[];
}

/** A colour counts as lost when the set misses it by more than this, Delta E 2000. */
export const LOST = 3;

/**
 * Proposes a set of at most `most` tubes out of `pool`: the one that helps most is added again and again, then each is
 * tried against every other. Colours count by a low power of their share, so that an accent is not given up for a sky.
 * @throws RangeError when the pool is empty
 */
export function limitedSet(colours: readonly WeighedColour[], pool: readonly string[], most: number): LimitedSet {
  const known = new Map<string, number>();
  const cost = (tubes: readonly string[]): number => {
    const key = [...tubes].sort().join();
    let value = known.get(key);
    if (value === undefined) {
      const solver = new RecipeSolver([...tubes].sort());
      value = colours.reduce(
        (sum, { lab, weight }) => sum + maths.pow(weight, 0.35) * maths.pow(solver.nearest(lab), 1.5),
        0,
      );
      known.set(key, value);
    }
    return value;
  };
  const best = (choices: readonly (readonly string[])[]) =>
    choices.reduce((p, q) => (cost(q) < cost(p) - 1e-9 ? q : p));
  let tubes: readonly string[] = best(pool.map((id) => [id]));
  while (tubes.length < Math.min(most, pool.length)) {
    const more = best(pool.filter((id) => !tubes.includes(id)).map((id) => [...tubes, id]));
    if (cost(more) > cost(tubes) * 0.985) break;
    tubes = more;
  }
  for (let i = 0; i < tubes.length; i++) {
    const others = pool.filter((id) => !tubes.includes(id));
    tubes = best([tubes, ...others.map((id) => tubes.map((t, k) => (k === i ? id : t)))]);
  }
  const ordered = pool.filter((id) => tubes.includes(id));
  const solver = new RecipeSolver(ordered);
  const recipes = colours.map(({ lab }) => solver.solve(lab));
  const total = colours.reduce((sum, c) => sum + c.weight, 0);
  const error = recipes.reduce((sum, r, i) => sum + r.deltaE * colours[i].weight, 0) / (total || 1);
  return { tubes: ordered, error, recipes };
}
