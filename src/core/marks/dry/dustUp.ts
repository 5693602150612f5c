import { tilesIn } from '@/core/film/tilesIn';
import { TILE } from '@/core/film/cells';
import type { PixelRect } from '@/core/film/pixelRect';
import type { FilmWindow } from '@/core/film/window/window';
import { dustUm } from '@/core/flow/washRates';
import { hypot } from '@/core/maths/maths';
import type { StrokeSetting } from '@/core/marks/stampedStroke';

/** Share of the dust under it that one pass of a tool works into the wet paint which it lays, as 1 - exp(-this). */
export const WORKS_IN = 0.8;
/** Wet paint thicker than this takes dust up, um. */
const WET_UM = 3;

/**
 * Wet paint drawn over the dust of sticks is dirtied by it while the stroke is made: a part goes into the film, which the
 * tool then drags on.
 */
export class DustUp {
  private constructor(
    private readonly setting: StrokeSetting,
    private readonly window: FilmWindow,
    /** Pigments of the dust, which the window must have channels for. */
    readonly pigments: readonly number[],
  ) {}

  /** @returns undefined where the layer has no dust */
  static over(setting: StrokeSetting, window: FilmWindow): DustUp | undefined {
    const found = new Set<number>();
    setting.layer.forEachTile(({ wash }) => {
      if (!wash?.dusty) return;
      wash.pigments.forEach((pigment, k) => {
        if (wash.coats.loose[k] || wash.coats.pressed[k]) found.add(pigment);
      });
    });
    return found.size > 0 ? new DustUp(setting, window, [...found]) : undefined;
  }

  /**
   * The tool has passed over a disc of cells.
   * @param x, y its middle and @param reach its radius, cells @param share of the dust that goes into the film
   */
  stamped(x: number, y: number, reach: number, share: number, within: PixelRect): void {
    const { window, setting } = this;
    const { painting, layer, before, guard } = setting;
    const { f32 } = painting.arena;
    const left = Math.max(within.left, Math.floor(x - reach));
    const top = Math.max(within.top, Math.floor(y - reach));
    const right = Math.min(within.right - 1, Math.ceil(x + reach));
    const bottom = Math.min(within.bottom - 1, Math.ceil(y + reach));
    const reached = { left, top, right: right + 1, bottom: bottom + 1 };
    for (const { index, part } of tilesIn(reached, painting.tilesX)) {
      const tile = layer.tiles[index];
      const wash = tile?.wash;
      if (!tile || !wash?.dusty) continue;
      before(layer, index);
      tile.version++;
      const planes = wash.pigments.flatMap((pigment, k) =>
        [wash.coats.loose[k], wash.coats.pressed[k]].flatMap((plane) =>
          plane ? [{ plane: plane >> 2, channel: window.pigments.indexOf(pigment), um: dustUm(pigment) }] : [],
        ),
      );
      for (let py = part.top; py < part.bottom; py++) {
        for (let px = part.left; px < part.right; px++) {
          const at = (py - window.y0) * window.width + px - window.x0;
          const film = (window.film >> 2) + at * window.stride;
          const volume = film + window.channels - 1;
          if (f32[volume] < WET_UM || f32[(window.laid >> 2) + at] <= 0) continue;
          if (hypot(px + 0.5 - x, py + 0.5 - y) > reach || (guard && guard.at(px, py) === 0)) continue;
          const cell = (py & 63) * TILE + (px & 63);
          for (const { plane, channel, um } of planes) {
            const up = f32[plane + cell] * share;
            f32[plane + cell] -= up;
            f32[film + channel] += up;
            f32[volume] += up * um;
          }
        }
      }
    }
  }
}
