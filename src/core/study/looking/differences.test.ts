import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compareColours } from '@/core/study/compare';
import {
  differenceMap,
  differences,
  keyWords,
  massDifferenceMap,
  netColours,
  placeWords,
  tooWords,
  valueKey,
} from './differences';
import { hueSpots } from './hues';
import { labOf, valueOf, type CodeImage } from './image';
import { massed, studyOf, studyPicture } from './studyOf';

const rgb = (r: number, g: number, b: number) => (0xff000000 | (b << 16) | (g << 8) | r) >>> 0;
const image = (width: number, height: number, of: (x: number, y: number) => number): CodeImage => ({
  codes: Uint32Array.from({ length: width * height }, (_, i) => of(i % width, Math.floor(i / width))),
  width,
  height,
  mmPerPx: 0.4,
});

describe('canvas and photo, area by area', () => {
  it('a flat area is the colour that it is, at any size that the net does not divide', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 7, max: 60 }),
        fc.integer({ min: 7, max: 60 }),
        fc.nat(0xffffff),
        (width, height, raw) => {
          const code = (0xff000000 | raw) >>> 0;
          for (const lab of netColours(
            image(width, height, () => code),
            4,
            3,
          ))
            lab!.forEach((v, c) => expect(v).toBeCloseTo(labOf(code)[c], 3));
        },
      ),
      { numRuns: 40 },
    );
  });

  it('the one area that was changed comes first, with what is wrong with it', () => {
    const motif = image(90, 60, (x, y) => rgb(110 + (x % 3), 105 + (y % 3), 100));
    const painted = image(90, 60, (x, y) => (x >= 60 && y < 20 ? rgb(170, 140, 110) : motif.codes[y * 90 + x]));
    const [first, ...others] = differences(painted, motif, 3, 3);
    expect([first.column, first.row]).toEqual([2, 0]);
    const steps = first.compared.valueSteps;
    expect(steps).toBeCloseTo(valueOf(rgb(170, 140, 110)) - valueOf(rgb(111, 106, 100)), 0);
    expect(first.words).toMatch(/^upper right: .*too light, .*too warm/);
    for (const other of others) {
      expect(other.compared.deltaE).toBeLessThan(0.01);
      expect(other.words).toMatch(/as it is there$/);
    }
    const map = differenceMap(painted, [first, ...others], 3, 3);
    expect(valueOf(map[5 * 90 + 75])).toBeLessThan(valueOf(map[50 * 90 + 10]) - 2);
  });

  it('words are said of what is seen: nothing for what nobody would say, and both ways', () => {
    expect(tooWords(compareColours([50, 0, 0], [50.5, 0, 0]))).toBe('');
    expect(tooWords(compareColours([60, 0, 0], [50, 0, 0]))).toBe('a value too light');
    expect(tooWords(compareColours([50, 0, 0], [75, 0, 0]))).toBe('2.5 values too dark');
    expect(tooWords(compareColours([50, 2, 12], [50, 0, 0]))).toMatch(/too warm/);
    expect(tooWords(compareColours([50, 0, 0], [50, 2, 12]))).toMatch(/too cool/);
    expect(placeWords(0, 0, 3, 3)).toBe('upper left');
    expect(placeWords(1, 1, 3, 3)).toBe('in the middle');
    expect(placeWords(7, 5, 8, 6)).toBe('lower right');
  });
});

describe('the value key', () => {
  it('of two flat families: their shares and how far apart they are', () => {
    const picture = image(100, 40, (x) => (x < 30 ? rgb(40, 40, 40) : rgb(200, 200, 200)));
    const key = valueKey(picture, picture.codes, 5)!;
    expect(key.darkShare).toBeCloseTo(0.3, 9);
    expect(key.dark).toBeCloseTo(valueOf(rgb(40, 40, 40)), 1);
    expect(key.light).toBeCloseTo(valueOf(rgb(200, 200, 200)), 1);
    expect(key.darkestLight - key.lightestDark).toBeCloseTo(key.light - key.dark, 1);
    expect(keyWords(key)).toMatch(/^30 % dark, 70 % light; .* keep 6\.\d values apart\.$/);
  });

  it('families overlap where lights in the dark mass are lighter than darks in the light one', () => {
    // a tenth of each family is as far on the other side
    const picture = image(100, 50, (x, y) => {
      const dark = x < 50;
      const odd = y % 10 === 0;
      return dark !== odd ? rgb(60, 60, 60) : rgb(180, 180, 180);
    });
    const massed = image(100, 50, (x) => (x < 50 ? rgb(70, 70, 70) : rgb(170, 170, 170)));
    const key = valueKey(picture, massed.codes, 5)!;
    expect(key.lightestDark - key.darkestLight).toBeCloseTo(valueOf(rgb(180, 180, 180)) - valueOf(rgb(60, 60, 60)), 0);
    expect(keyWords(key)).toMatch(/overlap by 4\.\d values/);
  });
});

describe('a study', () => {
  it('of the same picture twice finds no difference and the same of both', () => {
    const picture = image(80, 60, (x, y) => rgb((x * 3) & 255, (y * 4) & 255, 120));
    const { canvas, photo, differences: all } = studyOf(picture, picture, 3, [4, 3]);
    expect(photo).toEqual(canvas);
    expect(all).toHaveLength(12);
    expect(Math.max(...all.map((d) => d.compared.deltaE))).toBe(0);
    expect(canvas.values.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
  });

  it('of nothing, of one colour, of a few pixels: no number that is none', () => {
    for (const [width, height] of [
      [1, 1],
      [5, 4],
      [40, 30],
    ]) {
      for (const code of [0, rgb(90, 90, 90)]) {
        const picture = image(width, height, () => code);
        const study = studyOf(picture, picture, 3, [6, 4]);
        expect(JSON.stringify(study)).not.toMatch(/null|NaN/);
        const { values } = studyPicture(picture, 3);
        expect(values.reduce((a, b) => a + b, 0)).toBeCloseTo(code === 0 ? 0 : 1, 9);
      }
    }
  });
});

describe('canvas and photo, mass by mass', () => {
  const motif = image(90, 60, (x) => (x < 30 ? rgb(40, 40, 42) : x < 60 ? rgb(120, 118, 116) : rgb(220, 216, 210)));

  it('the mass that was changed comes first, whatever its place, in the words of masses', () => {
    const painted = image(90, 60, (x) => (x < 30 ? rgb(40, 40, 42) : x < 60 ? rgb(160, 140, 110) : rgb(220, 216, 210)));
    const { byMass, photo } = studyOf(painted, motif, 3, [3, 3]);
    expect(photo!.masses.of.length).toBe(3);
    expect(byMass.length).toBe(3);
    expect(byMass[0].words).toMatch(/^halftones \(3\d %\): .*too light.*too warm/);
    for (const other of byMass.slice(1)) expect(other.compared.deltaE).toBeLessThan(5);
    expect(byMass.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    const soft = massed(motif);
    const map = massDifferenceMap(painted, byMass, soft, photo!.masses);
    expect(valueOf(map[30 * 90 + 45])).toBeLessThan(valueOf(map[30 * 90 + 10]) - 1);
  });

  it('of one colour, of nothing and of few pixels: a sentence or nothing, and no number that is none', () => {
    for (const [w, h] of [
      [1, 1],
      [5, 4],
      [40, 30],
    ]) {
      for (const code of [0, rgb(120, 90, 60)]) {
        const flat = image(w, h, () => code);
        const { byMass, canvas } = studyOf(flat, flat, 5, [4, 3]);
        expect(byMass.length).toBe(code === 0 ? 0 : 1);
        expect(JSON.stringify([byMass, canvas])).not.toMatch(/null|NaN/);
      }
    }
  });
});

describe('hues and chromas', () => {
  it('are those of the colours, by their shares', () => {
    const two = image(100, 10, (x) => (x < 70 ? rgb(200, 60, 40) : rgb(60, 90, 180)));
    const [first, second, ...others] = hueSpots(two);
    expect(others).toEqual([]);
    expect([first.share, second.share]).toEqual([0.7, 0.3]);
    const [, a, b] = labOf(rgb(200, 60, 40));
    expect(Math.hypot(first.a - a, first.b - b)).toBeLessThan(0.01);
    expect(hueSpots(image(4, 4, () => 0))).toEqual([]);
  });
});
