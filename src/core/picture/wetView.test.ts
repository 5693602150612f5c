import { describe, expect, it } from 'vitest';
import { field, paint, studioFor } from '@/measure/bench';
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
