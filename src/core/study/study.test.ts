import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { labToLinear, linearToBytes, type Triple } from '@/core/colour/colorimetry';
import { lch } from '@/core/mixing/relations';
import { latticeHash } from '@/core/surface/noise';
import { compareColours } from './compare';
import { photoPalette } from './photoPalette';
import { scatteredColours, within } from './reach';

describe('comparing', () => {
  test.each([
    [[60, 0, 0], [40, 0, 0], /^2 value steps lighter$/],
    [[40, 0, 0], [45, 0, 0], /^half a value step darker$/],
    [[50, 2, 4], [50, 0, 0], /^slightly warmer, slightly cleaner$/],
    [[70, 10, 20], [50, 20, 40], /^2 value steps lighter, much cooler, much duller$/],
    [[50, 0, -20], [50, 10, 20], /much cooler/],
    [[50, 0, 0], [50.3, 0.2, 0], /^the same$/],
    [[55, 1, 2], [51.5, 0, 0], /slightly lighter|half a value step lighter/],
    [[65, 0, 0], [50, 0, 0], /^1 ½ value steps lighter$/],
  ] as [Triple, Triple, RegExp][])('%j against %j', (a, b, words) => {
    expect(compareColours(a, b).words).toMatch(words);
  });
  test('turned round, everything is said the other way', () => {
    const lab = fc.tuple(
      ...[
        [5, 95],
        [-60, 60],
        [-60, 60],
      ].map(([min, max]) => fc.double({ min, max, noNaN: true })),
    ) as fc.Arbitrary<Triple>;
    fc.assert(
      fc.property(lab, lab, (a, b) => {
        const there = compareColours(a, b);
        const back = compareColours(b, a);
        expect(back.valueSteps).toBeCloseTo(-there.valueSteps, 9);
        expect(back.warmer).toBeCloseTo(-there.warmer, 9);
        const swap = {
          lighter: 'darker',
          darker: 'lighter',
          warmer: 'cooler',
          cooler: 'warmer',
          cleaner: 'duller',
          duller: 'cleaner',
        };
        const turned = there.words.replace(/lighter|darker|warmer|cooler|cleaner|duller/g, (w) => swap[w as 'lighter']);
        expect(back.words).toBe(turned);
      }),
      { numRuns: 200, seed: 4 },
    );
  });
});

/** A photo of vertical stripes of colours, by their shares, with some noise. */
function stripes(colours: readonly (readonly [Triple, number])[], width = 300, height = 120, seed = 1) {
  const rgba = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let sum = 0;
      const [lab] = colours.find(([, share]) => (sum += share) > x / width) ?? colours[colours.length - 1];
      const noisy = lab.map((v, c) => v + 3 * (latticeHash(x, 3 * y + c, seed) - 0.5)) as Triple;
      rgba.set([...linearToBytes(labToLinear(noisy)), 255], 4 * (y * width + x));
    }
  }
  return { rgba, width, height };
}

describe('the palette of a photo', () => {
  const colours = [
    [[60, -3, -8], 0.5],
    [[35, 8, 18], 0.3],
    [[78, 2, 10], 0.185],
    [[40, 45, 28], 0.015],
  ] as const satisfies readonly (readonly [Triple, number])[];
  test.each([1, 2, 3])(
    'finds the colours that are there, the small strong one too, with their shares (seed %i)',
    (seed) => {
      const { rgba, width, height } = stripes(colours, 300, 120, seed);
      const found = photoPalette(rgba, width, height, 8);
      for (const [lab, share] of colours) {
        const near = found.filter((c) => Math.hypot(...c.lab.map((v, i) => v - lab[i])) < 5);
        expect(near.length).toBeGreaterThanOrEqual(1);
        expect(near.reduce((sum, c) => sum + c.weight, 0)).toBeCloseTo(share, 1);
        // and it is found where it says
        const pixel = 4 * (Math.floor(near[0].at[1] * height) * width + Math.floor(near[0].at[0] * width));
        const there = linearToBytes(labToLinear(near[0].lab));
        expect(Math.abs(rgba[pixel] - there[0])).toBeLessThan(16);
      }
      expect(found.length).toBeLessThanOrEqual(8);
      expect(found.reduce((sum, c) => sum + c.weight, 0)).toBeCloseTo(1, 6);
      expect(photoPalette(rgba, width, height, 8)).toEqual(found);
    },
  );
  test('asked for fewer it gives fewer; of a plain field it gives one; of nothing none', () => {
    const { rgba, width, height } = stripes(colours);
    expect(photoPalette(rgba, width, height, 3).length).toBeLessThanOrEqual(3);
    const plain = stripes([[[50, 0, 0], 1]]);
    expect(photoPalette(plain.rgba, plain.width, plain.height, 8)).toHaveLength(1);
    expect(photoPalette(new Uint8ClampedArray(400), 10, 10, 8)).toEqual([]);
  });
});

describe('what is within reach', () => {
  const hues = [0, 90, 180, 270];
  const chromas = [40, 20, 40, 20];
  test('inside, outside, and straight between hues, across 0 too', () => {
    expect(within(lch(50, 39, 0), hues, chromas)).toBe(true);
    expect(within(lch(50, 41, 0), hues, chromas)).toBe(false);
    expect(within(lch(50, 29, 45), hues, chromas)).toBe(true);
    expect(within(lch(50, 31, 45), hues, chromas)).toBe(false);
    expect(within(lch(50, 29, 315), hues, chromas)).toBe(true);
    expect(within(lch(50, 31, 315), hues, chromas)).toBe(false);
  });
  test('colours are scattered over the whole photo', () => {
    const { rgba, width, height } = stripes([
      [[80, 0, 0], 0.5],
      [[20, 0, 0], 0.5],
    ]);
    const found = scatteredColours(rgba, width, height, 400);
    const light = found.filter(([L]) => L > 50).length;
    expect(light / 400).toBeGreaterThan(0.4);
    expect(light / 400).toBeLessThan(0.6);
  });
});
