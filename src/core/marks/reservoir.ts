import { latticeHash, noise1 } from '@/core/surface/noise';
import { normalise, type Mixture } from '@/core/colour/mixture';
import { pigmentIndex } from '@/core/colour/pigments';
import { PIGMENT_COUNT } from '@/core/film/ledger';

/** Thickness of one coat of tube paint, um: mass in coats times this is its volume. */
export const COAT_UM = 120;

/**
 * The paint in a brush, on a grid of cells across and along it. Each cell has a tip (paint on the outside, which
 * touches) and a tuft (paint inside). Values are per unit of cell area: coats of each pigment, um of volume.
 */
export interface Reservoir {
  across: number;
  along: number;
  /** Area of one cell, mm2. */
  cellMm2: number;
  /** Pigments carried, ascending, and one plane each. */
  pigments: number[];
  tipMass: Float32Array[];
  tuftMass: Float32Array[];
  tipVolume: Float32Array;
  tuftVolume: Float32Array;
  /** Stiffness and share of medium of what was loaded last. */
  body: number;
  thin: number;
  /** What the tip holds when full, um; set by loading. */
  tipFull: number;
  /** How much was loaded, 1 = full. */
  amount: number;
}

export function emptyReservoir(across: number, along: number, cellMm2: number, tipFull: number): Reservoir {
  const plane = () => new Float32Array(across * along);
  return {
    across,
    along,
    cellMm2,
    pigments: [],
    tipMass: [],
    tuftMass: [],
    tipVolume: plane(),
    tuftVolume: plane(),
    body: 0.5,
    thin: 0,
    tipFull,
    amount: 0,
  };
}

export function cloneReservoir(r: Reservoir): Reservoir {
  return {
    ...r,
    pigments: [...r.pigments],
    tipMass: r.tipMass.map((p) => p.slice()),
    tuftMass: r.tuftMass.map((p) => p.slice()),
    tipVolume: r.tipVolume.slice(),
    tuftVolume: r.tuftVolume.slice(),
  };
}

/** Pigment carried, coats times mm2, added to `out`. */
export function reservoirMass(r: Reservoir, out: Float64Array = new Float64Array(PIGMENT_COUNT)): Float64Array {
  r.pigments.forEach((pigment, i) => {
    let sum = 0;
    for (const m of r.tipMass[i]) sum += m;
    for (const m of r.tuftMass[i]) sum += m;
    out[pigment] += sum * r.cellMm2;
  });
  return out;
}

/** Makes room for a pigment and returns its place. */
function planeOf(r: Reservoir, pigment: number): number {
  const at = r.pigments.indexOf(pigment);
  if (at >= 0) return at;
  const next = r.pigments.findIndex((p) => p > pigment);
  const k = next < 0 ? r.pigments.length : next;
  r.pigments.splice(k, 0, pigment);
  r.tipMass.splice(k, 0, new Float32Array(r.tipVolume.length));
  r.tuftMass.splice(k, 0, new Float32Array(r.tipVolume.length));
  return k;
}

export interface Loading {
  readonly mixture: Mixture;
  /** 1 = full. */
  readonly amount: number;
  readonly body: number;
  readonly thin: number;
  /** A second colour on the brush's right side. */
  readonly edge?: Mixture;
  /** Capacity of tip and tuft, um. */
  readonly tipUm: number;
  readonly tuftUm: number;
  readonly hairy: Uint8Array;
  readonly seed: number;
}

/** Fills the brush up to what `amount` asks for; paint that it already holds stays. */
export function loadReservoir(r: Reservoir, l: Loading): void {
  r.body = l.body;
  r.thin = l.thin;
  r.amount = l.amount;
  // stiff paint and a full load hang on in thicker lumps
  r.tipFull = l.tipUm * (0.5 + 0.9 * l.body) * Math.min(3, Math.max(0.35, l.amount));
  const coatsPerUm = (1 - l.thin) / COAT_UM;
  const indexed = (mixture: Mixture) =>
    Object.entries(normalise(mixture)).map(([id, share]) => [pigmentIndex(id), share] as const);
  const inner = indexed(l.mixture);
  const outer = l.edge && indexed(l.edge);
  for (let c = 0; c < r.tipVolume.length; c++) {
    if (!l.hairy[c]) continue;
    const i = c % r.across;
    const u = ((i + 0.5) / r.across) * 2 - 1;
    const ragged = 0.1 * (latticeHash(i, c, l.seed) - 0.5);
    const edge = outer ? 1 / (1 + Math.exp(-(u + ragged) / 0.06)) : 0;
    const level = Math.min(l.amount, 1.5) * (0.85 + 0.3 * noise1(i / 2.5, l.seed + 77));
    const tip = Math.max(0, r.tipFull * Math.min(1, 0.4 + level) - r.tipVolume[c]);
    const tuft = Math.max(0, l.tuftUm * level - r.tuftVolume[c]);
    r.tipVolume[c] += tip;
    r.tuftVolume[c] += tuft;
    const add = (pigment: number, share: number) => {
      const k = planeOf(r, pigment);
      r.tipMass[k][c] += tip * coatsPerUm * share;
      r.tuftMass[k][c] += tuft * coatsPerUm * share;
    };
    for (const [pigment, share] of inner) add(pigment, share * (1 - edge));
    if (outer) for (const [pigment, share] of outer) add(pigment, share * edge);
  }
}

/** Keeps a share of everything carried, 0 for a rinse. */
export function keepShare(r: Reservoir, share: number): void {
  for (const plane of [...r.tipMass, ...r.tuftMass, r.tipVolume, r.tuftVolume]) {
    for (let i = 0; i < plane.length; i++) plane[i] *= share;
  }
  if (share === 0) {
    r.pigments = [];
    r.tipMass = [];
    r.tuftMass = [];
    r.amount = 0;
  }
}

/**
 * What a brush of another size carries when it is loaded as this one is: the same paint, spread evenly, in the same
 * thickness. The amount differs, which the caller enters in the ledger.
 */
export function resizeReservoir(old: Reservoir, fresh: Reservoir, hairy: Uint8Array): Reservoir {
  let carrying = 0;
  for (let c = 0; c < old.tipVolume.length; c++) if (old.tipVolume[c] + old.tuftVolume[c] > 0) carrying++;
  const spread = (from: Float32Array, to: Float32Array) => {
    const each = from.reduce((a, b) => a + b, 0) / Math.max(1, carrying);
    for (let c = 0; c < to.length; c++) if (hairy[c]) to[c] = each;
  };
  old.pigments.forEach((pigment, i) => {
    const k = planeOf(fresh, pigment);
    spread(old.tipMass[i], fresh.tipMass[k]);
    spread(old.tuftMass[i], fresh.tuftMass[k]);
  });
  spread(old.tipVolume, fresh.tipVolume);
  spread(old.tuftVolume, fresh.tuftVolume);
  return { ...fresh, body: old.body, thin: old.thin, tipFull: old.tipFull, amount: old.amount };
}

/** Mean mixture on the tip (where there is none, in the tuft): pigment index to coats, summed over cells. */
export function carriedMixture(r: Reservoir): Map<number, number> {
  const sum = (plane: Float32Array) => plane.reduce((a, b) => a + b, 0);
  const tip = new Map(r.pigments.map((p, i) => [p, sum(r.tipMass[i])]));
  const total = [...tip.values()].reduce((a, b) => a + b, 0);
  return total > 1e-4 ? tip : new Map(r.pigments.map((p, i) => [p, sum(r.tuftMass[i])]));
}
