import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hypot, maths, type Maths } from './maths';

const finite = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('portable functions', () => {
  const within: Record<keyof Maths, [number, number]> = {
    exp: [-300, 300],
    log: [1e-300, 1e300],
    log2: [1e-300, 1e300],
    log10: [1e-300, 1e300],
    pow: [1e-9, 1e9],
    cbrt: [-1e9, 1e9],
    sin: [-1e4, 1e4],
    cos: [-1e4, 1e4],
    tan: [-1.5, 1.5],
    asin: [-1, 1],
    acos: [-1, 1],
    atan: [-1e6, 1e6],
    atan2: [-1e6, 1e6],
    tanh: [-20, 20],
  };
  it.each(Object.keys(within) as (keyof Maths)[])('%s is as exact as that of the engine', (name) => {
    const [min, max] = within[name];
    fc.assert(
      fc.property(finite(min, max), finite(-8, 8), (x, y) => {
        const [own, theirs] = [maths[name](x, y), (Math[name] as (...p: number[]) => number)(x, y)];
        expect(Math.abs(own - theirs)).toBeLessThanOrEqual(1e-15 * Math.max(Math.abs(theirs), 1e-3));
      }),
      { numRuns: 500 },
    );
  });

  it('is right where little can go wrong unseen', () => {
    expect(maths.pow(3, 2)).toBe(9);
    expect(maths.pow(0, 0)).toBe(1);
    expect(maths.pow(-1, 0.5)).toBeNaN();
    expect(maths.exp(0)).toBe(1);
    expect(maths.exp(1000)).toBe(Infinity);
    expect(maths.log(0)).toBe(-Infinity);
    expect(maths.atan2(0, -1)).toBe(Math.PI);
    expect(maths.cos(NaN)).toBeNaN();
    expect(hypot(3, 4)).toBe(5);
    expect(hypot(2, 3, 6)).toBe(7);
  });

  it('gives these bits on every machine', () => {
    const bits: Record<string, string> = {};
    for (const name of Object.keys(within) as (keyof Maths)[]) {
      const [min, max] = within[name];
      const values = Float64Array.from({ length: 4000 }, (_, i) =>
        maths[name](min + ((max - min) * i) / 4000, i / 900),
      );
      bits[name] = bytesToHex(sha256(new Uint8Array(values.buffer))).slice(0, 16);
    }
    expect(bits).toEqual({
      acos: '2d4e8b24e8ff34b1',
      asin: 'e93e3b83915c52b5',
      atan: '51d71b4512702e90',
      atan2: '8d6344086b602c05',
      cbrt: '9fb14a8c9326aa30',
      cos: '7d30759a4967fcd6',
      exp: 'a27788c8186cfaad',
      log: '7421e95defb4690b',
      log10: 'b5ffbc0916f12eb7',
      log2: '6555f29978d2c398',
      pow: '7e95493744ed7e9d',
      sin: '1dc5d0dc04d1f23d',
      tan: '487f9bd4bfabc797',
      tanh: '8bf24f8b7a89f44e',
    });
  });
});
