/**
 * Light on the relief: one lamp from the side, light of the room from everywhere, a short cast shadow, and the gloss
 * of wet paint. Heights are in um, turned into cells by `scale`.
 */
export interface LightVectors {
  /** Unit vector towards the lamp, in picture coordinates (y down). */
  x: number;
  y: number;
  z: number;
  /** Half way between lamp and eye. */
  hx: number;
  hy: number;
  hz: number;
  /** Share of the light that comes from the room. */
  room: number;
  /** Darkness of cast shadows, 0..1. */
  shadow: number;
  /** Strength of the gloss. */
  gloss: number;
}

/**
 * Relights cells [x0, x1) x [y0, y1) of a picture `width` x `height`.
 * @param albedo word address of unlit sRGB codes (0xAABBGGRR; alpha = gloss 0..255)
 * @param relief word address of total heights, um
 * @param lit word address of the result
 * @param linear 256 linear values of the codes; `codes` the table back, `steps` its last index
 */
export function relight(
  f32: Float32Array,
  u32: Uint32Array,
  width: number,
  height: number,
  albedo: number,
  relief: number,
  lit: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  scale: number,
  light: LightVectors,
  linear: Float32Array,
  codes: Uint8Array,
  steps: number,
): void {
  const { x: lx, y: ly, z: lz, hx, hy, hz, room, shadow, gloss } = light;
  // the shadow is looked for along four steps towards the lamp
  const flatNorm = Math.hypot(lx, ly) || 1;
  const rise = lz / flatNorm;
  const reachX = lx / flatNorm;
  const reachY = ly / flatNorm;
  for (let y = y0; y < y1; y++) {
    const up = y > 0 ? -width : 0;
    const down = y < height - 1 ? width : 0;
    for (let x = x0; x < x1; x++) {
      const cell = y * width + x;
      const h = relief + cell;
      const l = x > 0 ? -1 : 0;
      const r = x < width - 1 ? 1 : 0;
      const gx =
        ((f32[h + r] - f32[h + l]) * 0.375 +
          (f32[h + down + r] - f32[h + down + l] + f32[h + up + r] - f32[h + up + l]) * 0.0625) *
        scale;
      const gy =
        ((f32[h + down] - f32[h + up]) * 0.375 +
          (f32[h + down + r] - f32[h + up + r] + f32[h + down + l] - f32[h + up + l]) * 0.0625) *
        scale;
      const inverse = 1 / Math.sqrt(gx * gx + gy * gy + 1);
      let facing = (lz - gx * lx - gy * ly) * inverse;
      if (facing < 0) facing = 0;
      let over = 0;
      const here = f32[h];
      for (let k = 1; k <= 4; k++) {
        const far = k + (k >> 1);
        const sx = x + Math.round(reachX * far);
        const sy = y + Math.round(reachY * far);
        if (sx < 0 || sy < 0 || sx >= width || sy >= height) break;
        const above = (f32[relief + sy * width + sx] - here) * scale - far * rise;
        if (above > over) over = above;
      }
      const lightHere = 1 - shadow * Math.min(1, over * 1.6);
      const diffuse = room * (0.5 + 0.5 * inverse) + (1 - room) * (facing / lz) * lightHere;
      const v = u32[albedo + cell];
      let shine = 0;
      if (gloss > 0) {
        const nh = (hz - gx * hx - gy * hy) * inverse;
        // (n.h)^32, less what a flat surface shows
        let s = nh > 0 ? nh * nh : 0;
        let flat = hz * hz;
        for (let k = 0; k < 4; k++) {
          s *= s;
          flat *= flat;
        }
        shine = gloss * ((v >>> 24) / 255) * Math.max(0, s - flat) * lightHere;
      }
      let code = 0xff000000;
      for (let c = 0; c < 24; c += 8) {
        const a = linear[(v >>> c) & 255];
        // bright paint lightens its own shadows
        const d = diffuse < 1 ? diffuse + (1 - diffuse) * 0.18 * a : diffuse;
        const out = a * d + shine;
        code |= codes[out >= 1 ? steps : (out * steps + 0.5) | 0] << c;
      }
      u32[lit + cell] = code >>> 0;
    }
  }
}
