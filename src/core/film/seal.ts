import type { Arena } from './arena';
import { packStratum } from './stratum';
import { TILE_CELLS, type Tile } from './tile';

/**
 * Dries the wet film of a tile: it becomes the newest stratum.
 * @returns whether there was anything to dry.
 */
export function sealTile(arena: Arena, tile: Tile): boolean {
  if (!tile.volume) return false;
  const plane = (address: number) => arena.f32.slice(address >> 2, (address >> 2) + TILE_CELLS);
  const stratum = packStratum(tile.pigments, tile.mass.map(plane), plane(tile.volume));
  tile.dropWet();
  tile.setStrata([...tile.strata, stratum]);
  tile.version++;
  return true;
}
