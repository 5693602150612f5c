import { weave, type Weave } from './weave';
import { panel } from './panel';

/** Supports that can be painted on. */
export const SURFACE_KINDS = ['linen-fine', 'linen-coarse', 'panel', 'smooth'] as const;
export type SurfaceKind = (typeof SURFACE_KINDS)[number];

export interface SurfaceSpec {
  readonly kind: SurfaceKind;
  /** Size of the grain, 1 = as made. */
  readonly scale: number;
  /** Depth of the grain, 1 = as made. */
  readonly depth: number;
}

/** Side of the seamless patch that repeats over the support, mm. */
const PATCH_MM = 84;
/** Cells along the patch of a smooth surface. */
const FLAT = 256;

const WEAVES: Record<'linen-fine' | 'linen-coarse', Weave> = {
  'linen-fine': { pitchMm: 0.8, pitchWeftMm: 0.85, depthUm: 160, slub: 0.3, wobble: 0.35, priming: 0.25 },
  'linen-coarse': { pitchMm: 1.32, pitchWeftMm: 1.45, depthUm: 170, slub: 0.42, wobble: 0.6, priming: 0.22 },
};

/**
 * The surface that paint meets: a periodic height map in micrometres with mean 0.
 * The grain is laid out in millimetres, so the same seed gives the same threads at every resolution.
 */
export interface HeightField {
  /** Cells along each side of the patch. */
  readonly size: number;
  /** Height of cell (x, y): `um[(y % size) * size + (x % size)]`. */
  readonly um: Float32Array;
  /** Height of the peaks (90th percentile), um. */
  readonly peakUm: number;
  /** Depth of the grain (98th less 2nd percentile), um. */
  readonly depthUm: number;
}

/** Makes the height field of a support at a resolution. */
export function makeHeightField(spec: SurfaceSpec, ppi: number, seed: number): HeightField {
  // what is flat everywhere needs no large patch
  if (spec.kind === 'smooth') return { size: FLAT, um: new Float32Array(FLAT * FLAT), peakUm: 0, depthUm: 0 };
  const size = Math.max(64, Math.round((PATCH_MM / 25.4) * ppi));
  const um = new Float32Array(size * size);
  if (spec.kind === 'linen-fine' || spec.kind === 'linen-coarse') {
    weave(um, size, PATCH_MM / spec.scale, WEAVES[spec.kind], seed);
  } else if (spec.kind === 'panel') {
    panel(um, size, PATCH_MM / spec.scale, seed);
  }
  let mean = 0;
  for (const h of um) mean += h / um.length;
  for (let i = 0; i < um.length; i++) um[i] = (um[i] - mean) * spec.depth;
  const sorted = um.slice().sort();
  const at = (share: number) => sorted[Math.floor((sorted.length - 1) * share)];
  return { size, um, peakUm: at(0.9), depthUm: at(0.98) - at(0.02) };
}
