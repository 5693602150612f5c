import type { Raster } from '@/core/formats/png';
import { iccProfile, type Space } from './iccProfile';

/** Types of fields, TIFF 6.0 section 2. */
const [SHORT, LONG, RATIONAL, UNDEFINED] = [3, 4, 5, 7];
const RATIONAL_BYTES = 8;

/**
 * TIFF 6.0, not packed, little-endian, one strip: for pictures of 16 bits that programs of print shops read.
 * @param raster three or four channels, @param ppi pixels an inch
 */
export function encodeTiff(raster: Raster, ppi: number, space: Space): Uint8Array<ArrayBuffer> {
  const { width, height, channels, data } = raster;
  const bits = data instanceof Uint16Array ? 16 : 8;
  const profile = iccProfile(space);
  const pixels = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
  const fields: (readonly [tag: number, type: number, count: number, value: number | Uint8Array])[] = [
    [256, LONG, 1, width],
    [257, LONG, 1, height],
    [258, SHORT, channels, shorts(Array.from({ length: channels }, () => bits))],
    [259, SHORT, 1, 1], // not packed
    [262, SHORT, 1, 2], // RGB
    [273, LONG, 1, 0], // where the strip is: filled in below
    [277, SHORT, 1, channels],
    [278, LONG, 1, height],
    [279, LONG, 1, pixels.length],
    [282, RATIONAL, 1, rational(ppi)],
    [283, RATIONAL, 1, rational(ppi)],
    [296, SHORT, 1, 2], // inches
    ...(channels === 4 ? [[338, SHORT, 1, 2] as const] : []), // alpha, not multiplied
    [34675, UNDEFINED, profile.length, profile],
  ];
  const directory = 8;
  let free = directory + 2 + 12 * fields.length + 4;
  const beside: [at: number, bytes: Uint8Array][] = [];
  for (const [, , , value] of fields) {
    if (typeof value === 'number') continue;
    beside.push([free, value]);
    free += value.length + (value.length & 1);
  }
  const out = new Uint8Array(free + pixels.length);
  const view = new DataView(out.buffer);
  view.setUint16(0, 0x4949);
  view.setUint16(2, 42, true);
  view.setUint32(4, directory, true);
  view.setUint16(directory, fields.length, true);
  let next = 0;
  fields.forEach(([tag, type, count, value], i) => {
    const at = directory + 2 + 12 * i;
    view.setUint16(at, tag, true);
    view.setUint16(at + 2, type, true);
    view.setUint32(at + 4, count, true);
    if (typeof value !== 'number') view.setUint32(at + 8, beside[next++][0], true);
    else if (tag === 273) view.setUint32(at + 8, free, true);
    else if (type === SHORT) view.setUint16(at + 8, value, true);
    else view.setUint32(at + 8, value, true);
  });
  for (const [at, bytes] of beside) out.set(bytes, at);
  out.set(pixels, free);
  return out;
}

const shorts = (values: readonly number[]) => new Uint8Array(Uint16Array.from(values).buffer);

function rational(value: number): Uint8Array {
  const out = new Uint8Array(RATIONAL_BYTES);
  const view = new DataView(out.buffer);
  view.setUint32(0, Math.round(value * 1000), true);
  view.setUint32(4, 1000, true);
  return out;
}
