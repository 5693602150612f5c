import { TILE } from '@/core/film/cells';
import type { Painting } from '@/core/film/painting';
import type { PixelRect } from '@/core/film/pixelRect';

/** What clear water changes in a step, against paint that moves; and paint that stands still. */
const CLEAR = 0.05;
const STILL = 0.08;

/** Tiles whose picture is older than their water, with how much has changed in them since. */
export class StaleTiles {
  private readonly changes = new Map<number, number>();

  constructor(private readonly painting: Painting) {}

  get size(): number {
    return this.changes.size;
  }

  /** Water has moved in tiles. */
  add(tiles: Iterable<number>): void {
    for (const index of tiles) this.changes.set(index, (this.changes.get(index) ?? 0) + this.change(index));
  }

  /**
   * Takes out the tiles that have changed most, one by one, for as long as it is wanted.
   * @param near tiles around this rectangle count for more: a painter looks at the brush, and what is drawn stays small
   */
  *mostChanged(near?: PixelRect): Generator<number> {
    const worth = (index: number, change: number) => change / (1 + (near ? 2 * this.distance(index, near) ** 2 : 0));
    const ranked = [...this.changes].map(([index, change]) => ({ index, worth: worth(index, change) }));
    for (const { index } of ranked.sort((a, b) => b.worth - a.worth)) {
      this.changes.delete(index);
      yield index;
    }
  }

  /** Tiles between a tile and a rectangle. */
  private distance(index: number, { left, top, right, bottom }: PixelRect): number {
    const x = (index % this.painting.tilesX) * TILE;
    const y = Math.floor(index / this.painting.tilesX) * TILE;
    return Math.max(0, left - x - TILE, x - right, top - y - TILE, y - bottom) / TILE;
  }

  /** How much a step changes what a tile looks like. */
  private change(index: number): number {
    let most = CLEAR;
    for (const { basin, tiles } of this.painting.layers) {
      if (!basin || !tiles[index]?.wash?.coats.suspended.some((plane) => plane)) continue;
      most = Math.max(most, STILL + basin.film[index] + basin.paint[index]);
    }
    return most;
  }
}
