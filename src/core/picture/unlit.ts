import type { Painting } from '@/core/film/painting';
import type { PixelRect } from '@/core/film/pixelRect';
import { codeOf, isThere, LINEAR, type CodeImage } from '@/core/study/looking/image';
import { thicknessAt } from './aids/thickness';
import { albedoOf } from './layers/albedo';
import type { Picture } from './picture';

/** A part of a painting, in shares of its width and height. */
export interface Crop {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}
export const WHOLE: Crop = { x: 0, y: 0, width: 1, height: 1 };

/** Cells of a part: at least one. */
function cellsOf({ width, height }: Painting, crop: Crop): PixelRect {
  const left = Math.max(0, Math.min(width - 1, Math.floor(crop.x * width)));
  const top = Math.max(0, Math.min(height - 1, Math.floor(crop.y * height)));
  return {
    left,
    top,
    right: Math.max(left + 1, Math.min(width, Math.round((crop.x + crop.width) * width))),
    bottom: Math.max(top + 1, Math.min(height, Math.round((crop.y + crop.height) * height))),
  };
}

/**
 * A painting, or a part of it, without light and relief, small: cells are averaged in linear light.
 * @param wide, high pixels, in the proportions of the part to one of them; where it has fewer cells, these are repeated
 */
export function unlitSmall(painting: Painting, wide: number, high: number, crop = WHOLE): CodeImage {
  const rect = cellsOf(painting, crop);
  const [width, height] = [rect.right - rect.left, rect.bottom - rect.top];
  const across = width / wide;
  const part = albedoOf(painting).raster(rect);
  const sums = new Float32Array(wide * high * 4);
  each(wide, high, width, height, (pixel, cell) => {
    const code = part[cell];
    if (!isThere(code)) return;
    sums[4 * pixel] += LINEAR[code & 255];
    sums[4 * pixel + 1] += LINEAR[(code >>> 8) & 255];
    sums[4 * pixel + 2] += LINEAR[(code >>> 16) & 255];
    sums[4 * pixel + 3]++;
  });
  const codes = new Uint32Array(wide * high);
  for (let i = 0; i < codes.length; i++) {
    const n = sums[4 * i + 3];
    if (n === 0) continue;
    const c = (k: number) => codeOf(sums[4 * i + k] / n);
    codes[i] = (0xff000000 | (c(2) << 16) | (c(1) << 8) | c(0)) >>> 0;
  }
  return { codes, width: wide, height: high, mmPerPx: painting.mmPerPx * across };
}

/** Cells that are looked at for a pixel of a glance, across and down. */
const GLANCES = 4;

/** The colours of a whole picture, small, from its raster: as exact as a glance. @param wide, high pixels */
export function unlitGlance({ painting, albedo }: Picture, wide: number, high: number): CodeImage {
  const { arena, width, height, mmPerPx } = painting;
  const codes = new Uint32Array(wide * high);
  const sum = [0, 0, 0];
  for (let i = 0; i < codes.length; i++) {
    const [column, row] = [i % wide, Math.floor(i / wide)];
    sum.fill(0);
    for (let k = 0; k < GLANCES * GLANCES; k++) {
      const x = Math.floor(((column + ((k % GLANCES) + 0.5) / GLANCES) * width) / wide);
      const y = Math.floor(((row + (Math.floor(k / GLANCES) + 0.5) / GLANCES) * height) / high);
      const code = arena.u32[albedo + y * width + x];
      for (let c = 0; c < 3; c++) sum[c] += LINEAR[(code >>> (8 * c)) & 255];
    }
    const [r, g, b] = sum.map((light) => codeOf(light / (GLANCES * GLANCES)));
    codes[i] = (0xff000000 | (b << 16) | (g << 8) | r) >>> 0;
  }
  return { codes, width: wide, height: high, mmPerPx: (mmPerPx * width) / wide };
}

/** Thickness of all paint, um, in as many pixels: the mean of their cells. */
export function thicknessSmall(painting: Painting, wide: number, high: number, crop = WHOLE): Float32Array {
  const rect = cellsOf(painting, crop);
  const [width, height] = [rect.right - rect.left, rect.bottom - rect.top];
  const sums = new Float32Array(wide * high);
  const counts = new Float32Array(wide * high);
  each(wide, high, width, height, (pixel, cell) => {
    const y = Math.floor(cell / width);
    sums[pixel] += thicknessAt(painting, rect.left + cell - y * width, rect.top + y);
    counts[pixel]++;
  });
  return sums.map((sum, i) => sum / Math.max(1, counts[i]));
}

/** Each cell with the pixel that it belongs to; where there are more pixels than cells, each pixel with its cell. */
function each(
  wide: number,
  high: number,
  width: number,
  height: number,
  see: (pixel: number, cell: number) => void,
): void {
  const more = wide > width || high > height;
  const [columns, rows] = more ? [wide, high] : [width, height];
  for (let y = 0; y < rows; y++) {
    const row = more ? y : Math.min(high - 1, Math.floor((y * high) / height));
    const from = more ? Math.min(height - 1, Math.floor((y * height) / high)) : y;
    for (let x = 0; x < columns; x++) {
      const pixel = more ? x : Math.min(wide - 1, Math.floor((x * wide) / width));
      const cell = more ? Math.min(width - 1, Math.floor((x * width) / wide)) : x;
      see(row * wide + pixel, from * width + cell);
    }
  }
}
