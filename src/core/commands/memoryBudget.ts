import type { Layer } from '@/core/film/layer';
import { factOfTiles } from '@/core/film/layerFacts';
import { gridOf, type Painting } from '@/core/film/painting';
import { TILE_CELLS } from '@/core/film/tile';
import { PainterError } from '@/core/errors';

/** What a painting may take in all, bytes; from a share of it on the painter is told. */
export const MOST_BYTES = 2e9;
export const TOLD_SHARE = 0.75;

/** Bytes of a layer outside the arena: its dry paint, its pixels and mask. */
const outsideBytes = factOfTiles((layer) => {
  let bytes = 0;
  layer.forEachTile((tile) => {
    for (const s of tile.strata) bytes += (s.mass.length + 1) * TILE_CELLS * 2;
    bytes += (tile.pixels ? TILE_CELLS * 4 : 0) + (tile.mask ? TILE_CELLS : 0);
  });
  return bytes;
});

/** Bytes of a layer: its planes, its dry paint, its pixels and mask. */
export function layerBytes(layer: Layer): number {
  let words = 0;
  layer.forEachTile((tile) => (words += tile.words));
  return 4 * words + outsideBytes(layer);
}

/** Bytes of a painting with everything that its picture needs. */
export const paintingBytes = (painting: Painting): number =>
  painting.arena.used + painting.layers.reduce((sum, layer) => sum + outsideBytes(layer), 0);

/** Largest painting, cells: 40 million (A2 at 250 ppi and a little more). */
export const MAX_CELLS = 40e6;

/** @throws PainterError when a painting of a size would have more cells than can be painted on */
export function needSize(size: Parameters<typeof gridOf>[0]): void {
  const { width, height } = gridOf(size);
  if (width * height <= MAX_CELLS) return;
  throw new PainterError(`That is more than ${MAX_CELLS / 1e6} million cells: it is too large to be painted on.`);
}

/** @throws PainterError when there is no room for so much more */
export function needRoom(painting: Painting, more: number): void {
  const used = paintingBytes(painting);
  if (used + more <= MOST_BYTES) return;
  const gb = (bytes: number) => (bytes / 1e9).toFixed(1);
  throw new PainterError(
    `There is no room for that: the painting takes ${gb(used)} GB of about ${gb(MOST_BYTES)} GB. Merge or remove layers first.`,
  );
}
