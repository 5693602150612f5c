import type { Arena } from '@/core/film/arena';
import { noise1, noise2 } from '@/core/surface/noise';
import { PRESS_UM, type Footprint } from './footprint';
import type { BrushForm } from './brushForms';

/** Distance of the places across a brush at which its hair is looked at, mm. */
const HAIR_MM = 0.12;
/** Paint that binds all hair together, um. */
const BOUND_UM = 75;
/** How high hairs stand that have not landed yet, um. */
const LANDING_UM = 260;
/** How far the corner that lands last stands off at first, and the way in which it comes down. */
const CORNER_UM = 420;
const OPENING_MM = 1.6;
/** How much higher hair stands half a width from the place on which a tuft is set, um; where that is, half widths. */
const CROWN_UM = 290;
const OFF_MIDDLE = 0.18;
/** Unequal lengths of hairs, felt as the pressure goes, um; and the pressure from which on all of them touch. */
const LENGTHS_UM = 290;
const ALL_TOUCH = 0.4;
/** Jump of the hair's way where the brush is set down anew, mm: no two touches find it alike. */
const FALLS_ANEW_MM = 41.7;

/**
 * How far each hair of a brush stands off the ground at a moment, um, across the brush.
 *
 * Hair is unsteady: each has its own length, sticks and slips, and wanders in and out of touch, as slow swings along
 * the stroke and quick ones within them. Wet paint binds it into a wedge; as it is spent the hairs part. A tuft is set
 * down with a corner first and opens over the first millimetres; the harder it is pressed the wider it spreads; and
 * where the pressure goes the hairs leave the ground one after another. Those at the sides stray most.
 */
export class Hair {
  /** Address of the heights: one float for each column of the footprint's maps, and one more. */
  readonly address: number;
  private readonly places: number;
  private readonly um: Float32Array;
  private way = 0;
  private sinceDown = 0;
  /** Mean paint on the outside of the brush, um. */
  carriedUm = BOUND_UM;

  constructor(
    private readonly arena: Arena,
    private readonly form: BrushForm,
    private readonly footprint: Footprint,
    private readonly sizeMm: number,
    seed: number,
  ) {
    this.address = arena.allocate(this.bytes);
    this.places = Math.min(footprint.mapWidth - 1, Math.ceil(sizeMm / HAIR_MM));
    this.um = new Float32Array(this.places + 1);
    this.seed = seed & 0xffff;
  }

  private readonly seed: number;

  private get bytes(): number {
    return (this.footprint.mapWidth + 2) * 4;
  }

  dispose(): void {
    this.arena.free(this.address, this.bytes);
  }

  /** The brush is set down: it lands hair by hair, and its hair has fallen anew. */
  setDown(): void {
    this.sinceDown = 0;
    this.way += FALLS_ANEW_MM;
  }

  advance(wayMm: number): void {
    this.way += wayMm;
    this.sinceDown += wayMm;
  }

  /** @param body stiffness of the paint carried, 0..1 */
  stir(pressure: number, body: number): void {
    const { form, um, places, sizeMm, way, seed: s, footprint } = this;
    const rolls = form.shape === 'roller';
    const bound = Math.min(1, this.carriedUm / BOUND_UM);
    const swing = rolls ? 0 : form.wiggleUm * (1 - 0.35 * pressure) * (1.3 - 0.8 * bound) * (0.28 + body);
    const steady = Math.min(1, form.wiggleUm / 6);
    const landing = Math.min(1.5, 0.15 + 0.08 * sizeMm);
    // small brushes open at once: their corners are one hair apart
    const opening = OPENING_MM * Math.min(1, sizeMm / 8);
    const still = form.spreads > 0 && this.sinceDown < opening ? 1 - this.sinceDown / opening : 0;
    const [first, set] = [noise1(0.5, s + 21) < 0.5 ? -1 : 1, (2 * noise1(0.5, s + 22) - 1) * OFF_MIDDLE];
    const lifted = pressure < ALL_TOUCH ? 1 - pressure / ALL_TOUCH : 0;
    const spent = lifted * Math.sqrt(lifted);
    for (let i = 0; i <= places; i++) {
      const u = (2 * i) / places - 1;
      const x = (i / places) * sizeMm;
      // locks differ: here fine and even, there split and far apart
      const split = 0.35 + 1.3 * noise1(x / 1.9, s + 19);
      const slow =
        split * (noise2(x / 0.34, way / 9 + 3.7, s + 11) - 0.5) +
        0.8 * noise2(x / (0.7 + 0.6 * split), way / 16, s + 12) -
        0.4;
      const quick = noise2(x / 0.3, way / 1.9, s + 13) + 0.8 * noise2(x / 0.22, way / 0.6, s + 14) - 0.9;
      let off = swing * (27 * slow + 7 * quick);
      if (form.spreads > 0) {
        // as far as it is not pressed down
        const stands = form.spreads * CROWN_UM * Math.abs(u - set) + still * CORNER_UM * 0.5 * (1 - first * u);
        off += Math.max(0, stands - pressure * PRESS_UM);
      }
      if (spent > 0 && steady > 0) off += steady * spent * LENGTHS_UM * (1 - 0.6 * bound) * hairLength(x, s);
      if (steady > 0) {
        const lands = (0.05 + 2.2 * cubed(noise1(x / 0.24, s + 15)) * noise1(x / 1.6 + 0.5, s + 16)) * landing;
        if (this.sinceDown < lands) off += steady * LANDING_UM * (1 - this.sinceDown / lands);
        const side = Math.min(x, sizeMm - x) / Math.min(1, 0.12 * sizeMm);
        if (side < 1) {
          const stray = noise2(x / 0.25, way / 3.2, s + 17) + 0.6 * noise2(x / 0.2, way / 1.1, s + 18) - 0.55;
          if (stray > 0) off += (rolls ? 90 : 32) * form.wiggleUm * stray * (1 - side);
        }
      }
      um[i] = off;
    }
    const { f32 } = this.arena;
    const at = this.address >> 2;
    const n = footprint.mapWidth;
    for (let i = 0; i < n; i++) {
      const p = (i * places) / (n - 1);
      const k = Math.min(places - 1, Math.floor(p));
      f32[at + i] = um[k] + (um[k + 1] - um[k]) * (p - k);
    }
    f32[at + n] = f32[at + n + 1] = f32[at + n - 1];
  }
}

const cubed = (v: number) => v * v * v;

/** How much shorter than the longest the hairs at a place are, 0..1: locks, and single hairs in them. */
const hairLength = (xMm: number, seed: number): number =>
  Math.max(0, Math.min(1, 0.5 * noise1(xMm / 0.9, seed + 23) + 1.1 * noise1(xMm / 0.3, seed + 24) - 0.35));
