import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Arena } from './arena';
import { layerThickness, packPlane, packStratum, stratumMass, thinStratum } from '@/core/film/packing/stratum';
import { TILE_CELLS } from './tile';

describe('the arena', () => {
  it('gives zeroed memory, again after it was used, and grows', () => {
    const arena = new Arena();
    const a = arena.allocate(16384);
    arena.f32.fill(7, a >> 2, (a >> 2) + 4096);
    arena.free(a, 16384);
    const b = arena.allocate(16384);
    expect(b).toBe(a);
    expect(arena.f32[b >> 2]).toBe(0);
    const before = arena.memory.buffer.byteLength;
    const large = arena.allocate(before + 1);
    expect(arena.u8.length).toBeGreaterThan(before);
    arena.u8[large + before] = 9;
    expect(arena.u8[large + before]).toBe(9);
  });

  it('never hands out the same bytes twice at a time', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 1, max: 5000 }), fc.boolean()), { maxLength: 60 }), (steps) => {
        const arena = new Arena();
        const held: { at: number; size: number }[] = [];
        for (const [size, release] of steps) {
          if (release && held.length > 0) {
            const { at, size: bytes } = held.shift()!;
            arena.free(at, bytes);
          }
          held.push({ at: arena.allocate(size), size });
        }
        held.sort((p, q) => p.at - q.at);
        for (let i = 1; i < held.length; i++) expect(held[i - 1].at + held[i - 1].size).toBeLessThanOrEqual(held[i].at);
      }),
      { numRuns: 20 },
    );
  });
});

const plane = fc
  .array(fc.float({ min: 0, max: 3, noNaN: true }), { minLength: 8, maxLength: 60 })
  .map((v) => Float32Array.from({ length: TILE_CELLS }, (_, i) => v[i % v.length] * ((i * 7919) % 13 === 0 ? 0 : 1)));

describe('a stratum', () => {
  it('keeps the mass of a tile to a few steps, and every cell to one', () => {
    fc.assert(
      fc.property(plane, (values) => {
        const { steps, unit } = packPlane(values);
        let before = 0;
        let after = 0;
        values.forEach((v, i) => {
          before += v;
          after += steps[i] * unit;
          expect(Math.abs(steps[i] * unit - v)).toBeLessThanOrEqual(1.5 * unit);
          if (v === 0) expect(steps[i]).toBe(0);
        });
        expect(Math.abs(after - before)).toBeLessThanOrEqual(4.01 * unit + 1e-6 * before);
      }),
      { numRuns: 20 },
    );
  });

  it('knows its thickness, and can be rubbed away', () => {
    const mass = new Float32Array(TILE_CELLS).fill(0.5);
    const um = new Float32Array(TILE_CELLS).fill(60);
    const stratum = packStratum([3, 27], [mass, new Float32Array(TILE_CELLS)], um);
    expect(stratum.pigments).toEqual([3]);
    const off = new Float32Array(TILE_CELLS).fill(0.25);
    off[5] = 1;
    const thinned = thinStratum(stratum, off);
    const left = new Float32Array(TILE_CELLS);
    layerThickness(thinned, left);
    expect(left[5]).toBe(0);
    expect(left[6]).toBeCloseTo(45, 1);
    expect(stratumMass(thinned, 0) / stratumMass(stratum, 0)).toBeCloseTo(0.75 * (4095 / 4096), 4);
  });
});
