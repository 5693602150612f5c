import fc from 'fast-check';
import { expect, it } from 'vitest';
import { TILE } from './cells';
import { tilesIn } from './tilesIn';

const TILES_X = 5;

it('the parts of tiles make up the rectangle, each cell once and in its own tile', () => {
  const side = fc.integer({ min: 0, max: TILES_X * TILE });
  fc.assert(
    fc.property(side, side, side, side, (a, b, c, d) => {
      const rect = { left: Math.min(a, b), right: Math.max(a, b), top: Math.min(c, d), bottom: Math.max(c, d) };
      let cells = 0;
      for (const { index, part } of tilesIn(rect, TILES_X)) {
        const inTile = (x: number, y: number) => (y >> 6) * TILES_X + (x >> 6);
        expect(inTile(part.left, part.top)).toBe(index);
        expect(inTile(part.right - 1, part.bottom - 1)).toBe(index);
        expect(
          part.left >= rect.left && part.right <= rect.right && part.top >= rect.top && part.bottom <= rect.bottom,
        ).toBe(true);
        cells += (part.right - part.left) * (part.bottom - part.top);
      }
      expect(cells).toBe((rect.right - rect.left) * (rect.bottom - rect.top));
    }),
  );
});

it('goes row by row, each tile once', () => {
  const rect = { left: 60, top: 10, right: 200, bottom: 130 };
  expect(tilesIn(rect, TILES_X).map(({ index }) => index)).toEqual([0, 1, 2, 3, 5, 6, 7, 8, 10, 11, 12, 13]);
  expect(tilesIn({ left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }, TILES_X)).toEqual([]);
});
