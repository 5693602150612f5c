import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { around, cropped, fromBoard, heightOf, isOver, nextPlace, toBoard, WHOLE, type Hanging } from './board';

const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const hangings = fc.record({
  id: fc.constant('a'),
  x: real(-900, 900),
  y: real(-900, 900),
  width: real(20, 900),
  turn: real(-3, 3),
  mirror: fc.boolean(),
  grey: fc.boolean(),
  crop: fc.constantFrom(WHOLE, { x: 0.2, y: 0.1, w: 0.5, h: 0.7 }),
}) as fc.Arbitrary<Hanging>;
const sizes = fc.record({ width: fc.integer({ min: 50, max: 9000 }), height: fc.integer({ min: 50, max: 9000 }) });
const share = real(0.02, 0.98);

describe('a photo on the board', () => {
  it('knows where its places hang, turned and mirrored', () => {
    fc.assert(
      fc.property(hangings, sizes, share, share, (hanging, size, u, v) => {
        const p = toBoard(hanging, size, u, v);
        const back = fromBoard(hanging, size, p);
        expect(back.u).toBeCloseTo(u, 6);
        expect(back.v).toBeCloseTo(v, 6);
        expect(isOver(hanging, size, p)).toBe(true);
        expect(isOver(hanging, size, toBoard(hanging, size, 1.05, v))).toBe(false);
      }),
    );
  });

  it('is cropped from any side, and what is left stays where it hangs at the same scale', () => {
    fc.assert(
      fc.property(
        hangings,
        sizes,
        fc.constantFrom('left', 'right', 'top', 'bottom'),
        real(0.05, 0.8),
        share,
        share,
        (hanging, size, side, off, u, v) => {
          const after = cropped(hanging, size, side as 'left', off);
          expect(after.width / after.crop.w).toBeCloseTo(hanging.width / hanging.crop.w, 4);
          // a place of the photo that is still seen lies where it lay
          const [px, py] = [after.crop.x + u * after.crop.w, after.crop.y + v * after.crop.h];
          const was = toBoard(
            hanging,
            size,
            (px - hanging.crop.x) / hanging.crop.w,
            (py - hanging.crop.y) / hanging.crop.h,
          );
          const is = toBoard(after, size, u, v);
          expect(Math.hypot(was.x - is.x, was.y - is.y)).toBeLessThan(
            1e-6 * (1 + hanging.width + heightOf(hanging, size)),
          );
          // and it can be given back
          const again = cropped(after, size, side as 'left', -20);
          expect(again.crop.w * again.crop.h).toBeGreaterThan(after.crop.w * after.crop.h);
        },
      ),
    );
  });

  it('hangs beside the others, and all of them lie in the rectangle around them', () => {
    const size = { width: 400, height: 300 };
    const all = Array.from({ length: 20 }, (_, i) => nextPlace(i, `p${i}`));
    for (const a of all)
      for (const b of all) if (a !== b) expect(isOver(a, size, toBoard(b, size, 0.5, 0.5))).toBe(false);
    const box = around(all, new Map(all.map((h) => [h.id, size])))!;
    for (const h of all) {
      const p = toBoard(h, size, 1, 1);
      expect(p.x).toBeLessThanOrEqual(box.x + box.w + 1e-9);
      expect(p.y).toBeLessThanOrEqual(box.y + box.h + 1e-9);
    }
    expect(around([], new Map())).toBeUndefined();
  });
});
