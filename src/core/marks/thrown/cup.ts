import type { FilmWindow } from '@/core/film/window/window';
import type { Painting } from '@/core/film/painting';
import type { Carrier, Reservoir } from '@/core/marks/brush/reservoir';

/** What spray and spatter draw from: one well mixed cup. Inside is what was loaded, outside what was picked up. */
const cup = (tuftUm: number): Carrier => ({
  across: 1,
  along: 1,
  cellMm2: 100,
  hairy: Uint8Array.of(1),
  tipUm: 0.001,
  tuftUm,
});
/** Volumes: a spray covers 100 cm2 with 40 um, a spatter brush a quarter of that. */
export const CUPS = { spray: cup(4000), spatter: cup(1000) };

/**
 * The cup during a stroke, in a window's channels: amounts (coats, um) times mm2. `own` is its share of paint of its
 * own, the rest of what it gives is what it took up.
 */
export class CupInHand {
  private own: Float64Array = new Float64Array(0);
  private found: Float64Array = new Float64Array(0);
  private pigments: readonly number[] = [];

  constructor(
    private readonly painting: Painting,
    private readonly reservoir: Reservoir,
    private readonly blend: number,
  ) {}

  /** Takes over what the reservoir holds, in the channels of a window. */
  open(window: FilmWindow): void {
    this.close();
    const r = this.reservoir;
    const n = window.channels;
    this.pigments = window.pigments;
    const read = (masses: Float32Array[], volume: Float32Array) => {
      const out = new Float64Array(n);
      r.pigments.forEach((p, i) => (out[window.pigments.indexOf(p)] = masses[i][0] * r.cellMm2));
      out[n - 1] = volume[0] * r.cellMm2;
      return out;
    };
    this.own = read(r.tuftMass, r.tuftVolume);
    this.found = read(r.tipMass, r.tipVolume);
  }

  /** Gives everything back to the reservoir. */
  close(): void {
    const n = this.own.length;
    if (n === 0) return;
    const r = this.reservoir;
    const kept = this.pigments.filter((_, i) => this.own[i] > 0 || this.found[i] > 0);
    const at = kept.map((p) => this.pigments.indexOf(p));
    r.pigments = kept;
    r.tuftMass = at.map((i) => Float32Array.of(this.own[i] / r.cellMm2));
    r.tipMass = at.map((i) => Float32Array.of(this.found[i] / r.cellMm2));
    r.tuftVolume = Float32Array.of(this.own[n - 1] / r.cellMm2);
    r.tipVolume = Float32Array.of(this.found[n - 1] / r.cellMm2);
    this.own = new Float64Array(0);
  }

  get pigmentsCarried(): readonly number[] {
    return this.reservoir.pigments;
  }

  /** Whether there is nothing left to give. */
  get empty(): boolean {
    const n = this.own.length;
    const r = this.reservoir;
    const left = n > 0 ? this.own[n - 1] + this.found[n - 1] : r.tuftVolume[0] + r.tipVolume[0];
    return left <= 0 && this.blend === 0;
  }

  /**
   * Gives a cell `um` of paint, first of its own, towards the blend end of what it took up.
   * @param at word address of the cell's channels
   * @returns what was given, um
   */
  give(at: number, um: number): number {
    const { f32 } = this.painting.arena;
    const area = this.painting.cellArea;
    const n = this.own.length;
    const has = this.found[n - 1] > 0 ? (this.own[n - 1] > 0 ? this.blend : 1) : 0;
    return (
      this.pour(f32, at, this.own, um * (this.blend < 1 ? 1 - has : 0), area) +
      this.pour(f32, at, this.found, um * has, area)
    );
  }

  private pour(f32: Float32Array, at: number, from: Float64Array, um: number, area: number): number {
    const n = from.length;
    if (um <= 0 || from[n - 1] <= 0) return 0;
    const share = Math.min(1, (um * area) / from[n - 1]);
    const given = (from[n - 1] * share) / area;
    for (let i = 0; i < n; i++) {
      const before = f32[at + i];
      f32[at + i] += (from[i] * share) / area;
      // it lies on top of what was there
      f32[at + n + i] = Math.min(f32[at + i], f32[at + n + i] + (from[i] * share) / area);
      // what float32 really took
      from[i] = Math.max(0, from[i] - (f32[at + i] - before) * area);
    }
    return given;
  }

  /** Takes a share of a cell's paint up. */
  take(at: number, share: number): void {
    const { f32 } = this.painting.arena;
    const area = this.painting.cellArea;
    for (let i = 0; i < this.found.length; i++) {
      const before = f32[at + i];
      f32[at + i] = before * (1 - share);
      f32[at + this.found.length + i] *= 1 - share;
      this.found[i] += (before - f32[at + i]) * area;
    }
  }
}
