import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { masstoneLab, type Mixture } from '@/core/colour/mixture';
import { PIGMENTS, tube } from '@/core/colour/pigments';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { masstoneSpectrum, spectrumToLab } from '@/core/colour/spectrum';
import { GENERAL_TWELVE, TUBE_SETS } from '@/core/colour/tubeSets';
import { latticeHash } from '@/core/surface/noise';
import { RecipeSolver, solverFor } from './recipe';

/** Mixtures of one to four tubes of a set, strong and weak. */
function mixtures(tubes: readonly string[], count: number, seed: number): Mixture[] {
  return Array.from({ length: count }, (_, k) => {
    const random = (i: number) => latticeHash(k, i, seed);
    const size = Math.min(tubes.length, 1 + Math.floor(random(0) * 4));
    const chosen = [...tubes].map((id, i) => [random(i + 10), id] as const).sort((p, q) => p[0] - q[0]);
    return Object.fromEntries(
      chosen
        .slice(0, size)
        .map(([, id], i) => [
          id,
          Math.exp((random(i + 100) - 0.5) * 5) * Math.max(tube(id)!.tintingStrength || 0.35, 0.05) ** -0.75,
        ]),
    );
  });
}

const percentile = (values: number[], p: number) => [...values].sort((a, b) => a - b)[Math.floor(values.length * p)];

describe('recipes', () => {
  test.each(TUBE_SETS.map((set) => [set.name, set.tubes] as const))(
    '%s: what it can mix, it finds again',
    (_, tubes) => {
      const solver = new RecipeSolver(tubes);
      const found = mixtures(tubes, 150, 7).map((mixture) => solver.solve(masstoneLab(mixture)));
      expect(
        percentile(
          found.map((r) => r.deltaE),
          0.95,
        ),
      ).toBeLessThan(0.6);
      expect(Math.max(...found.map((r) => r.deltaE))).toBeLessThan(1.5);
    },
  );

  test('colours known in 36 bands are met to Delta E 1 in 36 bands (95 of 100)', () => {
    const solver = new RecipeSolver(GENERAL_TWELVE);
    const errors = mixtures(GENERAL_TWELVE, 500, 3).map((mixture) => {
      const asked = spectrumToLab(masstoneSpectrum(mixture));
      return deltaE2000(spectrumToLab(masstoneSpectrum(solver.solve(asked).mixture)), asked);
    });
    expect(percentile(errors, 0.95)).toBeLessThan(1);
    expect(errors.reduce((p, q) => p + q, 0) / errors.length).toBeLessThan(0.25);
  });

  test('never more tubes than allowed, only tubes at hand, parts that sum to 1, and the colour it says', () => {
    const lab = fc.tuple(
      fc.double({ min: 5, max: 97, noNaN: true }),
      fc.double({ min: -90, max: 90, noNaN: true }),
      fc.double({ min: -90, max: 90, noNaN: true }),
    );
    fc.assert(
      fc.property(lab, fc.integer({ min: 1, max: 4 }), fc.constantFrom(...TUBE_SETS), (asked, mostTubes, set) => {
        const { mixture, lab: gives, deltaE } = solverFor(set.tubes).solve(asked, { mostTubes });
        const parts = Object.entries(mixture);
        expect(parts.length).toBeLessThanOrEqual(mostTubes);
        for (const [id] of parts) expect(set.tubes).toContain(id);
        expect(parts.reduce((sum, [, part]) => sum + part, 0)).toBeCloseTo(1, 9);
        expect(deltaE2000(masstoneLab(mixture), gives)).toBeLessThan(1e-6);
        expect(deltaE2000(gives, asked)).toBeCloseTo(deltaE, 9);
      }),
      { numRuns: 120, seed: 5 },
    );
  });

  test('the same colour gives the same recipe, whatever was asked before and in which order the tubes lie', () => {
    const asked = mixtures(GENERAL_TWELVE, 40, 11).map((m) => masstoneLab(m));
    const first = asked.map((lab) => solverFor(GENERAL_TWELVE).solve(lab));
    const again = [...asked].reverse().map((lab) => solverFor([...GENERAL_TWELVE].reverse()).solve(lab));
    expect(again.reverse()).toEqual(first);
  });

  test('what cannot be reached is told, with something near', () => {
    const earth = solverFor(TUBE_SETS.find((s) => s.id === 'earth')!.tubes);
    const turquoise = earth.solve([60, -45, -20]);
    expect(turquoise.deltaE).toBeGreaterThan(10);
    // as near as any mixture that was tried, or nearer
    expect(turquoise.deltaE).toBeLessThan(earth.nearest([60, -45, -20]) + 0.8);
  });

  test('all forty tubes', () => {
    const solver = new RecipeSolver(PIGMENTS.map((p) => p.id));
    const errors = mixtures(
      PIGMENTS.map((p) => p.id),
      40,
      9,
    ).map((m) => solver.solve(masstoneLab(m)).deltaE);
    expect(percentile(errors, 0.95)).toBeLessThan(1);
  });

  test('no tube, no recipe', () => {
    expect(() => new RecipeSolver([])).toThrow(/at least one tube/);
    expect(() => new RecipeSolver(['PX1'])).toThrow(/no tube "PX1"/);
  });
});
