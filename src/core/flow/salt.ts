import { FRAME, type Basin } from '@/core/film/basin';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { hypot, maths } from '@/core/maths/maths';
import { latticeHash } from '@/core/surface/noise';

/** How fast a grain pushes paint away at its side, reference cells a step, and how far it reaches, in its radii. */
const PUSH = 0.3;
const REACH = 6;
/** Arms of the star, as crystals leave them. */
const ARMS = 7;

/**
 * Salt on a wet wash: each grain draws water and drives the paint from it, unevenly all round, which leaves pale stars.
 * Adds to the velocities of paint in tiles whose paint is about to move.
 */
export function saltPush(
  painting: Painting,
  layer: Layer,
  basin: Basin,
  due: readonly { index: number }[],
  step: number,
  fastest: number,
): void {
  const { salt, steps } = painting.flow;
  if (salt.length === 0) return;
  const { f32 } = painting.arena;
  const ready = new Set(due.map((d) => d.index));
  const mm = basin.factor * painting.mmPerPx;
  for (const grain of salt) {
    if (grain.layer !== layer.id || steps >= grain.until) continue;
    const reach = (grain.radiusMm * REACH) / mm;
    const cx = grain.x / mm;
    const cy = grain.y / mm;
    for (let y = Math.max(0, Math.floor(cy - reach)); y <= Math.min(basin.tilesY * basin.side - 1, cy + reach); y++) {
      for (let x = Math.max(0, Math.floor(cx - reach)); x <= Math.min(basin.tilesX * basin.side - 1, cx + reach); x++) {
        const index = Math.floor(y / basin.side) * basin.tilesX + Math.floor(x / basin.side);
        if (!ready.has(index)) continue;
        const i = (y + 1) * basin.stride + x + FRAME;
        const push = (fx: number, fy: number, out: number, back: number, along: number) => {
          if (f32[basin.at.share + i] <= 0 || f32[basin.at.share + i - back] <= 0) return;
          const distance = hypot(fx, fy);
          const arm = latticeHash(Math.floor(((maths.atan2(fy, fx) / Math.PI + 1) / 2) * ARMS), 3, grain.seed);
          const far = 1 - distance / (reach * (0.45 + 0.55 * arm));
          if (far <= 0 || distance < 1e-6) return;
          const v = f32[out + i] + (PUSH * step * far * (along === 0 ? fx : fy)) / distance;
          f32[out + i] = Math.max(-fastest, Math.min(fastest, v));
          basin.paint[index] = Math.max(basin.paint[index], Math.abs(v));
        };
        push(x - cx, y + 0.5 - cy, basin.at.paintU, 1, 0);
        push(x + 0.5 - cx, y - cy, basin.at.paintV, basin.stride, 1);
      }
    }
  }
  if (salt.some((grain) => steps >= grain.until)) painting.flow.salt = salt.filter((grain) => steps < grain.until);
}
