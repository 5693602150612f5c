import { maths } from '@/core/maths/maths';
import { depthOf, touchedShare } from '@/core/marks/partContact';

/**
 * The hand is a mass on a spring, of some 36 Hz: a stick drawn slowly follows the ground, one drawn fast rides on. Way in
 * which it follows for each mm/s, mm; least and most; speed where samples tell none, mm/s.
 */
const FOLLOWS = 0.0044;
const FOLLOWS_LEAST = 0.06;
const FOLLOWS_MOST = 0.9;
const USUAL_SPEED = 80;
/** Steps in which the place is found where it is set down. */
const SETTLES = 8;
/** A step goes no farther than the load and this, um. */
const STEP_UM = 6;

/**
 * How high the face of a stick rides: it rises and sinks until the ground under it, pressed in on the mean as deep as the
 * load asks, bears it. Each stamp is one step of Newton's method towards that.
 */
export class StickRide {
  /** Height of the foremost place of the face, um. */
  face = 0;
  /** Way so far, mm. */
  drawnMm = 0;
  private time = 0;
  private down = false;
  private depths = 0;
  private shares = 0;
  private touched = 0;

  get isDown(): boolean {
    return this.down;
  }

  /** Sets it down on heights of the ground, um. */
  setDown(heights: readonly number[], load: number, spread: number): void {
    this.down = true;
    this.face = 0;
    for (let k = 0; k < SETTLES; k++) {
      let depth = 0;
      let share = 0;
      for (const h of heights) {
        const d = depthOf(h - this.face, spread);
        depth += d;
        share += touchedShare(h - this.face, d);
      }
      this.face += (depth - load * heights.length) / Math.max(share, 0.02 * heights.length);
    }
  }

  /** A cell of the contact bears its part. */
  bears(above: number, depth: number, inside: number): void {
    this.depths += depth * inside;
    this.shares += touchedShare(above, depth) * inside;
    this.touched += inside;
  }

  /** A stamp is done: it follows the ground as far as the hand gives. @param t time of the stamp, ms @param wayMm way to it */
  follow(t: number, wayMm: number, leastMm: number, load: number): void {
    const speed = t > this.time && this.drawnMm > 0 ? (1000 * wayMm) / (t - this.time) : USUAL_SPEED;
    this.time = t;
    this.drawnMm += wayMm;
    if (this.touched > 0) {
      const within = Math.max(FOLLOWS_LEAST, Math.min(FOLLOWS_MOST, FOLLOWS * speed));
      const part = 1 - maths.exp(-Math.max(wayMm, leastMm) / within);
      const off = (this.depths / this.touched - load) / Math.max(0.05, this.shares / this.touched);
      this.face += part * Math.max(-load - STEP_UM, Math.min(load + STEP_UM, off));
    }
    this.depths = this.shares = this.touched = 0;
  }
}
