import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pigmentIndex } from '@/core/colour/pigments';
import { paintingSchema } from '@/core/journal/journalSchema';
import { Painting } from '@/core/film/painting';
import { sealTile } from '@/core/flow/drying';
import { captureTile, restoreTile, TILE } from '@/core/film/tile';
import { FilmWindow } from './window';

const BLUE = pigmentIndex('PB29');
const WHITE = pigmentIndex('PW6');
const canvas = () => new Painting(paintingSchema.parse({ widthMm: 60, heightMm: 45, ppi: 101.6, seed: 3 }));
const nobody = () => {};

/** Puts paint into one cell through a window. */
function dab(painting: Painting, x: number, y: number, coats: number, um: number): void {
  const window = new FilmWindow(painting, painting.active, nobody);
  window.moveTo(x, y, x + 1, y + 1, [BLUE, WHITE]);
  const cell = (y - window.y0) * window.width + x - window.x0;
  const at = (window.film >> 2) + cell * window.stride;
  const { f32 } = painting.arena;
  f32[at + window.pigments.indexOf(BLUE)] += coats;
  f32[at + window.channels - 1] += um;
  window.touch(x - window.x0, y - window.y0, x - window.x0, y - window.y0);
  window.flush();
  window.dispose();
}

function read(painting: Painting, x: number, y: number): { coats: number; um: number } {
  const tile = painting.active.tiles[(y >> 6) * painting.tilesX + (x >> 6)];
  const cell = (y & 63) * TILE + (x & 63);
  const plane = (address: number | undefined) => (address ? painting.arena.f32[(address >> 2) + cell] : 0);
  return { coats: plane(tile?.mass[tile.pigments.indexOf(BLUE)]), um: plane(tile?.volume) };
}

describe('a window on the film', () => {
  it('brings every cell back to its place, exactly', () => {
    const painting = canvas();
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 239 }),
        fc.integer({ min: 0, max: 179 }),
        fc.float({ min: Math.fround(0.01), max: 2, noNaN: true }),
        (x, y, coats) => {
          const before = read(painting, x, y);
          dab(painting, x, y, coats, coats * 120);
          expect(read(painting, x, y).coats).toBe(Math.fround(before.coats + coats));
        },
      ),
      { numRuns: 40 },
    );
    const planes = painting.active.tiles.flatMap((t) => t?.pigments ?? []);
    // white was on the tool and never laid: it takes no memory
    expect(planes.includes(WHITE)).toBe(false);
  });

  it('says before it changes a tile, once for each flush', () => {
    const painting = canvas();
    const seen: number[] = [];
    const window = new FilmWindow(painting, painting.active, (_, index) => seen.push(index));
    window.moveTo(60, 60, 70, 70, [BLUE]);
    const { f32 } = painting.arena;
    for (const [x, y] of [
      [62, 62],
      [66, 66],
    ]) {
      const cell = (y - window.y0) * window.width + x - window.x0;
      f32[(window.film >> 2) + cell * window.stride + window.channels - 1] = 30;
      window.touch(x - window.x0, y - window.y0, x - window.x0, y - window.y0);
    }
    window.flush();
    expect([...new Set(seen)].sort((a, b) => a - b)).toEqual([0, painting.tilesX + 1]);
    expect(painting.active.tiles[0]).toBeDefined();
    window.dispose();
  });

  it('takes off what went over the edge of the painting, and writes it down', () => {
    const painting = canvas();
    const window = new FilmWindow(painting, painting.active, nobody);
    window.moveTo(0, 0, 8, 8, [BLUE]);
    const outside = (10 - window.y0) * window.width + (-3 - window.x0);
    painting.arena.f32[(window.film >> 2) + outside * window.stride] = 0.5;
    painting.arena.f32[(window.film >> 2) + outside * window.stride + window.channels - 1] = 60;
    window.touch(0, 0, 5, 5);
    window.flush();
    expect(painting.ledger.removed[BLUE]).toBeCloseTo(0.5 * painting.cellArea, 9);
    window.dispose();
  });

  it('lays dry paint and lower layers under the brush', () => {
    const painting = canvas();
    dab(painting, 20, 20, 1, 200);
    sealTile(painting.arena, painting.active.tiles[0]!);
    dab(painting, 21, 20, 1, 80);
    const upper = painting.addLayer('paint', 'Upper');
    const height = (layer = upper) => {
      const window = new FilmWindow(painting, layer, nobody);
      window.moveTo(10, 10, 30, 30, []);
      const at = (x: number) =>
        painting.arena.f32[(window.relief >> 2) + (20 - window.y0) * window.width + x - window.x0];
      const { um, size } = painting.surface;
      const result = [20, 21, 22].map((x) => at(x) - um[20 * size + x]);
      window.dispose();
      return result.map((v) => Math.round(v));
    };
    expect(height()).toEqual([190, 80, 0]);
    // on its own layer the wet film is no ground
    expect(height(painting.active)).toEqual([190, 0, 0]);
    painting.active.look = { ...painting.active.look, visible: false };
    expect(height()).toEqual([0, 0, 0]);
  });

  it('gives its memory back', () => {
    const painting = canvas();
    const before = painting.arena.used;
    const window = new FilmWindow(painting, painting.active, nobody);
    window.moveTo(0, 0, 200, 100, [BLUE, WHITE]);
    window.moveTo(100, 50, 240, 180, [BLUE]);
    window.dispose();
    expect(painting.arena.used).toBe(before);
  });
});

describe('a copy of a tile', () => {
  it('brings back paint and bareness', () => {
    const painting = canvas();
    dab(painting, 5, 5, 1, 100);
    const tile = painting.active.tiles[0]!;
    const wet = captureTile(painting.arena, tile);
    sealTile(painting.arena, tile);
    const dry = captureTile(painting.arena, tile);
    expect(read(painting, 5, 5).um).toBe(0);
    restoreTile(painting.arena, tile, wet);
    expect(read(painting, 5, 5)).toEqual({ coats: 1, um: 100 });
    expect(tile.sealed).toBe(0);
    restoreTile(painting.arena, tile, dry);
    expect(tile.strata.length).toBe(1);
    expect(painting.arena.f32[(tile.sealed >> 2) + 5 * TILE + 5]).toBeCloseTo(100, 2);
  });
});
