import { maths } from '@/core/maths/maths';
import type { Stamp } from './path';
import { StampedStroke } from './stampedStroke';

/** How many times a full stroke multiplies the film, and at least how much it adds, um. */
const TIMES = 2.4;
const LEAST_UM = 120;
/** Stiffness of the gel. */
const GEL_BODY = 0.95;

/**
 * More body: wet paint is given gel, which adds thickness and stiffness and no colour; with less gel in the setting
 * the rest is more of the same mixture. Where there is no wet paint nothing is added.
 */
export class GelStroke extends StampedStroke {
  protected spacing(): number {
    return Math.max(0.3, this.settings.sizeMm * 0.1);
  }

  protected stamp({ point, wayMm }: Stamp): void {
    const { painting, window, settings } = this;
    if (point.pressure <= 0.01) return;
    const radius = settings.sizeMm / 2;
    const rect = this.reach(point.x, point.y, radius);
    if (!rect) return;
    if (!window.contains(rect.left, rect.top, rect.right, rect.bottom)) {
      window.moveTo(rect.left, rect.top, rect.right, rect.bottom, []);
    }
    const { f32 } = painting.arena;
    const { mmPerPx, ledger } = painting;
    const n = window.channels;
    const rate = 1 - maths.exp((-2.5 * point.pressure * wayMm) / settings.sizeMm);
    const loaded = new Float64Array(n);
    for (let py = rect.top; py < rect.bottom; py++) {
      for (let px = rect.left; px < rect.right; px++) {
        const r2 = (((px + 0.5) * mmPerPx - point.x) ** 2 + ((py + 0.5) * mmPerPx - point.y) ** 2) / radius ** 2;
        if (r2 >= 1) continue;
        const cell = (py - window.y0) * window.width + px - window.x0;
        const o = (window.film >> 2) + cell * window.stride;
        const um = f32[o + n - 1];
        if (um < 3) continue;
        const laid = (window.laid >> 2) + cell;
        const before = um - f32[laid];
        const room = settings.strength * Math.max(LEAST_UM, (TIMES - 1) * before) - f32[laid];
        const more = room * rate * Math.min(1, 4 * (1 - r2));
        if (more <= 0) continue;
        f32[laid] += more;
        const paint = (more * (1 - settings.gel)) / um;
        for (let i = 0; i < n - 1; i++) {
          const old = f32[o + i];
          f32[o + i] = old * (1 + paint);
          loaded[i] += f32[o + i] - old;
        }
        f32[o + n - 1] = um + more;
        const body = (window.body >> 2) + cell;
        f32[body] += ((GEL_BODY - f32[body]) * more * settings.gel) / (um + more);
        f32[(window.cure >> 2) + cell] *= um / (um + more);
      }
    }
    window.pigments.forEach((pigment, i) => (ledger.loaded[pigment] += loaded[i] * painting.cellArea));
    this.touch(rect);
  }
}
