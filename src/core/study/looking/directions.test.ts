import { describe, expect, it } from 'vitest';
import { leadingLines } from './directions';
import { findEdges } from './edges';
import type { CodeImage } from './image';

const rgb = (r: number, g: number, b: number) => (0xff000000 | (b << 16) | (g << 8) | r) >>> 0;
const image = (width: number, height: number, of: (x: number, y: number) => number): CodeImage => ({
  codes: Uint32Array.from({ length: width * height }, (_, i) => of(i % width, Math.floor(i / width))),
  width,
  height,
  mmPerPx: 0.5,
});
const linesOf = (of: CodeImage) => leadingLines(findEdges(of), of.width, of.height, of.mmPerPx);

describe('strong straight directions', () => {
  it.each([0, 17, 45, 80, 90, 128, 163])(
    'a border at %f degrees is found, and where it leaves the picture',
    (degrees) => {
      const angle = (degrees * Math.PI) / 180;
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      const [w, h] = [240, 170];
      // light on one side of a line through the middle
      const [first, ...others] = linesOf(
        image(w, h, (x, y) => ((y - h / 2) * c - (x - w / 2) * s > 0 ? rgb(210, 205, 190) : rgb(80, 84, 96))),
      );
      expect(first).toBeDefined();
      for (const { x, y } of first.ends) {
        const off = Math.abs((y * w - h / 2) * c - (x * w - w / 2) * s);
        expect(off).toBeLessThan(5);
        // at the rim of the picture
        const rim = Math.min(x * w, y * w, w - x * w, h - y * w);
        expect(Math.abs(rim)).toBeLessThan(1);
      }
      expect(first.share).toBeGreaterThan(0.8);
      expect(others.length).toBe(0);
    },
  );

  it('two borders are two, the stronger first; a disc, noise and nothing have none', () => {
    const two = linesOf(
      image(240, 170, (x, y) =>
        y > 120 ? rgb(60, 60, 60) : x > 60 + 0.3 * y ? rgb(150, 150, 150) : rgb(190, 190, 190),
      ),
    );
    expect(two.length).toBe(2);
    expect(Math.abs(two[0].from.y - two[0].to.y)).toBeLessThan(0.02);
    expect(
      linesOf(image(240, 170, (x, y) => (Math.hypot(x - 120, y - 85) < 40 ? rgb(220, 220, 220) : rgb(60, 60, 60)))),
    ).toEqual([]);
    let seed = 7;
    const noise = () => (seed = (seed * 16807) % 2147483647) % 60;
    expect(linesOf(image(240, 170, () => rgb(100 + noise(), 100, 100)))).toEqual([]);
    expect(linesOf(image(40, 30, () => 0))).toEqual([]);
    expect(linesOf(image(3, 2, () => rgb(1, 2, 3)))).toEqual([]);
  });
});
