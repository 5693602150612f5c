import { maths } from '@/core/maths/maths';
import { latticeHash } from '@/core/surface/noise';
import { CupInHand } from './cup';
import type { Stamp } from './path';
import type { Reservoir } from './reservoir';
import { StampedStroke, type StrokeSetting } from './stampedStroke';

/** Film that a full-strength spray leaves at most in one stroke, um. */
const FULL_UM = 45;
/** What reaches the middle of the cone on a way of one cone's width, um. */
const FLOW_UM = 26;
/** Side of the droplets of the mist, mm. */
const DROPLET_MM = 0.17;

/**
 * A soft spray of real paint: a cone of fine droplets, dense in the middle and lost towards its rim. Farther away the
 * cone is wider and thinner. Towards the blend end it blows wet paint about instead of giving its own.
 */
export class SprayStroke extends StampedStroke {
  private readonly cup: CupInHand;
  private stamps = 0;

  constructor(setting: StrokeSetting, reservoir: Reservoir) {
    super(setting);
    this.cup = new CupInHand(setting.painting, reservoir, setting.settings.blend);
  }

  protected spacing(): number {
    return Math.max(0.2, this.settings.sizeMm * 0.08);
  }

  protected override finish(): void {
    this.cup.close();
    super.finish();
  }

  protected stamp({ point, wayMm }: Stamp): void {
    const { painting, window, settings, cup } = this;
    if (point.pressure <= 0.01 || cup.empty) return;
    const radius = settings.sizeMm * 0.5 * (0.6 + 0.4 * (settings.distanceMm / 80));
    const rect = this.reach(point.x, point.y, radius);
    if (!rect) return;
    if (!window.contains(rect.left, rect.top, rect.right, rect.bottom)) {
      cup.close();
      window.moveTo(rect.left, rect.top, rect.right, rect.bottom, cup.pigmentsCarried);
      cup.open(window);
    }
    const { f32 } = painting.arena;
    const n = window.channels;
    const { mmPerPx } = painting;
    const droplets = Math.max(1, DROPLET_MM / mmPerPx);
    const dose = (FLOW_UM * point.pressure * wayMm) / (2 * radius);
    const ceiling = FULL_UM * settings.strength;
    const stir = settings.blend * (1 - maths.exp((-1.5 * point.pressure * wayMm) / radius));
    this.stamps++;
    for (let py = rect.top; py < rect.bottom; py++) {
      for (let px = rect.left; px < rect.right; px++) {
        const r2 = (((px + 0.5) * mmPerPx - point.x) ** 2 + ((py + 0.5) * mmPerPx - point.y) ** 2) / radius ** 2;
        if (r2 >= 1) continue;
        const density = (1 - r2) ** 2;
        const cell = (py - window.y0) * window.width + px - window.x0;
        const o = (window.film >> 2) + cell * window.stride;
        if (stir > 0 && f32[o + n - 1] > 5)
          cup.take(o, stir * density * 0.6 * (1 - f32[(window.cure >> 2) + cell]) ** 2);
        // fewer, larger droplets where the mist is thin
        const grain = latticeHash(Math.floor(px / droplets), Math.floor(py / droplets), this.seed + this.stamps);
        const falls = density > grain ? dose * 1.6 : 0;
        const laid = (window.laid >> 2) + cell;
        const um = Math.min(falls, ceiling - f32[laid]);
        if (um <= 0) continue;
        const given = cup.give(o, um);
        f32[laid] += given;
        if (given > 0) soften(f32, (window.cure >> 2) + cell, given, f32[o + n - 1]);
      }
    }
    this.touch(rect);
  }
}

/** Fresh paint on paint that dries softens it by its share. */
export function soften(f32: Float32Array, cure: number, given: number, um: number): void {
  f32[cure] -= (f32[cure] * given) / Math.max(given, um);
}
