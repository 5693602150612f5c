import { tilesIn } from '@/core/film/tilesIn';
import { hypot } from '@/core/maths/maths';
import type { Guard } from './guard';
import type { Layer } from './layer';
import type { Painting } from './painting';
import { TILE } from './tile';
import type { BeforeTile, CellRect, WindowPlanes } from '@/core/film/window/windowPlanes';

/** A layer below the one that is painted on, whose wet paint a brush takes up. */
export interface Below {
  readonly painting: Painting;
  readonly lower: Layer;
  readonly before: BeforeTile;
  readonly guard: Guard | undefined;
}

/** A place of the painting with what lies around it, cells. */
interface Spot {
  readonly x: number;
  readonly y: number;
  readonly reach: number;
}

/**
 * Brings wet paint of the layer below up to this one, within a distance of a place: a brush that goes there takes it
 * up and works it in. Cells of the painting.
 * @param within cells that lie in the window @returns the cells that may have changed
 */
export function takeFromBelow(
  w: WindowPlanes,
  { painting, lower, before, guard }: Below,
  spot: Spot,
  within: CellRect,
): CellRect {
  const { channels: n } = w;
  const { x, y, reach } = spot;
  const { f32 } = painting.arena;
  const left = Math.max(within.left, Math.floor(x - reach));
  const top = Math.max(within.top, Math.floor(y - reach));
  const right = Math.min(within.right - 1, Math.ceil(x + reach));
  const bottom = Math.min(within.bottom - 1, Math.ceil(y + reach));
  const reached = { left, top, right: right + 1, bottom: bottom + 1 };
  for (const { index, part } of tilesIn(reached, painting.tilesX)) {
    const tile = lower.tiles[index];
    if (!tile?.volume) continue;
    before(lower, index);
    tile.version++;
    const channel = tile.pigments.map((p) => w.pigments.indexOf(p));
    for (let py = part.top; py < part.bottom; py++) {
      for (let px = part.left; px < part.right; px++) {
        const i = (py & 63) * TILE + (px & 63);
        const um = f32[(tile.volume >> 2) + i];
        if (um <= 0 || hypot(px + 0.5 - x, py + 0.5 - y) > reach) continue;
        if (guard && guard.at(px, py) === 0) continue;
        const cell = (py - w.y0) * w.width + px - w.x0;
        const o = (w.film >> 2) + cell * w.stride;
        const all = f32[o + n - 1] + um;
        const share = um / all;
        const body = (w.body >> 2) + cell;
        f32[body] += share * (f32[(tile.body >> 2) + i] - f32[body]);
        const cure = (w.cure >> 2) + cell;
        const cured = tile.cure ? f32[(tile.cure >> 2) + i] : 0;
        f32[cure] += share * (cured - f32[cure]);
        w.curing ||= f32[cure] > 0;
        f32[o + n - 1] = all;
        f32[(tile.volume >> 2) + i] = 0;
        // what was below carried this film; now it is part of it
        f32[(w.relief >> 2) + cell] -= um;
        if (tile.skinVolume) f32[(tile.skinVolume >> 2) + i] = 0;
        channel.forEach((c, k) => {
          f32[o + c] += f32[(tile.mass[k] >> 2) + i];
          f32[(tile.mass[k] >> 2) + i] = 0;
          if (tile.skinVolume) f32[(tile.skin[k] >> 2) + i] = 0;
        });
      }
    }
  }
  return { left, top, right, bottom };
}

/** Tiles of the layer below from which everything was taken give their planes back. */
export function tidyBelow({ painting, lower, before }: Below): void {
  lower.forEachTile((tile, index) => {
    if (!tile.volume) return;
    const at = tile.volume >> 2;
    if (painting.arena.f32.subarray(at, at + TILE * TILE).some((v) => v > 0)) return;
    before(lower, index);
    tile.dropWet();
    tile.version++;
    if (!tile.bare) return;
    tile.dispose();
    lower.tiles[index] = undefined;
  });
}
