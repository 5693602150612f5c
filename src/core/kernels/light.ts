/**
 * What blend modes, pixels and adjustments do to the encoded colours of a block of cells (see colour.ts): planes of red,
 * green and blue, `stride` words apart. These are the plain loops, the oracle of their compiled twins, which may work on
 * cells up to the next multiple of four of a row too.
 */
import { TILE } from '@/core/film/cells';

/** Blend modes that have a loop, by their place here: what painters use most. */
export const LOOPED_BLENDS = ['normal', 'multiply', 'screen', 'soft-light'] as const;

const BYTE = 1 / 255;

/** W3C Compositing and Blending 1, section 9.1. */
function softLight(b: number, s: number): number {
  if (s <= 0.5) return b - (1 - 2 * s) * b * (1 - b);
  const d = b <= 0.25 ? ((16 * b - 12) * b + 4) * b : Math.sqrt(b);
  return b + (2 * s - 1) * (d - b);
}

/**
 * Composites pixels (0xAABBGGRR) over opaque colours in place: co = (1 - as) cb + as B(cb, cs).
 * @param mode place in `LOOPED_BLENDS` @param shares plane of a share of each pixel, or 0 @param opacity share of all
 */
export function blendPixels(
  f32: Float32Array,
  u32: Uint32Array,
  count: number,
  rows: number,
  mode: number,
  rgb: number,
  stride: number,
  pixels: number,
  shares: number,
  opacity: number,
): void {
  for (let row = 0; row < rows; row++) {
    for (let x = row * TILE; x < row * TILE + count; x++) {
      const v = u32[pixels + x];
      const alpha = (v >>> 24) * BYTE * (shares ? opacity * f32[shares + x] : opacity);
      for (let c = 0; c < 3; c++) {
        const at = rgb + c * stride + x;
        const b = f32[at];
        const s = ((v >>> (8 * c)) & 255) * BYTE;
        const blended = mode === 0 ? s : mode === 1 ? b * s : mode === 2 ? b + s - b * s : softLight(b, s);
        f32[at] = b + alpha * (blended - b);
      }
    }
  }
}

/**
 * Sends each channel through a table of its own, in place; between its places it is interpolated.
 * @param tables three tables of `steps` + 2 values, one after the other
 */
export function throughTables(
  f32: Float32Array,
  count: number,
  rows: number,
  rgb: number,
  stride: number,
  tables: number,
  steps: number,
): void {
  for (let c = 0; c < 3; c++) {
    const table = tables + c * (steps + 2);
    for (let row = 0; row < rows; row++) {
      for (let x = row * TILE; x < row * TILE + count; x++) {
        const at = rgb + c * stride + x;
        const t = Math.max(0, Math.min(1, f32[at])) * steps;
        const i = t | 0;
        const low = f32[table + i];
        f32[at] = low + (t - i) * (f32[table + i + 1] - low);
      }
    }
  }
}

/** Codes (0xffBBGGRR) of colours, rows `outRow` words apart; nothing is written beyond them. */
export function coloursToCodes(
  f32: Float32Array,
  u32: Uint32Array,
  count: number,
  rows: number,
  rgb: number,
  stride: number,
  out: number,
  outRow: number,
): void {
  for (let row = 0; row < rows; row++) {
    for (let x = row * TILE; x < row * TILE + count; x++) {
      const r = (f32[rgb + x] * 255 + 0.5) | 0;
      const g = (f32[rgb + stride + x] * 255 + 0.5) | 0;
      const b = (f32[rgb + 2 * stride + x] * 255 + 0.5) | 0;
      u32[out + row * (outRow - TILE) + x] = (r | (g << 8) | (b << 16) | 0xff000000) >>> 0;
    }
  }
}
