import { TABLE_COUNT } from '@/core/colour/pigments';

/**
 * Where paint came from and where it went, in coats times mm2, for each pigment and additive. What is on the canvas and on the
 * tools is not written down here but counted; with it, loaded + added =
 * film + settled + strata + tool + slab + removed.
 */
export class Ledger {
  readonly loaded = new Float64Array(TABLE_COUNT);
  readonly removed = new Float64Array(TABLE_COUNT);
  /** Paint that came by copying or enlarging what was there; less than 0 where it was made smaller. */
  readonly added = new Float64Array(TABLE_COUNT);
  /** Water, microlitres: brought by tools, taken off again, and dried away. */
  readonly water = { loaded: 0, removed: 0, evaporated: 0 };

  copyFrom(other: Ledger): void {
    this.loaded.set(other.loaded);
    this.removed.set(other.removed);
    this.added.set(other.added);
    Object.assign(this.water, other.water);
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
  /** Paint on the slab. */
  slab: number;
  removed: number;
  /** Copied, or come by changing its size; only there where it is not 0. */
  added?: number;
}
