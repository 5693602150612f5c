import { growRect, type PixelRect } from '@/core/film/pixelRect';
import { hypot, maths } from '@/core/maths/maths';
import { randomFrom } from '@/core/surface/noise';
import { CupInHand } from './cup';
import type { Stamp } from '@/core/marks/path';
import type { Reservoir } from '@/core/marks/brush/reservoir';
import { soften } from './sprayStroke';
import { StampedStroke, type StrokeSetting } from '@/core/marks/stampedStroke';

/** Mean number of drops for each mm of way at full pressure, of drops 1 mm wide; large ones are rarer. */
const DROPS_PER_MM = 5;
/** Thickness of a drop where it lies, um for each mm of its width, and at most. */
const UM_PER_MM = 90;
const MOST_UM = 260;

/**
 * Spatter: drops flung from a brush. Near the painting they fall close together; from farther away they scatter and
 * the larger ones are rarer. Drops are thrown the way the stroke goes and the pen leans, and are drawn out along it.
 *
 * Their sizes are log-normal around the tool's size, as those of torn threads of liquid are.
 */
export class SpatterStroke extends StampedStroke {
  private readonly cup: CupInHand;
  private readonly random: () => number;

  constructor(setting: StrokeSetting, reservoir: Reservoir) {
    super(setting);
    this.cup = new CupInHand(setting.painting, reservoir, setting.settings.blend);
    this.random = randomFrom(setting.seed);
  }

  protected spacing(): number {
    return 1;
  }

  protected override finish(): void {
    this.cup.close();
    super.finish();
  }

  protected stamp({ point, dx, dy, wayMm }: Stamp): void {
    const { settings } = this;
    if (point.pressure <= 0.01 || this.cup.empty) return;
    let drops = (DROPS_PER_MM * wayMm * point.pressure * settings.strength) / Math.max(1, settings.sizeMm ** 2);
    const lean = Math.min(1, hypot(point.tiltX, point.tiltY) / 60);
    const reach = 0.22 * settings.distanceMm;
    // most drops of a stamp fall within this: one window for all of them
    const field = this.reach(point.x, point.y, 1.2 * reach + 4);
    for (; drops > 0; drops--) {
      if (drops < 1 && this.random() > drops) break;
      const far = this.gauss() * reach * 0.5;
      const aside = this.gauss() * reach * 0.5;
      const thrown = lean * reach * (0.5 + this.random());
      const norm = hypot(point.tiltX, point.tiltY) || 1;
      const x = point.x + dx * far - dy * aside + (thrown * point.tiltX) / norm;
      const y = point.y + dy * far + dx * aside + (thrown * point.tiltY) / norm;
      const width = settings.sizeMm * maths.exp(0.55 * this.gauss() - 0.3) * (0.5 + 0.5 * point.pressure);
      this.drop(x, y, Math.max(0.12, width), 1 + lean * (0.6 + this.random()), dx, dy, field);
    }
  }

  /** One drop: a low dome, drawn out along its flight. */
  private drop(
    x: number,
    y: number,
    widthMm: number,
    stretch: number,
    dx: number,
    dy: number,
    field?: PixelRect,
  ): void {
    const { painting, window, cup } = this;
    const rect = this.reach(x, y, (widthMm * stretch) / 2);
    if (!rect) return;
    if (!window.contains(rect.left, rect.top, rect.right, rect.bottom)) {
      cup.close();
      const all = { ...rect };
      if (field) growRect(all, field);
      window.moveTo(all.left, all.top, all.right, all.bottom, cup.pigmentsCarried);
      cup.open(window);
    }
    const { f32 } = painting.arena;
    const n = window.channels;
    const { mmPerPx } = painting;
    const high = Math.min(MOST_UM, 12 + UM_PER_MM * widthMm);
    // a drop narrower than a cell fills its share of it
    const radius = Math.max(widthMm / 2, mmPerPx / 2);
    const small = Math.min(1, (widthMm / mmPerPx) ** 2);
    const { blend } = this.settings;
    for (let py = rect.top; py < rect.bottom; py++) {
      for (let px = rect.left; px < rect.right; px++) {
        const X = (px + 0.5) * mmPerPx - x;
        const Y = (py + 0.5) * mmPerPx - y;
        const along = (X * dx + Y * dy) / stretch;
        const across = Y * dx - X * dy;
        const r2 = (along * along + across * across) / (radius * radius);
        if (r2 >= 1) continue;
        const cell = (py - window.y0) * window.width + px - window.x0;
        const o = (window.film >> 2) + cell * window.stride;
        const open = 1 - f32[(window.cure >> 2) + cell];
        if (blend > 0 && f32[o + n - 1] > 5) cup.take(o, 0.8 * blend * open * open);
        const given = cup.give(o, high * small * Math.sqrt(1 - r2));
        if (given > 0) soften(f32, (window.cure >> 2) + cell, given, f32[o + n - 1]);
      }
    }
    this.touch(rect);
  }

  /** A normally distributed number (Box and Muller 1958), within three deviations. */
  private gauss(): number {
    const r = Math.sqrt(-2 * maths.log(1 - this.random()));
    return Math.max(-3, Math.min(3, r * maths.cos(2 * Math.PI * this.random())));
  }
}
