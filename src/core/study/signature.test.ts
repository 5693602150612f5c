import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boxOf, placedStrokes, signatureSchema, withDate, writtenDate, type Signature } from './signature';

const drawn = fc.array(
  fc.array(
    fc.tuple(
      fc.integer({ min: 0, max: 5000 }),
      fc.double({ min: 0, max: 3, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
    ),
    { minLength: 2, maxLength: 30 },
  ),
  { minLength: 1, maxLength: 6 },
);

describe('a signature', () => {
  it('is as high as it is to be, stands where it is to, and is turned about its middle', () => {
    fc.assert(
      fc.property(
        drawn,
        fc.double({ min: 3, max: 80, noNaN: true }),
        fc.integer({ min: -180, max: 180 }),
        (signature, heightMm, turn) => {
          fc.pre(boxOf(signature).height > 0.05);
          const upright = placedStrokes(signature, { x: 40, y: 30, heightMm, turn: 0 });
          const ys = upright.flat().map(([, , y]) => y);
          expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(heightMm, 6);
          const turned = placedStrokes(signature, { x: 40, y: 30, heightMm, turn });
          turned.flat().forEach(([t, x, y, p], i) => {
            const [time, fromX, fromY, pressure] = upright.flat()[i];
            expect([t, p]).toEqual([time, pressure]);
            // as far from the middle, at the angle more
            expect(Math.hypot(x - 40, y - 30)).toBeCloseTo(Math.hypot(fromX - 40, fromY - 30), 6);
            const angle = Math.atan2(y - 30, x - 40) - Math.atan2(fromY - 30, fromX - 40);
            if (Math.hypot(x - 40, y - 30) > 0.01) expect(Math.cos(angle - (turn * Math.PI) / 180)).toBeCloseTo(1, 6);
          });
        },
      ),
    );
  });

  it('can have a date under it: figures apart, smaller, and no readings that a journal would refuse', () => {
    const own: Signature = [
      [
        [0, 0, 0, 0.5],
        [90, 2, 1, 0.5],
      ],
    ];
    const dated = withDate(own, '2.12.2026');
    expect(dated.length).toBeGreaterThan(own.length + 7);
    const date = boxOf(dated.slice(1));
    expect(date.top).toBeGreaterThan(1);
    expect(date.height).toBeCloseTo(0.32, 6);
    expect(signatureSchema.safeParse(dated).success).toBe(true);
    expect(withDate(own, '')).toBe(own);
    const figures = [...'0123456789'].map((figure) => JSON.stringify(writtenDate(figure)));
    expect(new Set(figures).size).toBe(10);
    for (const figure of '0123456789') {
      const { width, height } = boxOf(writtenDate(figure));
      expect(width).toBeLessThan(0.6);
      expect(height).toBeGreaterThan(0.9);
      expect(height).toBeLessThan(1.1);
    }
  });

  it('of a single dot stays a dot', () => {
    const [[[, x, y]]] = placedStrokes([[[0, 1, 1, 1]]], { x: 5, y: 6, heightMm: 10, turn: 30 });
    expect([x, y]).toEqual([5, 6]);
  });
});
