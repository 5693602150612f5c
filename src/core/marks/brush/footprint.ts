import type { Arena } from '@/core/film/arena';
import { maths } from '@/core/maths/maths';
import { fractalNoise, latticeHash, noise1, noise2, randomFrom } from '@/core/surface/noise';
import type { BrushForm } from './brushForms';

/** Height to which full pressure flattens the tuft, um. */
export const PRESS_UM = 600;
/** Map value where the brush has no hair. */
const NO_HAIR_UM = 9900;

/**
 * The form of a brush, laid out in its own coordinates: u across, v along the motion.
 *
 * Bristles, clumps and reservoir cells are placed in millimetres, so the same brush makes the same mark at every
 * resolution. The maps are sampled finely enough to be turned and read at the nearest point.
 */
export interface Footprint {
  /** Size in cells of the painting. */
  readonly widthPx: number;
  readonly halfWidth: number;
  readonly halfLength: number;
  /** Map samples for each cell of the painting. */
  readonly perPx: number;
  readonly mapWidth: number;
  readonly mapLength: number;
  /** Address of [profile um, bristle 0..1] pairs. The profile is the height of the unpressed tuft. */
  readonly profile: number;
  /** Address of int32: reservoir cell * 4 + (side to which paint is pushed: 0 left, 1 ahead, 2 right). */
  readonly cells: number;
  /** Reservoir grid: cells across and along, and area of one in cells of the painting. */
  readonly across: number;
  readonly along: number;
  readonly cellArea: number;
  /** Whether a reservoir cell has hair. */
  readonly hairy: Uint8Array;
  /** Turns a roller as it lies after a way over the ground, mm; other brushes do not turn. */
  rollTo(wayMm: number): void;
  dispose(): void;
}

/**
 * Builds the form of a brush of a width. A roller has the form of its surface laid out flat; the strip of it that
 * touches is laid out for the kernel anew as it turns.
 */
export function makeFootprint(arena: Arena, form: BrushForm, sizeMm: number, mmPerPx: number, seed: number): Footprint {
  const width = sizeMm / mmPerPx;
  const perPx = width < 24 ? 3 : width < 120 ? 2 : 1;
  const mapWidth = Math.ceil(width * perPx) + 1;
  const mapLength = Math.max(4, Math.ceil(width * form.aspect * perPx));
  const halfWidth = (mapWidth - 1) / 2 / perPx - 0.01; // the last column only serves to interpolate
  const halfLength = mapLength / 2 / perPx - 0.01;
  const rolls = form.shape === 'roller';
  // a roller as wide as four of its diameters and a little more
  const around = rolls ? Math.max(mapLength, Math.round(Math.min(150, 0.9 * sizeMm) / (mmPerPx / perPx))) : mapLength;
  const lengthMm = (around / perPx) * mmPerPx;
  // locks of hair; never finer than the painting, whose cells exchange paint with them
  const cellMm = Math.max(rolls ? 0.75 : 0.45, 1.5 * mmPerPx);
  const across = Math.max(6, Math.min(72, Math.round(sizeMm / cellMm)));
  const along = Math.max(3, Math.min(24, Math.round(lengthMm / Math.max(cellMm, sizeMm / across))));

  const samples = mapWidth * mapLength;
  const profileBytes = (samples + 2) * 8;
  const profile = arena.allocate(profileBytes);
  const cells = arena.allocate(samples * 4);
  const map = new Float32Array(mapWidth * around * 2);
  const cellMap = new Int32Array(mapWidth * around);

  const bristles = combOfBristles(form, sizeMm, mapWidth, mmPerPx / perPx, seed);
  const mm = mmPerPx / perPx;
  const hairy = new Uint8Array(across * along);
  const patches = rolls ? Math.max(1, Math.round((around * mm) / (form.patchMm || 0.55))) : 0;
  for (let j = 0; j < around; j++) {
    for (let i = 0; i < mapWidth; i++) {
      const x = i * mm;
      const y = j * mm;
      const wander = ((noise2(x / 1.5, y / 2.25, seed + 4) - 0.5) * 0.4) / mm;
      const column = Math.max(0, Math.min(mapWidth - 1, Math.round(i + wander)));
      const patch = form.patchMm || 0.55;
      const all = rolls
        ? fractalNoise(x / patch, (j / around) * patches, seed + 2, 2, 0, patches)
        : form.patchMm
          ? fractalNoise(x / patch, y / patch, seed + 2, 3)
          : fractalNoise(x / 0.6, y / 1.75, seed + 2, 2);
      const at = j * mapWidth + i;
      map[2 * at] = tuftProfile(form, i / (mapWidth - 1), (j + 0.5) / mapLength, y, seed, x, sizeMm); // a roller's: see below
      map[2 * at + 1] = form.comb * bristles[column] + (1 - form.comb) * all;
      // cell borders wander, so that they look like bristles and not like a grid
      const cu = (x / sizeMm) * across + (noise1(x / 0.325, seed + 17) - 0.5) * 1.3;
      const cv = ((j + 0.5) / around) * along + (noise2(x / 0.375, y / 1, seed + 19) - 0.5) * 1.2;
      const cell = clampFloor(cv, along) * across + clampFloor(cu, across);
      cellMap[at] = cell;
      if (rolls || map[2 * at] < PRESS_UM * 1.6) hairy[cell] = 1;
    }
  }
  pushSides(map, cellMap, mapWidth, around, form, mm, seed);
  const strip = mapWidth * mapLength;
  /** Lays the part of the map that touches the ground out for the kernel. */
  const lay = (row: number) => {
    const { f32, i32 } = arena;
    if (!rolls) {
      f32.set(map, profile >> 2);
      i32.set(cellMap, cells >> 2);
      return;
    }
    for (let j = 0; j < mapLength; j++) {
      const from = ((row + j) % around) * mapWidth;
      const to = j * mapWidth;
      for (let i = 0; i < mapWidth; i++) {
        f32[(profile >> 2) + 2 * (to + i)] = tread[to + i];
        f32[(profile >> 2) + 2 * (to + i) + 1] = map[2 * (from + i) + 1];
      }
      i32.set(cellMap.subarray(from, from + mapWidth), (cells >> 2) + to);
    }
  };
  const tread = new Float32Array(rolls ? strip : 0).map((_, at) =>
    tuftProfile(form, (at % mapWidth) / (mapWidth - 1), (Math.floor(at / mapWidth) + 0.5) / mapLength, 0, seed),
  );
  lay(0);
  return {
    widthPx: width,
    halfWidth,
    halfLength,
    perPx,
    mapWidth,
    mapLength,
    profile,
    cells,
    across,
    along,
    cellArea: ((2 * halfWidth) / across) * (lengthMm / mmPerPx / along),
    hairy,
    rollTo(wayMm) {
      if (!rolls) return;
      // the side that comes down moves against the motion
      lay(around - 1 - (Math.round(wayMm / mm) % around));
    },
    dispose() {
      arena.free(profile, profileBytes);
      arena.free(cells, samples * 4);
    },
  };
}

const clampFloor = (v: number, count: number) => Math.max(0, Math.min(count - 1, Math.floor(v)));

/** Height of bristle tips across the brush, 0 (longest) .. 1: single hairs, clumps, and a broad unevenness. */
function combOfBristles(form: BrushForm, sizeMm: number, mapWidth: number, mm: number, seed: number): Float32Array {
  const random = randomFrom(seed * 977 + 5);
  const comb = new Float32Array(mapWidth).fill(9);
  const lock = 1 + 0.03 * sizeMm;
  for (let x = 0; x < sizeMm + 0.5;) {
    const clump = noise1(x / lock, seed * 31 + 3);
    const broad = noise1(x / (sizeMm / 5 + 0.75), seed * 31 + 12);
    const r = random();
    const stray = random() < 0.06 ? 0.35 : 0;
    const height = 0.5 * r * r + form.clumps * 0.7 * clump * clump + 0.22 * broad + stray;
    const radius = (0.2 + 0.125 * random() + sizeMm * 0.002) / mm;
    const centre = x / mm;
    for (let i = Math.max(0, Math.floor(centre - 3 * radius)); i <= Math.min(mapWidth - 1, centre + 3 * radius); i++) {
      const d = (i - centre) / radius;
      comb[i] = Math.min(comb[i], height + 0.5 * d * d);
    }
    x += 0.28 + 0.28 * random() + sizeMm * 0.002;
  }
  let lo = Infinity;
  let hi = -Infinity;
  for (const v of comb) {
    lo = Math.min(lo, v);
    if (v < 4) hi = Math.max(hi, v);
  }
  return comb.map((v) => Math.min(1, (v - lo) / (hi - lo)));
}

/** How far hairs at a place stand out before the rest or end short of it, mm: most hardly, single ones a good way. */
function hairEnd(xMm: number, seed: number): number {
  const r = noise1(xMm / 0.21, seed + 51);
  const lock = noise1(xMm / 0.8, seed + 53) - 0.5;
  const stray = noise1(xMm / 0.15, seed + 54);
  return (
    0.6 * lock +
    4 * (r - 0.5) * (r - 0.5) * (r - 0.5) * (0.2 + noise1(xMm / 2.1, seed + 55)) +
    (stray > 0.84 ? 2.4 * (stray - 0.84) : 0)
  );
}

/** Height of the unpressed tuft at a place of the footprint (0..1 each way). */
function tuftProfile(form: BrushForm, s: number, t: number, yMm: number, seed: number, xMm = 0, sizeMm = 0): number {
  const u = s * 2 - 1;
  // hairs end where they like: the front of a tuft is ragged, and worn round
  const rag = sizeMm > 0 ? Math.min(1, form.wiggleUm / 6) : 0;
  const ragMm =
    rag * (hairEnd(xMm, seed) * Math.min(1, 0.25 + sizeMm / 24) + (noise1(xMm / 1.9, seed + 52) - 0.5) * 0.1 * sizeMm);
  const v = t * 2 - 1 + (rag > 0 ? ragMm / (0.5 * form.aspect * sizeMm) + 0.12 * rag * u * u : 0);
  const au = Math.abs(u);
  const av = Math.abs(v);
  const r2 = u * u + v * v;
  switch (form.shape) {
    case 'round':
      return r2 > 1 ? NO_HAIR_UM : PRESS_UM * maths.pow(r2, 0.9);
    case 'dome':
      return r2 > 1 ? NO_HAIR_UM : PRESS_UM * maths.pow(r2, 0.75);
    case 'filbert': {
      const reach = Math.max(0.05, Math.sqrt(Math.max(0, 1 - u * u)) * 0.75 + 0.25 * (1 - 0.55 * u * u));
      return PRESS_UM * (maths.pow(av / reach, 1.6) + 1.1 * maths.pow(au, 5));
    }
    case 'flat': {
      const ragged = 0.05 * (noise1(yMm / 0.75, seed + (u < 0 ? 41 : 43)) - 0.5);
      const e = Math.max(0, (au + ragged - (1 - form.edge)) / form.edge);
      return PRESS_UM * (maths.pow(av, 1.6) + Math.min(2, e * e * 1.2));
    }
    case 'fan': {
      // the hair stands in an arc
      const arc = 0.55 * u * u - 0.2;
      const ragged = 0.05 * (noise1(yMm / 0.75, seed + (u < 0 ? 41 : 43)) - 0.5);
      const e = Math.max(0, (au + ragged - (1 - form.edge)) / form.edge);
      return PRESS_UM * (maths.pow(Math.abs(v - arc) * 1.5, 1.6) + Math.min(2, e * e * 1.2));
    }
    case 'roller': {
      const e = Math.max(0, (au - 0.98) / 0.02);
      return PRESS_UM * (av * av + Math.min(2, e * e * 1.2));
    }
  }
}

/** Paint is pushed outwards near the sides, elsewhere towards the higher bristle; a jitter keeps the middle free of seams. */
function pushSides(
  map: Float32Array,
  cellMap: Int32Array,
  width: number,
  length: number,
  form: BrushForm,
  mm: number,
  seed: number,
) {
  const look = Math.max(1, Math.round(0.375 / mm));
  const scale = form.roughnessUm / 100 + 0.3;
  for (let j = 0; j < length; j++) {
    for (let i = 0; i < width; i++) {
      const row = j * width;
      const u = ((i + 0.5) / (width - 1)) * 2 - 1;
      const left = map[2 * (row + Math.max(0, i - look)) + 1];
      const right = map[2 * (row + Math.min(width - 1, i + look)) + 1];
      const d = (right - left) * scale + 0.9 * u * u * u + 0.1 * (latticeHash(i, j, seed + 5) - 0.5);
      cellMap[row + i] = cellMap[row + i] * 4 + (d > 0.1 ? 2 : d < -0.1 ? 0 : 1);
    }
  }
}
