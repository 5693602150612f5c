import { describe, expect, it } from 'vitest';
import { holds, type Ground } from '@/measure/behaviour';
import { OIL } from './oil';
import { inTurn, THOROUGH } from '@/measure/thorough';

/** Grounds on which strokes are judged, at 150 ppi as bounds are: in a check one for each behaviour, in turn. */
const GROUNDS: readonly Ground[] = (['linen-fine', 'panel', 'linen-coarse'] as const).flatMap((surface, n) =>
  (THOROUGH ? [5, 9, 2, 3, 11] : [[5, 9, 2][n]]).map((seed) => ({ surface, ppi: 150, seed })),
);

describe('oil', () => {
  it.each(
    OIL.flatMap((behaviour, n) =>
      inTurn(GROUNDS, n).map((g) => [behaviour.says, g.surface, g.seed, behaviour, g] as const),
    ),
  )('%s (%s, seed %i)', (_says, _kind, _seed, behaviour, ground) => {
    const readings = behaviour.measure(ground);
    expect(readings.length).toBeGreaterThan(0);
    expect(readings.filter((r) => !holds(r))).toEqual([]);
  });
});
