import { describe, expect, it } from 'vitest';
import { coverage, field, line, loaded, mean, paint, studioFor, values } from '@/measure/bench';
import { bladeWidthMm, columnsOf, knifeCarrier } from './knifeForm';
import type { ToolSettings } from '@/core/tools/tools';

const WHITE = { PW6: 4, PY43: 0.6 };
const knife = (held: Partial<ToolSettings> = {}, amount = 1) =>
  loaded('knife', 16, WHITE, { body: 0.8, amount, ...held });
const widthAt = (studio: ReturnType<typeof studioFor>, x: number) => {
  const step = studio.painting.mmPerPx;
  let mm = 0;
  for (let y = 0; y < 40; y += step) if (mean(values(studio, 'volume', [x, y, 4, step])) > 20) mm += step;
  return mm;
};

describe('the blade', () => {
  it('is as wide as it is held, and never wider than the knife', () => {
    expect(bladeWidthMm({ sizeMm: 20, hold: 'flat' })).toBe(20);
    expect(bladeWidthMm({ sizeMm: 20, hold: 'tip' })).toBeCloseTo(6);
    expect(bladeWidthMm({ sizeMm: 20, hold: 'edge' })).toBeCloseTo(1.4);
    for (const hold of ['flat', 'edge', 'tip'] as const) {
      for (const sizeMm of [0.5, 1, 3, 40]) expect(bladeWidthMm({ sizeMm, hold })).toBeLessThanOrEqual(sizeMm);
    }
  });

  it('has paint on its edge only, and not beyond its ends', () => {
    const { hairy, across } = knifeCarrier(16);
    expect(across).toBe(columnsOf(16));
    expect([hairy[0], hairy[across - 1]]).toEqual([0, 0]);
    expect(hairy[across >> 1]).toBe(1);
  });

  it.each([
    ['flat', 13, 20],
    ['tip', 3, 9],
    ['edge', 0.5, 4],
  ] as const)('held %s leaves a mark of that width', (hold, least, most) => {
    const studio = studioFor(70, 40);
    paint(studio, ...knife({ hold }), line(10, 20, 50, 20, 0.4));
    const width = widthAt(studio, 25);
    expect(width).toBeGreaterThan(least);
    expect(width).toBeLessThan(most);
  });

  it('leaning lifts one end: a feathered side', () => {
    const sides = (tiltY: number) => {
      const studio = studioFor(70, 40, { surface: { kind: 'panel' } });
      const samples = Array.from({ length: 20 }, (_, i) => [i * 30, 10 + i * 2, 20, 0.6, 0, tiltY, 0]);
      paint(studio, ...knife(), { do: 'stroke', samples });
      return mean(values(studio, 'volume', [22, 14, 10, 3])) / mean(values(studio, 'volume', [22, 23, 10, 3]));
    };
    const [one, level, other] = [sides(-40), sides(0), sides(40)];
    expect(Math.max(one, other)).toBeGreaterThan(1.5 * level);
    expect(Math.min(one, other)).toBeLessThan(level / 1.5);
  });

  it('strength is a ceiling on the slab', () => {
    const thickness = (strength: number) => {
      const studio = studioFor(70, 40);
      paint(studio, ...knife({ strength }), line(10, 20, 50, 20, 0.4));
      return mean(values(studio, 'volume', [20, 16, 12, 8]));
    };
    expect(thickness(0.4) / thickness(1)).toBeLessThan(0.5);
    expect(thickness(0.4)).toBeGreaterThan(10);
  });

  it('at the blend end gives none of its own but carries on what it finds', () => {
    const studio = studioFor(90, 40);
    paint(studio, ...field([5, 8, 25, 24], { PB29: 1 }, 12, 0.6));
    paint(studio, { do: 'tool', tool: 'knife', sizeMm: 14, blend: 1 }, line(15, 20, 60, 20, 0.8));
    expect(mean(values(studio, 'PB29', [32, 16, 6, 8]))).toBeGreaterThan(0.05);
    expect(Object.keys(studio.tools.carried().mixture)).toEqual(['PB29']);
  });

  it('does not take dry paint along', () => {
    const studio = studioFor(60, 40);
    paint(studio, ...field([5, 5, 40, 30], { PB29: 1 }, 12), { do: 'dry' });
    paint(studio, { do: 'tool', tool: 'scraper', sizeMm: 14 }, line(10, 20, 45, 20, 1));
    expect(studio.tools.carried().level).toBe(0);
    expect(studio.massBalance().PB29.film).toBe(0);
  });

  it('makes the same stroke however its samples arrive, and leaves no hole where windows meet', () => {
    const samples = Array.from({ length: 80 }, (_, i) => [i * 10, 6 + i * 1.6, 20 + 5 * Math.sin(i / 9), 0.45]);
    const run = (bundle: number) => {
      const studio = studioFor(150, 40);
      paint(studio, ...knife({}, 1.5));
      studio.beginStroke();
      samples.forEach((s, i) => {
        studio.addSample(s);
        if (i % bundle === 0) studio.publishStroke();
      });
      studio.endStroke();
      return studio;
    };
    const studio = run(1);
    expect(values(run(17), 'volume', [0, 0, 150, 40])).toEqual(values(studio, 'volume', [0, 0, 150, 40]));
    expect(coverage(studio, [10, 17, 40, 6])).toBeGreaterThan(0.99);
  });
});
