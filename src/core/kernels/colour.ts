import { TILE } from '@/core/film/cells';

/**
 * Film over substrate for a block of cells, in every band: the dearest loop of the picture. A block is `rows` rows of
 * `count` cells, TILE words apart in every plane. Everything is given by the word address of its first cell into one
 * memory. These are the plain loops, the oracle of their compiled twins, which may work on cells up to the next multiple
 * of four of a row too.
 */

/** A wet film thinner than this counts as open where wetness and gloss ask how much of a cell it covers, um. */
export const CLOSED_UM = 10;
/**
 * Thinner than a few grains of pigment no film is even: it covers its share of the cell at this thickness, um. Everything
 * else is an even layer after Kubelka and Munk, however thin: that a stroke is broken comes from its thickness, cell by
 * cell, and that dust is comes from how much of a cell it covers.
 */
export const GRAINS_UM = 2;

/**
 * Lays the film of a block over `reflectance` (one plane a band, `bandStride` words apart), in place.
 *
 * @param mass address of the list of mass planes' addresses (coats)
 * @param less address of the list of planes that are taken off `mass` first, or 0: the part that lies on top
 * @param thickness the film's thickness, um
 * @param lessThickness plane that is taken off it first, or 0
 * @param tables absorption and scattering a coat: for each band, for each plane, K and S
 */
export function filmOver(
  f32: Float32Array,
  i32: Int32Array,
  count: number,
  rows: number,
  mass: number,
  less: number,
  planes: number,
  thickness: number,
  lessThickness: number,
  tables: number,
  bands: number,
  reflectance: number,
  bandStride: number,
): void {
  for (let row = 0; row < rows; row++) {
    for (let x = row * TILE; x < row * TILE + count; x++) {
      const um = lessThickness ? f32[thickness + x] - f32[lessThickness + x] : f32[thickness + x];
      if (um <= 0) continue;
      const cover = um < GRAINS_UM ? um / GRAINS_UM : 1;
      const thicken = 1 / cover;
      for (let b = 0, j = tables; b < bands; b++) {
        let A = 0;
        let S = 0;
        for (let k = 0; k < planes; k++, j += 2) {
          const whole = f32[i32[mass + k] + x];
          const m = (less ? Math.max(0, whole - f32[i32[less + k] + x]) : whole) * thicken;
          A += m * f32[j];
          S += m * f32[j + 1];
        }
        const at = reflectance + b * bandStride + x;
        const Rg = f32[at];
        const q = A * (A + S + S);
        const p = 1 + q * (0.332777959 + q * (0.0457631785 + q * (0.00243847915 + q * 0.00026247427)));
        const c = Math.sqrt(q + 1 / p);
        const alpha = A + S;
        const R = (S - Rg * (alpha - c)) / (alpha - Rg * S + c);
        f32[at] = Rg + (R - Rg) * cover;
      }
    }
  }
}

/** Steps of the table that turns linear light into sRGB codes. */
export const CODE_STEPS = 8191;

/**
 * Internal reflectance of a block to sRGB codes (0xffBBGGRR), rows `outRow` words apart.
 * @param matrix band to linear sRGB, r, g, b for each band, with Saunderson's numerator folded in
 * @param offset what every channel starts from (the veil)
 * @param k2 Saunderson's inner reflection
 * @param codes byte address of the table of `steps` + 1 sRGB codes
 */
export function bandsToCodes(
  f32: Float32Array,
  u32: Uint32Array,
  u8: Uint8Array,
  count: number,
  rows: number,
  reflectance: number,
  bandStride: number,
  bands: number,
  matrix: number,
  offset: number,
  k2: number,
  codes: number,
  steps: number,
  out: number,
  outRow: number,
): void {
  const step = (v: number) => (v <= 0 ? 0 : v >= 1 ? steps : (v * steps + 0.5) | 0);
  for (let row = 0; row < rows; row++) {
    for (let x = row * TILE; x < row * TILE + count; x++) {
      let r = offset;
      let g = offset;
      let b = offset;
      for (let k = 0, j = matrix; k < bands; k++, j += 3) {
        const R = f32[reflectance + k * bandStride + x];
        const q = R / (1 - k2 * R);
        r += q * f32[j];
        g += q * f32[j + 1];
        b += q * f32[j + 2];
      }
      u32[out + row * (outRow - TILE) + x] =
        (u8[codes + step(r)] | (u8[codes + step(g)] << 8) | (u8[codes + step(b)] << 16) | 0xff000000) >>> 0;
    }
  }
}

/**
 * Internal reflectance of a block to linear sRGB and to its encoded values, planes of red, green and blue `bandStride`
 * words apart.
 * @param matrix, offset, k2 see `bandsToCodes`
 * @param table word address of the transfer curve at the squares of `steps` + 2 even places; between them it is
 *   interpolated
 */
export function bandsToColours(
  f32: Float32Array,
  count: number,
  rows: number,
  reflectance: number,
  bandStride: number,
  bands: number,
  matrix: number,
  offset: number,
  k2: number,
  table: number,
  steps: number,
  linear: number,
  encoded: number,
): void {
  for (let row = 0; row < rows; row++) {
    for (let x = row * TILE; x < row * TILE + count; x++) {
      for (let c = 0; c < 3; c++) {
        let v = offset;
        for (let k = 0, j = matrix + c; k < bands; k++, j += 3) {
          const R = f32[reflectance + k * bandStride + x];
          v += (R / (1 - k2 * R)) * f32[j];
        }
        const at = c * bandStride + x;
        f32[linear + at] = v;
        const t = Math.sqrt(Math.max(0, Math.min(1, v))) * steps;
        const i = t | 0;
        const low = f32[table + i];
        f32[encoded + at] = low + (t - i) * (f32[table + i + 1] - low);
      }
    }
  }
}
