import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PathBuilder, StampWalker, type PathPoint, type Sample, type Stamp } from './path';

const at = (x: number, y: number, pressure = 0.5): Sample => ({ t: 0, x, y, pressure, tiltX: 0, tiltY: 0, twist: 0 });

function pathOf(samples: Sample[]): PathPoint[] {
  const points: PathPoint[] = [];
  const path = new PathBuilder((p) => points.push(p));
  samples.forEach((s) => path.add(s));
  path.end();
  return points;
}

function stampsOf(samples: Sample[], spacing: number): Stamp[] {
  const stamps: Stamp[] = [];
  const walker = new StampWalker(
    () => spacing,
    (s) => stamps.push(s),
  );
  const path = new PathBuilder((p) => walker.add(p));
  samples.forEach((s) => path.add(s));
  path.end();
  walker.end();
  return stamps;
}

const place = fc.tuple(fc.double({ min: 0, max: 200, noNaN: true }), fc.double({ min: 0, max: 200, noNaN: true }));

describe('a path', () => {
  it('goes through its samples, from the first to the last', () => {
    fc.assert(
      fc.property(fc.array(place, { minLength: 2, maxLength: 12 }), (places) => {
        const samples = places.map(([x, y]) => at(x, y));
        const points = pathOf(samples);
        for (const s of samples) {
          expect(Math.min(...points.map((p) => Math.hypot(p.x - s.x, p.y - s.y)))).toBeLessThan(0.02);
        }
        expect(Math.hypot(points[0].x - samples[0].x, points[0].y - samples[0].y)).toBeLessThan(0.02);
      }),
    );
  });

  it('does not swing back where samples lie unevenly', () => {
    const points = pathOf([at(12, 18), at(20, 18), at(180, 19), at(188, 19)]);
    for (let i = 1; i < points.length; i++) expect(points[i].x).toBeGreaterThanOrEqual(points[i - 1].x - 1e-9);
    points.forEach((p) => expect(Math.abs(p.y - 18.5)).toBeLessThan(1.2));
  });

  it('takes the heavier pressure of a pen that stands still', () => {
    expect(pathOf([at(5, 5, 0.2), at(5, 5, 0.8), at(5, 5, 0.4)]).map((p) => p.pressure)).toEqual([0.8]);
  });
});

describe('stamps', () => {
  it('stand at the spacing that was asked for', () => {
    const stamps = stampsOf([at(0, 0), at(10, 0), at(20, 0)], 0.5);
    expect(stamps.length).toBe(40);
    stamps.forEach((s, i) => expect(s.point.x).toBeCloseTo((i + 1) * 0.5, 6));
  });

  it('point along the motion', () => {
    const stamps = stampsOf([at(0, 0), at(0, 10), at(0, 20)], 0.5);
    stamps.forEach(({ dx, dy }) => {
      expect(dx).toBeCloseTo(0, 6);
      expect(dy).toBeCloseTo(1, 6);
    });
  });

  it('are made by a mere touch too', () => {
    expect(stampsOf([at(7, 9)], 0.5).length).toBeGreaterThan(0);
    expect(stampsOf([at(7, 9), at(7.1, 9)], 0.5).length).toBeGreaterThan(0);
    expect(stampsOf([], 0.5)).toEqual([]);
  });
});
