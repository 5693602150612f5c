'use client';

/** Sizes at which photos are kept for looking at many of them, widths in pixels. */
const WIDTHS = [200, 420, 860];
const kept = new WeakMap<ImageBitmap, Map<number, ImageBitmap>>();

/** A photo just large enough to be seen at a width, device pixels: twenty of them are drawn in the time of one. */
export function smaller(bitmap: ImageBitmap, width: number): ImageBitmap {
  const wanted = WIDTHS.find((w) => w >= width);
  if (wanted === undefined || wanted >= bitmap.width) return bitmap;
  const sizes = kept.get(bitmap) ?? new Map<number, ImageBitmap>();
  kept.set(bitmap, sizes);
  let small = sizes.get(wanted);
  if (!small) {
    const off = new OffscreenCanvas(wanted, Math.max(1, Math.round((bitmap.height * wanted) / bitmap.width)));
    const context = off.getContext('2d')!;
    context.imageSmoothingQuality = 'high';
    context.drawImage(bitmap, 0, 0, off.width, off.height);
    sizes.set(wanted, (small = off.transferToImageBitmap()));
  }
  return small;
}
