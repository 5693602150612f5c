import { zlibSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { makeHeightField, placedField } from './heightField';
import { noise2 } from './noise';
import { evened, scannedHeights, seamless, type OwnSurface } from './ownSurface';

const scan = (
  widthPx: number,
  heightPx: number,
  height: (x: number, y: number) => number,
  depthUm = 120,
): OwnSurface => ({
  widthPx,
  heightPx,
  heights: Buffer.from(
    zlibSync(
      Uint8Array.from({ length: widthPx * heightPx }, (_, i) =>
        Math.round(255 * height(i % widthPx, Math.floor(i / widthPx))),
      ),
    ),
  ).toString('base64'),
  widthMm: 40,
  depthUm,
});
/** Grain with light that falls from the left. */
const grainy =
  (seed: number, slope = 0.5) =>
  (x: number, y: number) =>
    Math.min(1, 0.2 + 0.35 * noise2(x / 5, y / 5, seed) + slope * (x / 160));
const deviation = (v: ArrayLike<number>) => {
  const list = Array.from(v);
  const mean = list.reduce((a, b) => a + b, 0) / list.length;
  return Math.sqrt(list.reduce((s, x) => s + (x - mean) ** 2, 0) / list.length);
};

describe('a scanned surface', () => {
  it.each([
    [160, 160, 1],
    [160, 100, 2],
    [90, 150, 3],
  ])('of %i x %i closes upon itself as smoothly as it goes on', (w, h, seed) => {
    const size = 120;
    const um = seamless(scan(w, h, grainy(seed)), size);
    const steps = (a: (i: number) => number, b: (i: number) => number) =>
      Array.from({ length: size }, (_, i) => Math.abs(um[a(i)] - um[b(i)])).reduce((s, v) => s + v, 0) / size;
    const inside = steps(
      (i) => i * size + 60,
      (i) => i * size + 61,
    );
    expect(
      steps(
        (i) => i * size,
        (i) => i * size + size - 1,
      ),
    ).toBeLessThan(2 * inside);
    expect(
      steps(
        (i) => i,
        (i) => (size - 1) * size + i,
      ),
    ).toBeLessThan(2 * inside);
    // where it is blended it is as rough as elsewhere
    const column = (x: number) => Array.from({ length: size }, (_, y) => um[y * size + x]);
    const rough = [2, 8, 14].map((x) => deviation(column(x))).reduce((a, b) => a + b) / 3;
    const plain = [60, 75, 90].map((x) => deviation(column(x))).reduce((a, b) => a + b) / 3;
    expect(rough / plain).toBeGreaterThan(0.6);
    expect(rough / plain).toBeLessThan(1.6);
  });

  it('loses uneven light and keeps its grain', () => {
    const plane = (slope: number) => scannedHeights(scan(160, 120, grainy(4, slope)));
    const [lit, flat] = [evened(plane(0.5), 160, 120), evened(plane(0), 160, 120)];
    const means = (p: Float32Array) =>
      [20, 140].map((x) => Array.from({ length: 120 }, (_, y) => p[y * 160 + x]).reduce((a, b) => a + b) / 120);
    const [l, r] = means(lit);
    expect(Math.abs(r - l)).toBeLessThan(0.25 * Math.abs(means(plane(0.5))[1] - means(plane(0.5))[0]));
    expect(deviation(flat) / deviation(plane(0))).toBeGreaterThan(0.8);
  });

  it('is as deep as was asked, at any resolution, and paint meets it', () => {
    for (const ppi of [100, 200]) {
      const field = makeHeightField({ kind: 'own', scale: 1, depth: 1, own: scan(160, 160, grainy(5)) }, ppi, 1);
      expect(field.depthUm).toBeCloseTo(120, -1);
      const deeper = makeHeightField({ kind: 'own', scale: 1, depth: 2, own: scan(160, 160, grainy(5)) }, ppi, 1);
      expect(deeper.depthUm / field.depthUm).toBeCloseTo(2, 1);
    }
    expect(() => makeHeightField({ kind: 'own', scale: 1, depth: 1 }, 100, 1)).toThrow(/needs its scan/);
  });

  it('says when a scan is damaged', () => {
    const own = scan(80, 80, () => 0.5);
    expect(() => scannedHeights({ ...own, heights: 'AAAA' })).toThrow(/damaged/);
    expect(() => scannedHeights({ ...own, heightPx: 90 })).toThrow(/size/);
  });

  it('stays under the paint when the canvas is turned', () => {
    const field = makeHeightField({ kind: 'linen-fine', scale: 1, depth: 1 }, 60, 2);
    const turned = placedField(field, [0, -1, 1, 0, 0, 99]);
    const { size } = field;
    for (const [x, y] of [
      [0, 0],
      [17, 41],
      [130, 7],
    ]) {
      expect(turned.um[(y % size) * size + (x % size)]).toBe(
        field.um[((((99 - x) % size) + size) % size) * size + (y % size)],
      );
    }
    expect(turned.peakUm).toBe(field.peakUm);
  });
});
