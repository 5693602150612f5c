import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pigmentIndex } from '@/core/colour/pigments';
import { captureTile, restoreTile, Tile, TILE_CELLS } from '@/core/film/tile';
import { decodeTile, encodeTile } from '@/core/film/packing/tileCodec';
import { COAT_UM, leanness, stratumMass } from '@/core/film/packing/stratum';
import { Arena } from '@/core/film/arena';
import { digest } from '@/core/journal/digest';
import { field, line, loaded, paint, studioFor } from '@/measure/bench';
import { driesIn, dryingRate, dryTile, OIL_OPEN_SECONDS, sealTile } from './drying';

const NONE = { medium: 0, solvent: 0, acrylic: 0, retarder: 0 };

/** A tile of ultramarine and an additive, thin at its top and thick at its foot. */
function wetTile(arena: Arena, additive?: { id: string; share: number }): Tile {
  const tile = new Tile(arena);
  tile.wet();
  const blue = tile.massPlane(pigmentIndex('PB29')) >> 2;
  const other = additive ? tile.massPlane(pigmentIndex(additive.id)) >> 2 : 0;
  for (let i = 0; i < TILE_CELLS; i++) {
    const um = i % 5 === 0 ? 0 : 10 + i * 0.05;
    arena.f32[(tile.volume >> 2) + i] = um;
    arena.f32[blue + i] = (um / COAT_UM) * 0.5;
    if (additive) arena.f32[other + i] = (um / COAT_UM) * additive.share;
  }
  return tile;
}

/** Coats of ultramarine, wet and dry. */
function blueIn(arena: Arena, tile: Tile): number {
  const k = tile.pigments.indexOf(pigmentIndex('PB29'));
  let sum = 0;
  if (k >= 0) for (let i = 0; i < TILE_CELLS; i++) sum += arena.f32[(tile.mass[k] >> 2) + i];
  for (const s of tile.strata) sum += stratumMass(s, s.pigments.indexOf(pigmentIndex('PB29')));
  return sum;
}

describe('how fast paint dries', () => {
  it('thin before thick, lean before fat, by pigment', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 2000, noNaN: true }),
        fc.double({ min: 0.5, max: 1.8, noNaN: true }),
        (um, factor) => {
          const { oil } = dryingRate(um, factor, NONE);
          expect(oil).toBeGreaterThan(0);
          expect(dryingRate(um * 2, factor, NONE).oil).toBeLessThan(oil);
          expect(dryingRate(um, factor * 1.2, NONE).oil).toBeLessThan(oil);
          expect(dryingRate(um, factor, { ...NONE, solvent: 0.5 }).oil).toBeGreaterThan(oil);
          expect(dryingRate(um, factor, { ...NONE, medium: 0.5 }).oil).toBeLessThan(oil);
        },
      ),
    );
  });

  it('acrylic in minutes, slower with retarder, and not as oil', () => {
    const rate = dryingRate(60, 1, { ...NONE, acrylic: 1 });
    expect(rate.oil).toBe(0);
    expect(1 / rate.acrylic).toBeGreaterThan(200);
    expect(1 / rate.acrylic).toBeLessThan(1800);
    expect(dryingRate(60, 1, { ...NONE, acrylic: 1, retarder: 0.5 }).acrylic).toBeLessThan(rate.acrylic / 2);
  });
});

describe('a tile that dries', () => {
  it('leaves oil open for an hour, and not acrylic', () => {
    const arena = new Arena();
    expect(driesIn(wetTile(arena), OIL_OPEN_SECONDS - 1)).toBe(false);
    expect(driesIn(wetTile(arena), OIL_OPEN_SECONDS)).toBe(true);
    expect(driesIn(wetTile(arena, { id: 'acrylic', share: 1 }), 10)).toBe(true);
    expect(driesIn(new Tile(arena), 1e6)).toBe(false);
  });

  it('seals what is dry and keeps the rest wet, with all its pigment', () => {
    const arena = new Arena();
    const tile = wetTile(arena);
    const before = blueIn(arena, tile);
    // thin cells are dry after two days, thick ones are not
    for (let day = 0; day < 2; day++) dryTile(arena, tile, 86400);
    expect(tile.strata.length).toBeGreaterThan(0);
    expect(tile.volume).not.toBe(0);
    const wet = Array.from({ length: TILE_CELLS }, (_, i) => arena.f32[(tile.volume >> 2) + i] > 0);
    const dry = Array.from({ length: TILE_CELLS }, (_, i) => tile.strata.some((s) => s.thickness[i] > 0));
    wet.forEach((w, i) => expect(w && dry[i]).toBe(false));
    expect(wet.filter(Boolean).length).toBeGreaterThan(100);
    expect(dry.filter(Boolean).length).toBeGreaterThan(100);
    expect(Math.abs(blueIn(arena, tile) / before - 1)).toBeLessThan(1e-5);
    dryTile(arena, tile, 86400 * 60);
    expect(tile.volume).toBe(0);
    expect(tile.cure).toBe(0);
    expect(Math.abs(blueIn(arena, tile) / before - 1)).toBeLessThan(1e-5);
  });

  it('shrinks by the solvent that leaves it, and knows how lean it was', () => {
    const arena = new Arena();
    const fat = wetTile(arena);
    const lean = wetTile(arena, { id: 'solvent', share: 0.5 });
    for (const tile of [fat, lean]) sealTile(arena, tile);
    const at = 4001;
    const high = (tile: Tile) => arena.f32[(tile.sealed >> 2) + at];
    expect(high(lean) / high(fat)).toBeCloseTo(0.6, 2);
    expect(leanness(lean.strata[0], at)).toBeCloseTo(0.5, 2);
    expect(leanness(fat.strata[0], at)).toBe(0);
    expect([fat.dryLean, lean.dryLean]).toEqual([false, true]);
  });

  it('is put away and taken out again with how far it has dried', () => {
    const arena = new Arena();
    const tile = wetTile(arena);
    dryTile(arena, tile, 20000);
    expect(tile.cure).not.toBe(0);
    const image = captureTile(arena, tile);
    const copy = new Tile(arena);
    restoreTile(arena, copy, decodeTile(encodeTile(image)));
    expect(captureTile(arena, copy)).toEqual(image);
    // a tile that has not begun to dry takes no room for it
    const fresh = captureTile(arena, wetTile(arena));
    expect(encodeTile(fresh).length).toBe(encodeTile(image).length - TILE_CELLS * 4);
    expect(decodeTile(encodeTile(fresh))).toEqual(fresh);
  });
});

describe('time and undo', () => {
  const acrylic = () => {
    const studio = studioFor(40, 30);
    paint(studio, ...loaded('flat', 8, { PB29: 1 }, { vehicle: 'acrylic' }), line(4, 10, 36, 10));
    return studio;
  };

  it('what dried by the clock is wet again when the stroke before is taken back', () => {
    const studio = acrylic();
    const before = digest(studio);
    paint(studio, line(4, 20, 36, 20), { do: 'wait', seconds: 400 }, { do: 'undo' });
    expect(digest(studio)).toBe(before);
  });

  it('a clock that ticks between undo and redo changes nothing', () => {
    const studio = acrylic();
    paint(studio, line(4, 20, 36, 20));
    const after = digest(studio);
    paint(studio, { do: 'undo' }, { do: 'wait', seconds: 500 }, { do: 'redo' });
    expect(digest(studio)).toBe(after);
  });

  it('leaving it overnight is a step of its own', () => {
    const studio = studioFor(40, 30);
    paint(studio, ...field([4, 4, 30, 20], { PBr7BU: 1 }, 10));
    const wet = digest(studio);
    paint(studio, { do: 'leave', hours: 12 });
    expect(digest(studio)).not.toBe(wet);
    expect(studio.state.clock).toBe(12 * 3600);
    paint(studio, { do: 'undo' });
    expect(digest(studio)).toBe(wet);
  });
});
