import { describe, expect, it } from 'vitest';
import { Arena } from '@/core/film/arena';
import { randomFrom } from '@/core/surface/noise';
import { plainKernels, simdKernels, type Kernels } from './kernels';
import { underWater, WET_LOOK } from './wetLook';

const COUNT = 61;

/** A run of wet and dry cells with three coats of a pigment, ground in 12 bands, and wax here and there. */
function looked(make: (arena: Arena) => Kernels | undefined, seed: number, factor: 1 | 2 | 4) {
  const arena = new Arena();
  const kernels = make(arena)!;
  const random = randomFrom(seed);
  const row = (words: number, value: () => number) => {
    const at = arena.allocate((words + 16) * 4) >> 2;
    for (let i = 0; i < words; i++) arena.f32[at + i] = value();
    return at;
  };
  const share = row(80, () => (random() < 0.3 ? 0 : random()));
  const block = row(WET_LOOK.words, () => 0);
  const looks = row(64, () => 0);
  const film = row(64, () => 0);
  Object.entries({
    share,
    looks,
    film,
    water: row(80, () => 0.6 * random()),
    moisture: row(80, () => 0.3 * random()),
    cover: row(64, () => (random() < 0.2 ? 0 : random())),
    shift: Math.log2(factor),
    phase: factor - 1,
  }).forEach(([name, v]) => (arena.i32[block + WET_LOOK[name as keyof typeof WET_LOOK]] = v));
  arena.f32[block + WET_LOOK.wetOver] = 10;
  arena.f32[block + WET_LOOK.dampOver] = 2;
  kernels.waterLooks(block, COUNT);
  const coats = [row(128, random), row(128, random), row(128, random)];
  const list = arena.allocate(16) >> 2;
  arena.i32.set(coats, list);
  const sums = row(64, () => 0);
  kernels.sumCoats(COUNT, list, 3, 5, looks, 0.24, sums);
  const bands = row(12 * 64, random);
  const bare = arena.f32.slice(bands, bands + 12 * 64);
  kernels.dampen(COUNT, looks, 0.04, 12, bands, 64);
  const relief = row(64, () => 60 * random());
  const codes = row(64, () => 0);
  const wax = row(64, () => (random() < 0.5 ? 0 : random()));
  kernels.wetSurface(COUNT, film, wax, relief, codes, 128);
  const read = (at: number) => arena.f32.slice(at, at + COUNT);
  const { f32 } = arena;
  return {
    looks: read(looks),
    film: read(film),
    sums: read(sums),
    coats: Float32Array.from({ length: COUNT }, (_, x) => coats.reduce((s, c) => s + f32[c + 5 + x], 0)),
    bare,
    bands: f32.slice(bands, bands + 12 * 64),
    relief: read(relief),
    codes: arena.u32.slice(codes, codes + COUNT),
  };
}

describe.each([1, 2, 4] as const)('what wet paper looks like, %i cells along a flow cell', (factor) => {
  it.each([3, 8])('is the same compiled and plain (seed %i)', (seed) => {
    const plain = looked(plainKernels, seed, factor);
    const simd = looked(simdKernels, seed, factor);
    for (const name of ['looks', 'film', 'sums', 'bands', 'relief', 'codes'] as const) {
      const runs = name === 'bands' ? COUNT : plain[name].length;
      for (let i = 0; i < runs; i++) expect(simd[name][i]).toBeCloseTo(plain[name][i], 3);
    }
  });

  it('darkens what is wet and leaves alone what is dry', () => {
    const { looks, sums, coats, bare, bands, codes, film } = looked(plainKernels, 5, factor);
    let wet = 0;
    for (let x = 0; x < COUNT; x++) {
      expect(looks[x]).toBeGreaterThanOrEqual(0);
      expect(looks[x]).toBeLessThanOrEqual(1);
      expect(sums[x] / coats[x]).toBeCloseTo(1 + 0.24 * looks[x], 4);
      expect(bands[x] / bare[x]).toBeCloseTo(1 - 0.04 * looks[x], 4);
      if (film[x] > 0) expect(codes[x] >>> 24).toBeGreaterThan(128 + 39);
      if (looks[x] > 0.5) wet++;
    }
    expect(wet).toBeGreaterThan(5);
  });
});

describe('a surface under water', () => {
  it('keeps its relief under a film that is nearly gone, and is level under a deep one', () => {
    expect(underWater(30, 0.001)).toBeCloseTo(30, 0);
    expect(underWater(10, 0.8)).toBe(underWater(90, 0.8));
  });
});
