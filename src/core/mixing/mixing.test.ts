import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { chroma, hue } from '@/core/colour/colorimetry';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { masstoneLab, type Mixture } from '@/core/colour/mixture';
import { GENERAL_TWELVE, TUBE_SETS } from '@/core/colour/tubeSets';
import { isTube } from '@/core/colour/pigments';
import { warmth } from '@/core/colour/warmth';
import { LEAF_CHROMAS, leaf, REACHED, strongestChroma } from './leaf';
import { limitedSet, LOST } from './limitedSet';
import { NUDGES, nudge } from './nudge';
import { solverFor } from './recipe';
import { lch, related, RELATIONS, type Relation } from './relations';
import { stringBetween, valueString } from './strings';

const turn = (a: number, b: number) => Math.abs(((a - b + 540) % 360) - 180);

describe('nudges', () => {
  const mixtures: Mixture[] = [
    { PW6: 3, PB29: 1 },
    { PW6: 4, PY43: 2, PR188: 0.3 },
    { PBr7BU: 1, PW6: 1 },
    { PG7: 1, PW6: 9, PBr7BS: 2 },
  ];
  const measure = {
    lighter: (lab: readonly number[]) => lab[0],
    darker: (lab: readonly number[]) => -lab[0],
    warmer: (lab: [number, number, number]) => warmth(lab),
    cooler: (lab: [number, number, number]) => -warmth(lab),
    cleaner: (lab: [number, number, number]) => chroma(lab),
    duller: (lab: [number, number, number]) => -chroma(lab),
  };
  test.each(NUDGES)('%s: by a tube at hand, that way, by about a step', (direction) => {
    for (const set of TUBE_SETS) {
      for (const mixture of mixtures) {
        const found = nudge(mixture, direction, set.tubes);
        if (!found) continue;
        expect(set.tubes).toContain(found.tube);
        const before = masstoneLab(mixture);
        const after = masstoneLab(found.mixture);
        const gained = measure[direction](after) - measure[direction](before);
        expect(gained).toBeGreaterThan(0.15);
        expect(gained).toBeLessThan(7);
        expect(deltaE2000(after, found.lab)).toBeLessThan(1e-9);
        // the mixture is the old one with the tube added, and nothing else
        const total = Object.values(mixture).reduce((p, q) => p + q, 0);
        for (const [id, part] of Object.entries(mixture)) {
          const expected = (part / total + (id === found.tube ? found.amount : 0)) / (1 + found.amount);
          expect(found.mixture[id]).toBeCloseTo(expected, 9);
        }
      }
    }
  });
  test('with the general set every mixture can be nudged every way', () => {
    for (const mixture of mixtures) {
      for (const direction of NUDGES) expect(nudge(mixture, direction, GENERAL_TWELVE)).toBeDefined();
    }
  });
  test('where no tube helps, none is named', () => {
    expect(nudge({ PW6: 1 }, 'lighter', ['PW6', 'PBk9'])).toBeUndefined();
    expect(nudge({ PB29: 1 }, 'warmer', ['PB29'])).toBeUndefined();
    expect(nudge({}, 'warmer', GENERAL_TWELVE)).toBeUndefined();
  });
});

describe('strings', () => {
  test('between two mixtures the steps look alike, from one to the other', () => {
    for (const [a, b] of [
      [
        { PB29: 1, PW6: 1 },
        { PY43: 1, PW6: 1 },
      ],
      [{ PW6: 1 }, { PB15_3: 1 }],
      [{ PR188: 1 }, { PG7: 1 }],
    ] as const) {
      const row = stringBetween(a, b, 7);
      expect(deltaE2000(row[0].lab, masstoneLab(a))).toBeLessThan(1e-6);
      expect(deltaE2000(row[6].lab, masstoneLab(b))).toBeLessThan(1e-6);
      // shares rise, and no step is much wider than another
      for (let i = 1; i < 7; i++) expect(row[i].share).toBeGreaterThan(row[i - 1].share);
      const steps = row.slice(1).map((s, i) => deltaE2000(s.lab, row[i].lab));
      expect(Math.max(...steps) / Math.min(...steps)).toBeLessThan(2.6);
    }
  });
  test.each([
    ['PR188', { PR188: 1, PW6: 1 }],
    ['PB29', { PB29: 1, PW6: 2 }],
    ['earth', { PBr7BS: 1, PY43: 1, PW6: 1 }],
  ])('from dark to light: even values, one hue (%s)', (_, mixture) => {
    const row = valueString(mixture, solverFor(GENERAL_TWELVE), 9, 20, 90);
    const h = hue(masstoneLab(mixture));
    row.forEach((step, i) => {
      expect(Math.abs(step.lab[0] - (20 + (70 * i) / 8))).toBeLessThan(1.6);
      if (chroma(step.lab) > 10) expect(turn(hue(step.lab), h)).toBeLessThan(7);
      expect(step.deltaE).toBeLessThanOrEqual(1.01);
    });
  });
});

describe('relations', () => {
  test.each(Object.keys(RELATIONS) as Relation[])(
    '%s stands where it should, as far as the tubes reach',
    (relation) => {
      const lab = masstoneLab({ PB29: 1, PW6: 6, PBr7BU: 1 });
      const found = related(lab, relation, solverFor(GENERAL_TWELVE));
      expect(found).toHaveLength(RELATIONS[relation].turns.length);
      found.forEach((r, i) => {
        expect(r.asked[0]).toBe(lab[0]);
        expect(turn(hue(r.asked), hue(lab) + RELATIONS[relation].turns[i])).toBeLessThan(1e-6);
        expect(r.deltaE).toBeLessThan(1);
        expect(deltaE2000(masstoneLab(r.mixture), r.asked)).toBeLessThan(1);
      });
    },
  );
});

describe('the leaf', () => {
  test.each(TUBE_SETS.map((s) => [s.name, s.tubes] as const))(
    '%s: every chip is a mixture of the set, near its place',
    (_, tubes) => {
      for (const h of [27, 99, 261]) {
        for (const chip of leaf(solverFor(tubes), h).flat()) {
          if (!chip.recipe) continue;
          for (const id of Object.keys(chip.recipe.mixture)) expect(tubes).toContain(id);
          expect(deltaE2000(masstoneLab(chip.recipe.mixture), lch(chip.L, chip.C, h))).toBeLessThanOrEqual(REACHED);
        }
      }
    },
  );
  test('a narrow set fills less of it than a wide one, and never what the wide one cannot', () => {
    const filled = (tubes: readonly string[]) =>
      [9, 99, 189, 279].map((h) =>
        leaf(solverFor(tubes), h)
          .flat()
          .map((c) => !!c.recipe),
      );
    const count = (f: boolean[][]) => f.flat().filter(Boolean).length;
    const wide = filled(GENERAL_TWELVE);
    const narrow = filled(TUBE_SETS.find((s) => s.id === 'earth')!.tubes);
    expect(count(narrow)).toBeLessThan(0.5 * count(wide));
    expect(count(narrow)).toBeGreaterThan(5);
  });
  test('nothing reachable is left empty: mixtures of the set fall on filled chips or between them', () => {
    const solver = solverFor(GENERAL_TWELVE);
    fc.assert(
      fc.property(fc.constantFrom(...GENERAL_TWELVE), fc.double({ min: 0.2, max: 20, noNaN: true }), (id, white) => {
        const lab = masstoneLab({ [id]: 1, PW6: white });
        const C = chroma(lab);
        if (C > LEAF_CHROMAS[LEAF_CHROMAS.length - 1]) return;
        expect(strongestChroma(solver, hue(lab), lab[0])).toBeGreaterThan(C - 4);
      }),
      { numRuns: 25, seed: 2 },
    );
  });
});

describe('a limited set', () => {
  const colours = [
    { lab: masstoneLab({ PW6: 5, PB29: 1 }), weight: 0.5 },
    { lab: masstoneLab({ PY43: 1, PW6: 2 }), weight: 0.3 },
    { lab: masstoneLab({ PBr7BU: 1 }), weight: 0.19 },
    { lab: masstoneLab({ PR188: 1 }), weight: 0.01 },
  ];
  test('is never larger than asked, only of the pool, and loses less when it may be larger', () => {
    const errors = [2, 3, 5].map((most) => {
      const { tubes, error, recipes } = limitedSet(colours, GENERAL_TWELVE, most);
      expect(tubes.length).toBeLessThanOrEqual(most);
      for (const id of tubes) expect(GENERAL_TWELVE).toContain(id);
      recipes.forEach((r) => Object.keys(r.mixture).forEach((id) => expect(tubes).toContain(id)));
      return error;
    });
    expect(errors[1]).toBeLessThan(errors[0]);
    expect(errors[2]).toBeLessThan(errors[1]);
    // a small strong accent is kept
    expect(limitedSet(colours, GENERAL_TWELVE, 5).recipes[3].deltaE).toBeLessThan(LOST);
  });
});

test('every tube of the sets exists, once', () => {
  for (const { tubes } of TUBE_SETS) {
    expect(new Set(tubes).size).toBe(tubes.length);
    for (const id of tubes) expect(isTube(id)).toBe(true);
  }
});
