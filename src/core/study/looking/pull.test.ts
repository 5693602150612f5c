import { describe, expect, it } from 'vitest';
import type { CodeImage } from './image';
import { byWords, PULL_KINDS, pullAt, pullAtRim, pullOf, strongest } from './pull';

const rgb = (r: number, g: number, b: number) => (0xff000000 | (b << 16) | (g << 8) | r) >>> 0;
const image = (width: number, height: number, of: (x: number, y: number) => number): CodeImage => ({
  codes: Uint32Array.from({ length: width * height }, (_, i) => of(i % width, Math.floor(i / width))),
  width,
  height,
  mmPerPx: 0.5,
});
const spot = (x: number, y: number, cx: number, cy: number, r: number) => Math.hypot(x - cx, y - cy) < r;
const sum = (v: Float32Array) => v.reduce((a, b) => a + b, 0);

describe('the pull of a picture', () => {
  it('is where the one thing is, wherever that lies', () => {
    for (const [cx, cy] of [
      [60, 50],
      [200, 120],
      [150, 40],
    ]) {
      const pull = pullOf(image(260, 180, (x, y) => (spot(x, y, cx, cy, 9) ? rgb(230, 220, 200) : rgb(90, 88, 84))));
      expect(sum(pull.map)).toBeCloseTo(1, 4);
      const [first] = strongest(pull);
      expect(Math.abs(first.x * 260 - cx)).toBeLessThan(14);
      expect(Math.abs(first.y * 180 - cy)).toBeLessThan(14);
      expect(first.share).toBeGreaterThan(0.5);
      expect(pullAt(pull, cx / 260, cy / 180).share).toBeGreaterThan(0.5);
    }
  });

  it('one red among grey ones of the same value pulls by its colour', () => {
    const places = [40, 90, 140, 190, 240];
    const pull = pullOf(
      image(280, 160, (x, y) => {
        const k = places.findIndex((cx) => spot(x, y, cx, 80, 9));
        return k < 0 ? rgb(160, 158, 154) : k === 3 ? rgb(190, 80, 70) : rgb(112, 112, 112);
      }),
    );
    const [first] = strongest(pull);
    expect(Math.abs(first.x * 280 - 190)).toBeLessThan(12);
    expect(first.by[0]).toBe('colour');
    expect(byWords(first.by)).toContain('colour');
  });

  it('a sharp spot pulls more than a soft one of the same contrast', () => {
    const soft = (x: number, y: number, cx: number, cy: number, width: number) =>
      1 / (1 + Math.exp((Math.hypot(x - cx, y - cy) - 14) / width));
    const pull = pullOf(
      image(280, 160, (x, y) => {
        const v = 90 + 120 * Math.max(soft(x, y, 80, 80, 0.4), soft(x, y, 200, 80, 4));
        return rgb(v, v, v);
      }),
    );
    expect(pullAt(pull, 80 / 280, 0.5).share).toBeGreaterThan(1.5 * pullAt(pull, 200 / 280, 0.5).share);
  });

  it('thick paint of the same colour pulls where it is known, and thin paint does not', () => {
    const flat = image(200, 140, (x) => rgb(120 + (x & 1), 120, 120));
    const um = (high: number) =>
      Float32Array.from({ length: 200 * 140 }, (_, i) => (spot(i % 200, Math.floor(i / 200), 140, 60, 10) ? high : 30));
    const [first] = strongest(pullOf(flat, um(900)));
    expect(Math.hypot(first.x * 200 - 140, first.y * 140 - 60)).toBeLessThan(14);
    expect(first.by[0]).toBe('thickness');
    expect(byWords(first.by)).toContain('thick paint');
    expect(sum(pullOf(flat, um(50)).kinds.thickness)).toBe(0);
  });

  it('what lies at the rim leads out', () => {
    const at = (cx: number) =>
      pullOf(image(200, 140, (x, y) => (spot(x, y, cx, 70, 7) ? rgb(20, 20, 20) : rgb(170, 170, 168))));
    expect(pullAtRim(at(4))).toBeGreaterThan(0.5);
    expect(pullAtRim(at(100))).toBeLessThan(0.2);
  });

  it('nothing, a few pixels and one colour pull nowhere, and no number is none', () => {
    for (const [width, height] of [
      [0, 0],
      [1, 1],
      [5, 4],
      [60, 40],
    ]) {
      for (const code of [0, rgb(120, 100, 80)]) {
        const pull = pullOf(image(width, height, () => code));
        expect(sum(pull.map)).toBe(0);
        expect(strongest(pull)).toEqual([]);
        expect(pullAtRim(pull)).toBe(0);
        expect(pullAt(pull, 0.5, 0.5)).toEqual({ x: 0.5, y: 0.5, share: 0, by: [] });
        for (const kind of PULL_KINDS) expect(pull.kinds[kind].every((v) => v === 0)).toBe(true);
      }
    }
  });
});
