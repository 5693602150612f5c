import { describe, expect, it } from 'vitest';
import { lightStudySchema } from '@/core/study/light/lightStudy';
import { lightAtFirst, lightInFull } from './seeLight';

const WHITE: [number, number, number] = [1, 1, 1];
const study = lightStudySchema.parse({
  view: 'plan',
  widthMm: 3000,
  heightMm: 2000,
  unit: 'm',
  things: [
    { id: 1, is: 'lamp', at: { x: 500, y: 1000 }, radiusMm: 50, strength: 1, colour: WHITE },
    { id: 2, is: 'round', at: { x: 1500, y: 1000 }, radiusMm: 200, colour: [0.5, 0.5, 0.5] },
  ],
});
const wanted = { serial: 3, study, width: 600, height: 400, look: 'shadow', shades: [0.75, 0.25] } as const;

describe('a board as the page sees it', () => {
  it('is coarse at first, and as large as asked for in the end', () => {
    const first = lightAtFirst(wanted);
    expect(first.whole).toBe(false);
    expect(first.width * first.height).toBeLessThan(23_000);
    expect(first.width / first.height).toBeCloseTo(1.5, 1);
    const full = lightInFull(wanted);
    expect([full.serial, full.whole, full.width, full.height]).toEqual([3, true, 600, 400]);
    expect(full.rgba.length).toBe(4 * 600 * 400);
  });

  it('has the borders of the shadow where the tangents to lamp and thing go', () => {
    const { borders } = lightInFull(wanted);
    expect(borders.map(({ source }) => source)).toEqual([1]);
    const mm = (line: readonly (readonly [number, number])[]) => line.map(([x, y]) => [x * 3000, y * 3000] as const);
    // outer tangents for the shadow, inner ones for the half shadow: their sine is (r2 -+ r1) / d
    for (const [lines, sine] of [
      [borders[0].umbra, 150 / 1000],
      [borders[0].penumbra, 250 / 1000],
    ] as const) {
      const beyond = lines.flatMap(mm).filter(([x, y]) => x > 1750 && x < 2950 && y > 60 && y < 1940);
      expect(beyond.length).toBeGreaterThan(2);
      for (const [x, y] of beyond) {
        // distance from the middle of the lamp's line to the tangent through the thing
        const cosine = Math.sqrt(1 - sine * sine);
        const off = Math.abs(y - 1000) * cosine - (x - 1500) * sine;
        expect(Math.abs(off - 200)).toBeLessThan(6);
      }
    }
  });

  it('has closed lines round shade, within the board', () => {
    const { shades } = lightInFull(wanted);
    expect(shades.length).toBe(2);
    for (const lines of shades) {
      expect(lines.length).toBeGreaterThan(0);
      for (const line of lines) {
        expect(line[0]).toEqual(line[line.length - 1]);
        for (const [x, y] of line) {
          expect(x).toBeGreaterThanOrEqual(0);
          expect(x).toBeLessThanOrEqual(1);
          expect(y).toBeGreaterThanOrEqual(0);
          expect(y).toBeLessThanOrEqual(2 / 3 + 1e-9);
        }
      }
    }
  });

  it('shows outlines light towards the lamp, dark away from it, in either look', () => {
    for (const look of ['shadow', 'light'] as const) {
      const { outlines } = lightInFull({ ...wanted, look });
      const grey = (x: number) => {
        const i = Array.from({ length: outlines.ends.length / 4 }, (_, k) => k).find(
          (k) => Math.abs(outlines.ends[4 * k] - x) < 20,
        )!;
        return outlines.colours[3 * i + 1];
      };
      expect(grey(1300)).toBeGreaterThan(grey(1700) + 20);
    }
  });

  it('of nothing is light, of a pixel as well', () => {
    const none = lightInFull({ ...wanted, study: { ...study, things: [] }, width: 1, height: 1 });
    expect(Array.from(none.rgba)).toEqual([255, 246, 214, 255]);
    expect(none.borders).toEqual([]);
  });
});
