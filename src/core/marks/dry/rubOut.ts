import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { stratumMass, thinStratum } from '@/core/film/packing/stratum';
import { TILE_CELLS } from '@/core/film/tile';
import type { Wash } from '@/core/film/wash';
import { washRates } from '@/core/flow/washRates';

/** A share of paint below this is as good as none. */
export const CLEAN = 0.002;

/** Takes what has dried of a wash off the paper; what stains deeply stays longest. @param laid word address of the shares */
function thinWash(painting: Painting, wash: Wash, laid: number): boolean {
  let any = false;
  wash.forEach((plane, pigment, coat) => {
    if (coat === 'suspended') return;
    const { f32 } = painting.arena;
    // dust lies in the tooth and stains nothing
    const dust = coat === 'loose' ? 0.01 : coat === 'pressed' ? 0.04 : undefined;
    const deep = dust ?? (coat === 'fast' ? 0.6 : 0.6 * washRates(pigment).stain);
    let gone = 0;
    for (let i = 0; i < TILE_CELLS; i++) {
      const off = f32[laid + i] * (1 - deep) * f32[(plane >> 2) + i];
      f32[(plane >> 2) + i] -= off;
      gone += off;
    }
    painting.ledger.removed[pigment] += gone * painting.cellArea;
    any ||= gone > 0;
  });
  return any;
}

/** Takes off all tiles of a layer what has dried on them, by the shares that stand in their `laid`. */
export function thinDry(painting: Painting, layer: Layer): void {
  layer.forEachTile((tile, index) => {
    if (!tile.laid) return;
    if (tile.strata.length > 0) {
      const off = painting.arena.f32.slice(tile.laid >> 2, (tile.laid >> 2) + TILE_CELLS);
      for (let i = 0; i < off.length; i++) if (off[i] > 1 - CLEAN) off[i] = 1;
      const thinned = tile.strata.map((stratum) => thinStratum(stratum, off));
      tile.strata.forEach((stratum, k) => {
        stratum.pigments.forEach((pigment, i) => {
          const kept = thinned[k].pigments.indexOf(pigment);
          const gone = stratumMass(stratum, i) - (kept < 0 ? 0 : stratumMass(thinned[k], kept));
          painting.ledger.removed[pigment] += gone * painting.cellArea;
        });
      });
      tile.setStrata(thinned.filter((s) => s.thickness.some((t) => t > 0)));
      tile.version++;
    }
    if (tile.wash && thinWash(painting, tile.wash, tile.laid >> 2)) tile.version++;
    if (tile.bare) {
      tile.dispose();
      layer.tiles[index] = undefined;
    }
  });
}
