import { DAMP, DRY, WET, type Basin } from '@/core/film/basin';
import { PLANE_BYTES, TILE, TILE_CELLS } from '@/core/film/cells';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import type { BeforeTile } from '@/core/film/window/windowPlanes';
import type { Kernels } from '@/core/kernels/kernels';
import type { Bed } from './bed';

/** What happens to tiles as the water comes and goes. */
export interface WetTiles {
  wake(layer: Layer, index: number, before: BeforeTile): void;
  dampen(layer: Layer, index: number): void;
  finish(layer: Layer, basin: Basin, index: number): void;
}

/** The extent of the water: its front runs over paper and into tiles, and draws back as it dries. */
export class Front {
  /** Word addresses of what cells gain, for as many tiles as were needed at once. */
  private readonly gains: number[] = [];

  /** @param block word address of the kernels' parameters */
  constructor(
    private readonly painting: Painting,
    private readonly kernels: Kernels,
    private readonly bed: Bed,
    private readonly block: number,
    private readonly tiles: WetTiles,
  ) {}

  advance(layer: Layer, basin: Basin, active: readonly number[], before: BeforeTile): void {
    const { kernels, bed, block } = this;
    const gained = new Map<number, number>();
    let used = 0;
    for (const index of active) {
      if (basin.state[index] !== WET && !this.besideWet(basin, index)) continue;
      const gains = (this.gains[used] ??= this.painting.memory.allocate(PLANE_BYTES) >> 2);
      const resist = layer.tiles[index]?.wash?.resist;
      const any = kernels.advanceFront(
        block,
        basin.first(index),
        bed.coarse(index),
        basin.firstCover(index),
        bed.fine(index),
        (resist?.masking ?? 0) >> 2,
        (resist?.wax ?? 0) >> 2,
        gains,
      );
      if (any) {
        this.keepOnSheet(basin, index, gains);
        gained.set(index, gains);
        used++;
      }
    }
    const { tilesX, tilesY } = basin;
    const reached: number[] = [];
    for (const index of active) {
      const gains = gained.get(index) ?? 0;
      if (gains && basin.state[index] !== WET) this.tiles.wake(layer, index, before);
      const found = kernels.coverFilm(block, basin.first(index), basin.firstCover(index), gains);
      if (found & 1) {
        if (basin.state[index] !== WET) this.tiles.wake(layer, index, before);
      } else if (found & 2) {
        if (basin.state[index] === WET) basin.still(index);
        basin.state[index] = DAMP;
      } else this.tiles.finish(layer, basin, index);
      const tx = index % tilesX;
      const ty = (index - tx) / tilesX;
      const near = [
        found & 4 && tx > 0 ? index - 1 : -1,
        found & 8 && tx < tilesX - 1 ? index + 1 : -1,
        found & 16 && ty > 0 ? index - tilesX : -1,
        found & 32 && ty < tilesY - 1 ? index + tilesX : -1,
      ];
      for (const next of near) if (next >= 0) reached.push(next);
    }
    // beyond a border that is wet the next tile takes part from now on, so that nothing creeps into nowhere
    for (const index of reached) {
      if (basin.state[index] !== DRY) continue;
      before(layer, index);
      this.tiles.dampen(layer, index);
    }
  }

  /** Nothing is gained beyond the flow cells at the right and the lower edge of the sheet. */
  private keepOnSheet({ sheet, factor, tilesX }: Basin, index: number, gains: number): void {
    const { f32 } = this.painting.arena;
    const whole = (cells: number, tile: number) => Math.min(TILE, Math.ceil(cells / factor) * factor - tile * TILE);
    const wide = whole(sheet.width, index % tilesX);
    const high = whole(sheet.height, Math.floor(index / tilesX));
    if (wide < TILE) for (let row = gains; row < gains + TILE_CELLS; row += TILE) f32.fill(0, row + wide, row + TILE);
    if (high < TILE) f32.fill(0, gains + high * TILE, gains + TILE_CELLS);
  }

  private besideWet({ state, tilesX, tilesY }: Basin, index: number): boolean {
    const tx = index % tilesX;
    return (
      (tx > 0 && state[index - 1] === WET) ||
      (tx < tilesX - 1 && state[index + 1] === WET) ||
      state[index - tilesX] === WET ||
      (index + tilesX < tilesX * tilesY && state[index + tilesX] === WET)
    );
  }
}
