import type { Arena } from '@/core/film/arena';
import { driedAs, packPlane, stratumOf, unpackSteps, type Stratum } from '@/core/film/packing/stratum';
import { TILE_CELLS, type Tile } from '@/core/film/tile';
import { COATS, Wash, type Coat } from '@/core/film/wash';

/**
 * Lays the paint of one tile onto that of another: dry paint becomes its newest strata, wet paint lies on top of what is
 * wet. What was wet below dry paint has been sealed before. Washes add up coat by coat; what had dried below lies under.
 */
export function mergeTile(arena: Arena, into: Tile, from: Tile): void {
  if (from.strata.length > 0) into.setStrata([...into.strata, ...from.strata]);
  if (from.wash) mergeWash(arena, (into.wash ??= new Wash(arena)), from.wash);
  if (from.volume) mergeWet(arena, into, from);
  into.version++;
}

function mergeWet(arena: Arena, into: Tile, from: Tile): void {
  const wasWet = into.volume !== 0;
  into.wet();
  for (const pigment of from.pigments) into.massPlane(pigment);
  if (wasWet) into.skinned();
  if (from.cure) into.curing();
  const { f32 } = arena;
  const [volume, body] = [into.volume >> 2, into.body >> 2];
  for (let i = 0; i < TILE_CELLS; i++) {
    const um = f32[(from.volume >> 2) + i];
    const all = f32[volume + i] + um;
    if (um <= 0) continue;
    const share = um / all;
    f32[body + i] += share * (f32[(from.body >> 2) + i] - f32[body + i]);
    if (into.cure) {
      const cure = from.cure ? f32[(from.cure >> 2) + i] : 0;
      f32[(into.cure >> 2) + i] += share * (cure - f32[(into.cure >> 2) + i]);
    }
    f32[volume + i] = all;
    // what comes lies on top, and what lay there before is below it now
    if (wasWet) f32[(into.skinVolume >> 2) + i] = um;
  }
  into.pigments.forEach((pigment, k) => {
    const there = from.pigments.indexOf(pigment);
    const mass = into.mass[k] >> 2;
    const skin = wasWet ? into.skin[k] >> 2 : 0;
    for (let i = 0; i < TILE_CELLS; i++) {
      if (f32[(from.volume >> 2) + i] <= 0) continue;
      const coats = there < 0 ? 0 : f32[(from.mass[there] >> 2) + i];
      f32[mass + i] += coats;
      if (skin) f32[skin + i] = coats;
    }
  });
  if (!wasWet && from.skinVolume) {
    into.skinned();
    arena.f32.copyWithin(into.skinVolume >> 2, from.skinVolume >> 2, (from.skinVolume >> 2) + TILE_CELLS);
    into.pigments.forEach((pigment, k) => {
      const at = from.skin[from.pigments.indexOf(pigment)] >> 2;
      arena.f32.copyWithin(into.skin[k] >> 2, at, at + TILE_CELLS);
    });
  }
}

function mergeWash(arena: Arena, into: Wash, from: Wash): void {
  const add = (coat: Coat, pigment: number, plane: number) => {
    const to = into.plane(coat, pigment) >> 2;
    const { f32 } = arena;
    for (let i = 0; i < TILE_CELLS; i++) f32[to + i] += f32[(plane >> 2) + i];
  };
  // what had settled lies under what comes; loose dust is pressed by it
  const settles: readonly (readonly [Coat, Coat])[] = [
    ['settled', 'under'],
    ['suspended', 'under'],
    ['loose', 'pressed'],
  ];
  for (const [top, low] of settles) {
    if (!from.coats[top].some(Boolean)) continue;
    for (const pigment of [...into.pigments]) {
      const plane = into.coats[top][into.pigments.indexOf(pigment)];
      if (!plane) continue;
      add(low, pigment, plane);
      into.drop(top, pigment);
    }
  }
  for (const coat of COATS) {
    from.pigments.forEach((pigment, k) => {
      if (from.coats[coat][k]) add(coat, pigment, from.coats[coat][k]);
    });
  }
  for (const name of ['masking', 'wax'] as const) {
    if (!from.resist[name]) continue;
    const to = into.resistPlane(name) >> 2;
    const { f32 } = arena;
    for (let i = 0; i < TILE_CELLS; i++) f32[to + i] = Math.max(f32[to + i], f32[(from.resist[name] >> 2) + i]);
  }
}

/** Takes a share of everything off a tile, wet and dry. @param keep share that stays, each cell, 0..1 */
export function fadeTile(arena: Arena, tile: Tile, keep: Float32Array): void {
  const fade = (plane: number) => {
    const { f32 } = arena;
    for (let i = 0; plane && i < TILE_CELLS; i++) f32[(plane >> 2) + i] *= keep[i];
  };
  for (const plane of [...tile.mass, tile.volume, ...tile.skin, tile.skinVolume]) fade(plane);
  tile.wash?.forEach(fade);
  if (tile.strata.length > 0) tile.setStrata(tile.strata.map((s) => faded(s, keep)));
  tile.version++;
}

function faded(s: Stratum, keep: Float32Array): Stratum {
  const share = (steps: Uint16Array, unit: number) => {
    const plane = new Float32Array(TILE_CELLS);
    unpackSteps(plane, steps, 0, TILE_CELLS, unit, 0);
    for (let i = 0; i < TILE_CELLS; i++) plane[i] *= keep[i];
    return packPlane(plane);
  };
  const left = stratumOf(
    s.pigments,
    s.mass.map((m, k) => share(m, s.massStep[k])),
    share(s.thickness, s.thicknessStep),
  );
  return driedAs(s, left);
}
