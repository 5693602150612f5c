import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { count, noCounts } from './histogram';

describe('a histogram', () => {
  it('has every colour once in each channel, at its code', () => {
    const byte = fc.integer({ min: 0, max: 255 });
    fc.assert(
      fc.property(fc.array(fc.tuple(byte, byte, byte), { maxLength: 60 }), (colours) => {
        const counts = noCounts();
        count(
          counts,
          Uint32Array.from(colours, ([r, g, b]) => (r | (g << 8) | (b << 16) | 0xff000000) >>> 0),
        );
        for (let c = 0; c < 3; c++) {
          for (const colour of colours) {
            expect(counts[c][colour[c]]).toBe(colours.filter((other) => other[c] === colour[c]).length);
          }
        }
        for (const channel of counts) expect(channel.reduce((sum, n) => sum + n, 0)).toBe(colours.length);
      }),
    );
  });

  it('weighs luma by the standard, and leaves out what is not there', () => {
    const counts = noCounts();
    count(counts, Uint32Array.of(0xff0000ff, 0xff00ff00, 0xffff0000, 0x20ffffff));
    expect([54, 182, 18].map((code) => counts[3][code])).toEqual([1, 1, 1]);
    expect(counts[3][255]).toBe(0);
  });

  it('takes every so manyeth of a large picture', () => {
    const counts = noCounts();
    count(counts, new Uint32Array(100).fill(0xff808080), 10);
    expect(counts[0][128]).toBe(10);
  });
});
