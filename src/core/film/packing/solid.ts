import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { DRY_SHRINK } from '@/core/film/tile';

/** A plane of thickness that carries what is laid on a layer, and the share of it that stands. */
export interface SolidPlane {
  readonly plane: number;
  readonly share: number;
}

/** Planes (byte addresses) of a tile that carry what is laid on a layer: dry paint up to it, wet paint below it. */
export function solidUnder(painting: Painting, layer: Layer, index: number): SolidPlane[] {
  const planes: SolidPlane[] = [];
  for (const other of layer.look.impress ? painting.layers : [layer]) {
    const tile = other.tiles[index];
    if (tile && (other.visible || other === layer)) {
      if (tile.sealed) planes.push({ plane: tile.sealed, share: DRY_SHRINK });
      if (tile.volume && other !== layer) planes.push({ plane: tile.volume, share: 1 });
    }
    if (other === layer) break;
  }
  return planes;
}
