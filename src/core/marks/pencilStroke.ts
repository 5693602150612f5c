import { GRAPHITE, pigmentIndex } from '@/core/colour/pigments';
import { latticeHash } from '@/core/surface/noise';
import type { Stamp } from './path';
import { StampedStroke } from './stampedStroke';

const INDEX = pigmentIndex(GRAPHITE);
/** Graphite that the tooth holds at most: thickness um, and its mass in coats. */
const FULL_UM = 9;
const COATS_PER_UM = 1 / 30;

/**
 * A graphite line: a small hard tip that meets the peaks of the surface first. What it leaves is entered in the
 * ledger as loaded, for a pencil is not filled but worn.
 */
export class PencilStroke extends StampedStroke {
  protected spacing(): number {
    return Math.max(0.08, this.settings.sizeMm * 0.2);
  }

  protected stamp({ point, wayMm }: Stamp): void {
    const { painting, window, settings } = this;
    if (point.pressure <= 0.01) return;
    const { mmPerPx } = painting;
    const x = point.x / mmPerPx;
    const y = point.y / mmPerPx;
    // a leaning pencil draws with its side
    const lean = Math.min(1, Math.hypot(point.tiltX, point.tiltY) / 60);
    const radius = Math.max(0.6, ((settings.sizeMm / 2) * (0.7 + 0.3 * point.pressure) * (1 + 2.5 * lean)) / mmPerPx);
    const rect = this.reach(point.x, point.y, radius * mmPerPx);
    if (!rect) return;
    if (!window.contains(rect.left, rect.top, rect.right, rect.bottom)) {
      window.moveTo(rect.left, rect.top, rect.right, rect.bottom, [INDEX]);
    }
    const { f32 } = painting.arena;
    const n = window.channels;
    const channel = window.pigments.indexOf(INDEX);
    const { peakUm, depthUm } = painting.surface;
    // the tip stands on the peaks and is pressed into the grain
    const plane = peakUm - (0.15 + 1.05 * point.pressure) * (depthUm + 6) * (1 - 0.5 * lean);
    const rate = 1 - Math.exp((-1.6 * point.pressure * settings.strength * wayMm) / Math.max(0.2, settings.sizeMm));
    let laid = 0;
    for (let py = rect.top; py < rect.bottom; py++) {
      for (let px = rect.left; px < rect.right; px++) {
        const edge = radius + 0.5 - Math.hypot(px + 0.5 - x, py + 0.5 - y);
        if (edge <= 0) continue;
        const cell = (py - window.y0) * window.width + px - window.x0;
        const over = f32[(window.relief >> 2) + cell] - plane + 12 * (latticeHash(px, py, this.seed) - 0.5);
        if (over <= 0) continue;
        const o = (window.film >> 2) + cell * window.stride;
        const room = FULL_UM * settings.strength - f32[o + n - 1];
        if (room <= 0) continue;
        const um = room * rate * Math.min(1, edge) * (over / (over + 10));
        f32[o + n - 1] += um;
        f32[o + channel] += um * COATS_PER_UM;
        laid += um * COATS_PER_UM;
      }
    }
    painting.ledger.loaded[INDEX] += laid * painting.cellArea;
    this.touch(rect);
  }
}
