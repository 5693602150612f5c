import { weave, type Weave } from './weave';
import { panel } from './panel';
import { DRAWING_PAPER_KINDS, drawingPaper, isDrawingPaper } from './drawingPaper';
import { seamless, type OwnSurface } from './ownSurface';
import { Remembered } from './remembered';
import { isPaper, PAPER_KINDS, PAPER_PATCH_MM, PAPERS, toothAt } from './paper';

/** Supports that can be painted on. */
export const SURFACE_KINDS = [
  'linen-fine',
  'linen-coarse',
  'cotton',
  'panel',
  'smooth',
  ...PAPER_KINDS,
  ...DRAWING_PAPER_KINDS,
  'own',
] as const;
export type SurfaceKind = (typeof SURFACE_KINDS)[number];
/** Supports that are the same for every painter: all but a scan of one's own. */
export const MADE_SURFACES = SURFACE_KINDS.filter((kind) => kind !== 'own');
/** Whether a support is paper of any kind: its pulp has a tint. */
export const isSheet = (kind: string): boolean => isPaper(kind) || isDrawingPaper(kind);

export interface SurfaceSpec {
  readonly kind: SurfaceKind;
  /** Size of the grain, 1 = as made. */
  readonly scale: number;
  /** Depth of the grain, 1 = as made. */
  readonly depth: number;
  /** Paper: how well it is sized, 0 drinks like blotting paper .. 1 lets nothing in; its kind's own where left out. */
  readonly sizing?: number;
  /** Paper: weight, g/m2; heavier sheets hold more water. */
  readonly weight?: number;
  /** Paper: colour of the pulp. */
  readonly tint?: PaperTint;
  /** The painter's own: what was scanned. */
  readonly own?: OwnSurface;
}

/** Colours of paper pulp: external reflectance at 420, 550 and 650 nm. */
export const PAPER_TINTS = {
  white: [0.9, 0.915, 0.92],
  natural: [0.82, 0.885, 0.91],
  cream: [0.7, 0.84, 0.895],
  oatmeal: [0.55, 0.68, 0.76],
  grey: [0.56, 0.58, 0.58],
  blue: [0.6, 0.6, 0.55],
  sand: [0.36, 0.53, 0.62],
  moss: [0.22, 0.33, 0.3],
  rose: [0.46, 0.45, 0.6],
  slate: [0.2, 0.2, 0.18],
  umber: [0.11, 0.17, 0.24],
} as const;
export type PaperTint = keyof typeof PAPER_TINTS;
/** Weight of the sheet on which the capacity of a kind of paper is given, g/m2. */
export const USUAL_WEIGHT = 300;

/** What is left of the shading of the tooth in paper. */
const PAPER_SHADING = 0.5;

/** Deviation of what is finer than the made grain, um: fibres 20 to 30 um wide, fines, size, the priming's own grain. */
const FINE_UM: Record<SurfaceKind, number> = {
  'linen-fine': 7,
  'linen-coarse': 8,
  cotton: 7,
  panel: 4,
  smooth: 2,
  own: 6,
  'paper-hot': 5,
  'paper-cold': 9,
  'paper-rough': 11,
  'paper-laid': 9,
  'paper-sanded': 8,
  'paper-velour': 12,
};

/** Share of its grain's height that stands against a stick. */
const FIRM: Record<SurfaceKind, number> = {
  'linen-fine': 0.28,
  'linen-coarse': 0.28,
  cotton: 0.28,
  panel: 1,
  smooth: 1,
  own: 0.7,
  'paper-hot': 0.6,
  'paper-cold': 0.4,
  'paper-rough': 0.39,
  'paper-laid': 0.5,
  'paper-sanded': 0.9,
  'paper-velour': 0.7,
};

/** Side of the seamless patch that repeats over the support, mm. */
const PATCH_MM = 84;
/** Cells along the patch of a smooth surface. */
const FLAT = 256;

const WEAVES: Record<'linen-fine' | 'linen-coarse' | 'cotton', Weave> = {
  cotton: { pitchMm: 0.62, pitchWeftMm: 0.6, depthUm: 150, slub: 0.12, wobble: 0.15, priming: 0.2 },
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
  /** Deviation of what is finer than the grain: fibres, fines, size; um. */
  readonly fineUm: number;
  /** Share of the height of its grain that stands against a stick: pulp is pressed flat under it, grit is not. */
  readonly firm: number;
  /** Share of its slopes that light shows: paper lets light through its fibres, which evens the shading of its tooth. */
  readonly shading: number;
}

/** Lays heights of `count` cells from cell (x, y) on, side by side, to `out` from place `at` on. x, y >= 0. */
export function layRow({ size, um }: HeightField, x: number, y: number, out: Float32Array, at: number, count: number) {
  const row = (y % size) * size;
  for (let done = 0; done < count;) {
    const from = (x + done) % size;
    const n = Math.min(count - done, size - from);
    out.set(um.subarray(row + from, row + from + n), at + done);
    done += n;
  }
}

/** Fields of the last paintings, up to 32 MB. */
const fields = new Remembered<HeightField>(2 ** 23, ({ um }) => um.length);

/** The height field of a support at a resolution; nobody writes to it. */
export function makeHeightField(spec: SurfaceSpec, ppi: number, seed: number): HeightField {
  if (spec.kind === 'own') return ownField(spec, ppi);
  const { kind, scale, depth } = spec;
  return fields.once([kind, scale, depth, ppi, seed].join('/'), () => grownField(spec, kind, ppi, seed));
}

function grownField(spec: SurfaceSpec, kind: Exclude<SurfaceKind, 'own'>, ppi: number, seed: number): HeightField {
  // what is flat everywhere needs no large patch
  if (kind === 'smooth')
    return {
      size: FLAT,
      um: new Float32Array(FLAT * FLAT),
      peakUm: 0,
      depthUm: 0,
      fineUm: FINE_UM.smooth,
      firm: 1,
      shading: 1,
    };
  if (isPaper(kind)) return paperField(kind, spec, ppi, seed);
  const size = Math.max(64, Math.round((PATCH_MM / 25.4) * ppi));
  const um = new Float32Array(size * size);
  if (kind === 'linen-fine' || kind === 'linen-coarse' || kind === 'cotton') {
    weave(um, size, PATCH_MM / spec.scale, WEAVES[kind], seed);
  } else if (kind === 'panel') {
    panel(um, size, PATCH_MM / spec.scale, seed);
  } else if (isDrawingPaper(kind)) {
    drawingPaper(um, size, PATCH_MM / spec.scale, kind, seed);
  }
  let mean = 0;
  for (const h of um) mean += h / um.length;
  for (let i = 0; i < um.length; i++) um[i] = (um[i] - mean) * spec.depth;
  return measured(size, um, isDrawingPaper(kind) ? PAPER_SHADING : 1, kind);
}

/** Takes the mean off a field, in place. */
function level(um: Float32Array): void {
  let mean = 0;
  for (const h of um) mean += h / um.length;
  for (let i = 0; i < um.length; i++) um[i] -= mean;
}

/** Cells along the patch of a sheet: a multiple of four, so that coarser grids fit on it. */
export const sheetCells = (scale: number, ppi: number): number =>
  Math.max(64, 4 * Math.round((PAPER_PATCH_MM * scale * ppi) / 25.4 / 4));

function paperField(kind: keyof typeof PAPERS, spec: SurfaceSpec, ppi: number, seed: number): HeightField {
  const size = sheetCells(spec.scale, ppi);
  const tooth = toothAt(kind, seed, size);
  const um = tooth.map((h) => (h - 0.5) * 1.18 * PAPERS[kind].depthUm * spec.depth);
  level(um);
  return measured(size, um, PAPER_SHADING, kind);
}

/** Cells along a patch of one's own at most. */
const MOST_OWN = 4096;

function ownField({ own, scale, depth }: SurfaceSpec, ppi: number): HeightField {
  if (!own) throw new RangeError('A surface of your own needs its scan.');
  const size = Math.max(64, Math.min(MOST_OWN, Math.round((own.widthMm * scale * 0.75 * ppi) / 25.4)));
  return measured(
    size,
    seamless(own, size).map((h) => h * own.depthUm * depth),
    1,
    'own',
  );
}

/**
 * The same surface under a canvas that was cut, turned or mirrored: its grain stays where it was under the paint.
 * @param placed the cell (x, y) of the canvas lies on (a x + c y + e, b x + d y + f) of the one it was begun with
 */
export function placedField(field: HeightField, placed: readonly number[]): HeightField {
  const [a, b, c, d, e, f] = placed;
  const { size, um } = field;
  const wrap = (v: number) => ((v % size) + size) % size;
  const out = new Float32Array(um.length);
  for (let y = 0; y < size; y++) {
    for (let x = 0; x < size; x++) out[y * size + x] = um[wrap(b * x + d * y + f) * size + wrap(a * x + c * y + e)];
  }
  return { ...field, um: out };
}

function measured(size: number, um: Float32Array, shading: number, kind: SurfaceKind): HeightField {
  const sorted = um.slice().sort();
  const at = (share: number) => sorted[Math.floor((sorted.length - 1) * share)];
  return { size, um, peakUm: at(0.9), depthUm: at(0.98) - at(0.02), fineUm: FINE_UM[kind], firm: FIRM[kind], shading };
}
