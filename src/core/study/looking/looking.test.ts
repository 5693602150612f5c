import fc from 'fast-check';
import { describe, expect, it, test } from 'vitest';
import { encodeSrgb } from '@/core/colour/colorimetry';
import { chromaOf, greyOfValue, labOf, LINEAR, luminanceOf, valueOf, warmthOf, type CodeImage } from './image';
import { chromaMap, liftedDarks, temperatureMap } from './maps';
import { findMasses, inMasses, massesWithin, valueCounts } from './masses';
import { squint } from './squint';

const rgb = (r: number, g: number, b: number) => (0xff000000 | (b << 16) | (g << 8) | r) >>> 0;
const image = (width: number, height: number, of: (x: number, y: number) => number, mmPerPx = 0.25): CodeImage => ({
  codes: Uint32Array.from({ length: width * height }, (_, i) => of(i % width, Math.floor(i / width))),
  width,
  height,
  mmPerPx,
});
const AWKWARD: readonly [string, CodeImage][] = [
  ['nothing', image(30, 20, () => 0)],
  ['one pixel', image(1, 1, () => rgb(90, 120, 60))],
  ['20 pixels', image(5, 4, (x, y) => rgb(40 * x, 60 * y, 99))],
  ['one colour', image(40, 30, () => rgb(120, 90, 70))],
  ['half beside the painting', image(40, 30, (x) => (x < 20 ? 0 : rgb(12 * (x - 20), 80, 200)))],
];

describe('values of codes', () => {
  test('are CIELAB lightness over ten, and greys of values come back', () => {
    for (let c = 0; c < 256; c++) {
      expect(valueOf(rgb(c, c, c))).toBeCloseTo(labOf(rgb(c, c, c))[0] / 10, 1);
      expect(greyOfValue(labOf(rgb(c, c, c))[0] / 10) & 255).toBe(c);
    }
  });

  test('warmth and chroma from the table are those of the colour, to what four steps make', () => {
    fc.assert(
      fc.property(fc.nat(0xffffff), (raw) => {
        const code = (0xff000000 | raw) >>> 0;
        const [, a, b] = labOf(code);
        expect(Math.abs(chromaOf(code) - Math.hypot(a, b))).toBeLessThan(6);
        expect(Math.abs(warmthOf(code) - warmthOf(code & 0xfffcfcfc))).toBeLessThan(1e-6);
      }),
    );
  });
});

describe('a squint', () => {
  /** A Gaussian summed place by place, in linear light. */
  const slow = ({ codes, width, height }: CodeImage, sigma: number, x: number, y: number): number => {
    const far = Math.ceil(4 * sigma);
    let [sum, weight] = [0, 0];
    for (let dy = -far; dy <= far; dy++) {
      for (let dx = -far; dx <= far; dx++) {
        const [cx, cy] = [x + dx, y + dy];
        if (cx < 0 || cy < 0 || cx >= width || cy >= height || codes[cy * width + cx] >>> 24 === 0) continue;
        const w = Math.exp(-(dx * dx + dy * dy) / (2 * sigma * sigma));
        sum += w * LINEAR[codes[cy * width + cx] & 255];
        weight += w;
      }
    }
    return sum / weight;
  };

  it.each([1, 2, 4, 7.3])('of %f pixels is a Gaussian in linear light, darkened a little', (sigma) => {
    const stripes = image(61, 47, (x, y) => rgb(x > 30 ? 230 : 20, 0, 0) + ((y * 7 + x * 3) % 11));
    const seen = squint(stripes, sigma * stripes.mmPerPx);
    for (const [x, y] of [
      [30, 20],
      [25, 24],
      [34, 30],
      [2, 3],
      [58, 44],
    ]) {
      const code = Math.round(255 * encodeSrgb(0.86 * slow(stripes, sigma, x, y)));
      expect(Math.abs((seen[y * 61 + x] & 255) - code)).toBeLessThanOrEqual(7);
    }
  });

  it('of open eyes is the picture; of a flat colour that colour, right up to its rim', () => {
    const flat = image(40, 30, () => rgb(120, 90, 70));
    expect(squint(flat, 0)).toBe(flat.codes);
    const seen = squint(flat, 3);
    expect(new Set(seen).size).toBe(1);
    expect(luminanceOf(seen[0]) / luminanceOf(flat.codes[0])).toBeCloseTo(0.86, 1);
  });
});

describe('masses', () => {
  const counts = (pairs: readonly (readonly [value: number, count: number])[]) => {
    const out = new Float64Array(200);
    for (const [value, count] of pairs) out[Math.min(199, Math.floor(value * 20))] += count;
    return out;
  };

  it('are found where the values lie apart, with their shares', () => {
    const { borders, of } = findMasses(
      counts([
        [1, 300],
        [1.2, 300],
        [5, 200],
        [8.6, 150],
        [9, 50],
      ]),
      3,
    );
    expect(borders[0]).toBeGreaterThan(1.2);
    expect(borders[0]).toBeLessThan(5);
    expect(borders[1]).toBeGreaterThan(5);
    expect(borders[1]).toBeLessThan(8.6);
    expect(of.map(({ share }) => share)).toEqual([0.6, 0.2, 0.2]);
  });

  test('leave no more variance within than any other borders do, tried one by one', () => {
    const within = (c: Float64Array, borders: readonly number[]) =>
      [...c].reduce((sum, n, i) => {
        const v = (i + 0.5) / 20;
        const mean = massesWithin(c, borders)[borders.filter((b) => v >= b).length].value;
        return sum + n * (v - mean) ** 2;
      }, 0);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 24 }), fc.integer({ min: 1, max: 50 })), {
          minLength: 3,
          maxLength: 9,
        }),
        (pairs) => {
          const c = counts(pairs.map(([v, n]) => [v * 0.4 + 0.02, n]));
          fc.pre(new Set(pairs.map(([v]) => v)).size >= 3);
          const found = within(c, findMasses(c, 3).borders);
          for (let a = 1; a < 24; a++) {
            for (let b = a + 1; b <= 24; b++) {
              expect(found).toBeLessThanOrEqual(within(c, [a * 0.4, b * 0.4]) + 1e-6);
            }
          }
        },
      ),
      { numRuns: 3 },
    );
  });

  it('are no more than there are values, and none of nothing', () => {
    expect(findMasses(counts([[4, 10]]), 5).of).toEqual([{ value: expect.closeTo(4, 1), share: 1 }]);
    expect(findMasses(new Float64Array(200), 3)).toEqual({ borders: [], of: [] });
    const three = image(30, 30, (x) => greyOfValue([2, 5, 8][Math.floor(x / 10)]));
    const seen = inMasses(three, findMasses(valueCounts(three), 3));
    expect(new Set(seen).size).toBe(3);
  });
});

describe('maps', () => {
  it('tell warm from cool beside one another, though both are grey to a camera', () => {
    const both = image(80, 40, (x) => (x < 40 ? rgb(132, 118, 104) : rgb(106, 118, 134)));
    const seen = temperatureMap(both, 8);
    const at = (x: number, y: number) => seen[y * 80 + x];
    const red = (x: number) => (at(x, 20) & 255) - ((at(x, 20) >>> 16) & 255);
    expect(red(36)).toBeGreaterThan(15);
    expect(red(44)).toBeLessThan(-15);
    // far from the border each is only beside itself, but against a neutral it stays what it is
    expect(Math.abs(red(2))).toBeLessThan(red(36));
    const alone = temperatureMap(both, 0);
    expect((alone[2] & 255) - ((alone[2] >>> 16) & 255)).toBeGreaterThan(15);
    // cool is striped: rows and columns of it differ in light
    const cool = Array.from({ length: 12 }, (_, i) => at(46 + i, 20) & 255);
    expect(Math.max(...cool) - Math.min(...cool)).toBeGreaterThan(8);
  });

  it('show a grey as no chroma, and a strong colour as much', () => {
    const [grey, strong] = chromaMap(image(2, 1, (x) => (x === 0 ? rgb(120, 120, 120) : rgb(240, 90, 20))));
    expect(grey & 255).toBeLessThan(14);
    expect(strong & 255).toBeGreaterThan(180);
  });

  test('lifted darks are lighter in the same order, and what is lighter than them is left alone', () => {
    const ramp = image(256, 1, (x) => rgb(x, x, x));
    const seen = liftedDarks(ramp, 4);
    for (let x = 1; x < 256; x++) {
      expect(seen[x] & 255).toBeGreaterThanOrEqual(seen[x - 1] & 255);
      if (valueOf(ramp.codes[x]) > 4) expect(seen[x]).toBe(ramp.codes[x]);
      else expect(seen[x] & 255).toBeGreaterThanOrEqual(x);
    }
    expect(seen[12] & 255).toBeGreaterThan(30);
  });

  test.each(AWKWARD)('of %s are of its size, and see-through where it is', (_, odd) => {
    for (const seen of [
      squint(odd, 2),
      inMasses(odd, findMasses(valueCounts(odd), 4)),
      temperatureMap(odd, 5),
      temperatureMap(odd, 0),
      chromaMap(odd),
      liftedDarks(odd, 4),
    ]) {
      expect(seen.length).toBe(odd.codes.length);
      seen.forEach((code, i) => expect(code >>> 24).toBe(odd.codes[i] >>> 24));
    }
  });
});
