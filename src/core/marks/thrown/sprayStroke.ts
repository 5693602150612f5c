import { hypot, maths } from '@/core/maths/maths';
import { latticeHash } from '@/core/surface/noise';
import { CupInHand } from './cup';
import type { Sample } from '@/core/marks/path';
import type { Reservoir } from '@/core/marks/brush/reservoir';
import { felt, StampedStroke, type StrokeSetting } from '@/core/marks/stampedStroke';

/** What reaches the middle of the cone in a second at full pressure and strength, um. */
const FLOW_UM_PER_S = 175;
/** Time between two puffs, ms: so many of them make the mist even, and few show its grain. */
const PUFF_MS = 20;
/** Shortest way between puffs of a quick hand, cone radii. */
const PUFF_WAY = 0.2;
/** Speed at which a hand is taken to move that gives no times, mm/s. */
const UNTIMED_MM_PER_S = 100;
/** How fast the mist thins out from the middle, and where it is lost, radii of the cone. */
const THINS = 2.8;
const LOST = 1.5;
/** Side of the droplets of the mist, mm. */
const DROPLET_MM = 0.17;

/**
 * A soft spray of real paint: a cone of fine droplets, dense in the middle and lost towards its rim. It gives by time:
 * held still it goes on, moved fast it gives little. Farther away the cone is wider and thinner. Towards the blend end
 * it blows wet paint about instead of giving its own.
 */
export class SprayStroke extends StampedStroke {
  private readonly cup: CupInHand;
  private puffs = 0;
  private last: Sample | undefined;
  /** Time since the last puff, ms. */
  private since = 0;

  constructor(setting: StrokeSetting, reservoir: Reservoir) {
    super(setting);
    this.cup = new CupInHand(setting.painting, reservoir, setting.settings.blend);
  }

  override add(sample: Sample): void {
    const to = { ...sample, pressure: felt(sample.pressure, this.settings) };
    const { last } = this;
    this.last = to;
    if (!last) return;
    const way = hypot(to.x - last.x, to.y - last.y);
    const ms = to.t > last.t ? to.t - last.t : (1000 * way) / UNTIMED_MM_PER_S;
    if (ms <= 0) return;
    // as often as the way asks for, and at places that do not depend on how the readings come
    const every = Math.min(PUFF_MS, (PUFF_WAY * this.coneMm * ms) / Math.max(1e-6, way));
    let at = 0;
    while (this.since + ms - at >= every) {
      at += Math.max(0, every - this.since);
      const s = at / ms;
      const mix = (a: number, b: number) => a + (b - a) * s;
      this.puff(
        { ...to, x: mix(last.x, to.x), y: mix(last.y, to.y), pressure: mix(last.pressure, to.pressure) },
        Math.max(this.since, every),
      );
      this.since = 0;
    }
    this.since += ms - at;
  }

  override end(): void {
    // what was begun, and a touch of no time at all
    if (this.last && (this.since > 0 || this.puffs === 0)) this.puff(this.last, this.since || PUFF_MS);
    super.end();
  }

  protected spacing(): number {
    return Infinity;
  }
  protected stamp(): void {}

  /** Radius of the cone where it meets the canvas, mm. */
  private get coneMm(): number {
    const { sizeMm, distanceMm } = this.settings;
    return sizeMm * 0.5 * (0.6 + 0.4 * (distanceMm / 80));
  }

  protected override finish(): void {
    this.cup.close();
    super.finish();
  }

  /** @param ms time for which it gives */
  private puff(point: Sample, ms: number): void {
    const { painting, window, settings, cup } = this;
    if (point.pressure <= 0.01 || cup.empty) return;
    const radius = this.coneMm;
    const rect = this.reach(point.x, point.y, LOST * radius);
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
    const spread = (settings.sizeMm * 0.5) / radius;
    const dose = FLOW_UM_PER_S * spread * spread * point.pressure * settings.strength * (ms / 1000);
    const stir = settings.blend * (1 - maths.exp((-1.5 * point.pressure * UNTIMED_MM_PER_S * ms) / 1000 / radius));
    this.puffs++;
    for (let py = rect.top; py < rect.bottom; py++) {
      const down2 = (((py + 0.5) * mmPerPx - point.y) / radius) ** 2;
      if (down2 >= LOST * LOST) continue;
      const half = Math.sqrt(LOST * LOST - down2) * radius;
      const right = Math.min(rect.right, Math.ceil((point.x + half) / mmPerPx + 0.5));
      for (let px = Math.max(rect.left, Math.floor((point.x - half) / mmPerPx - 0.5)); px < right; px++) {
        const r2 = (((px + 0.5) * mmPerPx - point.x) / radius) ** 2 + down2;
        if (r2 >= LOST * LOST) continue;
        // fewer, larger droplets where the mist is thin
        const grain = latticeHash(Math.floor(px / droplets), Math.floor(py / droplets), this.seed + this.puffs);
        const thins = THINS * r2;
        // most cells are known to be missed, or met, without the exponential: 1 - x <= exp(-x) <= 1 / (1 + x)
        if (stir === 0 && grain * (1 + thins) >= 1) continue;
        const density = stir === 0 && grain < 1 - thins ? 1 : maths.exp(-thins);
        const cell = (py - window.y0) * window.width + px - window.x0;
        const o = (window.film >> 2) + cell * window.stride;
        if (stir > 0 && f32[o + n - 1] > 5)
          cup.take(o, stir * density * 0.6 * (1 - f32[(window.cure >> 2) + cell]) ** 2);
        const um = density > grain ? dose : 0;
        if (um <= 0) continue;
        const given = cup.give(o, um);
        f32[(window.laid >> 2) + cell] += given;
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
