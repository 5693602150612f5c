import { describe, expect, it } from 'vitest';
import { holds, type Behaviour, type Ground } from '@/measure/behaviour';
import { DRAWN_BEHAVIOURS } from './drawn';
import { STICK_BEHAVIOURS } from './sticks';
import { first, inTurn } from '@/measure/thorough';

/** Papers, resolutions and seeds on which sticks are tried; the command line tries more. */
const TOOTH: readonly Ground[] = [
  { surface: 'paper-laid', ppi: 150, seed: 3 },
  { surface: 'paper-sanded', ppi: 100, seed: 5 },
  { surface: 'paper-velour', ppi: 100, seed: 2 },
];
/** Sheets on which the look of drawing is judged: at 150 ppi, as bounds of deviation are. */
const SHEETS: readonly Ground[] = (
  ['paper-cold', 'paper-laid', 'paper-hot', 'paper-sanded', 'paper-rough'] as const
).flatMap((surface) => first(1, [5, 3, 11]).map((seed) => ({ surface, ppi: 150, seed })));

const tried = (behaviours: readonly Behaviour[], grounds: readonly Ground[]) =>
  behaviours.flatMap((behaviour, n) =>
    inTurn(grounds, n).map((g) => [behaviour.says, g.surface, g.ppi, g.seed, behaviour, g] as const),
  );

describe('sticks', () => {
  it.each([...tried(STICK_BEHAVIOURS, TOOTH), ...tried(DRAWN_BEHAVIOURS, SHEETS)])(
    '%s (%s, %i ppi, seed %i)',
    (_says, _kind, _ppi, _seed, behaviour, ground) => {
      const readings = behaviour.measure(ground);
      expect(readings.length).toBeGreaterThan(0);
      expect(readings.filter((r) => !holds(r))).toEqual([]);
    },
  );
});
