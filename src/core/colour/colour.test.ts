import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  decodeSrgb,
  encodeSrgb,
  labToLinear,
  labToXyz,
  linearToHex,
  linearToLab,
  linearToXyz,
  xyzToLab,
  xyzToLinear,
  type Triple,
} from './colorimetry';
import { deltaE2000 } from './deltaE2000';

const channel = fc.double({ min: 0, max: 1, noNaN: true });

describe('conversions', () => {
  it('take white to L* 100 and black to 0', () => {
    expect(linearToLab([1, 1, 1]).map((v) => Math.round(v * 1e4) / 1e4 + 0)).toEqual([100, 0, 0]);
    expect(linearToLab([0, 0, 0])[0]).toBeCloseTo(0, 9);
  });

  it('come back to where they began', () => {
    fc.assert(
      fc.property(channel, channel, channel, (r, g, b) => {
        const rgb: Triple = [r, g, b];
        labToLinear(linearToLab(rgb)).forEach((v, i) => expect(v).toBeCloseTo(rgb[i], 7));
        xyzToLinear(linearToXyz(rgb)).forEach((v, i) => expect(v).toBeCloseTo(rgb[i], 9));
        expect(decodeSrgb(encodeSrgb(r))).toBeCloseTo(r, 9);
      }),
    );
    const lab: Triple = [53, -20, 33];
    xyzToLab(labToXyz(lab)).forEach((v, i) => expect(v).toBeCloseTo(lab[i], 9));
  });

  it('clip what a screen cannot show', () => {
    expect(linearToHex([-0.2, 0.5, 1.4])).toBe('#00bcff');
  });
});

describe('Delta E 2000', () => {
  // Sharma, Wu and Dalal 2005, table 1: the pairs that catch the usual mistakes
  const pairs: [Triple, Triple, number][] = [
    [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
    [[50, 3.1571, -77.2803], [50, 0, -82.7485], 2.8615],
    [[50, -1.3802, -84.2814], [50, 0, -82.7485], 1.0],
    [[50, 0, 0], [50, -1, 2], 2.3669],
    [[50, 2.49, -0.001], [50, -2.49, 0.0009], 7.1792],
    [[50, 2.49, -0.001], [50, -2.49, 0.0011], 7.2195],
    [[50, -0.001, 2.49], [50, 0.0011, -2.49], 4.7461],
    [[50, 2.5, 0], [50, 0, -2.5], 4.3065],
    [[50, 2.5, 0], [73, 25, -18], 27.1492],
    [[50, 2.5, 0], [58, 24, 15], 19.4535],
    [[60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387], 1.2644],
    [[22.7233, 20.0904, -46.694], [23.0331, 14.973, -42.5619], 2.0373],
    [[2.0776, 0.0795, -1.135], [0.9033, -0.0636, -0.5514], 0.9082],
  ];

  it.each(pairs)('of %j and %j is %d', (a, b, expected) => {
    expect(deltaE2000(a, b)).toBeCloseTo(expected, 4);
    expect(deltaE2000(b, a)).toBeCloseTo(expected, 4);
  });

  it('is nothing between equal colours', () => {
    fc.assert(fc.property(channel, channel, (a, b) => void expect(deltaE2000([50, a, b], [50, a, b])).toBe(0)));
  });
});
