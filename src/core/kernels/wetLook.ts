/**
 * What wet paper looks like, a run of cells at a time: how wet it is, what that does to ground and pigment, and how
 * water lies on the relief. Everything is given by word address. These are the plain loops, the oracle of their
 * compiled twins; runs are worked on up to the next multiple of four cells.
 */

/** Words of the parameter block: addresses, then shape (int), then constants (float). */
export const WET_LOOK = {
  /** Flow cells of the run: share under film, water, moisture; and cells: cover. */
  share: 0,
  water: 1,
  moisture: 2,
  cover: 3,
  /** Where to: how wet it looks, 0 dry .. 1; depth of the film, washes, times its cover. */
  looks: 4,
  film: 5,
  /** Cells along a flow cell, as a power of two; cells of the first flow cell that lie before the run. */
  shift: 6,
  phase: 7,
  /** One over the depth that looks wet through; and what a unit of moisture adds. */
  wetOver: 8,
  dampOver: 9,
  words: 12,
} as const;

/** How wet each cell looks, and how deep its film is. */
export function waterLooks(f32: Float32Array, i32: Int32Array, block: number, count: number): void {
  const W = WET_LOOK;
  const shift = i32[block + W.shift];
  const phase = i32[block + W.phase];
  for (let x = 0; x < count; x++) {
    const i = (phase + x) >> shift;
    const share = f32[i32[block + W.share] + i];
    const depth = share > 0 ? f32[i32[block + W.water] + i] / share : 0;
    const covered = f32[i32[block + W.cover] + x];
    const wet = covered * Math.min(1, depth * f32[block + W.wetOver]);
    const damp = f32[block + W.dampOver] * f32[i32[block + W.moisture] + i];
    f32[i32[block + W.film] + x] = depth * covered;
    f32[i32[block + W.looks] + x] = Math.min(1, Math.max(wet, damp));
  }
}

/** Wet paper is a little darker: takes up to `share` off the reflectance of a run, band by band. */
export function dampen(
  f32: Float32Array,
  _i32: Int32Array,
  count: number,
  looks: number,
  share: number,
  bands: number,
  reflectance: number,
  bandStride: number,
): void {
  for (let b = 0; b < bands; b++) {
    const row = reflectance + b * bandStride;
    for (let x = 0; x < count; x++) f32[row + x] *= 1 - share * f32[looks + x];
  }
}

/**
 * Sums coats of a pigment over a run.
 * @param list address of the planes' addresses @param first offset of the run's first cell in each plane
 * @param looks address of how wet it looks, or 0: wet pigment counts for up to 1 + `deepens`
 */
export function sumCoats(
  f32: Float32Array,
  i32: Int32Array,
  count: number,
  list: number,
  planes: number,
  first: number,
  looks: number,
  deepens: number,
  to: number,
): void {
  for (let x = 0; x < count; x++) {
    let sum = 0;
    for (let n = 0; n < planes; n++) sum += f32[i32[list + n] + first + x];
    f32[to + x] = looks ? sum * (1 + deepens * f32[looks + x]) : sum;
  }
}

/** Film from which the surface of water is level, washes; height of one wash above its bed, um. */
const LEVEL = 0.6;
const RISE_UM = 75;

/** Height of a surface under water, um: it fills the valleys and lies level where it is deep. */
export const underWater = (um: number, film: number): number =>
  um + (film * RISE_UM - um) * Math.min(1, film * (1 / LEVEL));

/**
 * Water on the relief of a run, and its shine in the high byte of the picture's codes.
 * @param film address of the film's depth, washes @param wax address of a plane at the run, or 0
 * @param sheen the high byte of a surface that neither shines nor is dull
 */
export function wetSurface(
  f32: Float32Array,
  i32: Int32Array,
  count: number,
  film: number,
  wax: number,
  relief: number,
  codes: number,
  sheen: number,
): void {
  for (let x = 0; x < count; x++) {
    const depth = f32[film + x];
    if (depth > 0) f32[relief + x] = underWater(f32[relief + x], depth);
    const gloss = (depth > 0 ? Math.min(110, 40 + 120 * depth) : 0) + (wax ? 30 * f32[wax + x] : 0);
    if (gloss > 0) i32[codes + x] = (i32[codes + x] & 0x00ffffff) | ((sheen + Math.min(127, gloss)) << 24);
  }
}
