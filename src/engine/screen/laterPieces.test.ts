import fc from 'fast-check';
import { expect, it } from 'vitest';
import { LaterPieces } from './laterPieces';

const rect = fc
  .tuple(fc.nat(500), fc.nat(400), fc.integer({ min: 1, max: 500 }), fc.integer({ min: 1, max: 400 }))
  .map(([left, top, width, height]) => ({ left, top, right: left + width, bottom: top + height }));

it('every pixel of what is drawn later is drawn once, whatever comes in between', () => {
  fc.assert(
    fc.property(rect, fc.nat(6), rect, (first, some, second) => {
      const pieces = new LaterPieces();
      pieces.add({ ...first });
      for (let i = 0; i < some; i++) pieces.next();
      const unfinished = !pieces.isEmpty;
      pieces.add({ ...second });
      const all = unfinished
        ? {
            left: Math.min(first.left, second.left),
            top: Math.min(first.top, second.top),
            right: Math.max(first.right, second.right),
            bottom: Math.max(first.bottom, second.bottom),
          }
        : second;
      const times = new Uint8Array(1000 * 800);
      let turn = 0;
      for (let piece = pieces.next(); piece; piece = pieces.next(turn++ % 3 === some % 3))
        for (let y = piece.top; y < piece.bottom; y++)
          for (let x = piece.left; x < piece.right; x++) times[y * 1000 + x]++;
      let wrong = 0;
      for (let y = 0; y < 800; y++)
        for (let x = 0; x < 1000; x++) {
          const inside = x >= all.left && x < all.right && y >= all.top && y < all.bottom;
          if (times[y * 1000 + x] !== Number(inside)) wrong++;
        }
      expect(wrong).toBe(0);
      expect(pieces.isEmpty).toBe(true);
    }),
    { numRuns: 30 },
  );
});
