import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distanceTo, enclosed, flooded, grown, outlinesOf, softened } from './regions';

const W = 40;
const H = 30;
const plane = (inside: (x: number, y: number) => boolean, value = 1) =>
  Uint8Array.from({ length: W * H }, (_, i) => (inside(i % W, Math.floor(i / W)) ? value : 0));
const count = (p: Uint8Array) => p.reduce((n, v) => n + (v > 127 ? 1 : 0), 0);
const disc = (cx: number, cy: number, r: number) => (x: number, y: number) => Math.hypot(x - cx, y - cy) <= r;

describe('distances', () => {
  it('are exact, to every cell', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: W - 1 }), fc.integer({ min: 0, max: H - 1 })), {
          minLength: 1,
          maxLength: 6,
        }),
        (spots) => {
          const far = distanceTo(
            plane((x, y) => spots.some(([a, b]) => a === x && b === y)),
            W,
            H,
          );
          for (let i = 0; i < far.length; i += 7) {
            const [x, y] = [i % W, Math.floor(i / W)];
            expect(far[i]).toBe(Math.min(...spots.map(([a, b]) => (a - x) ** 2 + (b - y) ** 2)));
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  it('grow and shrink a disc by what was asked', () => {
    const start = plane(disc(20, 15, 7), 255);
    for (const by of [3, 5, -3]) {
      const area = count(grown(start, W, H, by));
      expect(Math.sqrt(area / Math.PI)).toBeCloseTo(7.2 + by, 0);
    }
    expect(grown(start, W, H, 0)).toBe(start);
  });

  it('softening keeps the amount and widens the edge', () => {
    const start = plane((x) => x < 20, 255);
    const soft = softened(start, W, H, 4);
    const row = [...soft.subarray(15 * W, 16 * W)];
    expect(row[19]).toBeGreaterThan(127);
    expect(row[20]).toBeLessThan(128);
    expect(row[17]).toBeLessThan(255);
    expect(row[22]).toBeGreaterThan(0);
    expect(row.every((v, i) => i === 0 || v <= row[i - 1])).toBe(true);
    expect(row.reduce((a, b) => a + b, 0) / 255).toBeCloseTo(20, 0);
  });
});

describe('an area', () => {
  const ring = (gap: number) =>
    plane((x, y) => !(Math.abs(Math.hypot(x - 20, y - 15) - 10) < 1 && !(x > 20 && Math.abs(y - 15) < gap / 2)));

  it('ends at its border', () => {
    const inside = flooded(ring(0), W, 20, 15);
    expect(count(inside)).toBeGreaterThan(200);
    expect(inside[0]).toBe(0);
    expect(flooded(ring(0), W, 10, 15).every((v) => v === 0)).toBe(true);
  });

  it('runs out through a gap, unless gaps of that width are closed', () => {
    const whole = count(flooded(ring(0), W, 20, 15));
    for (const gap of [2, 4]) {
      expect(count(flooded(ring(gap), W, 20, 15))).toBeGreaterThan(2 * whole);
      const closed = enclosed(ring(gap), W, H, 20, 15, gap + 2);
      expect(closed[0]).toBe(0);
      // what was lost to closing is won back, up to the mouth of the gap
      expect(count(closed) / whole).toBeGreaterThan(0.95);
      expect(count(closed) / whole).toBeLessThan(1.1);
    }
    expect(enclosed(ring(8), W, H, 20, 15, 2)[0]).toBe(255);
  });

  it('is found from a spot close to its border as well', () => {
    expect(count(enclosed(ring(2), W, H, 12, 15, 6))).toBeGreaterThan(200);
  });
});

describe('outlines', () => {
  it('are closed lines around every part and every hole', () => {
    const lines = outlinesOf(
      plane((x, y) => x >= 5 && x < 15 && y >= 4 && y < 12, 255),
      W,
      H,
    );
    expect(lines).toHaveLength(1);
    expect(lines[0]).toHaveLength(4);
    const xs = lines[0].map(([x]) => x);
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([5, 15]);
    const holed = outlinesOf(
      plane((x, y) => disc(20, 15, 10)(x, y) && !disc(20, 15, 4)(x, y), 255),
      W,
      H,
    );
    expect(holed).toHaveLength(2);
  });
});
