import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { digest } from '@/core/journal/digest';
import type { Studio } from '@/core/journal/studio';
import {
  correlation,
  deviation,
  field,
  filmAt,
  grain,
  mean,
  meanLab,
  paint,
  studioFor,
  values,
  type Area,
} from '@/measure/bench';
import { coats, massError } from '@/measure/water/washBench';

type Corner = [number, number];
const box = (x0: number, y0: number, x1: number, y1: number): Corner[] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];
const area = (points: readonly Corner[]) =>
  Math.abs(
    points.reduce((s, [x, y], i) => {
      const [u, v] = points[(i + 1) % points.length];
      return s + x * v - u * y;
    }, 0),
  ) / 2;
const flat = (studio: Studio) => paint(studio, { do: 'tool', tool: 'flat', sizeMm: 10, body: 0.5 });
/** Width over which the film falls across the right edge of a box, mm. */
function edge(studio: Studio, y: number): number {
  const step = studio.painting.mmPerPx;
  const row: number[] = [];
  for (let px = 0; px < studio.painting.width; px++) row.push(filmAt(studio, 'volume', px, Math.round(y / step)));
  const most = Math.max(...row);
  return (row.findLastIndex((v) => v > 0.1 * most) - row.findLastIndex((v) => v > 0.9 * most)) * step;
}

describe('a filled outline', () => {
  it('is a film of the thickness told, over the area that it bounds, at any resolution', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(80, 150, 220),
        fc.array(fc.tuple(fc.integer({ min: 6, max: 54 }), fc.integer({ min: 6, max: 34 })), {
          minLength: 3,
          maxLength: 3,
        }),
        (ppi, corners) => {
          const outline = corners as Corner[];
          fc.pre(area(outline) > 60);
          const studio = studioFor(60, 40, { ppi });
          flat(studio);
          paint(studio, { do: 'silhouette', outline, mixture: { PB29: 1, PW6: 3 }, thicknessUm: 120 });
          const { PB29, PW6 } = studio.massBalance();
          // a coat is 0.12 mm thick
          expect((PB29.film + PW6.film) / area(outline)).toBeCloseTo(1, 1);
          expect(PW6.film / PB29.film).toBeCloseTo(3, 4);
          expect(massError(studio)).toBeLessThan(1e-4);
        },
      ),
      { numRuns: 12 },
    );
  });

  it('has an edge as wide as it is told', () => {
    const studio = studioFor(60, 40, { ppi: 150 });
    flat(studio);
    const fill = (y0: number, edgeMm: number) =>
      paint(studio, { do: 'silhouette', outline: box(8, y0, 40, y0 + 12), mixture: { PB29: 1 }, edgeMm });
    fill(4, 0);
    fill(22, 10);
    expect(edge(studio, 10)).toBeLessThan(0.5);
    const lost = edge(studio, 28);
    expect(lost).toBeGreaterThan(4);
    expect(lost).toBeLessThan(10);
  });

  it('lies on what was wet, streaked along its long axis if wanted', () => {
    const studio = studioFor(60, 40, { ppi: 100 });
    paint(studio, ...field([4, 4, 52, 32], { PBk9: 1 }, 12));
    const dark = meanLab(studio, [20, 16, 20, 8])[0];
    flat(studio);
    paint(studio, { do: 'silhouette', outline: box(10, 10, 50, 30), mixture: { PW6: 1 }, streaks: 0.8 });
    expect(meanLab(studio, [20, 16, 20, 8])[0]).toBeGreaterThan(dark + 30);
    const plain = studioFor(60, 40, { ppi: 100 });
    flat(plain);
    paint(plain, { do: 'silhouette', outline: box(10, 10, 50, 30), mixture: { PW6: 1 }, streaks: 0.8 });
    const means = (along: boolean) =>
      Array.from({ length: 12 }, (_, i) =>
        mean(values(plain, 'volume', (along ? [14, 12 + i * 1.3, 32, 1] : [14 + i * 2.6, 12, 1, 16]) as Area)),
      );
    expect(deviation(means(true))).toBeGreaterThan(3 * deviation(means(false)));
  });

  it('of a stick is dust on the peaks of the tooth', () => {
    const studio = studioFor(60, 40, { ppi: 100, surface: { kind: 'paper-laid' } });
    paint(studio, { do: 'tool', tool: 'pastel-soft', sizeMm: 10 });
    paint(studio, { do: 'silhouette', outline: box(10, 10, 50, 30), mixture: { PR188: 1 } });
    const area: Area = [14, 14, 32, 12];
    const dust = coats(studio, 'PR188', area);
    expect(correlation(dust, grain(studio, area))).toBeGreaterThan(0.4);
    expect(deviation(dust) / mean(dust)).toBeGreaterThan(0.2);
    expect(massError(studio)).toBeLessThan(1e-4);
  });
});

describe('an outline that is cut out', () => {
  it('takes wet paint, dry paint and dust off inside it alone; undo brings the bytes back', () => {
    const studio = studioFor(60, 40, { ppi: 100, surface: { kind: 'paper-laid' } });
    paint(studio, ...field([4, 4, 52, 32], { PY43: 1 }, 12), { do: 'dry' }, ...field([4, 4, 52, 16], { PB29: 1 }, 12));
    paint(
      studio,
      { do: 'tool', tool: 'charcoal', sizeMm: 12, hold: 'flat' },
      { do: 'stroke', samples: Array.from({ length: 20 }, (_, i) => [i * 20, 4 + i * 2.6, 32, 0.8]) },
    );
    flat(studio);
    const before = digest(studio);
    const bare = meanLab(studioFor(60, 40, { ppi: 100, surface: { kind: 'paper-laid' } }), [22, 12, 16, 4]);
    const beside = coats(studio, 'PY43', [6, 10, 8, 20]);
    paint(studio, { do: 'silhouette', outline: box(20, 8, 40, 36), cut: true });
    meanLab(studio, [22, 12, 16, 4]).forEach((v, c) => expect(v).toBeCloseTo(bare[c], 1));
    expect(Math.max(...coats(studio, 'PBk9', [22, 28, 16, 6]))).toBeLessThan(1e-3);
    expect(coats(studio, 'PY43', [6, 10, 8, 20])).toEqual(beside);
    expect(massError(studio)).toBeLessThan(1e-4);
    paint(studio, { do: 'undo' });
    expect(digest(studio)).toBe(before);
  });

  it('is refused where it cannot be', () => {
    const studio = studioFor(40, 30);
    flat(studio);
    expect(() => paint(studio, { do: 'silhouette', outline: box(4, 4, 20, 20) })).toThrow('load one first');
    paint(studio, { do: 'tool', tool: 'eraser' });
    expect(() => paint(studio, { do: 'silhouette', outline: box(4, 4, 20, 20), mixture: { PW6: 1 } })).toThrow(
      'take a brush',
    );
    expect(() =>
      paint(studio, {
        do: 'silhouette',
        outline: [
          [0, 0],
          [1, 1],
        ] as never,
        cut: true,
      }),
    ).toThrow();
  });
});
