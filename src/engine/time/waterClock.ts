import { STEP_SECONDS } from '@/core/flow/washRates';

const STEP_MS = STEP_SECONDS * 1000;
/** Most steps that are caught up with at once. */
const MOST_OWED = 8;
/** Share of the time that water may take while a stroke is made, and otherwise. */
const STROKE_SHARE = 0.55;
const QUIET_SHARE = 0.4;
/** Time of a step for each wet tile before any was measured, ms. */
const FIRST_GUESS_MS = 0.1;
/** The slowest that a stroke may be told to let water go. */
const SLOWEST = 0.02;

/**
 * The clock of wet paper: how many steps are due since it was last looked at, and how fast water can go on this
 * machine. Where so much of the sheet is wet that its steps would keep the brush waiting, the clock goes slower.
 */
export class WaterClock {
  /** As the painter wants it: 1 as on the wall, 0 held. */
  pace = 1;
  private owed = 0;
  private looked = performance.now();
  private msPerTile = FIRST_GUESS_MS;

  /** Forgets the time that has passed. */
  set(now: number): void {
    this.looked = now;
  }

  /** Whole steps that are due. @param wetTiles tiles under a film */
  due(now: number, wetTiles: number): number {
    const pace = Math.min(this.pace, this.bearable(wetTiles, QUIET_SHARE));
    this.owed = Math.min(MOST_OWED, this.owed + ((now - this.looked) * pace) / STEP_MS);
    this.looked = now;
    return Math.floor(this.owed);
  }

  /** Steps were made in some ms. */
  ran(steps: number, ms: number, wetTiles: number): void {
    this.owed = Math.max(0, this.owed - steps);
    if (steps === 0 || wetTiles === 0) return;
    const now = ms / steps / wetTiles;
    // one busy moment is not the rule
    this.msPerTile = 0.8 * this.msPerTile + 0.2 * Math.min(now, 4 * this.msPerTile);
  }

  /** How fast water may go during a stroke; undefined for as fast as the readings tell. */
  strokePace(wetTiles: number): number | undefined {
    const wanted = this.pace || 1;
    const pace = Math.max(SLOWEST, Math.min(wanted, this.bearable(wetTiles, STROKE_SHARE)));
    return pace === 1 ? undefined : Math.round(pace * 100) / 100;
  }

  /** Time that steps take, ms. */
  cost(steps: number, wetTiles: number): number {
    return steps * wetTiles * this.msPerTile;
  }

  /** How much slower than wanted it goes while a stroke is made, 1 not at all. */
  lag(wetTiles: number): number {
    return this.pace === 0 ? 1 : Math.min(1, this.bearable(wetTiles, STROKE_SHARE) / this.pace);
  }

  private bearable(wetTiles: number, share: number): number {
    return wetTiles === 0 ? Infinity : (share * STEP_MS) / (this.msPerTile * wetTiles);
  }
}
