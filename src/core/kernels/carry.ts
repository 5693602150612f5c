import { WATER } from './water';

/**
 * Pigment in a wash: carried with the water, tumbling into the valleys of the paper, diffusing; settling on the paper
 * and dissolving again. Each loop works on the 64 x 64 cells of one tile. These are the plain loops, the oracle of
 * their compiled twins.
 */

/** Paint moves freely in a film deeper than this; below, its motion fades. */
export const FADE = 0.35;

/**
 * Words of an entry for each pigment that is carried: its plane; the planes (or saved edges) that lie before and behind
 * the tile, 0 where the border is closed; where to save the old cells at the far border; then its mobility, how it
 * rolls on the two beds, and its diffusion (cells, for the steps that are moved at once).
 */
export const CARRIED = {
  plane: 0,
  before: 1,
  behind: 2,
  save: 3,
  mobile: 4,
  rollA: 5,
  rollB: 6,
  diffuse: 7,
  words: 8,
} as const;

/** Rows of scratch, each `ROW` words: velocity, slopes of the beds, apertures seen from both sides, cells, flux. */
const ROW = 80;
const C = CARRIED;

/** What a face lets through, seen from either cell: partly covered cells are cut cells, thin films let less pass. */
function aperture(f32: Float32Array, rows: number, c: number, ml: number, mr: number, film: number): void {
  const least = ml < mr ? ml : mr;
  f32[rows + 3 * ROW + c] = least > 0 ? (film * least) / ml : 0;
  f32[rows + 4 * ROW + c] = least > 0 ? (film * least) / mr : 0;
}

const fade = (depth: number) => (depth > FADE ? 1 : depth / FADE);

/** Donor-cell flux through a face, with diffusion; `smear` times what the scheme smears by itself. */
const flux = (a: number, b: number, v: number, diffuse: number, smear: number) =>
  (diffuse + smear * Math.abs(v)) * (a - b) + v * (a + b);

/**
 * Moves suspended pigments along x. The planes are at 64 x 64 cells; `before` is a saved column (64 values) of the tile
 * to the left, `behind` the plane of the tile to the right.
 * @param steps usual steps to move at once
 */
export function carryX(
  f32: Float32Array,
  i32: Int32Array,
  block: number,
  at: number,
  coverAt: number,
  fine: number,
  list: number,
  count: number,
  steps: number,
): void {
  const { stride, coverStride, fineStride, factor, side, rows: scratch } = WATER;
  const F = i32[block + factor];
  const n = i32[block + side] * F;
  const rows = i32[block + scratch];
  const depth = i32[block + WATER.depth];
  const paint = i32[block + WATER.paintU];
  const cells = (0.5 * f32[block + WATER.cells] * steps) / f32[block + WATER.step];
  for (let k = 0; k < count; k++) {
    const e = list + k * C.words;
    if (i32[e + C.save]) for (let y = 0; y < n; y++) f32[i32[e + C.save] + y] = f32[i32[e + C.plane] + y * n + n - 1];
  }
  for (let y = 0; y < n; y++) {
    const coarse = at + Math.floor(y / F) * i32[block + stride];
    const cover = i32[block + WATER.cover] + coverAt + y * i32[block + coverStride];
    const ground = fine + y * i32[block + fineStride];
    let wet = false;
    for (let c = 0; c <= n; c++) {
      const i = coarse + Math.floor(c / F);
      const part = (c % F) / F;
      const u = f32[paint + i] + (part ? (f32[paint + i + 1] - f32[paint + i]) * part : 0);
      const film = part ? f32[depth + i] : Math.max(f32[depth + i], f32[depth + i - 1]);
      f32[rows + c] = u * cells;
      f32[rows + ROW + c] = f32[i32[block + WATER.bedA] + ground + c - 1] - f32[i32[block + WATER.bedA] + ground + c];
      f32[rows + 2 * ROW + c] =
        f32[i32[block + WATER.bedB] + ground + c - 1] - f32[i32[block + WATER.bedB] + ground + c];
      if (film > 0) wet = true;
      aperture(f32, rows, c, f32[cover + c - 1], f32[cover + c], fade(film));
    }
    if (!wet) continue;
    for (let k = 0; k < count; k++) {
      const e = list + k * C.words;
      const g = i32[e + C.plane] + y * n;
      const before = i32[e + C.before];
      const behind = i32[e + C.behind];
      for (let c = 0; c <= n; c++) {
        const open = c === 0 ? before : c === n ? behind : 1;
        const left = c === 0 ? (before ? f32[before + y] : 0) : f32[g + c - 1];
        const right = c === n ? (behind ? f32[behind + y * n] : 0) : f32[g + c];
        const v =
          f32[e + C.mobile] * f32[rows + c] +
          f32[e + C.rollA] * f32[rows + ROW + c] +
          f32[e + C.rollB] * f32[rows + 2 * ROW + c];
        const a = left * f32[rows + 3 * ROW + c];
        const b = right * f32[rows + 4 * ROW + c];
        f32[rows + 5 * ROW + c] = open ? flux(a, b, v, f32[e + C.diffuse], f32[block + WATER.smear]) : 0;
      }
      for (let c = 0; c < n; c++) f32[g + c] = tidy(f32[g + c] + f32[rows + 5 * ROW + c] - f32[rows + 5 * ROW + c + 1]);
    }
  }
}

/** Moves suspended pigments along y: `before` is a saved row of the tile above, `behind` the plane of the tile below. */
export function carryY(
  f32: Float32Array,
  i32: Int32Array,
  block: number,
  at: number,
  coverAt: number,
  fine: number,
  list: number,
  count: number,
  steps: number,
): void {
  const { stride, coverStride, fineStride, factor, side, rows: scratch } = WATER;
  const F = i32[block + factor];
  const n = i32[block + side] * F;
  const rows = i32[block + scratch];
  const depth = i32[block + WATER.depth];
  const paint = i32[block + WATER.paintV];
  const cells = (0.5 * f32[block + WATER.cells] * steps) / f32[block + WATER.step];
  const coarseStride = i32[block + stride];
  for (let k = 0; k < count; k++) {
    const e = list + k * C.words;
    if (i32[e + C.save]) for (let x = 0; x < n; x++) f32[i32[e + C.save] + x] = f32[i32[e + C.plane] + (n - 1) * n + x];
  }
  // face y lies above row y; what came through the face above is kept in a row for each pigment
  const above = rows + 8 * ROW;
  for (let k = 0; k < count; k++) for (let x = 0; x < n; x++) f32[above + k * ROW + x] = 0;
  for (let y = 0; y <= n; y++) {
    const coarse = at + Math.floor(y / F) * coarseStride;
    const cover = i32[block + WATER.cover] + coverAt + y * i32[block + coverStride];
    const ground = fine + y * i32[block + fineStride];
    const part = (y % F) / F;
    for (let x = 0; x < n; x++) {
      const i = coarse + Math.floor(x / F);
      const u = f32[paint + i] + (part ? (f32[paint + i + coarseStride] - f32[paint + i]) * part : 0);
      const film = part ? f32[depth + i] : Math.max(f32[depth + i], f32[depth + i - coarseStride]);
      const up = i32[block + fineStride];
      f32[rows + x] = u * cells;
      f32[rows + ROW + x] = f32[i32[block + WATER.bedA] + ground + x - up] - f32[i32[block + WATER.bedA] + ground + x];
      f32[rows + 2 * ROW + x] =
        f32[i32[block + WATER.bedB] + ground + x - up] - f32[i32[block + WATER.bedB] + ground + x];
      aperture(f32, rows, x, f32[cover + x - i32[block + coverStride]], f32[cover + x], fade(film));
    }
    for (let k = 0; k < count; k++) {
      const e = list + k * C.words;
      const g = i32[e + C.plane] + y * n;
      const before = i32[e + C.before];
      const behind = i32[e + C.behind];
      const open = y === 0 ? before : y === n ? behind : 1;
      // rows above are changed only once their lower face is known, so they are old here
      const upper = y === 0 ? before : g - n;
      const lower = y === n ? behind : g;
      for (let x = 0; x < n; x++) {
        let through = 0;
        if (open) {
          const v =
            f32[e + C.mobile] * f32[rows + x] +
            f32[e + C.rollA] * f32[rows + ROW + x] +
            f32[e + C.rollB] * f32[rows + 2 * ROW + x];
          through = flux(
            f32[upper + x] * f32[rows + 3 * ROW + x],
            f32[lower + x] * f32[rows + 4 * ROW + x],
            v,
            f32[e + C.diffuse],
            f32[block + WATER.smear],
          );
        }
        const held = above + k * ROW + x;
        if (y > 0) f32[g - n + x] = tidy(f32[g - n + x] + f32[held] - through);
        f32[held] = through;
      }
    }
  }
}

/**
 * Words of an entry for each pigment that settles: planes of what is suspended, settled, under it and soluble (0 where
 * there is none; the first two always are); then the rates for the time at once: settling, how much more in valleys,
 * dissolving, what of it is never given up, the same of what lies under, and of soluble ink.
 */
export const SETTLED = {
  suspended: 0,
  settled: 1,
  under: 2,
  soluble: 3,
  settle: 4,
  valley: 5,
  lift: 6,
  floor: 7,
  liftUnder: 8,
  liftInk: 9,
  words: 12,
} as const;

/** Below this a cell's suspended paint is folded into what has settled, washes. */
const LEAST = 1e-11;

/**
 * Settling and dissolving on one tile. A thin film fixes paint, at the rim first; where the film is gone what floated
 * lies loose, and is fixed as the paper dries.
 * @param seconds that are made up for at once
 */
export function settlePaint(
  f32: Float32Array,
  i32: Int32Array,
  block: number,
  at: number,
  coverAt: number,
  fine: number,
  list: number,
  count: number,
  seconds: number,
  rimSettle: number,
): void {
  const S = SETTLED;
  const F = i32[block + WATER.factor];
  const n = i32[block + WATER.side] * F;
  const rows = i32[block + WATER.rows];
  const full = 1 / f32[block + WATER.capacity];
  for (let y = 0; y < n; y++) {
    const coarse = at + Math.floor(y / F) * i32[block + WATER.stride];
    const cover = i32[block + WATER.cover] + coverAt + y * i32[block + WATER.coverStride];
    const tooth = i32[block + WATER.tooth] + fine + y * i32[block + WATER.fineStride];
    for (let c = 0; c < n; c++) {
      const i = coarse + Math.floor(c / F);
      const depth = f32[i32[block + WATER.depth] + i];
      if (f32[i32[block + WATER.share] + i] > 0) {
        const thin = depth > 0.4 ? 0 : (0.4 - depth) * 2.5;
        f32[rows + c] = 1 + 1.2 * thin * thin + rimSettle * (1 - f32[i32[block + WATER.rim] + i]) * thin;
        f32[rows + ROW + c] = (depth > 0.3 ? 1 : depth / 0.3) * f32[cover + c];
        f32[rows + 2 * ROW + c] = 0;
      } else {
        const dry = 1 - f32[i32[block + WATER.moisture] + i] * full;
        f32[rows + c] = 0;
        f32[rows + ROW + c] = 0;
        f32[rows + 2 * ROW + c] = Math.min(1, (dry < 0.1 ? 0.004 : 0.07 * (dry - 0.1) + 0.004) * seconds);
      }
    }
    for (let k = 0; k < count; k++) {
      const e = list + k * S.words;
      const g = i32[e + S.suspended] + y * n;
      const d = i32[e + S.settled] + y * n;
      const under = i32[e + S.under];
      const soluble = i32[e + S.soluble];
      for (let c = 0; c < n; c++) {
        const floats = f32[g + c];
        const lies = f32[d + c];
        const falls = f32[e + S.settle] * f32[rows + c] * (1 + f32[e + S.valley] * (1 - 2 * f32[tooth + c]));
        let down = floats * Math.max(Math.min(0.9, falls), f32[rows + 2 * ROW + c]);
        if (floats < LEAST) down = floats;
        const wet = f32[rows + ROW + c];
        const up = Math.min(0.9, f32[e + S.lift] * wet) * Math.max(0, lies - f32[e + S.floor]);
        let more = 0;
        if (under) {
          const u = under + y * n + c;
          const lifted = Math.min(0.9, f32[e + S.liftUnder] * wet) * Math.max(0, f32[u] - f32[e + S.floor]);
          f32[u] -= lifted;
          more += lifted;
        }
        if (soluble) {
          const s = soluble + y * n + c;
          const taken = Math.min(0.9, f32[e + S.liftInk] * wet) * f32[s];
          f32[s] -= taken;
          more += taken;
        }
        f32[g + c] = floats - down + up + more;
        f32[d + c] = lies + down - up;
      }
    }
  }
}

const tidy = (v: number) => (v < 1e-12 ? 0 : v);
