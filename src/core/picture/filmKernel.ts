import { K2 } from '@/core/colour/kubelkaMunk';

/**
 * Film over substrate for a run of cells, in every band: the dearest loop of the picture. Planes are word addresses
 * into one memory, so that a compiled twin can have the same signature.
 */

/** A film thinner than this does not close: it covers its share of the cell at this thickness, um. */
export const CLOSED_UM = 10;

/**
 * Lays the film of a run of `count` cells over `reflectance` (one plane a band, `bandStride` words apart), in place.
 *
 * @param mass word addresses of the mass planes, already at the run's first cell
 * @param massUnit coats of one step, for each plane (1 where planes are float32 coats)
 * @param thickness word address of the film's thickness, um
 * @param K absorption of the planes' pigments: `K[band * planes + plane]`; S likewise
 */
export function filmOver(
  f32: Float32Array,
  count: number,
  mass: Int32Array,
  planes: number,
  thickness: number,
  K: Float64Array,
  S: Float64Array,
  bands: number,
  reflectance: number,
  bandStride: number,
): void {
  for (let x = 0; x < count; x++) {
    const um = f32[thickness + x];
    if (um <= 0) continue;
    const cover = um < CLOSED_UM ? um / CLOSED_UM : 1;
    const thicken = cover < 1 ? 1 / cover : 1;
    for (let i = 0; i < planes; i++) coats[i] = f32[mass[i] + x] * thicken;
    for (let b = 0, j = 0; b < bands; b++) {
      let A = 0;
      let s = 0;
      for (let i = 0; i < planes; i++, j++) {
        const m = coats[i];
        A += m * K[j];
        s += m * S[j];
      }
      const at = reflectance + b * bandStride + x;
      const Rg = f32[at];
      const q = A * (A + s + s);
      const p = 1 + q * (0.332777959 + q * (0.0457631785 + q * (0.00243847915 + q * 0.00026247427)));
      const c = Math.sqrt(q + 1 / p);
      const alpha = A + s;
      const R = (s - Rg * (alpha - c)) / (alpha - Rg * s + c);
      f32[at] = Rg + (R - Rg) * cover;
    }
  }
}

const coats = new Float64Array(64);

/** Steps of the table that turns linear light into sRGB codes. */
export const CODE_STEPS = 8191;

/**
 * Internal reflectance of a run to sRGB codes.
 * @param matrix band to linear sRGB, `[band * 3 + channel]`, with Saunderson's constants folded in
 * @param offset what every channel starts from (the veil)
 * @param codes table of CODE_STEPS + 1 sRGB codes
 * @param alpha goes into the high byte
 */
export function bandsToCodes(
  f32: Float32Array,
  u32: Uint32Array,
  count: number,
  reflectance: number,
  bandStride: number,
  bands: number,
  matrix: Float64Array,
  offset: number,
  codes: Uint8Array,
  out: number,
): void {
  for (let x = 0; x < count; x++) {
    let r = offset;
    let g = offset;
    let b = offset;
    for (let k = 0, j = 0; k < bands; k++, j += 3) {
      const R = f32[reflectance + k * bandStride + x];
      const q = R / (1 - K2 * R);
      r += q * matrix[j];
      g += q * matrix[j + 1];
      b += q * matrix[j + 2];
    }
    const ri = r <= 0 ? 0 : r >= 1 ? CODE_STEPS : (r * CODE_STEPS + 0.5) | 0;
    const gi = g <= 0 ? 0 : g >= 1 ? CODE_STEPS : (g * CODE_STEPS + 0.5) | 0;
    const bi = b <= 0 ? 0 : b >= 1 ? CODE_STEPS : (b * CODE_STEPS + 0.5) | 0;
    u32[out + x] = (codes[ri] | (codes[gi] << 8) | (codes[bi] << 16) | 0xff000000) >>> 0;
  }
}
