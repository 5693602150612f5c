import { describe, expect, it } from 'vitest';
import { digest } from '@/core/journal/digest';
import type { CommandInput } from '@/core/commands/commands';
import { deviation, mean, paint, studioFor } from '@/measure/bench';
import { coats, massError, meanCoats } from '@/measure/water/washBench';

type Corner = [number, number];
const box = (x0: number, y0: number, x1: number, y1: number): Corner[] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];
const paper = (ppi: number, kind: 'paper-cold' | 'paper-hot' | 'paper-rough' = 'paper-cold', seed = 4) =>
  studioFor(40, 30, { ppi, seed, surface: { kind } });
const brush: CommandInput = { do: 'tool', tool: 'wash-round', sizeMm: 6 };
const filled = (outline: Corner[], more = {}): CommandInput => ({
  do: 'silhouette',
  outline,
  mixture: { PB29: 1 },
  water: 0.6,
  ...more,
});

describe('an outline filled with a wash', () => {
  it('keeps the books, wet and dried, and is as strong at any resolution', () => {
    const inside = [100, 150, 220].map((ppi) => {
      const studio = paper(ppi);
      paint(studio, brush, filled(box(8, 6, 32, 24)));
      expect(massError(studio)).toBeLessThan(1e-4);
      paint(studio, { do: 'dry' });
      expect(massError(studio)).toBeLessThan(1e-4);
      return meanCoats(studio, 'PB29', [12, 10, 16, 10]);
    });
    expect(Math.max(...inside) / Math.min(...inside)).toBeLessThan(1.12);
  });

  it('reaches to its outline and not beyond, with an edge that wavers with the sheet', () => {
    for (const [kind, seed] of [
      ['paper-cold', 4],
      ['paper-hot', 9],
      ['paper-rough', 2],
    ] as const) {
      const studio = paper(150, kind, seed);
      paint(studio, brush, filled(box(8, 6, 32, 24)), { do: 'dry' });
      const { mmPerPx } = studio.painting;
      // where the paint begins, row by row
      const begins: number[] = [];
      for (let y = 9; y < 21; y += mmPerPx) {
        const row = coats(studio, 'PB29', [5, y, 10, mmPerPx]);
        begins.push(5 + row.findIndex((v) => v > 0.004) * mmPerPx);
      }
      expect(Math.abs(mean(begins) - 8)).toBeLessThan(0.6);
      expect(deviation(begins)).toBeGreaterThan(0.05);
      expect(deviation(begins)).toBeLessThan(0.4);
      expect(meanCoats(studio, 'PB29', [1, 1, 4, 28])).toBe(0);
    }
  });

  it('is lost over the width that is told, in clear water', () => {
    const studio = paper(150);
    paint(studio, brush, filled(box(8, 8, 32, 22), { edgeMm: 8 }));
    const at = (x: number) => meanCoats(studio, 'PB29', [x, 12, 0.6, 6]);
    expect(at(4.6)).toBeLessThan(0.15 * at(20));
    expect(at(8)).toBeGreaterThan(0.2 * at(20));
    expect(at(8)).toBeLessThan(0.8 * at(20));
    expect(massError(studio)).toBeLessThan(1e-4);
  });

  it('stays within what is selected, is taken back and done again to the same bytes, and needs a brush that gives', () => {
    const studio = paper(120);
    paint(studio, brush, { do: 'select', how: 'rectangle', from: [0, 0], to: [20, 30] });
    const before = digest(studio);
    paint(studio, filled(box(8, 6, 32, 24)));
    expect(Math.max(...coats(studio, 'PB29', [21, 6, 10, 18]))).toBe(0);
    expect(meanCoats(studio, 'PB29', [10, 8, 8, 12])).toBeGreaterThan(0);
    const after = digest(studio);
    paint(studio, { do: 'undo' });
    expect(digest(studio)).toBe(before);
    paint(studio, { do: 'redo' });
    expect(digest(studio)).toBe(after);
    paint(studio, { do: 'tool', tool: 'thirsty', sizeMm: 6 });
    expect(() => paint(studio, filled(box(8, 6, 32, 24)))).toThrow(/take a brush/);
  });
});
