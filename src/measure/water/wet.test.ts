import { describe, expect, it } from 'vitest';
import { holds, type Ground } from '@/measure/behaviour';
import { inTurn, THOROUGH } from '@/measure/thorough';
import { WET } from './wet';

/** Papers, resolutions and seeds on which washes are judged: in a check each behaviour on one of them, in turn. */
const GROUNDS: readonly Ground[] = THOROUGH
  ? (['paper-cold', 'paper-hot', 'paper-rough'] as const).flatMap((surface) =>
      [120, 150, 220].map((ppi, n) => ({ surface, ppi, seed: 12 + n })),
    )
  : [
      { surface: 'paper-cold', ppi: 120, seed: 12 },
      { surface: 'paper-hot', ppi: 120, seed: 9 },
      { surface: 'paper-rough', ppi: 120, seed: 7 },
    ];

describe('water', () => {
  it.each(
    WET.flatMap((behaviour, n) =>
      inTurn(GROUNDS, n).map((g) => [behaviour.says, g.surface, g.ppi, g.seed, behaviour, g] as const),
    ),
  )('%s (%s, %i ppi, seed %i)', (_says, _kind, _ppi, _seed, behaviour, ground) => {
    const readings = behaviour.measure(ground);
    expect(readings.length).toBeGreaterThan(0);
    expect(readings.filter((r) => !holds(r))).toEqual([]);
  });
});
