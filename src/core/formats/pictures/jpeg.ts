import { encode } from 'jpeg-js';
import type { Raster } from '@/core/formats/png';
import { iccProfile, type Space } from './iccProfile';

/** Bytes of a segment's marker and length. */
const SEGMENT = 4;
const PROFILE_NAME = 'ICC_PROFILE\0';

/**
 * JPEG (ISO/IEC 10918-1) with its resolution (JFIF) and profile (ICC.1:2022, annex B.4).
 * @param raster three channels of 8 bits, @param quality 1..100, @param ppi pixels an inch
 */
export function encodeJpeg(raster: Raster, quality: number, ppi: number, space: Space): Uint8Array<ArrayBuffer> {
  const { width, height, data } = raster;
  const rgba = new Uint8Array(width * height * 4).fill(255);
  for (let i = 0; i < width * height; i++) for (let c = 0; c < 3; c++) rgba[4 * i + c] = data[3 * i + c];
  const plain = encode({ data: rgba, width, height }, quality).data;
  const jfif = segment(0xe0, [...'JFIF\0'].map(code).concat([1, 2, 1, ppi >> 8, ppi & 255, ppi >> 8, ppi & 255, 0, 0]));
  const profile = segment(0xe2, [...[...PROFILE_NAME].map(code), 1, 1, ...iccProfile(space)]);
  // its own JFIF segment, which says nothing of the size, comes right after the two bytes of the beginning
  const rest = 2 + 2 + ((plain[SEGMENT] << 8) | plain[SEGMENT + 1]);
  const out = new Uint8Array(2 + jfif.length + profile.length + plain.length - rest);
  out.set(plain.subarray(0, 2));
  out.set(jfif, 2);
  out.set(profile, 2 + jfif.length);
  out.set(plain.subarray(rest), 2 + jfif.length + profile.length);
  return out;
}

const code = (c: string) => c.charCodeAt(0);

function segment(marker: number, content: readonly number[]): Uint8Array {
  const length = content.length + 2;
  return Uint8Array.from([0xff, marker, length >> 8, length & 255, ...content]);
}

/** Qualities that are tried for a size: each step halves what is left to know. */
const STEPS = 6;
const LEAST_QUALITY = 5;

/**
 * The best JPEG of at most so many bytes.
 * @returns undefined where even the poorest is larger
 */
export function jpegWithin(
  raster: Raster,
  most: number,
  quality: number,
  ppi: number,
  space: Space,
): Uint8Array<ArrayBuffer> | undefined {
  const best = encodeJpeg(raster, quality, ppi, space);
  if (best.length <= most) return best;
  let found: Uint8Array<ArrayBuffer> | undefined;
  let [low, high] = [LEAST_QUALITY, quality];
  for (let step = 0; step < STEPS && low <= high; step++) {
    const tried = Math.floor((low + high) / 2);
    const bytes = encodeJpeg(raster, tried, ppi, space);
    if (bytes.length <= most) {
      found = bytes;
      low = tried + 1;
    } else high = tried - 1;
  }
  return found;
}
