import type { Painting } from '@/core/film/painting';
import { thicknessAt } from './aids/thickness';

/** Cells that are looked at for a pixel, across and down. */
const SAMPLES = 4;
/** Slope that is fully lit or in shadow, seen from so far: a rise of this share of a pixel. */
const STEEP = 0.1;

/** The relief of a whole painting, small, in raking light from the upper left: RGBA. Paint only, without the ground. */
export function rakingSmall(painting: Painting, width: number, height: number): Uint8ClampedArray<ArrayBuffer> {
  const um = new Float32Array(width * height);
  const columns = SAMPLES * width;
  const rows = SAMPLES * height;
  for (let row = 0; row < rows; row++) {
    const y = Math.min(painting.height - 1, Math.floor(((row + 0.5) / rows) * painting.height));
    const line = Math.floor(row / SAMPLES) * width;
    for (let column = 0; column < columns; column++) {
      const x = Math.min(painting.width - 1, Math.floor(((column + 0.5) / columns) * painting.width));
      um[line + Math.floor(column / SAMPLES)] += thicknessAt(painting, x, y) / (SAMPLES * SAMPLES);
    }
  }
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
