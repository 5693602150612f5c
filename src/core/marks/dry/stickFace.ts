import { maths } from '@/core/maths/maths';
import { noise1, noise2 } from '@/core/surface/noise';
import type { StickForm } from './stickForms';

/** Size of the grain of a stick's face, and of its streaks, fine and broad, mm. */
const GRAIN_MM = 0.18;
const STREAK_MM = 0.22;
const BROAD_MM = 0.9;
/** Places along the face for each mm at which its streaks are known. */
const PLACES = 18;
/** Width of the worn rim of a side, mm; how far it wanders as the stick is drawn, and along which way. */
const RIM_MM = 1.3;
const WANDERS_MM = 0.5;
const SLOWLY_MM = 2.1;
const QUICKLY_MM = 0.5;
/** How far the front and the back of a side are from straight, share of its thickness. */
const RAGGED = 0.55;
const RAGGED_MM = 0.8;
/** Way in which a point wears round, mm, and share of its rounding that stays. */
const WEARS_ROUND_MM = 60;
const STAYS_ROUND = 0.5;
/** The lattice of the grain is turned against that of the cells, with which it would beat: cosine and sine. */
const TURN_X = 0.829;
const TURN_Y = 0.559;

/** How a stick is held against the sheet: half its size across the way and along it, mm. */
export interface Held {
  readonly side: boolean;
  readonly halfWide: number;
  readonly halfLong: number;
}

/**
 * The face that a stick turns to the sheet: worn round at its rim, streaked along its way, rough. All of that is how far
 * a place of it lies behind the foremost one, um.
 */
export class StickFace {
  private readonly streaks: Float32Array;
  private readonly half: number;
  private held: Held = { side: false, halfWide: 1, halfLong: 1 };
  private rim = 1;
  private rounded = 0;
  private wander = 0;

  /** @param mostMm half the widest that it can be held, mm */
  constructor(
    private readonly form: StickForm,
    private readonly seed: number,
    mostMm: number,
  ) {
    this.half = Math.ceil(mostMm * PLACES) + 2;
    this.streaks = new Float32Array(2 * this.half + 2);
    if (form.streaks === 0) return;
    for (let i = 0; i < this.streaks.length; i++) {
      const across = (i - this.half) / PLACES;
      const fine = noise1(across / STREAK_MM + 31, seed);
      this.streaks[i] = form.streaks * (fine + 1.3 * noise1(across / BROAD_MM + 77, seed + 3) - 1.15);
    }
  }

  /** Holds it for a stamp. @param drawnMm way so far, mm */
  hold(held: Held, drawnMm: number): void {
    const { form, seed } = this;
    this.held = held;
    const { side, halfWide } = held;
    this.rim = Math.min(RIM_MM, 0.35 * halfWide);
    this.rounded = form.rounded;
    this.wander = 0;
    if (side) {
      const way = noise1(drawnMm / SLOWLY_MM + 11, seed + 5) + 0.5 * noise1(drawnMm / QUICKLY_MM, seed + 6) - 0.75;
      this.wander = WANDERS_MM * way;
    } else if (form.pointed) {
      this.rounded *= STAYS_ROUND + (1 - STAYS_ROUND) * maths.exp(-drawnMm / WEARS_ROUND_MM);
    }
  }

  /** Grain of the face at a place of the sheet, 0..1. */
  grainAt(x: number, y: number): number {
    return noise2((TURN_X * x + TURN_Y * y) / GRAIN_MM, (TURN_X * y - TURN_Y * x) / GRAIN_MM, this.seed + 1);
  }

  /**
   * How far the face lies back, um.
   * @param across, along place from the middle of the contact, mm @param far its distance from there @param grain there
   */
  hollow(across: number, along: number, far: number, grain: number): number {
    const { form } = this;
    const { side, halfWide, halfLong } = this.held;
    let sinks: number;
    if (side) {
      const end = (halfWide - Math.abs(across) + (across > 0 ? this.wander : -this.wander)) / this.rim;
      const ragged = RAGGED * (noise1(across / RAGGED_MM + (along > 0 ? 5 : 57), this.seed + 8) - 0.5);
      const front = (halfLong * (1 + ragged) - Math.abs(along)) / (0.6 * halfLong);
      sinks = 1 - Math.max(0, Math.min(1, end, front));
    } else sinks = Math.min(1, far / halfWide);
    let back = this.rounded * sinks * (0.4 + 0.6 * sinks);
    // a soft edge crumbles unevenly; the point of a pencil is turned smooth by drawing
    if (!form.pointed) back *= 0.55 + grain;
    back += 2.2 * form.rough * (grain - 0.5);
    if (form.streaks === 0) return back;
    const at = Math.max(0, Math.min(2 * this.half, across * PLACES + this.half));
    const i = Math.floor(at);
    return back - (this.streaks[i] + (at - i) * (this.streaks[i + 1] - this.streaks[i]));
  }
}
