import type { Mixture } from '@/core/colour/mixture';
import type { Painting } from '@/core/film/painting';
import { noRect, growRect, type PixelRect } from '@/core/film/pixelRect';
import { TILE } from '@/core/film/tile';
import type { BeforeTile } from '@/core/film/window/window';
import { hypot, maths } from '@/core/maths/maths';
import { contents, stiffnessOf, type PaintMake } from './reservoir';

/** Height of a bead of tube paint in its middle, as a share of its width, and at most, um. */
const HEIGHT = 0.11;
const MOST_UM = 1500;
/** The coil that a nozzle leaves: its pitch as a share of the bead's width, and its depth as a share of the height. */
const COIL = 0.3;
const COIL_DEPTH = 0.14;

export interface Squeeze {
  readonly mixture: Mixture;
  /** Middle of the bead, mm. */
  readonly x: number;
  readonly y: number;
  /** Width of the bead, mm. */
  readonly sizeMm: number;
  readonly make: PaintMake;
}

/**
 * Squeezes a bead of paint onto a painting's active layer, on top of what is there, and enters it as loaded.
 * @returns the cells that changed
 */
export function squeeze(painting: Painting, { mixture, x, y, sizeMm, make }: Squeeze, before: BeforeTile): PixelRect {
  const { arena, width, height, mmPerPx, tilesX, cellArea, ledger, active: layer } = painting;
  const radius = sizeMm / 2 / mmPerPx;
  const [cx, cy] = [x / mmPerPx, y / mmPerPx];
  const highest = Math.min(MOST_UM, HEIGHT * sizeMm * 1000);
  const parts = contents(mixture, make);
  const body = stiffnessOf(make);
  const rect = noRect();
  const [left, right] = [Math.max(0, Math.floor(cx - radius)), Math.min(width - 1, Math.ceil(cx + radius))];
  const [top, bottom] = [Math.max(0, Math.floor(cy - radius)), Math.min(height - 1, Math.ceil(cy + radius))];
  for (let ty = Math.floor(top / TILE); ty * TILE <= bottom; ty++) {
    for (let tx = Math.floor(left / TILE); tx * TILE <= right; tx++) {
      const index = ty * tilesX + tx;
      before(layer, index);
      const tile = layer.ensureTile(index, arena);
      tile.wet();
      const planes = parts.map(([pigment]) => tile.massPlane(pigment));
      const { f32 } = arena;
      for (let py = Math.max(top, ty * TILE); py <= Math.min(bottom, ty * TILE + TILE - 1); py++) {
        for (let px = Math.max(left, tx * TILE); px <= Math.min(right, tx * TILE + TILE - 1); px++) {
          const [dx, dy] = [(px + 0.5 - cx) / radius, (py + 0.5 - cy) / radius];
          const r = hypot(dx, dy);
          if (r >= 1) continue;
          const turn = maths.atan2(dy, dx) / (2 * Math.PI);
          const coil = 1 - COIL_DEPTH * (0.5 - 0.5 * maths.cos((r / COIL + turn) * 2 * Math.PI));
          const um = highest * Math.sqrt(1 - r * r) * coil;
          const cell = (py - ty * TILE) * TILE + px - tx * TILE;
          const volume = (tile.volume >> 2) + cell;
          const stiff = (tile.body >> 2) + cell;
          f32[stiff] = (f32[stiff] * f32[volume] + body * um) / (f32[volume] + um);
          f32[volume] += um;
          parts.forEach(([pigment, coatsPerUm], k) => {
            const at = (planes[k] >> 2) + cell;
            const had = f32[at];
            f32[at] += um * coatsPerUm;
            ledger.loaded[pigment] += (f32[at] - had) * cellArea;
          });
        }
      }
      tile.version++;
      growRect(rect, {
        left: tx * TILE,
        top: ty * TILE,
        right: Math.min(width, tx * TILE + TILE),
        bottom: Math.min(height, ty * TILE + TILE),
      });
    }
  }
  return rect;
}
