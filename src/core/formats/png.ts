import { encode } from 'fast-png';
import { zlibSync } from 'fflate';
import { iccProfile, SPACES, type Space } from './pictures/iccProfile';

/** A raster to be written as PNG; 8-bit codes, or 16-bit numbers most significant byte last (as in memory). */
export interface Raster {
  readonly width: number;
  readonly height: number;
  readonly channels: 1 | 3 | 4;
  readonly data: Uint8Array | Uint16Array;
}

const SIGNATURE_AND_HEADER = 8 + 25;

/**
 * PNG (third edition) with the resolution in a pHYs chunk and, for colour, what space it is in: an sRGB chunk (perceptual
 * intent), or cICP and iCCP chunks.
 * @param ppi pixels an inch
 */
export function encodePng(raster: Raster, ppi: number, space: Space = 'srgb'): Uint8Array<ArrayBuffer> {
  const { width, height, channels, data } = raster;
  const png = encode({ width, height, channels, depth: data instanceof Uint16Array ? 16 : 8, data });
  const perMetre = Math.round(ppi / 0.0254);
  const physical = new Uint8Array(9);
  const view = new DataView(physical.buffer);
  view.setUint32(0, perMetre);
  view.setUint32(4, perMetre);
  physical[8] = 1; // the unit is the metre
  const extra = [...(channels >= 3 ? spaceChunks(space) : []), chunk('pHYs', physical)];
  const out = new Uint8Array(png.length + extra.reduce((sum, c) => sum + c.length, 0));
  out.set(png.subarray(0, SIGNATURE_AND_HEADER));
  let at = SIGNATURE_AND_HEADER;
  for (const c of extra) {
    out.set(c, at);
    at += c.length;
  }
  out.set(png.subarray(SIGNATURE_AND_HEADER), at);
  return out;
}

/** Primaries of Display P3 and the curve of sRGB as ITU-T H.273 numbers them; whole range. */
const P3_CODES = Uint8Array.of(12, 13, 0, 1);

function spaceChunks(space: Space): Uint8Array[] {
  if (space === 'srgb') return [chunk('sRGB', Uint8Array.of(0))];
  const name = Uint8Array.from(SPACES[space], (c) => c.charCodeAt(0));
  const packed = zlibSync(iccProfile(space));
  // a name, its end, the method of compression
  const profile = new Uint8Array(name.length + 2 + packed.length);
  profile.set(name);
  profile.set(packed, name.length + 2);
  return [chunk('cICP', P3_CODES), chunk('iCCP', profile)];
}

function chunk(type: string, data: Uint8Array): Uint8Array {
  const out = new Uint8Array(12 + data.length);
  const view = new DataView(out.buffer);
  view.setUint32(0, data.length);
  for (let i = 0; i < 4; i++) out[4 + i] = type.charCodeAt(i);
  out.set(data, 8);
  view.setUint32(8 + data.length, crc32(out.subarray(4, 8 + data.length)));
  return out;
}

/** CRC of the PNG standard, annex D. */
function crc32(bytes: Uint8Array): number {
  let crc = 0xffffffff;
  for (const byte of bytes) {
    crc ^= byte;
    for (let k = 0; k < 8; k++) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  }
  return (crc ^ 0xffffffff) >>> 0;
}
