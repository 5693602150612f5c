import type { ToolId, ToolSettings } from '@/core/tools/tools';

/** Strokes shorter than this say little, mm. */
const LEAST_MM = 8;
/** A stroke that took less than this share of its own time was followed with ease. */
const EASE = 0.6;

/**
 * How fast each tool can follow a hand on this machine: the way of a stroke over the time that it took to work out
 * and to show. A tool that is held at another size is measured anew.
 */
export class Pace {
  private readonly known = new Map<ToolId, { sizeMm: number; pxPerSecond: number }>();
  private cold = true;
  private ms = 0;
  private mm = 0;
  private last: readonly number[] | undefined;
  /** Time of the first reading, ms. */
  private begun = 0;

  begin(): void {
    this.ms = 0;
    this.mm = 0;
    this.last = undefined;
  }

  /** Does work of the stroke in the air, and counts its time and the way of the readings. */
  work(task: () => void, samples: readonly (readonly number[])[] = []): void {
    const start = performance.now();
    task();
    this.ms += performance.now() - start;
    for (const sample of samples) {
      if (!this.last) this.begun = sample[0];
      if (this.last) this.mm += Math.hypot(sample[1] - this.last[1], sample[2] - this.last[2]);
      this.last = sample;
    }
  }

  /** @param water time of it that went into water, which flows as long as the hand is there, whatever its way, ms */
  end({ tool, sizeMm }: ToolSettings, mmPerPx: number, water = 0): void {
    if (this.mm < LEAST_MM || this.ms < 1) return;
    const spent = Math.max(this.ms - water, 0.1 * this.ms);
    const now = this.mm / mmPerPx / (spent / 1000);
    // the first stroke of all pays for waking the machine
    if (this.cold) {
      this.cold = false;
      return;
    }
    const before = this.known.get(tool);
    const same = before && Math.abs(before.sizeMm / sizeMm - 1) < 0.1;
    // a slow hand, followed with ease, shows only how fast it is at least
    const lasted = (this.last?.[0] ?? 0) - this.begun;
    if (spent < EASE * lasted && now < (same ? before.pxPerSecond : Infinity)) return;
    // one stroke may have met a busy moment
    this.known.set(tool, { sizeMm, pxPerSecond: same ? 0.6 * before.pxPerSecond + 0.4 * now : now });
  }

  /** Cells of stroke a second, when the tool has been used at about this size. */
  of({ tool, sizeMm }: ToolSettings): number | undefined {
    const known = this.known.get(tool);
    return known && Math.abs(known.sizeMm / sizeMm - 1) < 0.1 ? known.pxPerSecond : undefined;
  }
}
