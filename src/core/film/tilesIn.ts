import { TILE } from './cells';
import type { Painting } from './painting';
import type { PixelRect } from './pixelRect';

/** A tile and the part of a rectangle that lies in it, cells of the painting. */
export interface TilePart {
  readonly index: number;
  readonly part: Readonly<PixelRect>;
}

/** The tiles that a rectangle of whole cells touches, row by row. The rectangle lies on the tiles of the painting. */
export function tilesIn({ left, top, right, bottom }: Readonly<PixelRect>, tilesX: number): TilePart[] {
  const found: TilePart[] = [];
  for (let y = top & -TILE; y < bottom; y += TILE) {
    for (let x = left & -TILE; x < right; x += TILE) {
      found.push({
        index: (y / TILE) * tilesX + x / TILE,
        part: {
          left: Math.max(left, x),
          top: Math.max(top, y),
          right: Math.min(right, x + TILE),
          bottom: Math.min(bottom, y + TILE),
        },
      });
    }
  }
  return found;
}

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
