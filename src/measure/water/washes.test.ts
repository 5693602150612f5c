import { describe, expect, it } from 'vitest';
import { holds, type Ground } from '@/measure/behaviour';
import { inTurn, THOROUGH } from '@/measure/thorough';
import { WASHES } from './washes';

/** Papers, resolutions and seeds on which washes are tried: in a check each on one of them, in turn. */
const TRIED: readonly Ground[] = [
  { surface: 'paper-cold', ppi: THOROUGH ? 150 : 100, seed: 3 },
  { surface: 'paper-rough', ppi: 100, seed: 5 },
  { surface: 'paper-hot', ppi: 100, seed: 2 },
];

describe.each(WASHES.map((b, n) => [b.id, b, n] as const))('%s', (_, behaviour, n) => {
  it.each(inTurn(TRIED, n).map((g) => [g.surface, g.ppi, g] as const))(
    `${behaviour.says} (%s, %i ppi)`,
    (_kind, _ppi, ground) => {
      const readings = behaviour.measure(ground);
      expect(readings.length).toBeGreaterThan(0);
      expect(readings.filter((r) => !holds(r))).toEqual([]);
    },
  );
});
