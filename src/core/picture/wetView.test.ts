import { describe, expect, it } from 'vitest';
import { field, line, paint, studioFor } from '@/measure/bench';
import { Picture, STUDIO_LIGHT } from './picture';
import { wetCode } from './wetView';

const CODE = 0xff8c8478;
const channels = (code: number) => [code & 255, (code >>> 8) & 255, (code >>> 16) & 255];

describe('seeing what is wet', () => {
  const look = (...then: Parameters<typeof paint>[1][]) => {
    const studio = studioFor(50, 40);
    paint(studio, ...field([4, 4, 30, 30], { PB29: 1 }, 12), ...then);
    const { mmPerPx } = studio.painting;
    const at = (x: number, y: number) =>
      channels(wetCode(studio.painting, CODE, Math.round(x / mmPerPx), Math.round(y / mmPerPx)));
    return { inside: at(18, 18), outside: at(45, 36) };
  };

  it('is grey where it is bare or dry', () => {
    for (const grey of [look().outside, look({ do: 'dry' }).inside]) expect(new Set(grey).size).toBe(1);
  });

  it('is blue-green where it is wet, amber where it is tacky', () => {
    const [r, , b] = look().inside;
    expect(b - r).toBeGreaterThan(20);
    const [tr, , tb] = look({ do: 'wait', seconds: 60 * 3600 }).inside;
    expect(tr - tb).toBeGreaterThan(20);
  });
});

describe('the light', () => {
  const lit = (light: object) => {
    const studio = studioFor(40, 30);
    paint(studio, ...field([2, 2, 36, 26], { PW6: 4, PBk9: 1 }, 12));
    const picture = new Picture(studio.painting);
    picture.light = { ...STUDIO_LIGHT, ...light };
    picture.update({ left: 0, top: 0, right: 1000, bottom: 1000 });
    const sum = [0, 0, 0];
    for (let y = 40; y < 80; y++)
      for (let x = 40; x < 100; x++) picture.litAt(x, y).forEach((v, c) => (sum[c] += v / 2400));
    return { sum, lab: picture.labAt(60, 60) };
  };

  it('may be warm or cool, and what is sampled does not know of it', () => {
    const cool = lit({ warmth: -1 });
    const warm = lit({ warmth: 1 });
    expect(warm.sum[0] - warm.sum[2]).toBeGreaterThan(cool.sum[0] - cool.sum[2] + 15);
    expect(warm.lab).toEqual(cool.lab);
  });

  it('has no say in the flat', () => {
    const flat = lit({ room: 1, finish: 0 });
    const other = lit({ room: 1, finish: 1, azimuth: 90, elevation: 12 });
    flat.sum.forEach((v, c) => expect(Math.abs(v - other.sum[c])).toBeLessThan(2));
  });
});

describe('the shine of dry sticks', () => {
  /** How the surface takes the light in the middle of a field that was gone over hard: 128 = neither shiny nor dull. */
  const sheen = (tool: 'graphite' | 'charcoal', surface: 'paper-rough' | 'paper-hot', passes: number) => {
    const studio = studioFor(30, 20, { surface: { kind: surface }, ppi: 150 });
    paint(studio, { do: 'tool', tool, sizeMm: tool === 'graphite' ? 2 : 10, hold: 'flat', into: 'layer' });
    for (let k = 0; k < passes; k++) for (let y = 4; y < 16; y += 0.8) paint(studio, line(4, y, 26, y, 0.9));
    const picture = new Picture(studio.painting);
    picture.update({ left: 0, top: 0, right: 1000, bottom: 1000 });
    const { arena, width } = studio.painting;
    let sum = 0;
    for (let y = 35; y < 80; y++)
      for (let x = 40; x < 140; x++) sum += arena.u32[picture.albedo + y * width + x] >>> 24;
    return sum / (45 * 100);
  };

  it('is that of graphite, and grows as it closes the sheet; charcoal is dull', () => {
    for (const surface of ['paper-hot', 'paper-rough'] as const) {
      const once = sheen('graphite', surface, 1);
      expect(once).toBeGreaterThan(132);
      expect(sheen('graphite', surface, 4)).toBeGreaterThan(once + 5);
      expect(sheen('charcoal', surface, 3)).toBe(128);
    }
  });
});
