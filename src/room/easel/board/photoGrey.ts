'use client';
import { toValues } from '@/core/picture/valueView';

const greys = new WeakMap<ImageBitmap, ImageBitmap>();

/** A photo in values alone; made once, and gone with the photo. */
export function greyOf(bitmap: ImageBitmap): ImageBitmap {
  let grey = greys.get(bitmap);
  if (!grey) {
    const off = new OffscreenCanvas(bitmap.width, bitmap.height);
    const context = off.getContext('2d')!;
    context.drawImage(bitmap, 0, 0);
    const image = context.getImageData(0, 0, bitmap.width, bitmap.height);
    toValues(image.data as Uint8ClampedArray<ArrayBuffer>);
    context.putImageData(image, 0, 0);
    greys.set(bitmap, (grey = off.transferToImageBitmap()));
  }
  return grey;
}
