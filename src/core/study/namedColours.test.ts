import { describe, expect, test } from 'vitest';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { masstoneLab } from '@/core/colour/mixture';
import { GENERAL_TWELVE, TUBE_SETS } from '@/core/colour/tubeSets';
import { PIGMENTS } from '@/core/colour/pigments';
import { solverFor } from '@/core/mixing/recipe';
import { namedAtHand, namedColours } from './namedColours';

const first = (text: string) => namedColours(text)[0]?.name;

describe('colours by name', () => {
  test('every tube is found by its name, and by its Colour Index name', () => {
    for (const { name, colourIndex, id } of PIGMENTS) {
      expect(first(name)).toBe(name);
      const index = colourIndex.split(/[/ ]/)[0];
      expect(namedColours(index).map(({ mixture }) => Object.keys(mixture)[0])).toContain(id);
    }
  });

  test.each([
    ['payne’s gray', 'Payne’s grey'],
    ["PAYNE'S GREY", 'Payne’s grey'],
    ['sap', 'Sap green'],
    ['p.b. 15:3', 'Phthalo Blue (green shade)'],
    ['PB 29', 'Ultramarine Blue'],
    ['ultra blue', 'Ultramarine Blue'],
    ['indigo hue', 'Indigo'],
  ])('“%s” is %s', (typed, name) => expect(first(typed)).toBe(name));

  test('an index is not taken for the beginning of another', () => {
    expect(namedColours('PY3').map(({ colourIndex }) => colourIndex)).toEqual(['PY3']);
    expect(namedColours('PB1')).toEqual([]);
  });

  test.each(['', '   ', '?', 'zebra', 'sap zebra', 'PB999', '🎨'])('“%s” is no colour', (typed) => {
    expect(namedColours(typed)).toEqual([]);
  });
});

describe('what is made of it', () => {
  test('by its own tubes where they are at hand, else by others, and how far off that is', () => {
    for (const { tubes } of TUBE_SETS) {
      for (const colour of namedColours('e')) {
        const made = namedAtHand(colour, tubes, solverFor(tubes));
        for (const id of Object.keys(made.mixture)) expect(tubes).toContain(id);
        const off = deltaE2000(masstoneLab(made.mixture), masstoneLab(colour.mixture));
        expect(made.deltaE).toBeCloseTo(off, 9);
        if (made.itself) expect(made.differs).toBe('');
        else if (off > 2) expect(made.differs).toMatch(/in the mass/);
      }
    }
  });

  test('darks keep their hue with white: a green that is nearly black is not made of black', () => {
    const [colour] = namedColours('hooker');
    const made = namedAtHand(colour, GENERAL_TWELVE, solverFor(GENERAL_TWELVE));
    expect(made.deltaETint).toBeLessThan(4);
  });

  test('with no more tubes than the rule has', () => {
    const [colour] = namedColours('sap green');
    const made = namedAtHand(colour, GENERAL_TWELVE, solverFor(GENERAL_TWELVE), 2);
    expect(Object.keys(made.mixture).length).toBeLessThanOrEqual(2);
  });
});
