import { STEP_SECONDS } from '@/core/flow/washRates';
import { maths } from '@/core/maths/maths';
import { randomFrom } from '@/core/surface/noise';
import type { Stamp } from '@/core/marks/path';
import { PlainStroke } from '@/core/marks/plainStroke';
import type { StrokeSetting } from '@/core/marks/stampedStroke';

/** Grains for each mm of way at full pressure, and how far they scatter. */
const GRAINS_PER_MM = 0.5;
const SCATTER_MM = 5;
/** How long a grain works, seconds, from and to. */
const WORKS = [14, 26] as const;

/** Salt strewn on a wet wash. What it does, it does while the wash dries. */
export class SaltStroke extends PlainStroke {
  private readonly random: () => number;

  constructor(setting: StrokeSetting) {
    super(setting);
    this.random = randomFrom(setting.seed);
  }

  protected spacing(): number {
    return 2;
  }

  protected stamp({ point, wayMm }: Stamp): void {
    const { painting, layer, settings } = this.setting;
    const { flow } = painting;
    let grains = GRAINS_PER_MM * Math.max(1, wayMm) * point.pressure;
    const fallen = [];
    for (; grains > 0; grains--) {
      if (grains < 1 && this.random() > grains) break;
      const angle = 2 * Math.PI * this.random();
      const far = SCATTER_MM * Math.sqrt(this.random());
      const seconds = WORKS[0] + (WORKS[1] - WORKS[0]) * this.random();
      fallen.push({
        layer: layer.id,
        x: point.x + far * maths.cos(angle),
        y: point.y + far * maths.sin(angle),
        radiusMm: (settings.sizeMm / 2) * (0.6 + 0.8 * this.random()),
        until: flow.steps + Math.round(seconds / STEP_SECONDS),
        seed: Math.floor(this.random() * 1e6),
      });
    }
    // grains are no part of any tile, but where they fall is kept with the tiles
    flow.salt = [...flow.salt, ...fallen];
  }
}
