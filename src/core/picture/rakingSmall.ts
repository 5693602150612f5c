import type { Painting } from '@/core/film/painting';
import { thicknessAt } from './aids/thickness';

/** Slope that is fully lit or in shadow, seen from so far: a rise of this share of a pixel. */
const STEEP = 0.06;

/** The relief of a whole painting, small, in raking light from the upper left: RGBA. Paint only, without the ground. */
export function rakingSmall(painting: Painting, width: number, height: number): Uint8ClampedArray<ArrayBuffer> {
  const cell = (v: number, of: number, cells: number) => Math.min(cells - 1, Math.floor(((v + 0.5) / of) * cells));
  const um = new Float32Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      um[y * width + x] = thicknessAt(painting, cell(x, width, painting.width), cell(y, height, painting.height));
  const steep = STEEP * ((1000 * painting.mmPerPx * painting.width) / width);
  const out = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const rise = um[i] - um[Math.max(0, y - 1) * width + Math.max(0, x - 1)];
      const light = 128 + 110 * Math.max(-1, Math.min(1, rise / steep));
      out.set([light, light, light, 255], 4 * i);
    }
  }
  return out;
}
