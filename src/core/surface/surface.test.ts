import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { correlation, deviation, mean } from '@/measure/bench';
import { MADE_SURFACES, makeHeightField, type HeightField, type SurfaceKind } from './heightField';
import { fractalNoise, latticeHash, noise1, noise2, randomFrom } from './noise';

const spec = (kind: SurfaceKind, more: object = {}) => ({ kind, scale: 1, depth: 1, ...more });
const row = (f: HeightField, y: number) => [...f.um.subarray(y * f.size, (y + 1) * f.size)];

describe('noise', () => {
  it('lies between 0 and 1 and closes upon itself', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -50, max: 50, noNaN: true }),
        fc.double({ min: -50, max: 50, noNaN: true }),
        (x, y) => {
          for (const v of [noise1(x, 3), noise2(x, y, 3), fractalNoise(x, y, 3, 3)]) {
            expect(v).toBeGreaterThanOrEqual(0);
            expect(v).toBeLessThanOrEqual(1);
          }
          expect(noise2(x + 7, y - 5, 3, 7, 5)).toBeCloseTo(noise2(x, y, 3, 7, 5), 6);
        },
      ),
    );
  });

  it('is the same for the same seed and other for another', () => {
    const series = (seed: number) => Array.from({ length: 5 }, randomFrom(seed));
    expect(series(4)).toEqual(series(4));
    expect(series(4)).not.toEqual(series(5));
    expect(latticeHash(3, 4, 1)).not.toBe(latticeHash(4, 3, 1));
  });

  it('is spread evenly', () => {
    const random = randomFrom(9);
    const v = Array.from({ length: 20_000 }, random);
    expect(mean(v)).toBeCloseTo(0.5, 2);
    expect(deviation(v)).toBeCloseTo(Math.sqrt(1 / 12), 2);
  });
});

describe.each(MADE_SURFACES)('a height field of %s', (kind) => {
  const field = makeHeightField(spec(kind), 100, 4);

  it('has mean 0 and peaks above it', () => {
    expect(Math.abs(mean([...field.um]))).toBeLessThan(0.01);
    if (kind === 'smooth') expect(field.depthUm).toBe(0);
    else {
      expect(field.peakUm).toBeGreaterThan(0);
      expect(field.depthUm).toBeGreaterThan(field.peakUm);
    }
  });

  it('is seamless: across its border it changes no more than inside', () => {
    const { size, um } = field;
    const step = (a: number, b: number) =>
      mean(Array.from({ length: size }, (_, y) => Math.abs(um[y * size + a] - um[y * size + b])));
    const inside = mean([10, 50, 90, 130].map((x) => step(x, x + 1)));
    expect(step(size - 1, 0)).toBeLessThanOrEqual(2 * inside + 1e-9);
  });

  it('is deeper when asked to be', () => {
    expect(makeHeightField(spec(kind, { depth: 2 }), 100, 4).depthUm).toBeCloseTo(2 * field.depthUm, 3);
  });
});

describe('linen', () => {
  /** First distance at which rows are like themselves again, mm, between threads of uneven width: a peak of the mean correlation. */
  const pitch = (f: HeightField, ppi: number) => {
    const rows = Array.from({ length: 24 }, (_, k) => row(f, Math.floor(((k + 0.5) * f.size) / 24)));
    const from = Math.round((0.5 / 25.4) * ppi);
    const like = Array.from({ length: Math.round((3.5 / 25.4) * ppi) - from }, (_, k) =>
      mean(
        rows.map((r) =>
          correlation(
            [...r],
            [...r].map((_, i, all) => all[(i + from + k) % all.length]),
          ),
        ),
      ),
    );
    let best = { lag: 0, r: -1 };
    for (let k = 1; k + 1 < like.length; k++) {
      if (like[k] >= like[k - 1] && like[k] >= like[k + 1] && like[k] > best.r) best = { lag: from + k, r: like[k] };
    }
    return (best.lag * 25.4) / ppi;
  };

  it('has the same threads at every resolution', () => {
    const low = makeHeightField(spec('linen-fine'), 100, 7);
    const high = makeHeightField(spec('linen-fine'), 200, 7);
    expect(high.size / low.size).toBeCloseTo(2, 1);
    // one thread or the pair of an over and an under
    const ratio = pitch(high, 200) / pitch(low, 100);
    expect(Math.min(Math.abs(ratio - 1), Math.abs(ratio - 2), Math.abs(ratio - 0.5))).toBeLessThan(0.15);
    expect(high.depthUm / low.depthUm).toBeGreaterThan(0.8);
    expect(high.depthUm / low.depthUm).toBeLessThan(1.25);
  });

  it('is wider woven when coarse, and when scaled', () => {
    const fine = pitch(makeHeightField(spec('linen-fine'), 150, 7), 150);
    const coarse = pitch(makeHeightField(spec('linen-coarse'), 150, 7), 150);
    const scaled = pitch(makeHeightField(spec('linen-fine', { scale: 2 }), 150, 7), 150);
    expect(coarse).toBeGreaterThan(1.3 * fine);
    expect(scaled).toBeGreaterThan(1.5 * fine);
  });

  it('is another piece for another seed', () => {
    const a = makeHeightField(spec('linen-fine'), 100, 1);
    const b = makeHeightField(spec('linen-fine'), 100, 2);
    expect(correlation([...a.um.subarray(0, 4000)], [...b.um.subarray(0, 4000)])).toBeLessThan(0.7);
  });
});
