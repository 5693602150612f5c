import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { polygon, shapeOf } from './shapes';

const BOX = [-20, -20, 120, 100] as const;

describe('a shape that a wash is laid into', () => {
  it('knows how far a place is from its edge', () => {
    fc.assert(
      fc.property(fc.integer({ min: 12, max: 30 }), fc.integer({ min: 0, max: 100 }), (radius, share) => {
        const disc = shapeOf((x, y) => Math.hypot(x - 50, y - 40) < radius, BOX);
        const at = (radius * share) / 100;
        // chamfers are off by up to a twelfth
        expect(disc.depth(50 + at, 40)).toBeGreaterThan((radius - at) * 0.92 - 0.6);
        expect(disc.depth(50 + at, 40)).toBeLessThan((radius - at) * 1.09 + 0.6);
        expect(disc.depth(50 + radius + 2, 40)).toBe(0);
      }),
      { numRuns: 12 },
    );
  });

  it('has closed lines along its edge, and along the edges of what is left out', () => {
    const ring = shapeOf((x, y) => Math.abs(Math.hypot(x - 50, y - 40) - 22) < 10, BOX);
    const lines = ring.contours(3);
    expect(lines.length).toBe(2);
    const radii = lines.map((line) => line.map(([x, y]) => Math.hypot(x - 50, y - 40)));
    const means = radii.map((r) => r.reduce((a, b) => a + b, 0) / r.length).sort((a, b) => a - b);
    expect(means[0]).toBeCloseTo(15, 0);
    expect(means[1]).toBeCloseTo(29, 0);
    for (const line of lines) {
      const [a, b] = [line[0], line[line.length - 1]];
      expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(1);
    }
  });

  it('runs on beyond the sheet: there is no edge where the box ends', () => {
    const half = shapeOf((_, y) => y > 30, BOX);
    expect(half.depth(-19, 60)).toBeCloseTo(30, 0);
    expect(half.contours(5).length).toBe(1);
  });

  it('may be a polygon, hollow or not', () => {
    const notched = polygon([
      [0, 0],
      [40, 0],
      [40, 40],
      [20, 10],
      [0, 40],
    ]);
    expect([notched(20, 5), notched(20, 20), notched(5, 20), notched(50, 5)]).toEqual([true, false, true, false]);
  });
});
