import fc from 'fast-check';
import { expect, it } from 'vitest';
import { Remembered } from './remembered';

it('gives what was made, makes nothing twice while there is room, and forgets what was used longest ago', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(6), { maxLength: 60 }), fc.integer({ min: 10, max: 60 }), (asked, most) => {
      let making = 0;
      const fields = new Remembered<Float32Array>(most, (field) => field.length);
      /** What there must be room for, the newest last. */
      let there: number[] = [];
      for (const n of asked) {
        const before = making;
        const field = fields.once(`${n}`, () => {
          making++;
          return new Float32Array(10).fill(n);
        });
        expect(field[0]).toBe(n);
        expect(making - before).toBe(there.includes(n) ? 0 : 1);
        there = [...there.filter((other) => other !== n), n].slice(-Math.max(1, Math.floor(most / 10)));
      }
    }),
  );
});
