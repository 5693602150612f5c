import type { CommandInput } from '@/core/commands/commands';
import type { Studio } from '@/core/journal/studio';
import type { SurfaceKind } from '@/core/surface/heightField';
import { placeOn, spectrum, type Swath, type Way } from '@/measure/alongStroke';
import { groundFor, type Ground } from '@/measure/behaviour';

/** Strokes of oil as they are judged: along their way, and by where the weave shows in them. */

/** How a stroke is led. */
interface Hand {
  readonly pressure?: number;
  readonly last?: number;
  /** mm/s */
  readonly speed?: number;
}

/** Distance of threads, warp and weft, mm. */
export const WEAVES: Partial<Record<SurfaceKind, readonly [number, number]>> = {
  'linen-fine': [0.8, 0.85],
  'linen-coarse': [1.32, 1.45],
};

/** A stroke along a way with an even hand, or with one whose pressure changes evenly. */
export function drawn(
  way: Way,
  length: number,
  { pressure = 0.6, last = pressure, speed = 90 }: Hand = {},
): CommandInput {
  const samples = Array.from({ length: 61 }, (_, i) => {
    const s = i / 60;
    return [(1000 * length * s) / speed, ...placeOn(way, s * length), pressure + (last - pressure) * s];
  });
  return { do: 'stroke', samples };
}

/** A canvas that a stroke in a direction fits on, and its way. */
export function laid(ground: Ground, length: number, width: number, degrees: number): { studio: Studio; way: Way } {
  const angle = (degrees * Math.PI) / 180;
  const [c, s] = [Math.abs(Math.cos(angle)), Math.abs(Math.sin(angle))];
  const margin = 6;
  const studio = groundFor(ground, length * c + width * s + 2 * margin, length * s + width * c + 2 * margin);
  return { studio, way: { x: margin + (width / 2) * s, y: margin + (width / 2) * c, angle } };
}

/** Shares of the power of a broken stroke: on the lattice of the weave, and in streaks along the stroke. */
export function powers(cover: Swath, [px, py]: readonly [number, number]) {
  const near = (f: number, p: number) => Math.abs(Math.abs(f) - 1 / p) < 0.12 / p;
  const low = (f: number, p: number) => Math.abs(f) < 0.35 / p;
  const [c, s] = [Math.cos(cover.angle), Math.sin(cover.angle)];
  let [lattice, streaks, all] = [0, 0, 0];
  spectrum(cover).each((along, across, power) => {
    // the weave lies as the canvas does
    const [fx, fy] = [c * along - s * across, s * along + c * across];
    all += power;
    const streak = Math.abs(along) < 0.25 && Math.abs(across) > 0.25;
    if (streak) streaks += power;
    const atThreads =
      (near(fx, px) && (near(fy, py) || low(fy, py))) ||
      (near(fy, py) && low(fx, px)) ||
      (near(fx, 2 * px) && near(fy, 2 * py));
    if (atThreads && !streak) lattice += power;
  });
  return { lattice: lattice / all, streaks: streaks / all };
}
