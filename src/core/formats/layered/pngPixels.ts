import { convertIndexedToRgb, decode } from 'fast-png';

const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];

/** What a PNG says of its size, before any of it is unpacked; undefined where it is none. */
export function pngSize(bytes: Uint8Array): { readonly width: number; readonly height: number } | undefined {
  if (bytes.length < 24 || !SIGNATURE.every((byte, i) => bytes[i] === byte)) return undefined;
  const view = new DataView(bytes.buffer, bytes.byteOffset);
  const [width, height] = [view.getUint32(16), view.getUint32(20)];
  return width > 0 && height > 0 ? { width, height } : undefined;
}

/** The pixels of a PNG of any kind as RGBA of 8 bits; undefined where it is damaged. */
export function pngPixels(bytes: Uint8Array): { width: number; height: number; rgba: Uint8Array } | undefined {
  try {
    const png = decode(bytes, { checkCrc: true });
    const { width, height, depth } = png;
    const indexed = png.palette !== undefined;
    const channels = indexed ? (png.palette![0]?.length ?? 3) : png.channels;
    const data = indexed ? convertIndexedToRgb(png) : png.data;
    const eight = depth === 16 ? (v: number) => v >>> 8 : (v: number) => v;
    const rgba = new Uint8Array(width * height * 4);
    const grey = channels < 3;
    for (let i = 0; i < width * height; i++) {
      for (let c = 0; c < 3; c++) rgba[4 * i + c] = eight(data[i * channels + (grey ? 0 : c)]);
      rgba[4 * i + 3] = channels % 2 === 0 ? eight(data[i * channels + channels - 1]) : 255;
    }
    return { width, height, rgba };
  } catch {
    return undefined;
  }
}
