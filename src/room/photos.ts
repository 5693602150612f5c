import { imageSize } from 'image-size';
import { PainterError } from '@/core/errors';

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
  /** Whether its EXIF says that it was taken turned or mirrored. */
  readonly turned: boolean;
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
  // where nothing is told, no trust in parts of the file
  let turned = true;
  try {
    const { width, height, orientation = 1 } = imageSize(new Uint8Array(await blob.slice(0, 2 ** 20).arrayBuffer()));
    turned = orientation > 1;
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
      if (scale >= 1) return { bitmap: await createImageBitmap(blob, upright), full: size, turned };
      const bitmap = await createImageBitmap(blob, {
        ...upright,
        resizeWidth: Math.round(size.width * scale),
        resizeHeight: Math.round(size.height * scale),
        resizeQuality: 'high',
      });
      return { bitmap, full: size, turned };
    }
    const decoded = await createImageBitmap(blob, upright);
    const full = { width: decoded.width, height: decoded.height };
    const scale = longestSide / Math.max(full.width, full.height);
    if (scale >= 1) return { bitmap: decoded, full, turned };
    const bitmap = await createImageBitmap(decoded, {
      resizeWidth: Math.round(full.width * scale),
      resizeHeight: Math.round(full.height * scale),
      resizeQuality: 'high',
    });
    decoded.close();
    return { bitmap, full, turned };
  } catch {
    throw unreadable;
  }
}

/**
 * A part of a photo from its file. Browsers find parts of turned photos in the wrong place, so those are decoded whole.
 * @param part left, top, width, height, pixels of the upright photo @param longestSide of what comes out, pixels
 */
export async function decodePart(
  blob: Blob,
  turned: boolean,
  part: readonly [number, number, number, number],
  longestSide: number,
): Promise<ImageBitmap> {
  const shrink = Math.min(1, longestSide / Math.max(part[2], part[3]));
  const small = {
    resizeWidth: Math.max(1, Math.round(part[2] * shrink)),
    resizeHeight: Math.max(1, Math.round(part[3] * shrink)),
    resizeQuality: 'medium',
  } as const;
  if (!turned) return createImageBitmap(blob, ...part, small);
  const whole = await createImageBitmap(blob, { imageOrientation: 'from-image' });
  const found = await createImageBitmap(whole, ...part, small);
  whole.close();
  return found;
}

/** A photo as large as it is useful anywhere. @throws PainterError see `decodePhotoTo` */
export const decodePhoto = async (blob: Blob, name: string): Promise<ImageBitmap> =>
  (await decodePhotoTo(blob, name, SHOWN_SIDE)).bitmap;
