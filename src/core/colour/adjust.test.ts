import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { adjuster, adjustmentSchema, curveThrough, throughLevels, type Adjustment } from './adjust';
import { BANDS } from './bands';
import { encodeSrgb, decodeSrgb } from './colorimetry';
import { CHANNEL_SPECTRA, decodeFast, encodeFast } from './rgbBands';

const unit = fc.double({ min: 0, max: 1, noNaN: true });
const colour = fc.tuple(unit, unit, unit);
const through = (adjustment: Adjustment, rgb: readonly number[]): number[] => {
  const one = Float32Array.from(rgb);
  adjuster(adjustment)!(one, 1, 1);
  return [...one];
};
const of = (input: unknown) => adjustmentSchema.parse(input);
const luma = ([r, g, b]: readonly number[]) => 0.2126 * r + 0.7152 * g + 0.0722 * b;

describe('adjustments', () => {
  it('change nothing as they are at first', () => {
    fc.assert(
      fc.property(colour, (rgb) => {
        for (const kind of ['levels', 'curves', 'hue', 'warmth']) {
          through(of({ kind }), rgb).forEach((v, i) => expect(Math.abs(v - rgb[i])).toBeLessThan(2e-3));
        }
      }),
    );
  });

  it('levels take their black to black, their white to white, and the middle by gamma', () => {
    const levels = { black: 0.2, white: 0.8, gamma: 2, outBlack: 0.1, outWhite: 0.9 };
    expect(throughLevels(levels, 0.2)).toBeCloseTo(0.1);
    expect(throughLevels(levels, 0.05)).toBeCloseTo(0.1);
    expect(throughLevels(levels, 0.8)).toBeCloseTo(0.9);
    expect(throughLevels(levels, 0.35)).toBeCloseTo(0.1 + 0.8 * Math.sqrt(0.25));
    const only = through(of({ kind: 'levels', red: { gamma: 2 } }), [0.25, 0.25, 0.25]);
    expect(only[0]).toBeCloseTo(0.5, 2);
    expect(only[1]).toBeCloseTo(0.25, 2);
  });

  it('a curve goes through its points and never overshoots', () => {
    const points = fc
      .uniqueArray(fc.integer({ min: 1, max: 99 }), { minLength: 1, maxLength: 6 })
      .chain((xs) =>
        fc.tuple(
          fc.constant([0, ...xs.toSorted((a, b) => a - b), 100]),
          fc.array(unit, { minLength: xs.length + 2, maxLength: xs.length + 2 }),
        ),
      );
    fc.assert(
      fc.property(points, ([xs, ys]) => {
        const list = xs.map((x, i) => [x / 100, ys[i]] as [number, number]);
        const curve = curveThrough(list);
        list.forEach(([x, y]) => expect(curve(x)).toBeCloseTo(y, 6));
        for (let i = 0; i + 1 < list.length; i++) {
          const [low, high] = [Math.min(ys[i], ys[i + 1]), Math.max(ys[i], ys[i + 1])];
          for (let t = 0; t <= 1; t += 0.1) {
            const v = curve(list[i][0] + t * (list[i + 1][0] - list[i][0]));
            expect(v).toBeGreaterThanOrEqual(low - 1e-6);
            expect(v).toBeLessThanOrEqual(high + 1e-6);
          }
        }
      }),
    );
  });

  it('hue is turned with the value kept; saturation -1 is grey', () => {
    fc.assert(
      fc.property(fc.tuple(...[0, 1, 2].map(() => fc.double({ min: 0.35, max: 0.65, noNaN: true }))), (rgb) => {
        const turned = through(of({ kind: 'hue', turn: 120 }), rgb);
        expect(luma(turned)).toBeCloseTo(luma(rgb), 4);
        const grey = through(of({ kind: 'hue', saturation: -1 }), rgb);
        grey.forEach((v) => expect(v).toBeCloseTo(luma(rgb), 4));
        const round = through(of({ kind: 'hue', turn: 180 }), through(of({ kind: 'hue', turn: 180 }), rgb));
        round.forEach((v, i) => expect(v).toBeCloseTo(rgb[i], 4));
      }),
    );
  });

  it('warm is redder and less blue at the same luminance', () => {
    const grey = [0.5, 0.5, 0.5];
    const [r, g, b] = through(of({ kind: 'warmth', warmth: 0.6 }), grey);
    expect(r).toBeGreaterThan(g);
    expect(g).toBeGreaterThan(b);
    const light = luma([r, g, b].map(decodeSrgb));
    expect(light / decodeSrgb(0.5)).toBeCloseTo(1, 2);
  });

  it('bad settings are refused', () => {
    for (const bad of [
      { kind: 'levels', all: { gamma: 0 } },
      { kind: 'curves', all: [[0, 0]] },
      { kind: 'blur', radiusMm: 99 },
      { kind: 'glow' },
    ]) {
      expect(adjustmentSchema.safeParse(bad).success).toBe(false);
    }
  });
});

describe('colours carried by bands', () => {
  it('the spectra of the channels give each channel alone, and together are flat', () => {
    const { count, toRgb } = BANDS;
    for (let c = 0; c < 3; c++) {
      for (let d = 0; d < 3; d++) {
        let sum = 0;
        for (let b = 0; b < count; b++) sum += CHANNEL_SPECTRA[c * count + b] * toRgb[d * count + b];
        expect(sum).toBeCloseTo(c === d ? 1 : 0, 9);
      }
    }
    for (let b = 0; b < count; b++) {
      expect(CHANNEL_SPECTRA[b] + CHANNEL_SPECTRA[count + b] + CHANNEL_SPECTRA[2 * count + b]).toBeCloseTo(1, 9);
    }
  });

  it('the fast transfer curves are within a hundredth of a code', () => {
    for (let i = 0; i <= 5000; i++) {
      const v = i / 5000;
      expect(Math.abs(encodeFast(v) - encodeSrgb(v)) * 255).toBeLessThan(0.01);
      expect(Math.abs(decodeFast(v) - decodeSrgb(v)) * 255).toBeLessThan(0.01);
    }
  });
});
