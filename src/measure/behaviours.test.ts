import { describe, expect, it } from 'vitest';
import { BEHAVIOURS } from './all';
import { holds, type Ground } from './behaviour';

/** Grounds, resolutions and seeds on which every behaviour is tried; the command line tries more. */
const TRIED: readonly Ground[] = [
  { surface: 'linen-fine', ppi: 100, seed: 5 },
  { surface: 'linen-coarse', ppi: 100, seed: 9 },
  { surface: 'panel', ppi: 150, seed: 2 },
];

describe.each(BEHAVIOURS.filter((b) => !b.on).map((b) => [b.id, b] as const))('%s', (_, behaviour) => {
  it.each(TRIED.map((g) => [g.surface, g.ppi, g] as const))(`${behaviour.says} (%s, %i ppi)`, (_kind, _ppi, ground) => {
    const readings = behaviour.measure(ground);
    expect(readings.length).toBeGreaterThan(0);
    expect(readings.filter((r) => !holds(r))).toEqual([]);
  });
});
