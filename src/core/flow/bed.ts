import type { ArenaScope } from '@/core/film/arenaScope';
import { flowFactor } from '@/core/film/basin';
import { TILE } from '@/core/film/cells';
import type { Painting } from '@/core/film/painting';
import { maths } from '@/core/maths/maths';
import { isPaper, PAPERS, sheetField, toothAt } from '@/core/surface/paper';
import { USUAL_WEIGHT } from '@/core/surface/heightField';
import { FLOW } from './washRates';
import { blurred } from '@/core/surface/periodicNoise';

/** What water meets on a support: tooth, beds on which grains roll, permeability and unevenness, in the arena. */
export interface Bed {
  /** Word addresses of cell-by-cell planes: tooth 0..1, and two beds seen by rolling grains, so that no two clump alike. */
  readonly tooth: number;
  /** How far a painted edge strays, standard deviations. */
  readonly waver: number;
  readonly bedA: number;
  readonly bedB: number;
  /** Word addresses of planes on the coarse grid. */
  readonly permeable: number;
  readonly resistance: number;
  readonly lobes: number;
  readonly blotches: number;
  readonly currents: number;
  /** How much the sheet falls from the flow cell before to a flow cell, washes: it cockles when it is wet. */
  readonly fallX: number;
  readonly fallY: number;
  readonly fineStride: number;
  readonly bedStride: number;
  /** How much the tooth rules the wash, 0 smooth .. 1.3 rough; how much water the sheet holds (washes); its sizing. */
  readonly relief: number;
  readonly capacity: number;
  readonly sizing: number;
  /** Offsets of a tile's first cell in the cell-by-cell planes, and of its first flow cell in the coarse ones. */
  fine(index: number): number;
  coarse(index: number): number;
  /** Offset of any cell in the cell-by-cell planes. */
  cell(x: number, y: number): number;
}

/** Spread of the permeability (log-normal), and rms velocity of the mingling currents, reference cells a step. */
const PERMEABILITY_SPREAD = 0.6;
const STIR = 0.032;
/** How much of the bed is tooth, and how much grains make themselves by clumping. */
const TOOTH_SHARE = 0.7;
const CLUMP_SHARE = 0.5;
/** Grains clump to flocs of this radius (mm): what is finer in the tooth does not sort them. */
const FLOC_MM = 0.1;
/** Supports that are no paper: how much their grain rules a wash. They take in next to nothing. */
const OTHER_RELIEF = {
  'linen-fine': 0.9,
  'linen-coarse': 1.1,
  cotton: 0.8,
  panel: 0.4,
  smooth: 0.05,
  'paper-laid': 0.6,
  'paper-sanded': 0.6,
  'paper-velour': 0.5,
  own: 0.7,
} as const;

/** What water meets on a painting's support. */
export function makeBed(painting: Painting): Bed {
  const { memory, spec, surface, tilesX, tilesY, mmPerPx } = painting;
  const { kind } = spec.surface;
  const factor = flowFactor(mmPerPx);
  const paper = isPaper(kind);
  // a sheet repeats; other supports, whose patch need not fit the coarse grid, are laid out whole
  const width = paper ? surface.size : tilesX * TILE;
  const height = paper ? surface.size : tilesY * TILE;
  const fieldCells = paper ? surface.size : 512;
  const wide = width + TILE + 8;
  const high = height + TILE + 2;
  const fineAt = (value: (x: number, y: number) => number) =>
    layOut(memory, wide, high, (x, y) => value((x - 4 + width) % width, (y - 1 + height) % height));
  const tooth = toothOf(painting);
  const clumps = sheetField('clumps', spec.seed, fieldCells);
  const clumpAt = (x: number, y: number) => clumps[(y % fieldCells) * fieldCells + (x % fieldCells)];
  const aside = Math.floor(fieldCells / 3);
  const wavers = sheetField('waver', spec.seed, fieldCells);
  // a floc rests on several grains of the tooth
  const felt = paper ? blurred(toothPlane(tooth, width), width, FLOC_MM / mmPerPx) : undefined;
  const feltAt = (x: number, y: number) => (felt ? felt[y * width + x] : tooth(x, y));

  const coarseWidth = width / factor;
  const coarseHeight = height / factor;
  const coarseField = Math.floor(fieldCells / factor);
  const coarseWide = coarseWidth + TILE / factor + 8;
  const coarseHigh = coarseHeight + TILE / factor + 1;
  const coarseAt = (name: Parameters<typeof sheetField>[0], shape: (v: number) => number) => {
    const field = sheetField(name, spec.seed, coarseField);
    return layOut(memory, coarseWide, coarseHigh, (x, y) =>
      shape(field[((y % coarseHeight) % coarseField) * coarseField + ((x % coarseWidth) % coarseField)]),
    );
  };
  const bulge = FLOW.cockle * Math.sqrt(USUAL_WEIGHT / (spec.surface.weight ?? USUAL_WEIGHT)) * (paper ? 1 : 0);
  const falls = (dx: number, dy: number) => {
    const field = sheetField('cockle', spec.seed, coarseField);
    const at = (x: number, y: number) =>
      field[((y + coarseField) % coarseField) * coarseField + ((x + coarseField) % coarseField)];
    return layOut(memory, coarseWide, coarseHigh, (x, y) => {
      const fx = (x % coarseWidth) % coarseField;
      const fy = (y % coarseHeight) % coarseField;
      return bulge * (at(fx - dx, fy - dy) - at(fx, fy));
    });
  };
  const clamped = (most: number) => (v: number) => Math.max(-most, Math.min(most, v));
  const { sizing, capacity, relief } = sheetOf(painting);
  return {
    tooth: fineAt(tooth),
    waver: fineAt((x, y) => wavers[(y % fieldCells) * fieldCells + (x % fieldCells)]),
    bedA: fineAt((x, y) => TOOTH_SHARE * feltAt(x, y) + CLUMP_SHARE * clumpAt(x, y)),
    bedB: fineAt((x, y) => TOOTH_SHARE * feltAt(x, y) + CLUMP_SHARE * clumpAt(y + aside, x)),
    permeable: coarseAt('permeability', (v) => maths.exp(PERMEABILITY_SPREAD * clamped(2)(v))),
    resistance: coarseAt('permeability', clamped(2)),
    lobes: coarseAt('lobes', (v) => v),
    blotches: coarseAt('blotches', clamped(1.5)),
    currents: coarseAt(
      'currents',
      (
        (scale) => (v: number) =>
          v * scale
      )(stirScale(spec.seed, coarseField)),
    ),
    fallX: falls(1, 0),
    fallY: falls(0, 1),
    fineStride: wide,
    bedStride: coarseWide,
    relief,
    capacity,
    sizing,
    fine: (index) => {
      const tx = index % tilesX;
      const ty = (index - tx) / tilesX;
      return (((ty * TILE) % height) + 1) * wide + ((tx * TILE) % width) + 4;
    },
    coarse: (index) => {
      const tx = index % tilesX;
      const ty = (index - tx) / tilesX;
      return (((ty * TILE) % height) / factor) * coarseWide + ((tx * TILE) % width) / factor;
    },
    cell: (x, y) => ((y % height) + 1) * wide + (x % width) + 4,
  };
}

/** How a support takes water. */
export function sheetOf({ spec }: Pick<Painting, 'spec'>) {
  const { kind, depth, sizing, weight = USUAL_WEIGHT } = spec.surface;
  if (!isPaper(kind)) return { relief: OTHER_RELIEF[kind] * depth, capacity: 0.05, sizing: 1 };
  const sheet = PAPERS[kind];
  return {
    relief: Math.min(1.6, sheet.relief * depth),
    capacity: sheet.capacity * Math.sqrt(weight / USUAL_WEIGHT),
    sizing: sizing ?? sheet.sizing,
  };
}

/** Height of a support's tooth at a cell, 0..1. */
function toothOf({ spec, surface }: Painting): (x: number, y: number) => number {
  const { kind } = spec.surface;
  if (isPaper(kind)) {
    const tooth = toothAt(kind, spec.seed, surface.size);
    return (x, y) => tooth[(y % surface.size) * surface.size + (x % surface.size)];
  }
  const { size, um, depthUm } = surface;
  if (depthUm <= 0) return () => 0.5;
  return (x, y) => Math.max(0, Math.min(1, 0.5 + (0.85 * um[(y % size) * size + (x % size)]) / depthUm));
}

function toothPlane(tooth: (x: number, y: number) => number, size: number): Float32Array {
  const out = new Float32Array(size * size);
  for (let y = 0, i = 0; y < size; y++) for (let x = 0; x < size; x++) out[i++] = tooth(x, y);
  return out;
}

/** What brings the currents' stream function to velocities of the usual rms, when it is differenced. */
function stirScale(seed: number, size: number): number {
  const field = sheetField('currents', seed, size);
  let sum = 0;
  for (let y = 0; y < size; y++) {
    for (let x = 0; x < size; x++) sum += (field[y * size + x] - field[y * size + ((x + 1) % size)]) ** 2;
  }
  return STIR / Math.sqrt(sum / (size * size));
}

function layOut(memory: ArenaScope, width: number, height: number, value: (x: number, y: number) => number): number {
  const { arena } = memory;
  const at = memory.allocate((width * height + 8) * 4) >> 2;
  for (let y = 0, i = at; y < height; y++) for (let x = 0; x < width; x++) arena.f32[i++] = value(x, y);
  return at;
}
