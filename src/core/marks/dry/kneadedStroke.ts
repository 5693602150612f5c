import { hypot, maths } from '@/core/maths/maths';
import type { Sample, Stamp } from '@/core/marks/path';
import { DustStroke, type DustPlanes } from './dustContact';
import { depthOf } from '@/core/marks/partContact';

/** How deep the dough gives into the tooth, share of its depth; shares that one touch takes of loose and pressed dust. */
const REACH = 1;
const TAKES = 0.8;
const TAKES_PRESSED = 0.5;

/** A kneaded eraser: pressed on or drawn, it lifts dust out of the tooth, most from the peaks. What it takes is gone. */
export class KneadedStroke extends DustStroke {
  protected spacing(point: Sample): number {
    return Math.max(0.2, this.radius(point.pressure) * 0.25);
  }

  private radius(pressure: number): number {
    return (this.setting.settings.sizeMm / 2) * (0.6 + 0.4 * pressure);
  }

  protected stamp({ point, wayMm }: Stamp): void {
    const { painting, settings } = this.setting;
    const { arena, mmPerPx, ledger, cellArea } = painting;
    const radius = this.radius(point.pressure);
    const deep = 6 + 2.4 * this.tooth.deepUm;
    const lowest = deep * (0.5 - REACH * (0.35 + 0.75 * point.pressure));
    // set down it takes its share at once; drawn, as much again in its own width
    const part = wayMm === 0 ? 1 : 1 - maths.exp((-2.2 * wayMm) / (2 * radius));
    const strength = settings.strength * (0.3 + 0.7 * point.pressure) * part;
    let dust: DustPlanes[] = [];
    this.disc(
      point.x,
      point.y,
      radius,
      (tile) => {
        const found = this.dustOf(tile);
        dust = found ?? [];
        return found !== undefined;
      },
      (cell, inside, px, py) => {
        const { f32 } = arena;
        const height = this.heightOf(dust, cell, px, py);
        // a soft lump: it presses most in its middle
        const q = hypot((px + 0.5) * mmPerPx - point.x, (py + 0.5) * mmPerPx - point.y) / radius;
        const lump = Math.min(1, 1.5 * (1 - q * q));
        if (lump <= 0) return;
        const reached = depthOf(height - lowest, 0.6 * deep);
        const meets = (0.2 + (0.8 * reached) / (reached + 0.25 * deep)) * lump * inside * strength;
        for (const { pigment, loose, pressed } of dust) {
          let off = f32[loose + cell] * TAKES * meets;
          f32[loose + cell] -= off;
          if (pressed) {
            const deeper = f32[pressed + cell] * TAKES_PRESSED * meets;
            f32[pressed + cell] -= deeper;
            off += deeper;
          }
          ledger.removed[pigment] += off * cellArea;
        }
      },
    );
  }
}
