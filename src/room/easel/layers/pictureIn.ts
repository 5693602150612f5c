import { zlibSync } from 'fflate';

/** Longest side at which a picture is taken in, pixels. */
export const MOST_PX = 3400;

/** Pixels of a bitmap, no larger than needed. The bitmap is closed. */
export function pixelsOf(bitmap: ImageBitmap, most = MOST_PX): ImageData {
  const scale = Math.min(1, most / Math.max(bitmap.width, bitmap.height));
  const [width, height] = [
    Math.max(1, Math.round(bitmap.width * scale)),
    Math.max(1, Math.round(bitmap.height * scale)),
  ];
  const context = new OffscreenCanvas(width, height).getContext('2d')!;
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return context.getImageData(0, 0, width, height);
}

/** Bytes packed for a journal: zlib, base64. */
export function packed(bytes: Uint8Array | Uint8ClampedArray): string {
  const small = zlibSync(new Uint8Array(bytes.buffer, bytes.byteOffset, bytes.byteLength), { level: 6 });
  let binary = '';
  for (let i = 0; i < small.length; i += 0x8000) binary += String.fromCharCode(...small.subarray(i, i + 0x8000));
  return btoa(binary);
}

/** How light each pixel is, 0..255: for heights of a surface. */
export function lightness({ data }: ImageData): Uint8Array {
  return Uint8Array.from({ length: data.length / 4 }, (_, i) =>
    Math.round(0.2126 * data[4 * i] + 0.7152 * data[4 * i + 1] + 0.0722 * data[4 * i + 2]),
  );
}
