import { PIGMENTS } from '@/core/colour/pigments';

/** Entries of the ledger: every tube, then graphite. */
export const PIGMENT_COUNT = PIGMENTS.length + 1;

/**
 * Where paint came from and where it went, in coats times mm2, for each pigment. What is on the canvas and on the
 * tools is not written down here but counted; with it, loaded = film + settled + strata + tool + removed.
 */
export class Ledger {
  readonly loaded = new Float64Array(PIGMENT_COUNT);
  readonly removed = new Float64Array(PIGMENT_COUNT);

  copyFrom(other: Ledger): void {
    this.loaded.set(other.loaded);
    this.removed.set(other.removed);
  }

  clone(): Ledger {
    const copy = new Ledger();
    copy.copyFrom(this);
    return copy;
  }
}

/** The balance of one pigment, coats times mm2. */
export interface MassBalance {
  loaded: number;
  film: number;
  /** Pigment lying loose on paper or tooth; oil leaves none. */
  settled: number;
  strata: number;
  tool: number;
  removed: number;
}
