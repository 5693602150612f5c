import type { Painting } from '@/core/film/painting';
import { wholeRect } from '@/core/film/tilesIn';
import { codeOf, isThere, LINEAR, type CodeImage } from '@/core/study/looking/image';
import { albedoOf } from './layers/albedo';

/**
 * The whole painting without light and relief, small: cells are averaged in linear light.
 * @param wide, high pixels, in the proportions of the painting to one of them; no more than there are cells
 */
export function unlitSmall(painting: Painting, wide: number, high: number): CodeImage {
  const across = painting.width / wide;
  const down = painting.height / high;
  const whole = albedoOf(painting).raster(wholeRect(painting));
  const sums = new Float32Array(wide * high * 4);
  for (let y = 0; y < painting.height; y++) {
    const row = Math.min(high - 1, Math.floor(y / down)) * wide;
    for (let x = 0; x < painting.width; x++) {
      const code = whole[y * painting.width + x];
      if (!isThere(code)) continue;
      const at = 4 * (row + Math.min(wide - 1, Math.floor(x / across)));
      sums[at] += LINEAR[code & 255];
      sums[at + 1] += LINEAR[(code >>> 8) & 255];
      sums[at + 2] += LINEAR[(code >>> 16) & 255];
      sums[at + 3]++;
    }
  }
  const codes = new Uint32Array(wide * high);
  for (let i = 0; i < codes.length; i++) {
    const n = sums[4 * i + 3];
    if (n === 0) continue;
    const c = (k: number) => codeOf(sums[4 * i + k] / n);
    codes[i] = (0xff000000 | (c(2) << 16) | (c(1) << 8) | c(0)) >>> 0;
  }
  return { codes, width: wide, height: high, mmPerPx: painting.mmPerPx * across };
}
