import { normalise, type Mixture } from '@/core/colour/mixture';
import { pigmentIndex } from '@/core/colour/pigments';
import { WASH_UM } from '@/core/film/basin';
import { fullWash } from '@/core/flow/washRates';
import { planeOf, type Carrier, type Reservoir } from '@/core/marks/brush/reservoir';
import { emptying, filmOf, touchArea, type WashForm } from './washForms';

/**
 * Water and pigment in a watercolour brush: one well mixed belly, kept in the same form as the paint of other tools.
 * `tuftVolume` is water (um mm2), `tuftMass` pigment in it (coats mm2), `tipMass` pigment that strokes below full
 * strength held back, `amount` the film that it leaves when full (washes), `tipFull` its water when it was loaded.
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
  for (const plane of [...r.tuftMass, ...r.tipMass]) plane[0] *= keeps;
  return gone;
}

/** The belly during a stroke, in double precision. */
export class WashInHand {
  water: number;
  readonly mass = new Map<number, number>();
  /** Pigment that was held back: the rest is as strong as before, however much water has left the brush. */
  private readonly heel = new Map<number, number>();

  constructor(
    readonly reservoir: Reservoir,
    private readonly form: WashForm,
  ) {
    this.water = reservoir.tuftVolume[0];
    reservoir.pigments.forEach((p, i) => {
      this.mass.set(p, reservoir.tuftMass[i][0]);
      this.heel.set(p, reservoir.tipMass[i][0]);
    });
  }

  /**
   * What a touch made of the belly.
   * @param used water that left it, um mm2 @param gains pigment that left it, coats mm2; both less than 0 where it took
   * @param strength share of its own pigment that went with the water
   */
  gave(used: number, gains: ReadonlyMap<number, number>, strength: number): void {
    const { mass, heel } = this;
    const holds = this.water > 0 ? Math.min(1, Math.max(0, used) / this.water) * Math.max(0, 1 - strength) : 0;
    for (const [pigment, had] of mass) {
      const left = Math.max(0, had - (gains.get(pigment) ?? 0));
      const held = Math.min(left, holds * had);
      mass.set(pigment, left - held);
      if (held > 0) heel.set(pigment, (heel.get(pigment) ?? 0) + held);
    }
    for (const [pigment, gain] of gains) if (!mass.has(pigment)) mass.set(pigment, Math.max(0, -gain));
    this.water = Math.max(0, this.water - used);
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
    const { mass, heel } = this;
    const kept = [...mass.keys()].filter((p) => mass.get(p)! > 0 || heel.get(p)! > 0).sort((a, b) => a - b);
    r.pigments = kept;
    r.tuftMass = kept.map((p) => Float32Array.of(mass.get(p)!));
    r.tipMass = kept.map((p) => Float32Array.of(heel.get(p) ?? 0));
    r.tuftVolume = Float32Array.of(Math.max(0, this.water));
  }
}
