import { beforeAll, describe, expect, it } from 'vitest';
import { BANDS } from '@/core/colour/bands';
import { blendRow } from '@/core/colour/blendModes';
import { encodeSrgb } from '@/core/colour/colorimetry';
import { Arena } from '@/core/film/arena';
import { randomFrom } from '@/core/surface/noise';
import { unitFor } from '@/core/film/packing/stratum';
import { BLADE } from './blade';
import { CODE_STEPS } from './colour';
import { CONTACT } from './contact';
import { LOOPED_BLENDS } from './light';
import { aimLamp, RELIGHT } from './relight';
import { plainKernels, simdKernels, type Kernels } from './kernels';

/** Runs the same work with both kinds of kernels on memories that were filled alike. */
function both<T>(work: (kernels: Kernels, arena: Arena) => T): { plain: T; simd: T } {
  const run = (kind: (arena: Arena) => Kernels | undefined) => {
    const arena = new Arena(256 * 2 ** 20);
    return work(kind(arena)!, arena);
  };
  return { plain: run(plainKernels), simd: run(simdKernels) };
}

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

describe('the colour of a run', () => {
  it.each([64, 61, 3, 1])('is the same compiled and plain to one code (%i cells)', (count) => {
    const work = (kernels: Kernels, arena: Arena) => {
      const random = randomFrom(count);
      const at = (words: number) => arena.allocate(words * 4) >> 2;
      const pigments = [0, 5, 27];
      const planes = pigments.map(() => at(68));
      const thickness = at(68);
      for (let x = 0; x < count; x++) {
        // bare, broken and closed film
        arena.f32[thickness + x] = x % 3 === 0 ? 0 : x % 3 === 1 ? 6 * random() : 200 * random();
        planes.forEach(
          (p, i) => (arena.f32[p + x] = arena.f32[thickness + x] > 0 ? random() ** 6 * [1, 0.5, 0.2][i] : 0),
        );
      }
      // a part of it lies on top
      const tops = at(64);
      const top = at(68);
      for (let x = 0; x < count; x++) arena.f32[top + x] = 0.3 * arena.f32[thickness + x];
      planes.forEach((p, i) => {
        const part = at(68);
        for (let x = 0; x < count; x++) arena.f32[part + x] = 0.3 * arena.f32[p + x];
        arena.i32[tops + i] = part;
      });
      const list = at(64);
      planes.forEach((p, i) => (arena.i32[list + i] = p));
      const tables = at(2 * 8 * pigments.length);
      const matrix = at(24);
      let j = tables;
      for (let b = 0; b < 8; b++) {
        for (const p of pigments) {
          arena.f32[j++] = BANDS.K[p * 8 + b];
          arena.f32[j++] = BANDS.S[p * 8 + b];
        }
        for (let c = 0; c < 3; c++) arena.f32[matrix + b * 3 + c] = 0.48 * BANDS.toRgb[c * 8 + b];
      }
      const run = at(64 * 8 + 4);
      arena.f32.fill(0.7, run, run + 64 * 8);
      const codes = arena.allocate(CODE_STEPS + 1);
      for (let i = 0; i <= CODE_STEPS; i++) arena.u8[codes + i] = Math.round(255 * encodeSrgb(i / CODE_STEPS));
      const out = at(68);
      kernels.filmOver(count, 1, list, tops, 3, thickness, top, tables, 8, run, 64);
      kernels.bandsToCodes(count, 1, run, 64, 8, matrix, 0.005, 0.5, codes, CODE_STEPS, out, 64);
      const curve = at(1026);
      for (let i = 0; i < 1026; i++) arena.f32[curve + i] = encodeSrgb((i / 1024) ** 2);
      const colours = at(64 * 6);
      kernels.bandsToColours(count, 1, run, 64, 8, matrix, 0.005, 0.5, curve, 1024, colours, colours + 192);
      const rows = [0, 1, 2, 3, 4, 5].flatMap((row) => [
        ...arena.f32.subarray(colours + 64 * row, colours + 64 * row + count),
      ]);
      return { codes: arena.u8.slice(out * 4, (out + count) * 4), after: arena.u32[out + count], rows };
    };
    const { plain, simd } = both(work);
    simd.codes.forEach((v, i) => expect(Math.abs(v - plain.codes[i])).toBeLessThanOrEqual(1));
    simd.rows.forEach((v, i) => expect(v).toBeCloseTo(plain.rows[i], 4));
    // the encoded rows are what the codes say
    simd.rows.slice(3 * count).forEach((v, i) => {
      const code = simd.codes[4 * (i % count) + Math.floor(i / count)];
      expect(Math.abs(255 * v - code)).toBeLessThan(1.01);
    });
    expect(new Set(simd.codes).size).toBeGreaterThan(count > 3 ? 20 : 1);
    // nothing is written beyond the run
    expect(simd.after).toBe(0);
  });
});

describe('light', () => {
  it.each([0, 77, 320])(
    'is the same compiled and plain to one code, at the edges too (lamp at %i degrees)',
    (azimuth) => {
      const [width, height] = [61, 37];
      const work = (kernels: Kernels, arena: Arena) => {
        const random = randomFrom(5);
        const at = (words: number) => arena.allocate(words * 4) >> 2;
        const [albedo, relief, lit, linear] = [at(width * height), at(width * height), at(width * height), at(256)];
        for (let i = 0; i < width * height; i++) {
          arena.u32[albedo + i] = (random() * 2 ** 32) >>> 0;
          arena.f32[relief + i] = 300 * random() * random();
        }
        for (let i = 0; i < 256; i++) arena.f32[linear + i] = (i / 255) ** 2.2;
        const codes = arena.allocate(CODE_STEPS + 1);
        for (let i = 0; i <= CODE_STEPS; i++) arena.u8[codes + i] = Math.round(255 * encodeSrgb(i / CODE_STEPS));
        const block = at(RELIGHT.words);
        arena.i32.set([width, height, albedo, relief, lit, linear, codes], block);
        arena.f32.set([CODE_STEPS, 0.006], block + RELIGHT.steps);
        aimLamp(arena.f32, arena.i32, block, { azimuth, elevation: 30, room: 0.3, finish: 0.4, warmth: 0.5 });
        kernels.relight(block, 0, 0, width, height);
        return arena.u8.slice(lit * 4, (lit + width * height) * 4);
      };
      const { plain, simd } = both(work);
      simd.forEach((v, i) => expect(Math.abs(v - plain[i])).toBeLessThanOrEqual(1));
      expect(new Set(simd).size).toBeGreaterThan(100);
    },
  );
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

describe('encoded colours of a run', () => {
  it.each([64, 61, 2])('are blended, sent through tables and coded alike, as the standard says (%i cells)', (count) => {
    const work = (kernels: Kernels, arena: Arena) => {
      const random = randomFrom(count + 9);
      const at = (words: number) => arena.allocate(words * 4) >> 2;
      const [pixels, shares, tables, out, before] = [at(64), at(64), at(3 * 258), at(68), at(192)];
      for (let x = 0; x < 64; x++) {
        arena.u32[pixels + x] = x % 5 === 0 ? 0 : (random() * 2 ** 32) >>> 0;
        arena.f32[shares + x] = random();
      }
      for (let i = 0; i < 192; i++) arena.f32[before + i] = i % 11 === 0 ? 0 : i % 13 === 0 ? 1 : random();
      for (let c = 0; c < 3; c++) {
        for (let i = 0; i < 258; i++) arena.f32[tables + c * 258 + i] = Math.min(1, i / 256) ** (1 + c);
      }
      return LOOPED_BLENDS.map((name, mode) => {
        const rgb = at(192);
        arena.f32.copyWithin(rgb, before, before + 192);
        kernels.blendPixels(count, 1, mode, rgb, 64, pixels, mode % 2 ? shares : 0, 0.8);
        const blended = arena.f32.slice(rgb, rgb + 192);
        kernels.throughTables(count, 1, rgb, 64, tables, 256);
        const adjusted = arena.f32.slice(rgb, rgb + 192);
        kernels.coloursToCodes(count, 1, rgb, 64, out, 64);
        const codes = arena.u32.slice(out, out + count + 1);
        return {
          name,
          blended,
          adjusted,
          codes,
          before: arena.f32.slice(before, before + 192),
          pixels: arena.u32.slice(pixels, pixels + 64),
          shares: arena.f32.slice(shares, shares + 64),
        };
      });
    };
    const { plain, simd } = both(work);
    plain.forEach(({ name, blended, adjusted, codes, before, pixels, shares }, mode) => {
      const other = simd[mode];
      const expected = before.slice();
      blendRow(name, expected, 64, count, pixels, 0, 0.8, mode % 2 ? shares : undefined);
      for (let c = 0; c < 3; c++) {
        for (let x = 0; x < count; x++) {
          const i = 64 * c + x;
          expect(blended[i]).toBeCloseTo(expected[i], 5);
          expect(other.blended[i]).toBeCloseTo(expected[i], 5);
          // a channel's table is a power of it
          expect(other.adjusted[i]).toBeCloseTo(expected[i] ** (1 + c), 3);
          expect(Math.abs(((other.codes[x] >>> (8 * c)) & 255) - 255 * adjusted[i])).toBeLessThan(0.51);
          expect(Math.abs(((other.codes[x] >>> (8 * c)) & 255) - ((codes[x] >>> (8 * c)) & 255))).toBeLessThanOrEqual(
            1,
          );
        }
      }
      // a pixel that is not there changes nothing, to the last bit
      for (let x = 0; x < count; x += 5) expect(other.blended[x]).toBe(before[x]);
      expect(other.codes[count]).toBe(0);
    });
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

describe('the surface of a film', () => {
  /** A film on a kept ground, in a part of 37 x 9 cells of a raster that is 50 wide. */
  const work = (given: Partial<Record<'sealed' | 'volume' | 'solvent' | 'lean' | 'off' | 'shares', boolean>>) => {
    const names = ['sealed', 'volume', 'solvent', 'lean', 'off', 'shares'] as const;
    return both((kernels, arena) => {
      const random = randomFrom(Object.keys(given).length + 3);
      const at = (words: number) => arena.allocate(words * 4) >> 2;
      const [relief, picture] = [at(50 * 12), at(50 * 12)];
      const [um, codes] = [at(4096), at(4096)];
      for (let i = 0; i < 600; i++) {
        arena.f32[relief + i] = 20 * random();
        arena.u32[picture + i] = (random() * 2 ** 32) >>> 0;
      }
      for (let i = 0; i < 4096; i++) {
        arena.f32[um + i] = 30 * random();
        arena.u32[codes + i] = (128 + Math.floor(60 * random())) << 24;
      }
      const most = { sealed: 60, volume: 90, solvent: 1, lean: 1, off: 1, shares: 1 };
      const planes = names.map((name) => {
        if (!given[name]) return 0;
        const plane = at(4096);
        for (let i = 0; i < 4096; i++) arena.f32[plane + i] = i % 3 ? most[name] * random() : 0;
        return plane;
      });
      const rasters = () => ({
        relief: [...arena.f32.slice(relief, relief + 600)],
        picture: [...arena.u32.slice(picture, picture + 600)],
      });
      const before = rasters();
      kernels.groundSurface(37, 9, 0.5, um, codes, 64, relief + 53, picture + 53, 50);
      const ground = rasters();
      const [sealed, volume, solvent, lean, off, shares] = planes;
      kernels.filmSurface(
        37,
        9,
        0.8,
        0.9,
        sealed,
        volume,
        solvent,
        lean,
        off,
        shares,
        64,
        relief + 53,
        picture + 53,
        50,
      );
      const thick = (i: number) =>
        (sealed ? 0.8 * arena.f32[sealed + i] * (off ? 1 - arena.f32[off + i] : 1) : 0) +
        (volume ? 0.9 * arena.f32[volume + i] : 0);
      const added = Array.from({ length: 9 * 37 }, (_, i) => {
        const cell = Math.floor(i / 37) * 64 + (i % 37);
        return thick(cell) * (shares ? arena.f32[shares + cell] : 1);
      });
      return { before, ground, film: rasters(), added };
    });
  };

  it.each([
    { sealed: true },
    { volume: true },
    { sealed: true, volume: true, solvent: true },
    { sealed: true, lean: true },
    { sealed: true, volume: true, off: true },
    { sealed: true, volume: true, shares: true, lean: true, solvent: true },
  ])('is as high as its paint, and takes the light alike compiled and plain: %o', (given) => {
    const { plain, simd } = work(given);
    const sheen = (code: number) => code >>> 24;
    for (let i = 0; i < 600; i++) {
      const [x, y] = [(i % 50) - 3, Math.floor(i / 50) - 1];
      const inside = x >= 0 && x < 37 && y >= 0 && y < 9;
      for (const one of [plain, simd]) {
        const rise = one.film.relief[i] - one.ground.relief[i];
        expect(rise).toBeCloseTo(inside ? one.added[y * 37 + x] : 0, 3);
        // the colour stays
        expect(one.film.picture[i] & 0xffffff).toBe(one.before.picture[i] & 0xffffff);
        if (!inside) expect(one.film.picture[i]).toBe(one.before.picture[i]);
      }
      expect(simd.film.relief[i]).toBeCloseTo(plain.film.relief[i], 3);
      expect(Math.abs(sheen(simd.film.picture[i]) - sheen(plain.film.picture[i]))).toBeLessThanOrEqual(1);
    }
    const mean = (list: number[]) => list.reduce((sum, code) => sum + sheen(code), 0) / list.length;
    const touched = simd.film.picture.filter((code, i) => code !== simd.ground.picture[i]);
    expect(touched.length).toBeGreaterThan(100);
    // wet paint shines more than what has dried, and what was thinned less
    if (given.volume && !given.solvent) expect(mean(touched)).toBeGreaterThan(200);
    else expect(mean(touched)).toBeLessThan(200);
  });
});
