import { COAT_UM, SOLVENT } from '@/core/film/packing/stratum';
import { latticeHash, noise1 } from '@/core/surface/noise';
import { normalise, type Mixture } from '@/core/colour/mixture';
import { pigmentIndex, TABLE_COUNT } from '@/core/colour/pigments';
import { maths } from '@/core/maths/maths';

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
export function reservoirMass(r: Reservoir, out: Float64Array = new Float64Array(TABLE_COUNT)): Float64Array {
  r.pigments.forEach((pigment, i) => {
    let sum = 0;
    for (const m of r.tipMass[i]) sum += m;
    for (const m of r.tuftMass[i]) sum += m;
    out[pigment] += sum * r.cellMm2;
  });
  return out;
}

/** Makes room for a pigment and returns its place. */
export function planeOf(r: Reservoir, pigment: number): number {
  const at = r.pigments.indexOf(pigment);
  if (at >= 0) return at;
  const next = r.pigments.findIndex((p) => p > pigment);
  const k = next < 0 ? r.pigments.length : next;
  r.pigments.splice(k, 0, pigment);
  r.tipMass.splice(k, 0, new Float32Array(r.tipVolume.length));
  r.tuftMass.splice(k, 0, new Float32Array(r.tipVolume.length));
  return k;
}

/** Where and how much paint a tool holds. */
export interface Carrier {
  /** Grid of the reservoir, and area of one of its cells, mm2. */
  readonly across: number;
  readonly along: number;
  readonly cellMm2: number;
  /** Whether a cell can hold paint. */
  readonly hairy: Uint8Array;
  /** Capacity outside and inside, um. */
  readonly tipUm: number;
  readonly tuftUm: number;
  /** How unevenly clumps of hair take paint up, share; 0.3 unless told. */
  readonly unevenness?: number;
}

/** How paint is made up, beside its pigments: stiffness, and shares of its volume. */
export interface PaintMake {
  readonly body: number;
  readonly thin: number;
  readonly solvent: number;
  readonly gel: number;
  readonly retarder: number;
  readonly vehicle: 'oil' | 'acrylic';
}

export interface Loading {
  readonly mixture: Mixture;
  /** 1 = full. */
  readonly amount: number;
  readonly make: PaintMake;
  /** A second colour on the right side, over a share of the width (0.5; less loads a corner). */
  readonly edge?: { readonly mixture: Mixture; readonly share?: number };
  readonly carrier: Carrier;
  readonly seed: number;
}

/** Stiffness of paint once gel and solvent are in it. */
export const stiffnessOf = ({ body, gel, solvent }: PaintMake): number =>
  (body + Math.max(0, 0.95 - body) * gel) * (1 - 0.85 * solvent);

/**
 * Pigment that is left in a paint when so much medium is in it, share. A glaze is mixed by its colour: the more medium,
 * the less paint a painter puts to it for the same film, so that it falls faster than the share of the paint.
 */
export const glazed = (thin: number): number => (1 - thin) * Math.sqrt(1 - thin);

/** What one um of paint contains, in coats (pigment index, coats): its pigments thinned by everything else, and what that is. */
export function contents(mixture: Mixture, make: PaintMake): [number, number][] {
  const pigment = (glazed(make.thin) * (1 - make.solvent) * (1 - make.gel)) / COAT_UM;
  const parts = Object.entries(normalise(mixture)).map(([id, share]): [number, number] => [
    pigmentIndex(id),
    share * pigment,
  ]);
  const additives = {
    medium: make.thin,
    solvent: make.solvent,
    retarder: make.retarder,
    acrylic: make.vehicle === 'acrylic' ? 1 : 0,
  };
  for (const [id, share] of Object.entries(additives)) if (share > 0) parts.push([pigmentIndex(id), share / COAT_UM]);
  return parts;
}

/** Fills the tool up to what `amount` asks for; paint that it already holds stays. */
export function loadReservoir(r: Reservoir, l: Loading): void {
  const { make, carrier } = l;
  r.body = stiffnessOf(make);
  r.thin = 1 - (1 - make.thin) * (1 - make.solvent);
  r.amount = l.amount;
  // stiff paint and a full load hang on in thicker lumps; a brush dipped less carries as closed a head, but less behind it
  const head = l.amount < 1 ? 0.3 + 0.7 * maths.pow(Math.max(0, l.amount), 0.6) : Math.min(3, l.amount);
  r.tipFull = carrier.tipUm * (0.5 + 0.9 * r.body) * head;
  const inner = contents(l.mixture, make);
  const outer = l.edge && contents(l.edge.mixture, make);
  const border = 1 - 2 * (l.edge?.share ?? 0.5);
  for (let c = 0; c < r.tipVolume.length; c++) {
    if (!carrier.hairy[c]) continue;
    const i = c % r.across;
    const u = ((i + 0.5) / r.across) * 2 - 1;
    const ragged = 0.1 * (latticeHash(i, c, l.seed) - 0.5);
    const edge = outer ? 1 / (1 + maths.exp(-(u - border + ragged) / 0.06)) : 0;
    const uneven = carrier.unevenness ?? 0.3;
    const level = Math.min(l.amount, 1.5) * (1 + uneven * (noise1(i / 2.5, l.seed + 77) - 0.5));
    const tip = Math.max(0, r.tipFull * Math.min(1, 0.7 + 0.5 * level) - r.tipVolume[c]);
    const tuft = Math.max(0, carrier.tuftUm * level - r.tuftVolume[c]);
    r.tipVolume[c] += tip;
    r.tuftVolume[c] += tuft;
    const add = (pigment: number, coatsPerUm: number) => {
      const k = planeOf(r, pigment);
      r.tipMass[k][c] += tip * coatsPerUm;
      r.tuftMass[k][c] += tuft * coatsPerUm;
    };
    for (const [pigment, coats] of inner) add(pigment, coats * (1 - edge));
    if (outer) for (const [pigment, coats] of outer) add(pigment, coats * edge);
  }
}

/** Leaves a clean tool damp: a share of its capacity is solvent. */
export function dampen(r: Reservoir, carrier: Carrier, share: number): void {
  const k = planeOf(r, SOLVENT);
  for (let c = 0; c < r.tipVolume.length; c++) {
    if (!carrier.hairy[c]) continue;
    const tuft = carrier.tuftUm * share * 0.25;
    r.tuftVolume[c] += tuft;
    r.tuftMass[k][c] += tuft / COAT_UM;
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
