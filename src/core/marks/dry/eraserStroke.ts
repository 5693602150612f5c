import { hypot, maths } from '@/core/maths/maths';
import type { Stamp } from '@/core/marks/path';
import { CLEAN, thinDry } from './rubOut';
import { StampedStroke, type StrokeSetting } from '@/core/marks/stampedStroke';

/**
 * Rubbing out: takes paint off the layer, wet or dry, down to the ground. A hard tip leaves a found edge, a soft one
 * a lost edge. Wet paint goes at once; of dry paint the share taken is kept in `laid` (the picture looks through it
 * already) and the strata are thinned when the tool is lifted.
 */
export class EraserStroke extends StampedStroke {
  constructor(setting: StrokeSetting) {
    super(setting, true);
  }

  protected spacing(): number {
    return Math.max(0.1, this.settings.sizeMm * 0.08);
  }

  protected override finish(): void {
    super.finish();
    thinDry(this.painting, this.layer);
  }

  protected stamp({ point, wayMm }: Stamp): void {
    const { painting, window, settings } = this;
    if (point.pressure <= 0.01) return;
    const x = point.x / painting.mmPerPx;
    const y = point.y / painting.mmPerPx;
    const radius = Math.max(0.7, settings.sizeMm / 2 / painting.mmPerPx);
    const rect = this.reach(point.x, point.y, radius * painting.mmPerPx);
    if (!rect) return;
    if (!window.contains(rect.left, rect.top, rect.right, rect.bottom)) {
      window.moveTo(rect.left, rect.top, rect.right, rect.bottom, []);
    }
    const { f32 } = painting.arena;
    const n = window.channels;
    const hard = settings.tip === 'hard';
    // a hard tip clears within half its own width of travel; a soft one wears paint away
    const strokes = (hard ? 14 : 9) * settings.strength * (0.15 + 0.85 * point.pressure);
    const rate = 1 - maths.exp((-strokes * wayMm) / settings.sizeMm);
    const removed = new Float64Array(n);
    for (let py = rect.top; py < rect.bottom; py++) {
      for (let px = rect.left; px < rect.right; px++) {
        const far = hypot(px + 0.5 - x, py + 0.5 - y);
        const reach = hard ? Math.min(1, radius + 0.5 - far) : far < radius ? (1 - (far / radius) ** 2) ** 2 : 0;
        if (reach <= 0) continue;
        const cell = (py - window.y0) * window.width + px - window.x0;
        const laid = (window.laid >> 2) + cell;
        let off = rate * reach;
        f32[laid] += (1 - f32[laid]) * off;
        const o = (window.film >> 2) + cell * window.stride;
        if ((1 - off) * f32[o + n - 1] < 0.05 || f32[laid] > 1 - CLEAN) off = 1;
        for (let i = 0; i < n; i++) {
          removed[i] += f32[o + i] * off;
          f32[o + i] *= 1 - off;
          f32[o + n + i] *= 1 - off;
        }
      }
    }
    window.pigments.forEach((pigment, i) => (painting.ledger.removed[pigment] += removed[i] * painting.cellArea));
    this.touch(rect);
  }
}
