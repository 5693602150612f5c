import { normalise, type Mixture } from '@/core/colour/mixture';
import { pigmentIndex } from '@/core/colour/pigments';
import { WASH_UM } from '@/core/film/basin';
import { fullWash } from '@/core/flow/washRates';
import { planeOf, type Carrier, type Reservoir } from './reservoir';
import { emptying, filmOf, touchArea, type WashForm } from './washForms';

/**
 * Water and pigment in a watercolour brush: one well mixed belly, kept in the same form as the paint of other tools.
 * `tuftVolume` is water (um mm2), `tuftMass` pigment (coats mm2), `amount` the film that it leaves when full (washes),
 * `tipFull` its water when it was loaded.
 */
export const WASH_CARRIER: Carrier = {
  across: 1,
  along: 1,
  cellMm2: 1,
  hairy: Uint8Array.of(1),
  tipUm: 0.001,
  tuftUm: 1e6,
};

/** Share of a brush's water that stays between its hairs. */
const CLINGS = 0.02;

/** Water that a brush of a size holds at a wetness, um mm2. */
export const waterOf = (form: WashForm, sizeMm: number, wetness: number): number =>
  touchArea(form, sizeMm) * form.holds * WASH_UM * filmOf(wetness);

/**
 * Fills a brush: with water alone where there is no mixture.
 * @param amount strength, 1 = as the tool makes it up @param wetness 0..1
 */
export function loadWash(
  r: Reservoir,
  form: WashForm,
  sizeMm: number,
  mixture: Mixture,
  amount: number,
  wetness: number,
): void {
  const water = waterOf(form, sizeMm, wetness);
  r.pigments = [];
  r.tuftMass = [];
  r.tipMass = [];
  r.tipVolume.fill(0);
  r.tuftVolume[0] = water;
  r.tipFull = water;
  r.amount = filmOf(wetness);
  const parts = new Map(Object.entries(normalise(mixture)).map(([id, part]) => [pigmentIndex(id), part]));
  if (parts.size === 0 || amount <= 0) return;
  const coats = (amount * form.strength * fullWash(parts) * water) / WASH_UM;
  for (const pigment of [...parts.keys()].sort((a, b) => a - b)) {
    r.tuftMass[planeOf(r, pigment)][0] = parts.get(pigment)! * coats;
  }
}

/** Takes water and pigment from a brush by a share. @returns water that is gone, um mm2 */
export function squeezeOut(r: Reservoir, keeps: number): number {
  const gone = r.tuftVolume[0] * (1 - keeps);
  r.tuftVolume[0] *= keeps;
  for (const plane of r.tuftMass) plane[0] *= keeps;
  return gone;
}

/** The belly during a stroke, in double precision. */
export class WashInHand {
  water: number;
  readonly mass = new Map<number, number>();

  constructor(
    readonly reservoir: Reservoir,
    private readonly form: WashForm,
  ) {
    this.water = reservoir.tuftVolume[0];
    reservoir.pigments.forEach((p, i) => this.mass.set(p, reservoir.tuftMass[i][0]));
  }

  /** Depth of film that it would leave now, washes. */
  get film(): number {
    const { amount, tipFull } = this.reservoir;
    if (this.form.thirsty) return Math.min(0.3, amount);
    return tipFull > 0 ? amount * emptying(this.water / tipFull) : 0.04;
  }

  /** Coats of a pigment in one wash of its water over one mm2. Hair is never wrung out: some water always clings to it. */
  concentration(pigment: number): number {
    const water = Math.max(this.water, CLINGS * this.reservoir.tipFull);
    return water > 0 ? ((this.mass.get(pigment) ?? 0) * WASH_UM) / water : 0;
  }

  /** Gives everything back to the reservoir. */
  close(): void {
    const r = this.reservoir;
    const kept = [...this.mass.keys()].filter((p) => this.mass.get(p)! > 0).sort((a, b) => a - b);
    r.pigments = kept;
    r.tuftMass = kept.map((p) => Float32Array.of(this.mass.get(p)!));
    r.tipMass = kept.map(() => new Float32Array(1));
    r.tuftVolume = Float32Array.of(Math.max(0, this.water));
  }
}
