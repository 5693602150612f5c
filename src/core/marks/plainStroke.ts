import { tilesIn } from '@/core/film/tilesIn';
import { TILE } from '@/core/film/cells';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import type { Tile } from '@/core/film/tile';
import { hypot } from '@/core/maths/maths';
import { PathBuilder, StampWalker, type Sample, type Stamp } from './path';
import { felt, type StrokeInProgress, type StrokeSetting } from './stampedStroke';

/** A stroke that changes the tiles under it directly, cell by cell: sticks, ink, masking fluid, salt. */
export abstract class PlainStroke implements StrokeInProgress {
  private readonly path: PathBuilder;
  private readonly walker: StampWalker;
  private changed = noRect();

  constructor(protected readonly setting: StrokeSetting) {
    this.walker = new StampWalker(
      (point) => this.spacing(point),
      (stamp) => {
        if (stamp.point.pressure > 0.01) this.stamp(stamp);
      },
    );
    this.path = new PathBuilder((point) => this.walker.add(point));
  }

  /** Distance to the next stamp, mm. */
  protected abstract spacing(point: Sample): number;
  protected abstract stamp(stamp: Stamp): void;

  add(sample: Sample): void {
    this.path.add({ ...sample, pressure: felt(sample.pressure, this.setting.settings) });
  }

  publish(): PixelRect {
    const rect = this.changed;
    this.changed = noRect();
    return rect;
  }

  end(): void {
    this.path.end();
    this.walker.end();
  }

  /** Calls back for the cells of a disc, with how much of each lies inside. @param begin see `area` */
  protected disc(
    x: number,
    y: number,
    radius: number,
    begin: (tile: Tile, index: number) => boolean,
    visit: (cell: number, inside: number, px: number, py: number) => void,
  ): void {
    const { mmPerPx } = this.setting.painting;
    const r = Math.max(radius / mmPerPx, 0.5);
    // a disc smaller than a cell fills its share of it
    const small = Math.min(1, (radius / mmPerPx / 0.5) ** 2);
    const cx = x / mmPerPx;
    const cy = y / mmPerPx;
    this.area(x, y, r * mmPerPx, begin, (cell, px, py) => {
      const inside = Math.min(1, r + 0.5 - hypot(px + 0.5 - cx, py + 0.5 - cy));
      if (inside > 0) visit(cell, inside * small, px, py);
    });
  }

  /**
   * Calls back for all cells within a reach of a place, mm.
   * @param begin prepares a tile before its cells are visited, and may leave it out
   */
  protected area(
    x: number,
    y: number,
    reach: number,
    begin: (tile: Tile, index: number) => boolean,
    visit: (cell: number, px: number, py: number) => void,
  ): void {
    const { painting, layer, before, guard } = this.setting;
    const { mmPerPx, width, height, tilesX, arena } = painting;
    const [cx, cy, r] = [x / mmPerPx, y / mmPerPx, reach / mmPerPx];
    const rect = {
      left: Math.max(0, Math.floor(cx - r - 1)),
      top: Math.max(0, Math.floor(cy - r - 1)),
      right: Math.min(width, Math.ceil(cx + r + 1)),
      bottom: Math.min(height, Math.ceil(cy + r + 1)),
    };
    for (const { index, part } of tilesIn(rect, tilesX)) {
      before(layer, index);
      const tile = layer.ensureTile(index, arena);
      if (!begin(tile, index)) continue;
      tile.version++;
      for (let py = part.top; py < part.bottom; py++) {
        for (let px = part.left; px < part.right; px++) {
          if (guard && guard.at(px, py) === 0) continue;
          visit((py & 63) * TILE + (px & 63), px, py);
        }
      }
    }
    if (rect.right > rect.left && rect.bottom > rect.top) growRect(this.changed, rect);
  }
}
