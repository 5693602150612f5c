import type { Raster } from '@/core/formats/png';
import { PainterError } from '@/core/errors';

/** A WebP as the browser makes it. @throws PainterError where it makes none */
export async function encodeWebp({ width, height, data }: Raster, quality: number): Promise<Uint8Array<ArrayBuffer>> {
  const none = () => new PainterError('This browser makes no WebP pictures: choose JPEG or PNG.');
  if (typeof OffscreenCanvas === 'undefined') throw none();
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d');
  if (!context) throw none();
  const rgba = new Uint8ClampedArray(width * height * 4).fill(255);
  for (let i = 0; i < width * height; i++) for (let c = 0; c < 3; c++) rgba[4 * i + c] = data[3 * i + c];
  context.putImageData(new ImageData(rgba, width, height), 0, 0);
  const blob = await canvas.convertToBlob({ type: 'image/webp', quality: quality / 100 });
  if (blob.type !== 'image/webp') throw none();
  return new Uint8Array(await blob.arrayBuffer());
}
