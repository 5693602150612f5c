import { Wash } from '@/core/film/wash';
import { maths } from '@/core/maths/maths';
import type { Stamp } from '@/core/marks/path';
import { PlainStroke } from '@/core/marks/plainStroke';
import type { StrokeSetting } from '@/core/marks/stampedStroke';

/**
 * What keeps water off the paper: masking fluid, painted on with a pen or an old brush, closed and sharp; the crepe
 * rubber that rubs it off again; a candle, whose wax takes on the peaks of the tooth and stays.
 */
export class KeepOffStroke extends PlainStroke {
  constructor(
    setting: StrokeSetting,
    private readonly what: 'masking' | 'crepe' | 'wax',
  ) {
    super(setting);
  }

  protected spacing(): number {
    return Math.max(0.1, this.setting.settings.sizeMm * 0.12);
  }

  protected stamp({ point, wayMm }: Stamp): void {
    const { painting, settings } = this.setting;
    const { arena, surface } = painting;
    const radius = (settings.sizeMm / 2) * (this.what === 'masking' ? 0.5 + 0.5 * point.pressure : 1);
    // the candle rests on the peaks, and is pressed into the tooth
    const rests = surface.peakUm - (0.1 + 0.85 * point.pressure) * (surface.depthUm + 4);
    const rubs = 1 - maths.exp((-3 * wayMm * point.pressure) / Math.max(0.3, settings.sizeMm));
    let plane = 0;
    this.disc(
      point.x,
      point.y,
      radius,
      (tile) => {
        if (this.what === 'crepe') plane = (tile.wash?.resist.masking ?? 0) >> 2;
        else plane = (tile.wash ??= new Wash(arena)).resistPlane(this.what) >> 2;
        return plane !== 0;
      },
      (cell, inside, px, py) => {
        const { f32 } = arena;
        const here = f32[plane + cell];
        if (this.what === 'masking') f32[plane + cell] = Math.max(here, inside);
        else if (this.what === 'crepe') {
          const left = here * (1 - inside * Math.min(1, 4 * rubs));
          f32[plane + cell] = left < 0.02 ? 0 : left;
        } else {
          const um = surface.um[(py % surface.size) * surface.size + (px % surface.size)];
          const meets = Math.max(0, Math.min(1, (um - rests) / 8));
          f32[plane + cell] = Math.min(1, here + (1 - here) * inside * meets * Math.min(1, 6 * rubs));
        }
      },
    );
  }

  override end(): void {
    super.end();
    const { layer } = this.setting;
    if (this.what !== 'crepe') return;
    layer.forEachTile((tile) => {
      const plane = tile.wash?.resist.masking;
      if (!plane) return;
      const { f32 } = this.setting.painting.arena;
      if (f32.subarray(plane >> 2, (plane >> 2) + 4096).some((v) => v > 0)) return;
      tile.wash!.dropResist('masking');
      // a layer that still has water needs its washes
      if (tile.wash!.empty && !layer.basin) tile.wash = undefined;
    });
  }
}
