import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { TILE, TILE_CELLS } from '@/core/film/cells';
import type { BeforeTile } from '@/core/film/window/window';
import { washStratum } from './glazing';
import { fineTooth } from '@/core/surface/fineTooth';
import { dustUm } from './washRates';

/** What happens to dust on a sheet as a whole: it is blown off or fixed. */

/** Share of the loose dust that the tooth does not hold, and of what it holds, that goes when it is blown at. */
const BLOWN = 0.8;
const BLOWN_DEEP = 0.04;
/** Height of dust that fibres hold at the mean height of the tooth, um; and how much more for each um that a valley is deeper. */
const HELD_UM = 9;
const HELD_DEEP = 0.5;
const HELD_LEAST_UM = 4;

/** Blows off what the tooth does not hold. @returns tiles that changed */
export function blowOff(painting: Painting, layer: Layer, before: BeforeTile): number[] {
  const { arena, surface, ledger, cellArea, tilesX } = painting;
  const tooth = fineTooth(surface, painting.mmPerPx).um;
  const changed: number[] = [];
  layer.forEachTile((tile, index) => {
    const { wash } = tile;
    if (!wash?.dusty) return;
    before(layer, index);
    const { f32 } = arena;
    const left = (index % tilesX) * TILE;
    const top = Math.floor(index / tilesX) * TILE;
    const loose = wash.pigments.flatMap((pigment, k) =>
      wash.coats.loose[k] ? [{ pigment, plane: wash.coats.loose[k] >> 2 }] : [],
    );
    for (let cell = 0; cell < TILE_CELLS; cell++) {
      const x = left + (cell & 63);
      const y = top + (cell >> 6);
      let lying = 0;
      for (const { plane, pigment } of loose) lying += dustUm(pigment) * f32[plane + cell];
      if (lying === 0) continue;
      const height = tooth[(y % surface.size) * surface.size + (x % surface.size)];
      const held = Math.max(HELD_LEAST_UM, HELD_UM - HELD_DEEP * height);
      const share = (BLOWN * Math.max(0, lying - held)) / lying + BLOWN_DEEP;
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
      (coat) => washStratum(arena, wash, [coat], everywhere, true) ?? [],
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
