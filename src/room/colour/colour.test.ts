import { describe, expect, test } from 'vitest';
import fc from 'fast-check';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { masstoneLab } from '@/core/colour/mixture';
import { PIGMENTS, tube } from '@/core/colour/pigments';
import { amountWords, inParts, missWords, recipeWords } from '@/core/colour/recipeWords';
import { factsOf, familyOf, FILTERS, passes } from './tubeFacts';

describe('what is said of tubes', () => {
  test.each([
    ['PW6', 'white'],
    ['PBk9', 'black grey'],
    ['PY3', 'yellow'],
    ['PB29', 'blue'],
    ['PG18', 'green'],
    ['PR122', 'red rose'],
    ['PV23', 'violet'],
    ['PV19', 'red rose'],
  ])('%s is sought under %s', (id, family) => expect(familyOf(tube(id)!)).toContain(family.split(' ')[0]));

  test('every filter finds some tubes and leaves some out; own paints are none of these', () => {
    for (const { value } of FILTERS) {
      const found = PIGMENTS.filter((p) => passes(p, value)).length;
      if (value === 'own') expect(found).toBe(0);
      else {
        expect(found, value).toBeGreaterThan(0);
        expect(found, value).toBeLessThan(PIGMENTS.length);
      }
    }
    expect(passes(tube('PB35')!, 'granulating')).toBe(true);
    expect(passes(tube('PB15_3')!, 'staining')).toBe(true);
  });

  test('a label has six facts, none of them empty', () => {
    for (const p of PIGMENTS) {
      expect(factsOf(p)).toHaveLength(6);
      for (const [name, value] of factsOf(p)) expect(`${name} ${value}`).toMatch(/^\S+ \S+/);
    }
  });
});

describe('mixtures in words and numbers', () => {
  test('parts that a painter would write down are the same paint', () => {
    const mixture = fc.dictionary(
      fc.constantFrom('PW6', 'PB29', 'PY43', 'PBr7BU', 'PR188'),
      fc.double({ min: 0.001, max: 1, noNaN: true }),
      { minKeys: 1, maxKeys: 4 },
    );
    fc.assert(
      fc.property(mixture, (m) => {
        const parts = inParts(m);
        expect(Object.keys(parts).sort()).toEqual(Object.keys(m).sort());
        expect(deltaE2000(masstoneLab(parts), masstoneLab(m))).toBeLessThan(0.4);
        // said of the same tubes; a number may round to the one beside it
        const tubes = (words: string) =>
          words
            .replace(/\d+ |a touch of /g, '')
            .split(', ')
            .sort();
        expect(tubes(recipeWords(parts))).toEqual(tubes(recipeWords(m)));
      }),
      { numRuns: 150, seed: 6 },
    );
  });
  test('amounts grow in words as in numbers', () => {
    const words = [0.001, 0.01, 0.08, 0.25, 0.5, 1, 2].map(amountWords);
    expect(new Set(words).size).toBe(words.length);
    expect(words[1]).toBe('a touch of');
  });
  test('a recipe says how near it comes', () => {
    expect(missWords(0.4)).toBe('met, Delta E 0.4');
    expect(missWords(2)).toMatch(/^nearly met/);
    expect(missWords(9)).toMatch(/^these tubes do not reach it/);
  });
});
