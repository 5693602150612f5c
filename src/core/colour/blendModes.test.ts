import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BLEND_MODES, blendOnto, blendOver, type BlendMode } from './blendModes';

const unit = fc.double({ min: 0, max: 1, noNaN: true });
const colour = fc.tuple(unit, unit, unit);
const over = (mode: BlendMode, b: readonly number[], s: readonly number[], alpha = 1): number[] => {
  const rgb = Float32Array.from(b);
  blendOver(mode, rgb, 0, 1, s[0], s[1], s[2], alpha);
  return [...rgb];
};
const near = (a: readonly number[], b: readonly number[], to = 1e-5) =>
  a.forEach((v, i) => expect(Math.abs(v - b[i])).toBeLessThan(to));

describe('blend modes', () => {
  it('stay within the cube and leave the backdrop alone where nothing is laid', () => {
    fc.assert(
      fc.property(fc.constantFrom(...BLEND_MODES), colour, colour, unit, (mode, b, s, alpha) => {
        for (const v of over(mode, b, s, alpha)) {
          expect(v).toBeGreaterThanOrEqual(-1e-6);
          expect(v).toBeLessThanOrEqual(1 + 1e-6);
        }
        near(over(mode, b, s, 0), b, 1e-7);
      }),
    );
  });

  it('have the neutral colours that painters count on', () => {
    fc.assert(
      fc.property(colour, (b) => {
        near(over('multiply', b, [1, 1, 1]), b);
        near(over('screen', b, [0, 0, 0]), b);
        near(over('soft-light', b, [0.5, 0.5, 0.5]), b);
        near(over('overlay', b, [0.5, 0.5, 0.5]), b);
        near(over('multiply', b, [0, 0, 0]), [0, 0, 0]);
        near(over('difference', b, b), [0, 0, 0]);
        near(over('luminosity', b, b), b);
        near(over('color', b, b), b);
      }),
    );
  });

  it('keep greys that rounding takes just out of the cube', () => {
    for (const v of [0, 5e-324, 1e-300, 1e-40, 1e-12, 1 - 2 ** -53, 1]) {
      for (const mode of ['hue', 'saturation', 'color', 'luminosity'] as const) {
        near(over(mode, [v, v, v], [v, v, v]), [v, v, v]);
      }
    }
  });

  it('are each other turned round: overlay is hard light, multiply is screen of negatives', () => {
    fc.assert(
      fc.property(colour, colour, (b, s) => {
        near(over('overlay', b, s), over('hard-light', s, b));
        const not = (c: readonly number[]) => c.map((v) => 1 - v);
        near(over('multiply', b, s), not(over('screen', not(b), not(s))));
      }),
    );
  });

  it('color keeps the luminosity below', () => {
    const lum = ([r, g, b]: readonly number[]) => 0.3 * r + 0.59 * g + 0.11 * b;
    fc.assert(
      fc.property(colour, colour, (b, s) => {
        expect(Math.abs(lum(over('color', b, s)) - lum(b))).toBeLessThan(1e-5);
        expect(Math.abs(lum(over('luminosity', b, s)) - lum(s))).toBeLessThan(1e-5);
      }),
    );
  });

  it('over nothing a source is itself, over something see-through it is in between', () => {
    fc.assert(
      fc.property(fc.constantFrom(...BLEND_MODES), colour, colour, unit, (mode, b, s, alpha) => {
        const rgba = Float32Array.from([...b, 0]);
        blendOnto(mode, rgba, s[0], s[1], s[2], alpha);
        if (alpha > 1e-6) near([...rgba.subarray(0, 3)], s, 1e-4);
        expect(Math.abs(rgba[3] - alpha)).toBeLessThan(1e-6);
        // on an opaque backdrop both ways of compositing agree
        const opaque = Float32Array.from([...b, 1]);
        blendOnto(mode, opaque, s[0], s[1], s[2], alpha);
        near([...opaque.subarray(0, 3)], over(mode, b, s, alpha), 1e-4);
      }),
    );
  });
});
