import { fractalNoise, noise2 } from './noise';

/** Depth of the brushed gesso, um. */
const DEPTH_UM = 55;

/** Fills `um` (size x size, periodic) with a gessoed panel: brushed in crossed passes, then lightly sanded. */
export function panel(um: Float32Array, size: number, patchMm: number, seed: number): void {
  const per = (mm: number) => Math.max(1, Math.round(patchMm / mm));
  const [long, short, fine, broad] = [per(9), per(0.5), per(0.35), per(12)];
  for (let y = 0; y < size; y++) {
    const v = (y + 0.5) / size;
    for (let x = 0; x < size; x++) {
      const u = (x + 0.5) / size;
      const across = noise2(u * long, v * short, seed + 1, long, short);
      const down = noise2(u * short, v * long, seed + 3, short, long);
      const where = fractalNoise(u * broad, v * broad, seed + 4, 2, broad, broad);
      const dust = noise2(u * fine, v * fine, seed + 6, fine, fine);
      const swell = fractalNoise(u * broad, v * broad, seed + 8, 3, broad, broad);
      let h = 0.8 * across * (0.4 + where) + 0.28 * down * (1.3 - where) + 0.16 * dust + 0.4 * swell;
      if (h > 0.95) h = 0.95 + (h - 0.95) * 0.5; // sanding takes the tops down
      um[y * size + x] = h * DEPTH_UM;
    }
  }
}
