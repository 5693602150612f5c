import { expect, it } from 'vitest';
import { DIVISION_KINDS, DIVISIONS } from './divisions';

it('every division lies within the picture, and is the same seen in a mirror', () => {
  for (const kind of DIVISION_KINDS) {
    for (const aspect of [0.5, 0.7, 1, 1.414, 2.2]) {
      const lines = DIVISIONS[kind].lines(aspect);
      const key = (l: readonly number[]) => l.map((v) => v.toFixed(6)).join(' ');
      const all = new Set(lines.flatMap(([a, b, c, d]) => [key([a, b, c, d]), key([c, d, a, b])]));
      for (const line of lines) {
        for (const v of line) {
          expect(v).toBeGreaterThanOrEqual(-1e-9);
          expect(v).toBeLessThanOrEqual(1 + 1e-9);
        }
        const [x0, y0, x1, y1] = line;
        expect(all.has(key([1 - x0, y0, 1 - x1, y1]))).toBe(true);
      }
    }
  }
});

it('reciprocals meet their diagonals at right angles, squares are square', () => {
  for (const aspect of [0.6, 1.3, 1.8]) {
    const lines = DIVISIONS.diagonals.lines(aspect);
    const way = ([x0, y0, x1, y1]: readonly number[]) => [(x1 - x0) * aspect, y1 - y0];
    const [falling, rising] = [way(lines[0]), way(lines[1])];
    for (const line of lines.slice(2)) {
      const [x, y] = way(line);
      const dots = [falling, rising].map(([a, b]) => Math.abs(a * x + b * y));
      expect(Math.min(...dots)).toBeLessThan(1e-9);
    }
    const [[x0, y0]] = DIVISIONS.squares.lines(aspect);
    expect(aspect >= 1 ? x0 * aspect : y0 / aspect).toBeCloseTo(1, 9);
  }
});
