import { beforeAll, describe, expect, it } from 'vitest';
import { Arena } from '@/core/film/arena';
import { randomFrom } from '@/core/surface/noise';
import { BLADE } from './blade';
import { CONTACT } from './contact';
import { simdKernels, type Kernels } from './kernels';
import { both } from './twins';

const close = (a: ArrayLike<number>, b: ArrayLike<number>, relative: number) => {
  expect(a.length).toBe(b.length);
  for (let i = 0; i < a.length; i++) {
    expect(Math.abs(a[i] - b[i])).toBeLessThanOrEqual(relative * Math.max(1e-3, Math.abs(a[i]), Math.abs(b[i])));
  }
};

beforeAll(() => {
  expect(simdKernels(new Arena())?.kind).toBe('simd');
});

describe.each([4, 8, 12])('a row of contact with %i channels', (n) => {
  it.each([1, 0.4])('is the same compiled and plain, and keeps all paint (strength %d)', (ceiling) => {
    const width = 96;
    const cells = 12;
    const work = (kernels: Kernels, arena: Arena) => {
      const random = randomFrom(7);
      const plane = (words: number, value: () => number) => {
        const at = arena.allocate(words * 4) >> 2;
        for (let i = 0; i < words; i++) arena.f32[at + i] = value();
        return at;
      };
      // the second half of a cell's channels is part of the first
      let at = 0;
      const film = plane(width * 5 * n * 2, () => (at++ % (2 * n) < n ? 30 + random() * 60 : 30 * random()));
      const tip = plane(cells * n, () => random() * 200);
      // pairs of profile (um) and bristle (0..1)
      let odd = 0;
      const profile = plane(2 * (width * 4 + 2), () => random() * (odd++ % 2 ? 1 : 40));
      const block = arena.allocate(CONTACT.words * 4);
      const b = block >> 2;
      const cellMap = arena.allocate(width * 4 * 4) >> 2;
      for (let i = 0; i < width * 4; i++)
        arena.i32[cellMap + i] = Math.floor(random() * cells) * 4 + Math.floor(random() * 3);
      // pairs of height above what it rides on, and that
      const height = plane(2 * cells, () => 10 * random() - 15);
      const hair = plane(width * 4 + 2, () => 30 * (random() - 0.5));
      [60, 0.8, 35, 0.7, 0.12, 0.1, 0.3, 1 / 9, 0.6, ceiling, 8].forEach((v, i) => (arena.f32[b + i] = v));
      arena.f32[b + CONTACT.stain] = 5;
      arena.f32[b + CONTACT.shear] = 0.2;
      arena.f32[b + CONTACT.onTop] = 0.7;
      arena.f32[b + CONTACT.follow] = 0.6;
      arena.f32[b + CONTACT.hold] = 6;
      const words: Partial<Record<keyof typeof CONTACT, number>> = {
        channels: n,
        film,
        relief: plane(width * 5, () => random() * 50),
        body: plane(width * 5, () => random()),
        laid: plane(width * 5, () => 0),
        fresh: plane(width * 5, () => 0),
        cure: plane(width * 5, () => (random() < 0.3 ? random() : 0)),
        tip,
        profile,
        cells: cellMap,
        ride: plane(cells * 2, () => 0),
        height,
        hair,
        appetite: plane(cells, () => 0.15 + 0.8 * random()),
        mapWidth: width,
      };
      for (const [name, at] of Object.entries(words)) arena.i32[b + CONTACT[name as keyof typeof CONTACT]] = at;
      [-1, 1, width].forEach((offset, i) => (arena.i32[b + CONTACT.aside + i] = offset));
      const sum = () => {
        let total = 0;
        for (let i = 0; i < width * 5 * n * 2; i++) if (i % (2 * n) < n) total += arena.f32[film + i];
        for (let i = 0; i < cells * n; i++) total += arena.f32[tip + i] * 9;
        return total;
      };
      const before = sum();
      let touched = 0;
      for (let row = 1; row < 4; row++) {
        touched += kernels.contactRow(block, row * width + 80, 70, -1, 71.3, 1.2, -0.97, 0.021, 300, -0.4);
      }
      return {
        touched,
        film: arena.f32.slice(film, film + width * 5 * n * 2),
        tip: arena.f32.slice(tip, tip + cells * n),
        drift: Math.abs(sum() - before) / before,
      };
    };
    const { plain, simd } = both(work);
    expect(simd.touched).toBeGreaterThan(60);
    expect(simd.touched).toBe(plain.touched);
    close(simd.film, plain.film, 2e-4);
    close(simd.tip, plain.tip, 2e-4);
    expect(simd.drift).toBeLessThan(1e-5);
    expect(plain.drift).toBeLessThan(1e-5);
  });
});

describe('levelling', () => {
  it('is the same compiled and plain, keeps all paint, and lowers what stands high', () => {
    const side = 40;
    const n = 4;
    const work = (kernels: Kernels, arena: Arena) => {
      const random = randomFrom(3);
      const at = (words: number) => arena.allocate(words * 4) >> 2;
      const [film, relief, body, cure, fresh] = [
        side * side * n * 2,
        side * side,
        side * side,
        side * side,
        side * side,
      ].map(at);
      for (let i = 0; i < side * side; i++) {
        arena.f32[film + 2 * i * n] = random();
        arena.f32[film + 2 * i * n + n - 1] = random() < 0.2 ? 400 * random() : 60 * random();
        arena.f32[body + i] = 0.4;
        arena.f32[fresh + i] = 6;
      }
      const mass = () => {
        let sum = 0;
        let high = 0;
        for (let i = 0; i < side * side; i++) {
          sum += arena.f32[film + 2 * i * n];
          high = Math.max(high, arena.f32[film + 2 * i * n + n - 1]);
        }
        return { sum, high };
      };
      const before = mass();
      let passes = 1;
      while (kernels.levelPass(film, relief, body, cure, fresh, n, side, 5, 0.25, 1, 0, 0, side, side)) passes++;
      return { before, after: mass(), passes, film: arena.f32.slice(film, film + side * side * n * 2) };
    };
    const { plain, simd } = both(work);
    expect(simd.passes).toBe(6);
    expect(plain.passes).toBe(6);
    close(simd.film, plain.film, 1e-3);
    expect(simd.after.high).toBeLessThan(0.9 * simd.before.high);
    expect(Math.abs(simd.after.sum / simd.before.sum - 1)).toBeLessThan(1e-5);
  });
});

describe('the blade', () => {
  it.each([1, 0.5])('is the same compiled and plain, and keeps all paint (strength %d)', (ceiling) => {
    const n = 4;
    const [width, height, columns] = [60, 40, 12];
    const work = (kernels: Kernels, arena: Arena) => {
      const random = randomFrom(11);
      const plane = (words: number, value: (i: number) => number) => {
        const at = arena.allocate(words * 4) >> 2;
        for (let i = 0; i < words; i++) arena.f32[at + i] = value(i);
        return at;
      };
      const cells = width * height;
      const film = plane(cells * 2 * n, (i) => (i % (2 * n) < n ? 40 + 200 * random() : 40 * random()));
      const bead = plane(columns * n, () => 3000 * random());
      const block = plane(BLADE.words, () => 0);
      const f = {
        cos: 0.96,
        sin: 0.28,
        x: 30,
        y: 20,
        half: 18,
        edge: 15,
        column: 3,
        back: 1,
        ahead: 10,
        stand: 90,
        nickScale: 9,
        chatter: 4,
        slope: 30,
        beyondSlope: 120,
        lean: 1.5,
        leanBase: 2,
        fill: 0.8,
        fillZone: 2,
        ceiling,
        ownBody: 0.8,
        passes: 5,
        least: 3,
        carryOff: 0.92,
        standoff: 0.5,
        stir: 0.1,
      };
      for (const [name, v] of Object.entries(f)) arena.f32[block + BLADE[name as keyof typeof f]] = v;
      const at = {
        channels: n,
        film,
        relief: plane(cells, () => 60 * random()),
        body: plane(cells, () => random()),
        laid: plane(cells, () => 0),
        fresh: plane(cells, () => 0),
        cure: plane(cells, () => (random() < 0.2 ? random() : 0)),
        bead,
        ride: plane(columns, () => 40 * random()),
        nick: plane(columns * 4 + 8, () => random()),
        felt: plane(columns * 3, () => 0),
        columns,
        width,
        x0: 2,
        y0: 2,
        x1: width - 2,
        y1: height - 2,
      };
      for (const [name, v] of Object.entries(at)) arena.i32[block + BLADE[name as keyof typeof at]] = v;
      const sum = () => {
        let total = 0;
        for (let i = 0; i < cells * 2 * n; i++) if (i % (2 * n) < n) total += arena.f32[film + i];
        for (let i = 0; i < columns * n; i++) total += arena.f32[bead + i];
        return total;
      };
      const before = sum();
      const start = arena.f32.slice(film, film + cells * 2 * n);
      for (let k = 0; k < 3; k++) {
        arena.f32[block + BLADE.y] += 0.8;
        kernels.bladeStamp(block);
      }
      const after = arena.f32.slice(film, film + cells * 2 * n);
      return {
        film: after,
        bead: arena.f32.slice(bead, bead + columns * n),
        felt: arena.f32.slice(at.felt, at.felt + columns * 3),
        drift: Math.abs(sum() / before - 1),
        changed: after.filter((v, i) => v !== start[i]).length,
      };
    };
    const { plain, simd } = both(work);
    expect(simd.changed).toBeGreaterThan(500);
    close(simd.film, plain.film, 2e-3);
    close(simd.bead, plain.bead, 2e-3);
    close(simd.felt, plain.felt, 1e-4);
    expect(simd.drift).toBeLessThan(1e-5);
    expect(plain.drift).toBeLessThan(1e-5);
  });
});
