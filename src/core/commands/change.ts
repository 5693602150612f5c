import type { Painting } from '@/core/film/painting';
import { noRect, type PixelRect } from '@/core/film/pixelRect';
import { TILE } from '@/core/film/tile';

/** What a command changed. */
export interface Change {
  /** Cells whose paint may differ; empty when none. */
  readonly rect: PixelRect;
  /** Cells of the slab whose paint may differ. */
  readonly slab: PixelRect;
  /** Tiles of the painting in which water has moved. */
  readonly flowed: ReadonlySet<number>;
  /** Layers were added, removed, ordered, hidden, shown, renamed or chosen. */
  readonly layers: boolean;
  /** The canvas is another one: of another size, or turned. */
  readonly canvas?: boolean;
}

export const noChange = (): Change => ({ rect: noRect(), slab: noRect(), flowed: new Set(), layers: false });

/** Cells of a tile. */
export function tileRect({ tilesX, width, height }: Painting, index: number): PixelRect {
  const left = (index % tilesX) * TILE;
  const top = Math.floor(index / tilesX) * TILE;
  return { left, top, right: Math.min(width, left + TILE), bottom: Math.min(height, top + TILE) };
}

/** All cells. */
export const wholeRect = ({ width, height }: Painting): PixelRect => ({
  left: 0,
  top: 0,
  right: width,
  bottom: height,
});
