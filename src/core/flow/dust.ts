import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { TILE, TILE_CELLS } from '@/core/film/cells';
import type { BeforeTile } from '@/core/film/window';
import { washStratum } from './glazing';
import { dustUm } from './washRates';

/** What happens to dust on a sheet as a whole: it is blown off, fixed, or taken into wet paint. */

/** Share of the loose dust above the tooth, and in it, that goes when it is blown at. */
const BLOWN = 0.8;
const BLOWN_DEEP = 0.04;
/** Share of the dust under fresh paint that a brush works into it. */
const DIRTIES = 0.55;
/** Wet paint thicker than this takes dust up, um. */
const WET_UM = 3;

/** Blows off what the tooth does not hold. @returns tiles that changed */
export function blowOff(painting: Painting, layer: Layer, before: BeforeTile): number[] {
  const { arena, surface, ledger, cellArea, tilesX } = painting;
  const changed: number[] = [];
  layer.forEachTile((tile, index) => {
    const { wash } = tile;
    if (!wash?.dusty) return;
    before(layer, index);
    const { f32 } = arena;
    const left = (index % tilesX) * TILE;
    const top = Math.floor(index / tilesX) * TILE;
    const loose = wash.pigments.flatMap((pigment, k) => (wash.coats.loose[k] ? [{ pigment, plane: wash.coats.loose[k] >> 2 }] : [])); // prettier-ignore
    const planes = wash.dust().map(({ plane, pigment }) => ({ plane, um: dustUm(pigment) }));
    for (let cell = 0; cell < TILE_CELLS; cell++) {
      const x = left + (cell & 63);
      const y = top + (cell >> 6);
      let dust = 0;
      for (const { plane, um } of planes) dust += um * f32[plane + cell];
      let lying = 0;
      for (const { plane, pigment } of loose) lying += dustUm(pigment) * f32[plane + cell];
      if (lying === 0) continue;
      const um = surface.um[(y % surface.size) * surface.size + (x % surface.size)];
      // what stands above the peaks has nothing to hold it
      const above = Math.max(0, Math.min(dust, um + dust - surface.peakUm));
      const share = Math.min(1, (BLOWN * Math.min(above, lying) + BLOWN_DEEP * lying) / lying);
      for (const { pigment, plane } of loose) {
        const off = f32[plane + cell] * share;
        f32[plane + cell] -= off;
        ledger.removed[pigment] += off * cellArea;
      }
    }
    tile.version++;
    changed.push(index);
  });
  return changed;
}

/**
 * Fixes all dust of a layer: it becomes dry strata, which nothing smears, and the tooth above it takes dust again.
 * @returns tiles that changed
 */
export function fix(painting: Painting, layer: Layer, before: BeforeTile): number[] {
  const { arena } = painting;
  const everywhere = new Uint8Array(TILE_CELLS).fill(1);
  const changed: number[] = [];
  layer.forEachTile((tile, index) => {
    const { wash } = tile;
    if (!wash?.dusty) return;
    before(layer, index);
    const strata = (['pressed', 'loose'] as const).flatMap(
      (coat) => washStratum(arena, wash, [coat], everywhere) ?? [],
    );
    for (const pigment of [...wash.pigments])
      for (const coat of ['pressed', 'loose'] as const) wash.drop(coat, pigment);
    if (wash.empty && !layer.basin) tile.wash = undefined;
    tile.setStrata([...tile.strata, ...strata]);
    tile.version++;
    changed.push(index);
  });
  return changed;
}

/**
 * A brush with wet paint has gone over dust: part of it is worked into the paint, which it dirties.
 * @returns whether there was any
 */
export function dirtyPaint(painting: Painting, layer: Layer, before: BeforeTile): boolean {
  const { arena } = painting;
  let any = false;
  layer.forEachTile((tile, index) => {
    const { wash } = tile;
    if (!tile.volume || !tile.laid || !wash?.dusty) return;
    any = true;
    before(layer, index);
    for (const pigment of wash.pigments) {
      const k = wash.pigments.indexOf(pigment);
      if (wash.coats.loose[k] || wash.coats.pressed[k]) tile.massPlane(pigment);
    }
    const { f32 } = arena;
    wash.pigments.forEach((pigment, k) => {
      const mass = tile.mass[tile.pigments.indexOf(pigment)] >> 2;
      for (const plane of [wash.coats.loose[k], wash.coats.pressed[k]]) {
        if (!plane) continue;
        for (let cell = 0; cell < TILE_CELLS; cell++) {
          // only where this stroke has painted
          if (f32[(tile.volume >> 2) + cell] < WET_UM || f32[(tile.laid >> 2) + cell] <= 0) continue;
          const up = f32[(plane >> 2) + cell] * DIRTIES;
          f32[(plane >> 2) + cell] -= up;
          f32[mass + cell] += up;
          f32[(tile.volume >> 2) + cell] += up * dustUm(pigment);
        }
      }
    });
    tile.version++;
  });
  return any;
}
