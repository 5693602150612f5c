import { describe, expect, it } from 'vitest';
import { Picture } from '@/core/picture/picture';
import { readSpot } from '@/core/picture/readings';
import { coverage, field, line, loaded, mean, meanLab, paint, studioFor, values, type Area } from '@/measure/bench';
import { glazed } from './reservoir';

const DARK = { PB29: 3, PW6: 1, PBr7BS: 0.6 };
const YELLOW = { PY35: 3, PY43: 1 };
const BLUE = { PB29: 3, PG7: 0.3, PW6: 0.5 };

describe('what does not depend on how it is computed', () => {
  it('a stroke is the same however its samples arrive', () => {
    const samples = Array.from({ length: 60 }, (_, i) => [
      i * 8,
      6 + i * 0.8,
      15 + 6 * Math.sin(i / 7),
      0.3 + 0.005 * i,
    ]);
    const read = (bundle: number) => {
      const studio = studioFor(70, 30, { seed: 3 });
      paint(studio, ...loaded('flat', 9, DARK));
      studio.beginStroke();
      samples.forEach((s, i) => {
        studio.addSample(s);
        if (i % bundle === 0) studio.publishStroke();
      });
      studio.endStroke();
      return values(studio, 'volume', [0, 0, 70, 30]);
    };
    expect(read(1)).toEqual(read(13));
  });
});

describe('controls', () => {
  const laid = (more: object) => {
    const studio = studioFor(60, 24, { seed: 5 });
    paint(studio, ...loaded('flat', 12, { PB29: 1, PW6: 2 }, more), line(6, 12, 54, 12));
    return mean(values(studio, 'volume', [10, 8, 20, 8]));
  };

  it('strength is a ceiling on what one stroke leaves', () => {
    const full = laid({});
    expect(laid({ strength: 0.5 }) / full).toBeLessThan(0.55);
    expect(laid({ strength: 0.5 }) / full).toBeGreaterThan(0.25);
    expect(laid({ strength: 0.2 }) / full).toBeLessThan(0.25);
  });

  it('at the blend end a brush gives nothing of its own but carries what it finds', () => {
    const studio = studioFor(60, 30, { seed: 5 });
    paint(
      studio,
      ...field([4, 4, 20, 20], YELLOW, 12),
      ...loaded('flat', 10, BLUE, { blend: 1 }),
      line(10, 14, 50, 14),
    );
    const blue = mean(values(studio, 'PB29', [28, 10, 16, 8]));
    const yellow = mean(values(studio, 'PY35', [28, 10, 16, 8]));
    expect(yellow).toBeGreaterThan(0.01);
    expect(blue).toBeLessThan(yellow / 20);
  });

  it('medium thins the pigment and not the film', () => {
    const read = (thin: number) => {
      const studio = studioFor(60, 24, { seed: 5 });
      paint(studio, ...loaded('flat', 12, { PB29: 1 }, { thin }), line(6, 12, 54, 12));
      const area: Area = [10, 8, 20, 8];
      return mean(values(studio, 'PB29', area)) / mean(values(studio, 'volume', area));
    };
    expect(read(0.75) / read(0)).toBeCloseTo(glazed(0.75), 3);
    expect(glazed(0.75)).toBeLessThan(0.25);
  });

  it('harder pressure lays a wider mark with a round', () => {
    const width = (pressure: number) => {
      const studio = studioFor(40, 24, { seed: 5 });
      paint(studio, ...loaded('round', 8, { PB29: 1 }), line(4, 12, 36, 12, pressure));
      return coverage(studio, [10, 4, 20, 16]);
    };
    expect(width(0.8)).toBeGreaterThan(1.3 * width(0.15));
  });
});

describe('paint on paint', () => {
  const hiding = (pressure: number, blend: number) => {
    const studio = studioFor(70, 30, { seed: 5 });
    paint(studio, ...field([4, 4, 60, 22], { PBk9: 1, PBr7BU: 1 }, 12, 0.5));
    paint(studio, ...loaded('flat', 10, { PW6: 1 }, { body: 0.8, blend, amount: 1.5 }), line(8, 15, 62, 15, pressure));
    return { studio, lightness: meanLab(studio, [20, 13, 20, 4])[0] };
  };

  it('a light hand lays white over wet black; a heavy one works it in', () => {
    const light = hiding(0.35, 0.05).lightness;
    const heavy = hiding(0.85, 0.5).lightness;
    expect(light).toBeGreaterThan(60);
    expect(heavy).toBeLessThan(light - 25);
  });

  it('what lies on top is what is sampled, and dries as a stratum of its own', () => {
    const { studio, lightness } = hiding(0.35, 0.05);
    const tile = studio.painting.active.tiles.find((t) => t?.skinVolume)!;
    expect(tile).toBeDefined();
    const { f32 } = studio.painting.arena;
    // never more on top than there is
    for (let i = 0; i < 4096; i++) {
      expect(f32[(tile.skinVolume >> 2) + i]).toBeLessThanOrEqual(f32[(tile.volume >> 2) + i] * (1 + 1e-5) + 1e-6);
    }
    const picture = new Picture(studio.painting);
    const { mixture } = readSpot(
      picture,
      Math.round(30 / studio.painting.mmPerPx),
      Math.round(15 / studio.painting.mmPerPx),
    );
    expect(mixture.PW6).toBeGreaterThan(0.85);
    paint(studio, { do: 'dry' });
    expect(tile.strata.length).toBe(2);
    expect(Math.abs(meanLab(studio, [20, 13, 20, 4])[0] - lightness)).toBeLessThan(0.5);
  });

  it('worked over with a clean brush, both become one', () => {
    const { studio, lightness } = hiding(0.35, 0.05);
    paint(studio, { do: 'tool', tool: 'flat', sizeMm: 12, blend: 1 }, { do: 'rinse' });
    for (let k = 0; k < 3; k++) paint(studio, line(8, 15, 62, 15, 0.8));
    expect(meanLab(studio, [20, 13, 20, 4])[0]).toBeLessThan(lightness - 8);
  });
});
