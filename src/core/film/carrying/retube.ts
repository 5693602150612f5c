import type { Arena } from '@/core/film/arena';
import { driedAs, packPlane, stratumMass, stratumOf, unpackSteps, type Stratum } from '@/core/film/packing/stratum';
import { TILE_CELLS, type Tile } from '@/core/film/tile';
import { COATS, type Wash } from '@/core/film/wash';

/** Pigment that left a tile and that came to it, coats times cells. */
export interface Exchange {
  readonly gone: number;
  readonly come: number;
}

/**
 * Replaces one pigment of a tile by another, wet and dry: `factor` coats of the new one for each coat of the old.
 * The thickness of the paint stays.
 * @returns what was exchanged, or undefined when the tile has none of it
 */
export function retubeTile(arena: Arena, tile: Tile, from: number, to: number, factor: number): Exchange | undefined {
  const wet = tile.pigments.includes(from);
  const washed = tile.wash?.pigments.includes(from) === true;
  if (!wet && !washed && !tile.strata.some((s) => s.pigments.includes(from))) return undefined;
  let gone = 0;
  let come = 0;
  if (wet) {
    const target = tile.massPlane(to) >> 2;
    const place = tile.pigments.indexOf(from);
    const { f32 } = arena;
    const move = (source: number, into: number) => {
      let sum = 0;
      for (let i = 0; i < TILE_CELLS; i++) {
        sum += f32[source + i];
        f32[into + i] += f32[source + i] * factor;
      }
      return sum;
    };
    const moved = move(tile.mass[place] >> 2, target);
    gone += moved;
    come += moved * factor;
    if (tile.skinVolume) move(tile.skin[place] >> 2, tile.skin[tile.pigments.indexOf(to)] >> 2);
    tile.dropPigment(from);
  }
  if (washed) {
    const moved = retubeWash(arena, tile.wash!, from, to, factor);
    gone += moved;
    come += moved * factor;
  }
  if (tile.strata.some((s) => s.pigments.includes(from))) {
    const strata = tile.strata.map((s) => {
      const k = s.pigments.indexOf(from);
      if (k < 0) return s;
      const held = s.pigments.indexOf(to);
      const before = held < 0 ? 0 : stratumMass(s, held);
      const after = retubeStratum(s, from, to, factor);
      gone += stratumMass(s, k);
      come += stratumMass(after, after.pigments.indexOf(to)) - before;
      return after;
    });
    tile.setStrata(strata);
  }
  tile.version++;
  return { gone, come };
}

/** @returns coats that were replaced, summed over cells */
function retubeWash(arena: Arena, wash: Wash, from: number, to: number, factor: number): number {
  let gone = 0;
  for (const coat of COATS) {
    const source = wash.coats[coat][wash.pigments.indexOf(from)] ?? 0;
    if (!source) continue;
    const target = wash.plane(coat, to) >> 2;
    const { f32 } = arena;
    for (let i = 0; i < TILE_CELLS; i++) {
      gone += f32[(source >> 2) + i];
      f32[target + i] += f32[(source >> 2) + i] * factor;
    }
    wash.drop(coat, from);
  }
  return gone;
}

function retubeStratum(s: Stratum, from: number, to: number, factor: number): Stratum {
  const plane = (pigment: number) => {
    const out = new Float32Array(TILE_CELLS);
    const k = s.pigments.indexOf(pigment);
    if (k >= 0) unpackSteps(out, s.mass[k], 0, TILE_CELLS, s.massStep[k], 0);
    return out;
  };
  const sum = plane(to);
  plane(from).forEach((coats, i) => (sum[i] += coats * factor));
  const kept = s.pigments.flatMap((p, k) =>
    p === from || p === to ? [] : [{ p, packed: { steps: s.mass[k], unit: s.massStep[k] } }],
  );
  const all = [...kept, { p: to, packed: packPlane(sum) }].sort((x, y) => x.p - y.p);
  const other = stratumOf(
    all.map((x) => x.p),
    all.map((x) => x.packed),
    { steps: s.thickness, unit: s.thicknessStep },
  );
  return driedAs(s, other);
}
