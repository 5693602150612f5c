import { describe, expect, it } from 'vitest';
import { BEHAVIOURS } from './all';
import { holds, type Ground } from './behaviour';
import { OIL } from '@/measure/oil/oil';
import { inTurn } from './thorough';

/**
 * Grounds, resolutions and seeds on which behaviours are tried: in a check each on one of them, in turn. The command line
 * tries more.
 */
const TRIED: readonly Ground[] = [
  { surface: 'linen-fine', ppi: 100, seed: 5 },
  { surface: 'linen-coarse', ppi: 100, seed: 9 },
  { surface: 'panel', ppi: 150, seed: 2 },
];

describe.each(BEHAVIOURS.filter((b) => !b.on && !OIL.includes(b)).map((b, n) => [b.id, b, n] as const))(
  '%s',
  (_, behaviour, n) => {
    it.each(inTurn(TRIED, n).map((g) => [g.surface, g.ppi, g] as const))(
      `${behaviour.says} (%s, %i ppi)`,
      (_kind, _ppi, ground) => {
        const readings = behaviour.measure(ground);
        expect(readings.length).toBeGreaterThan(0);
        expect(readings.filter((r) => !holds(r))).toEqual([]);
      },
    );
  },
);
