import type { FilmWindow } from '@/core/film/window/window';
import type { Arena } from '@/core/film/arena';
import { hypot } from '@/core/maths/maths';
import { noise2 } from '@/core/surface/noise';

/** Sizes of the stipple that a roller leaves, mm. */
const STIPPLE_MM = 0.62;
const FINE_MM = 0.3;
/** How far paint runs to it, mm. */
const RUNS_MM = 0.17;
/** Film that is too thin to part in threads, um. */
const FILM_UM = 4;

interface Band {
  /** Middle of the roller (cells), its heading and the direction across it. */
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
  readonly cos: number;
  readonly sin: number;
  /** Half of its width, distance behind the middle at which the film parts, and way since the last stamp, cells. */
  readonly halfWidth: number;
  readonly behind: number;
  readonly way: number;
  readonly rect: { left: number; top: number; right: number; bottom: number };
}

/**
 * Behind a roller the film parts in threads, which fall back as a stipple: the skin of an orange. The film is moved down
 * a fixed field of noise, in the band that the roller has just left. Paint only moves.
 * @param channels of the window's film
 */
export function peel(arena: Arena, window: FilmWindow, channels: number, mm: number, seed: number, band: Band): void {
  const { f32 } = arena;
  const n = channels;
  const stipple = (px: number, py: number) =>
    noise2((px * mm) / STIPPLE_MM, (py * mm) / STIPPLE_MM, seed + 81) +
    0.5 * noise2((px * mm) / FINE_MM, (py * mm) / FINE_MM, seed + 82);
  const reach = Math.max(1, Math.round(RUNS_MM / mm));
  const { rect, dx, dy, cos, sin } = band;
  for (let py = rect.top + reach; py < rect.bottom - reach; py++) {
    for (let px = rect.left + reach; px < rect.right - reach; px++) {
      const X = px + 0.5 - band.x;
      const Y = py + 0.5 - band.y;
      const back = -(dx * X + dy * Y);
      if (back < band.behind - band.way || back >= band.behind || Math.abs(cos * X + sin * Y) > band.halfWidth)
        continue;
      const cell = (py - window.y0) * window.width + px - window.x0;
      const o = (window.film >> 2) + 2 * cell * n;
      if (f32[o + n - 1] < FILM_UM) continue;
      const gx = stipple(px + reach, py) - stipple(px - reach, py);
      const gy = stipple(px, py + reach) - stipple(px, py - reach);
      const steep = hypot(gx, gy);
      if (steep < 0.04) continue;
      const to = o + 2 * n * (Math.round((gy / steep) * reach) * window.width + Math.round((gx / steep) * reach));
      if (to === o) continue;
      const share = Math.min(0.5, 1.1 * steep) * (1 - f32[(window.cure >> 2) + cell]);
      for (let i = 0; i < 2 * n; i++) {
        const m = f32[o + i] * share;
        f32[o + i] -= m;
        f32[to + i] += m;
      }
    }
  }
}
