import { decodeSrgb, encodeSrgb } from '@/core/colour/colorimetry';

/**
 * Values only: the grey of the same luminance (the Y of CIE XYZ) as a colour. Luminance weights are those of the
 * sRGB primaries (IEC 61966-2-1).
 */
const linear = Float32Array.from({ length: 256 }, (_, i) => decodeSrgb(i / 255));
const STEPS = 4095;
const codes = Uint8Array.from({ length: STEPS + 1 }, (_, i) => Math.round(255 * encodeSrgb(i / STEPS)));

/** Grey of a packed sRGB colour (0xAABBGGRR), packed alike. */
export function greyOfCode(code: number): number {
  const y = 0.2126 * linear[code & 255] + 0.7152 * linear[(code >>> 8) & 255] + 0.0722 * linear[(code >>> 16) & 255];
  const g = codes[(y * STEPS + 0.5) | 0];
  return ((code & 0xff000000) | (g << 16) | (g << 8) | g) >>> 0;
}
