import { describe, expect, it } from 'vitest';
import { holds, type Ground } from './behaviour';
import { STICK_BEHAVIOURS } from './sticks';

/** Papers, resolutions and seeds on which sticks are tried; the command line tries more. */
const TRIED: readonly Ground[] = [
  { surface: 'paper-laid', ppi: 150, seed: 3 },
  { surface: 'paper-sanded', ppi: 100, seed: 5 },
  { surface: 'paper-velour', ppi: 100, seed: 2 },
];

describe.each(STICK_BEHAVIOURS.map((b) => [b.id, b] as const))('%s', (_, behaviour) => {
  it.each(TRIED.map((g) => [g.surface, g.ppi, g] as const))(`${behaviour.says} (%s, %i ppi)`, (_kind, _ppi, ground) => {
    const readings = behaviour.measure(ground);
    expect(readings.length).toBeGreaterThan(0);
    expect(readings.filter((r) => !holds(r))).toEqual([]);
  });
});
