import { imageSize } from 'image-size';
import { PainterError } from '@/core/journal/errors';

/** Largest photo that can be hung, pixels and bytes; and the longest side at which it is shown. */
const MAX_PIXELS = 80e6;
const MAX_BYTES = 120 * 2 ** 20;
const SHOWN_SIDE = 3600;
/** Longest side of a photo as it hangs on the board: twenty of them are to stay in memory. */
export const BOARD_SIDE = 1600;

export interface Decoded {
  readonly bitmap: ImageBitmap;
  /** Size of the photo as it was taken, upright. */
  readonly full: { readonly width: number; readonly height: number };
}

/**
 * Decodes a photo, turned as its EXIF says and no larger than is useful.
 * @throws PainterError with a sentence when it is too large, or cannot be read as a picture.
 */
export async function decodePhotoTo(blob: Blob, name: string, longestSide: number): Promise<Decoded> {
  if (blob.size > MAX_BYTES) {
    throw new PainterError(`“${name}” is larger than 120 MB: make it smaller before hanging it up.`);
  }
  const unreadable = new PainterError(
    `“${name}” cannot be read as a picture. JPEG, PNG, WebP and AVIF can be hung up.`,
  );
  let size: { width: number; height: number } | undefined;
  try {
    const { width, height, orientation = 1 } = imageSize(new Uint8Array(await blob.slice(0, 2 ** 20).arrayBuffer()));
    size = orientation > 4 ? { width: height, height: width } : { width, height };
  } catch {
    // not every kind tells its size at the start; the browser decides
  }
  if (size && size.width * size.height > MAX_PIXELS) {
    const mega = Math.round((size.width * size.height) / 1e6);
    throw new PainterError(`“${name}” has ${mega} megapixels; up to 80 can be hung up. Make it smaller first.`);
  }
  const upright = { imageOrientation: 'from-image' } as const;
  try {
    if (size) {
      const scale = longestSide / Math.max(size.width, size.height);
      if (scale >= 1) return { bitmap: await createImageBitmap(blob, upright), full: size };
      const bitmap = await createImageBitmap(blob, {
        ...upright,
        resizeWidth: Math.round(size.width * scale),
        resizeHeight: Math.round(size.height * scale),
        resizeQuality: 'high',
      });
      return { bitmap, full: size };
    }
    const decoded = await createImageBitmap(blob, upright);
    const full = { width: decoded.width, height: decoded.height };
    const scale = longestSide / Math.max(full.width, full.height);
    if (scale >= 1) return { bitmap: decoded, full };
    const bitmap = await createImageBitmap(decoded, {
      resizeWidth: Math.round(full.width * scale),
      resizeHeight: Math.round(full.height * scale),
      resizeQuality: 'high',
    });
    decoded.close();
    return { bitmap, full };
  } catch {
    throw unreadable;
  }
}

/** A photo as large as it is useful anywhere. @throws PainterError see `decodePhotoTo` */
export const decodePhoto = async (blob: Blob, name: string): Promise<ImageBitmap> =>
  (await decodePhotoTo(blob, name, SHOWN_SIDE)).bitmap;
