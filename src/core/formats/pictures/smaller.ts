import { decodeSrgb } from '@/core/colour/colorimetry';
import type { Raster } from '@/core/formats/png';
import { encodeCurve } from './iccProfile';

const LINEAR = Float32Array.from({ length: 256 }, (_, i) => decodeSrgb(i / 255));
/** How much of the difference from its surroundings is added when a picture is sharpened. */
const SHARPEN = 0.45;

/**
 * A picture whose longest side has at most so many pixels: each is the mean of the light of what it covers.
 * @param raster three channels of 8 bits @param sharp whether edges are made up for what shrinking took of them
 */
export function smaller(raster: Raster, longest: number, sharp: boolean): Raster {
  const scale = Math.min(1, longest / Math.max(raster.width, raster.height));
  const width = Math.max(1, Math.round(raster.width * scale));
  const height = Math.max(1, Math.round(raster.height * scale));
  const linear = shrunkAlong(
    shrunkAlong(lightOf(raster), raster.width, raster.height, width),
    raster.height,
    width,
    height,
  );
  // both ways were turned over: rows are rows again
  const data = new Uint8Array(width * height * 3);
  const encoded = linear.map((v) => encodeCurve(v));
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      for (let c = 0; c < 3; c++) {
        const i = 3 * (y * width + x) + c;
        let v = encoded[i];
        if (sharp && scale < 1) v += SHARPEN * (v - around(encoded, width, height, x, y, c));
        data[i] = Math.round(255 * Math.min(1, Math.max(0, v)));
      }
    }
  }
  return { width, height, channels: 3, data };
}

function lightOf({ width, height, data }: Raster): Float32Array {
  const out = new Float32Array(width * height * 3);
  for (let i = 0; i < out.length; i++) out[i] = LINEAR[data[i]];
  return out;
}

/** Shrinks rows to `to` pixels by exact areas, and turns the picture over its diagonal. */
function shrunkAlong(from: Float32Array, width: number, height: number, to: number): Float32Array {
  const out = new Float32Array(to * height * 3);
  const step = width / to;
  for (let x = 0; x < to; x++) {
    const [left, right] = [x * step, (x + 1) * step];
    for (let sx = Math.floor(left); sx < Math.min(width, Math.ceil(right)); sx++) {
      const share = (Math.min(right, sx + 1) - Math.max(left, sx)) / step;
      for (let y = 0; y < height; y++) {
        for (let c = 0; c < 3; c++) out[3 * (x * height + y) + c] += share * from[3 * (y * width + sx) + c];
      }
    }
  }
  return out;
}

/** Mean of a pixel and its eight neighbours; beyond the rim the rim goes on. */
function around(values: Float32Array, width: number, height: number, x: number, y: number, c: number): number {
  let sum = 0;
  for (let dy = -1; dy <= 1; dy++) {
    const row = Math.min(height - 1, Math.max(0, y + dy)) * width;
    for (let dx = -1; dx <= 1; dx++) sum += values[3 * (row + Math.min(width - 1, Math.max(0, x + dx))) + c];
  }
  return sum / 9;
}
