import { describe, expect, it } from 'vitest';
import { encodeSrgb } from '@/core/colour/colorimetry';
import { type Arena } from '@/core/film/arena';
import { randomFrom } from '@/core/surface/noise';
import { unitFor } from '@/core/film/packing/stratum';
import { CODE_STEPS } from './colour';
import { type Kernels } from './kernels';
import { both } from './twins';

describe('packing', () => {
  it('is the same compiled and plain to a step, there and back, and bare cells stay bare', () => {
    const work = (kernels: Kernels, arena: Arena) => {
      const random = randomFrom(4);
      const [from, to] = [arena.allocate(4096 * 4) >> 2, arena.allocate(4096 * 4) >> 2];
      const steps = arena.allocate(4096 * 2) >> 1;
      for (let i = 0; i < 4096; i++) arena.f32[from + i] = i % 7 === 0 ? 0 : random() ** 3;
      const most = kernels.highest(from, 4096);
      const unit = unitFor(most);
      kernels.packSteps(from, 4096, unit, steps);
      kernels.unpackSteps(steps, 4096, unit, to);
      return {
        most,
        unit,
        steps: arena.u16.slice(steps, steps + 4096),
        before: arena.f32.slice(from, from + 4096),
        back: arena.f32.slice(to, to + 4096),
      };
    };
    const { plain, simd } = both(work);
    expect(simd.most).toBe(plain.most);
    simd.steps.forEach((v, i) => expect(Math.abs(v - plain.steps[i])).toBeLessThanOrEqual(1));
    for (const { before, back, unit } of [plain, simd]) {
      let drift = 0;
      before.forEach((v, i) => {
        expect(Math.abs(back[i] - v)).toBeLessThanOrEqual(1.5 * unit);
        if (v === 0) expect(back[i]).toBe(0);
        drift += back[i] - v;
      });
      expect(Math.abs(drift)).toBeLessThan(5 * unit);
    }
  });
});

describe('planes and cells', () => {
  it('are copied there and back the same compiled and plain, and tidied up', () => {
    const work = (kernels: Kernels, arena: Arena) => {
      const random = randomFrom(8);
      const at = (words: number) => arena.allocate(words * 4) >> 2;
      const planes = [at(4096), 0, at(4096), at(4096)];
      for (const p of planes)
        if (p) for (let i = 0; i < 4096; i++) arena.f32[p + i] = random() < 0.2 ? 1e-14 : random();
      const list = at(4);
      arena.i32.set(planes, list);
      const width = 80;
      const cells = at(width * 80 * 8);
      kernels.gather(list, 4, 5 * 64 + 3, 64, cells + 8 * (2 * width + 1), 8, width * 8, 40, 30);
      const gathered = arena.f32.slice(cells, cells + width * 80 * 8);
      const out = at(8);
      kernels.tidy(cells, 8, width * 8, width, 80, 1e-12, out);
      const most = [...arena.f32.slice(out, out + 8)];
      const tidied = arena.f32.slice(cells, cells + width * 80 * 8);
      const back = planes.map((p) => (p ? at(4096) : 0));
      arena.i32.set(back, list);
      kernels.scatter(list, 4, 5 * 64 + 3, 64, cells + 8 * (2 * width + 1), 8, width * 8, 40, 30);
      return {
        gathered,
        most,
        tidied,
        back: back.map((p) => [...arena.f32.slice(p, p + 4096)]),
        planes: planes.map((p) => [...arena.f32.slice(p, p + 4096)]),
      };
    };
    const { plain, simd } = both(work);
    expect(simd.gathered).toEqual(plain.gathered);
    expect(simd.tidied).toEqual(plain.tidied);
    expect(simd.most).toEqual(plain.most);
    expect(simd.back[2]).toEqual(plain.back[2]);
    expect(simd.most[0]).toBeGreaterThan(0.9);
    expect(simd.most[1]).toBe(0);
    // what came back is what was there, but for what was too small
    for (let y = 5; y < 35; y++) {
      for (let x = 3; x < 43; x++) {
        const v = simd.planes[2][y * 64 + x];
        expect(simd.back[2][y * 64 + x]).toBe(v < 1e-12 ? 0 : v);
      }
    }
    expect(simd.back[2][0]).toBe(0);
  });
});

describe('blocks of rows', () => {
  it.each([
    [64, 16],
    [37, 5],
    [2, 3],
  ])('are laid as their rows are one by one (%i cells, %i rows)', (count, rows) => {
    const work = (kernels: Kernels, arena: Arena) => {
      const random = randomFrom(count + rows);
      const at = (words: number) => arena.allocate(words * 4 + 64) >> 2;
      const plane = (value: () => number) => {
        const to = at(1024);
        for (let i = 0; i < 1024; i++) arena.f32[to + i] = value();
        return to;
      };
      const [thickness, mass, list, tables] = [
        plane(() => Math.max(0, 60 * random() - 10)),
        plane(random),
        at(1),
        at(16),
      ];
      arena.i32[list] = mass;
      for (let i = 0; i < 16; i++) arena.f32[tables + i] = 0.2 + random();
      const matrix = at(24);
      for (let i = 0; i < 24; i++) arena.f32[matrix + i] = 0.05 + 0.02 * (i % 3);
      const curve = at(1026);
      for (let i = 0; i < 1026; i++) arena.f32[curve + i] = encodeSrgb((i / 1024) ** 2);
      const codes = arena.allocate(CODE_STEPS + 1);
      for (let i = 0; i <= CODE_STEPS; i++) arena.u8[codes + i] = Math.round(255 * encodeSrgb(i / CODE_STEPS));
      const pixels = at(1024);
      for (let i = 0; i < 1024; i++) arena.u32[pixels + i] = (random() * 2 ** 32) >>> 0;
      const shares = plane(random);
      const gamma = at(3 * 258);
      for (let i = 0; i < 3 * 258; i++) arena.f32[gamma + i] = ((i % 258) / 257) ** 1.4;
      const OUT = 80;
      const lay = (together: boolean) => {
        const run = at(8 * 1024);
        arena.f32.fill(0.6, run, run + 8 * 1024);
        const [linear, rgb, dull, out] = [at(3 * 1024), at(3 * 1024), at(OUT * 16), at(OUT * 16)];
        const each = (loop: (rows: number, cell: number, row: number) => void) => {
          if (together) loop(rows, 0, 0);
          else for (let y = 0; y < rows; y++) loop(1, y * 64, y);
        };
        each((n, c) => {
          arena.i32[list] = mass + c;
          kernels.filmOver(count, n, list, 0, 1, thickness + c, 0, tables, 8, run + c, 1024);
        });
        each((n, c, y) =>
          kernels.bandsToCodes(count, n, run + c, 1024, 8, matrix, 0.005, 0.5, codes, CODE_STEPS, dull + y * OUT, OUT),
        );
        each((n, c) =>
          kernels.bandsToColours(count, n, run + c, 1024, 8, matrix, 0.005, 0.5, curve, 1024, linear + c, rgb + c),
        );
        each((n, c) => kernels.blendPixels(count, n, 3, rgb + c, 1024, pixels + c, shares + c, 0.7));
        each((n, c) => kernels.throughTables(count, n, rgb + c, 1024, gamma, 256));
        each((n, c, y) => kernels.coloursToCodes(count, n, rgb + c, 1024, out + y * OUT, OUT));
        return [dull, out].flatMap((from) => [...arena.u32.slice(from, from + OUT * 16)]);
      };
      return { together: lay(true), apart: lay(false) };
    };
    const { plain, simd } = both(work);
    for (const { together, apart } of [plain, simd]) {
      expect(together).toEqual(apart);
      expect(together.filter((v) => v !== 0).length).toBe(2 * count * rows);
      expect(new Set(together).size).toBeGreaterThan(count * rows * 0.3);
    }
  });
});

describe('a share of a plane', () => {
  it('is added the same compiled and plain, to the last bit', () => {
    const work = (kernels: Kernels, arena: Arena) => {
      const random = randomFrom(31);
      const [from, to] = [arena.allocate(4096 * 4) >> 2, arena.allocate(100 * 64 * 4) >> 2];
      for (let i = 0; i < 4096; i++) arena.f32[from + i] = 300 * random();
      for (let i = 0; i < 6400; i++) arena.f32[to + i] = 100 * random() - 50;
      const before = arena.f32.slice(to, to + 6400);
      kernels.addShare(from + 8, 64, 0.95, to + 7, 100, 40, 50);
      return { before, after: arena.f32.slice(to, to + 6400), added: arena.f32.slice(from, from + 4096) };
    };
    const { plain, simd } = both(work);
    expect(simd.after).toEqual(plain.after);
    for (let y = 0; y < 64; y++) {
      for (let x = 0; x < 100; x++) {
        const i = y * 100 + x;
        const inside = y < 50 && x >= 7 && x < 47;
        const share = inside ? 0.95 * plain.added[y * 64 + x + 1] : 0;
        expect(plain.after[i]).toBe(inside ? Math.fround(plain.before[i] + share) : plain.before[i]);
      }
    }
  });
});
