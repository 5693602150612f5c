import { pigmentIndex } from '@/core/colour/pigments';

/**
 * Dried paint, packed: one stratum for each time a wet film dried, so that a painting still knows its recipe and
 * its cross-section. Planes are 16-bit with a scale of their own; rounding carries its error to the next cell but
 * three, so that the mass of a tile is kept to a few steps of the scale.
 */
export interface Stratum {
  readonly pigments: readonly number[];
  /** Unit of one step for each mass plane, coats. */
  readonly massStep: readonly number[];
  readonly mass: readonly Uint16Array[];
  /** Unit of one step of the thickness, um. */
  readonly thicknessStep: number;
  readonly thickness: Uint16Array;
  /**
   * Where it was packed, when it was carried over the borders of tiles since: index of the tile, place in its order.
   * Turned back, its pieces become one again, byte for byte.
   */
  readonly from?: readonly [tile: number, order: number];
  /** When it dried; not known of what was kept by an older version. No part of what the paint is. */
  readonly dried?: Dried;
}

/** A moment of a painting: after so many strokes, so many simulated seconds from its beginning. */
export interface Dried {
  readonly strokes: number;
  readonly clock: number;
}

export const STEPS = 65535;
/** Thickness of one coat of tube paint, um: mass in coats times this is its volume. */
export const COAT_UM = 120;
/** Table index of the solvent: what was laid with it has shrunk by most of it, and dried matte. */
export const SOLVENT = pigmentIndex('solvent');
/** Share of the solvent's volume that is gone once paint is dry. */
const EVAPORATES = 0.8;

/** Highest value of `count` values from `from`; at least 0. */
export function highest(f32: Float32Array, from: number, count: number): number {
  let max = 0;
  for (let i = from; i < from + count; i++) if (f32[i] > max) max = f32[i];
  return max;
}

/**
 * Packs `count` values (a multiple of four, none negative) into steps of `unit`. Four sums of rounding errors are
 * carried side by side, so that four cells can be packed at a time.
 */
export function packSteps(
  f32: Float32Array,
  u16: Uint16Array,
  from: number,
  count: number,
  unit: number,
  to: number,
): void {
  const carry = [0, 0, 0, 0];
  const inverse = Math.fround(1 / unit);
  for (let i = 0; i < count; i++) {
    const v = f32[from + i];
    u16[to + i] = 0;
    if (v <= 0) continue; // bare cells stay bare
    const exact = v * inverse + carry[i & 3];
    const step = Math.max(0, Math.min(STEPS, Math.floor(exact + 0.5)));
    u16[to + i] = step;
    carry[i & 3] = exact - step;
  }
}

/** Unpacks `count` steps of `unit`. */
export function unpackSteps(
  f32: Float32Array,
  u16: Uint16Array,
  from: number,
  count: number,
  unit: number,
  to: number,
): void {
  for (let i = 0; i < count; i++) f32[to + i] = u16[from + i] * unit;
}

/** The unit of one step; float32, so that it survives every way of storing it. */
export const unitFor = (max: number): number => Math.fround(max / STEPS) || 1;

/** Packs a plane. Values must not be negative. */
export function packPlane(plane: Float32Array): { steps: Uint16Array; unit: number } {
  const unit = unitFor(highest(plane, 0, plane.length));
  const steps = new Uint16Array(plane.length);
  packSteps(plane, steps, 0, plane.length, unit, 0);
  return { steps, unit };
}

/** A stratum from packed planes of mass (coats) and thickness (um). Pigments that left no step are dropped. */
export function stratumOf(
  pigments: readonly number[],
  mass: readonly { steps: Uint16Array; unit: number }[],
  thickness: { steps: Uint16Array; unit: number },
): Stratum {
  const kept = pigments.map((_, i) => i).filter((i) => mass[i].steps.some((s) => s > 0));
  return {
    pigments: kept.map((i) => pigments[i]),
    massStep: kept.map((i) => mass[i].unit),
    mass: kept.map((i) => mass[i].steps),
    thicknessStep: thickness.unit,
    thickness: thickness.steps,
  };
}

/** A stratum from the planes of a film (coats; um). */
export const packStratum = (
  pigments: readonly number[],
  mass: readonly Float32Array[],
  thickness: Float32Array,
): Stratum => stratumOf(pigments, mass.map(packPlane), packPlane(thickness));

/** What has become of a stratum has dried when that did. */
export const driedAs = (before: Stratum, now: Stratum): Stratum =>
  before.dried ? { ...now, dried: before.dried } : now;

/** Strata with the moment at which those dried that were not there before. */
export const dated = (strata: readonly Stratum[], before: readonly Stratum[], dried: Dried): readonly Stratum[] =>
  strata === before ? strata : strata.map((s) => (s.dried || before.includes(s) ? s : { ...s, dried }));

/** Strata without the moments at which they dried. */
export const undated = (strata: readonly Stratum[]): readonly Stratum[] =>
  strata.some((s) => s.dried) ? strata.map(({ dried: _, ...paint }) => paint) : strata;

/** Adds the thickness of a stratum, um, to `out`. Most of the solvent that it was thinned with is gone. */
export function layerThickness(stratum: Stratum, out: Float32Array): void {
  const { thickness, thicknessStep, pigments, mass, massStep } = stratum;
  const k = pigments.indexOf(SOLVENT);
  if (k < 0) {
    for (let i = 0; i < out.length; i++) out[i] += thickness[i] * thicknessStep;
    return;
  }
  const gone = massStep[k] * COAT_UM * EVAPORATES;
  const { [k]: solvent } = mass;
  for (let i = 0; i < out.length; i++) {
    const um = thickness[i] * thicknessStep;
    out[i] += Math.max(0.2 * um, um - solvent[i] * gone);
  }
}

/** How lean a stratum was laid at a cell: share of solvent in its film, 0..1. */
export function leanness(stratum: Stratum, cell: number): number {
  const k = stratum.pigments.indexOf(SOLVENT);
  const um = stratum.thickness[cell] * stratum.thicknessStep;
  return k < 0 || um <= 0 ? 0 : Math.min(1, (stratum.mass[k][cell] * stratum.massStep[k] * COAT_UM) / um);
}

/** Mass of a pigment plane of a stratum, coats times cells. */
export function stratumMass(stratum: Stratum, plane: number): number {
  let sum = 0;
  for (const s of stratum.mass[plane]) sum += s;
  return sum * stratum.massStep[plane];
}

/** What is left of a stratum when a share `off` (0..1 for each cell) is taken away. */
export function thinStratum(stratum: Stratum, off: Float32Array): Stratum {
  const keep = (steps: Uint16Array, unit: number) => {
    const plane = new Float32Array(steps.length);
    for (let i = 0; i < plane.length; i++) plane[i] = steps[i] * unit * (1 - off[i]);
    return plane;
  };
  const thinned = packStratum(
    stratum.pigments,
    stratum.mass.map((steps, i) => keep(steps, stratum.massStep[i])),
    keep(stratum.thickness, stratum.thicknessStep),
  );
  return driedAs(stratum, thinned);
}
