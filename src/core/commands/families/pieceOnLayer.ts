import { TILE, TILE_CELLS } from '@/core/film/cells';
import { fadeTile, mergeTile } from '@/core/film/carrying/mergeTile';
import { dropIfBare } from '@/core/film/carrying/raster';
import type { Sheet } from '@/core/film/carrying/resample';
import { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import type { TileImage } from '@/core/film/tile';
import { sealTile } from '@/core/flow/drying';
import type { Workplace } from '@/core/commands/workplace';

/** Pieces: what is lifted off a layer, carried, and laid onto one. */

/** Cells of a layer, or of a selection, on which there is something. */
export function extent(painting: Painting, layers: readonly Layer[], mask: boolean): PixelRect {
  const rect = noRect();
  const { tilesX } = painting;
  const { f32 } = painting.arena;
  for (const layer of layers) {
    layer.forEachTile((tile, index) => {
      const [left, top] = [(index % tilesX) * TILE, Math.floor(index / tilesX) * TILE];
      const there = new Uint8Array(TILE_CELLS);
      const mark = (at: number) => {
        for (let i = 0; i < TILE_CELLS; i++) if (f32[at + i] > 0) there[i] = 1;
      };
      if (mask) tile.mask?.forEach((v, i) => v > 0 && (there[i] = 1));
      else {
        for (const plane of [tile.volume, tile.sealed]) if (plane) mark(plane >> 2);
        tile.wash?.forEach((plane) => mark(plane >> 2));
        tile.pixels?.forEach((v, i) => v >= 0x01000000 && (there[i] = 1));
      }
      there.forEach((v, i) => {
        if (!v) return;
        const [x, y] = [left + (i & 63), top + (i >> 6)];
        growRect(rect, { left: x, top: y, right: x + 1, bottom: y + 1 });
      });
    });
  }
  return rect;
}

export function sheetOf(painting: Painting, images: ReadonlyMap<number, TileImage>, maskFill: number): Sheet {
  const { tilesX, width, height } = painting;
  return { tilesX, width, height, maskFill, tile: (index) => images.get(index) };
}

/** A copy of what is on a layer, or of what is selected of it, out of the arena. */
export function lifted(painting: Painting, layer: Layer, selected: boolean): Map<number, TileImage> {
  const images = new Map<number, TileImage>();
  const { arena, selection } = painting;
  layer.forEachTile((_, index) => {
    const mask = selected ? selection.tiles[index]?.mask : undefined;
    if (selected && !mask) return;
    const image = layer.capture(index, arena)!;
    if (!mask) {
      images.set(index, image);
      return;
    }
    const spare = new Layer('', '', layer.kind, layer.tiles.length);
    spare.restore(index, { ...image, mask: undefined, water: undefined }, arena, () => painting.newBasin());
    fade(
      painting,
      spare,
      index,
      Float32Array.from(mask, (v) => v / 255),
    );
    if (!spare.tiles[index]!.bare) images.set(index, spare.capture(index, arena)!);
    spare.tiles[index]!.dispose();
  });
  return images;
}

/** Leaves a share of what is on a tile. */
export function fade(painting: Painting, layer: Layer, index: number, keep: Float32Array): void {
  const tile = layer.tiles[index]!;
  const { pixels } = tile;
  if (pixels) {
    tile.pixels = Uint32Array.from(pixels, (v, i) => ((v & 0xffffff) | (Math.round((v >>> 24) * keep[i]) << 24)) >>> 0);
  }
  fadeTile(painting.arena, tile, keep);
}

/** Lays images onto a layer: over what is there. */
export function layOn(
  painting: Painting,
  layer: Layer,
  images: ReadonlyMap<number, TileImage>,
  keep: Workplace['keep'],
): void {
  const { arena } = painting;
  for (const [index, image] of images) {
    keep(layer, index);
    const into = layer.ensureTile(index, arena);
    if (image.pixels) {
      const { pixels } = image;
      const below = into.pixels;
      into.pixels = below ? Uint32Array.from(pixels, (v, i) => over(v, below[i])) : pixels;
    }
    const spare = new Layer('', '', layer.kind, layer.tiles.length);
    spare.restore(index, image, arena, () => painting.newBasin());
    const from = spare.tiles[index]!;
    if ((from.strata.length > 0 || from.wash) && into.volume) sealTile(arena, into);
    mergeTile(arena, into, from);
    from.dispose();
    dropIfBare(layer, index);
  }
}

/** A pixel over another. */
function over(top: number, low: number): number {
  const a = (top >>> 24) / 255;
  const b = ((low >>> 24) / 255) * (1 - a);
  const all = a + b;
  if (all <= 0) return 0;
  const own = (c: number) => Math.round((((top >>> (8 * c)) & 255) * a + ((low >>> (8 * c)) & 255) * b) / all);
  return (own(0) | (own(1) << 8) | (own(2) << 16) | (Math.round(255 * all) << 24)) >>> 0;
}
