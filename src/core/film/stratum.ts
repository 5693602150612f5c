/**
 * Dried paint, packed: one stratum for each time a wet film dried, so that a painting still knows its recipe and
 * its cross-section. Planes are 16-bit with a scale of their own; rounding carries its error to the next cell, so
 * that the mass of a tile is kept to one step of the scale.
 */
export interface Stratum {
  readonly pigments: readonly number[];
  /** Unit of one step for each mass plane, coats. */
  readonly massStep: readonly number[];
  readonly mass: readonly Uint16Array[];
  /** Unit of one step of the thickness, um. */
  readonly thicknessStep: number;
  readonly thickness: Uint16Array;
}

const STEPS = 65535;

/** Packs one plane; returns the steps and the unit of one step. Values must not be negative. */
export function packPlane(plane: Float32Array): { steps: Uint16Array; unit: number } {
  let max = 0;
  for (const v of plane) if (v > max) max = v;
  // the unit is float32 so that it survives every way of storing it
  const unit = Math.fround(max / STEPS) || 1;
  const steps = new Uint16Array(plane.length);
  let carry = 0;
  for (let i = 0; i < plane.length; i++) {
    if (plane[i] <= 0) continue; // bare cells stay bare
    const exact = plane[i] / unit + carry;
    const step = Math.max(0, Math.min(STEPS, Math.round(exact)));
    steps[i] = step;
    carry = exact - step;
  }
  return { steps, unit };
}

/** A stratum from the planes of a film (coats; um). Pigments that left no step are dropped. */
export function packStratum(
  pigments: readonly number[],
  mass: readonly Float32Array[],
  thickness: Float32Array,
): Stratum {
  const packed = mass.map(packPlane);
  const kept = pigments.map((_, i) => i).filter((i) => packed[i].steps.some((s) => s > 0));
  const film = packPlane(thickness);
  return {
    pigments: kept.map((i) => pigments[i]),
    massStep: kept.map((i) => packed[i].unit),
    mass: kept.map((i) => packed[i].steps),
    thicknessStep: film.unit,
    thickness: film.steps,
  };
}

/** Adds the thickness of a stratum, um, to `out`. */
export function layerThickness(stratum: Stratum, out: Float32Array): void {
  const { thickness, thicknessStep } = stratum;
  for (let i = 0; i < out.length; i++) out[i] += thickness[i] * thicknessStep;
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
  return packStratum(
    stratum.pigments,
    stratum.mass.map((steps, i) => keep(steps, stratum.massStep[i])),
    keep(stratum.thickness, stratum.thicknessStep),
  );
}
