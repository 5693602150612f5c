import { TILE, TILE_CELLS } from '@/core/film/cells';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import type { BeforeTile } from '@/core/film/window/window';

/** Writes pixels into the tiles of a layer; a tile of which nothing is seen gets none. Codes are 0xAABBGGRR. */
export function writePixels(
  painting: Painting,
  layer: Layer,
  before: BeforeTile,
  pixel: (x: number, y: number) => number,
): void {
  writeTiles(painting, layer, before, (index, each) => {
    const pixels = new Uint32Array(TILE_CELLS);
    let any = false;
    each((cell, x, y) => {
      pixels[cell] = pixel(x, y);
      any ||= pixels[cell] >= 0x01000000;
    });
    if (any) layer.ensureTile(index, painting.arena).pixels = pixels;
    else if (layer.tiles[index]) layer.tiles[index].pixels = undefined;
  });
}

/**
 * Writes a mask into the tiles of a layer, 0..255 a cell. A tile that is as the whole mask is at first gets none.
 * @param fill what holds where there is no tile
 */
export function writeMask(
  painting: Painting,
  layer: Layer,
  before: BeforeTile,
  fill: number,
  shown: (x: number, y: number, cell: number, index: number) => number,
): void {
  writeTiles(painting, layer, before, (index, each) => {
    const mask = new Uint8Array(TILE_CELLS).fill(fill);
    let any = false;
    each((cell, x, y) => {
      mask[cell] = shown(x, y, cell, index);
      any ||= mask[cell] !== fill;
    });
    if (any) layer.ensureTile(index, painting.arena).mask = mask;
    else if (layer.tiles[index]) layer.tiles[index].mask = undefined;
  });
}

/** Goes through all tiles of a painting; those that change are kept before. */
function writeTiles(
  painting: Painting,
  layer: Layer,
  before: BeforeTile,
  write: (index: number, each: (visit: (cell: number, x: number, y: number) => void) => void) => void,
): void {
  const { tilesX, tilesY, width, height } = painting;
  for (let index = 0; index < tilesX * tilesY; index++) {
    const left = (index % tilesX) * TILE;
    const top = Math.floor(index / tilesX) * TILE;
    before(layer, index);
    write(index, (visit) => {
      for (let y = top; y < Math.min(height, top + TILE); y++) {
        for (let x = left; x < Math.min(width, left + TILE); x++) visit((y - top) * TILE + x - left, x, y);
      }
    });
    const tile = layer.tiles[index];
    if (!tile) continue;
    tile.version++;
    dropIfBare(layer, index);
  }
}

/** Gives a tile back on which nothing is any more. */
export function dropIfBare(layer: Layer, index: number): void {
  if (!layer.tiles[index]?.bare) return;
  layer.tiles[index].dispose();
  layer.tiles[index] = undefined;
}

/** What is selected of a cell, 0..255; everything where nothing is selected at all. */
export function selectedAt(painting: Painting, index: number, cell: number): number {
  return painting.selection.tiles[index]?.mask?.[cell] ?? 0;
}
