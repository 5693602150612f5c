import { describe, expect, it } from 'vitest';
import { BANDS } from '@/core/colour/bands';
import { blendRow } from '@/core/colour/blendModes';
import { encodeSrgb } from '@/core/colour/colorimetry';
import { type Arena } from '@/core/film/arena';
import { randomFrom } from '@/core/surface/noise';
import { CODE_STEPS } from './colour';
import { LOOPED_BLENDS } from './light';
import { aimLamp, RELIGHT } from './relight';
import { type Kernels } from './kernels';
import { both } from './twins';

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
