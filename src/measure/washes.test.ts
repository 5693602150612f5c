import { describe, expect, it } from 'vitest';
import { holds, type Ground } from './behaviour';
import { WASHES } from './washes';

/** Papers, resolutions and seeds on which washes are tried; the command line tries more. */
const TRIED: readonly Ground[] = [
  { surface: 'paper-cold', ppi: 150, seed: 3 },
  { surface: 'paper-rough', ppi: 100, seed: 5 },
  { surface: 'paper-hot', ppi: 100, seed: 2 },
];

describe.each(WASHES.map((b) => [b.id, b] as const))('%s', (_, behaviour) => {
  it.each(TRIED.map((g) => [g.surface, g.ppi, g] as const))(`${behaviour.says} (%s, %i ppi)`, (_kind, _ppi, ground) => {
    const readings = behaviour.measure(ground);
    expect(readings.length).toBeGreaterThan(0);
    expect(readings.filter((r) => !holds(r))).toEqual([]);
  });
});
