import { imageSize } from 'image-size';
import { PainterError } from '@/core/journal/errors';

/** Largest photo that can be hung, pixels and bytes; and the longest side at which it is shown. */
const MAX_PIXELS = 80e6;
const MAX_BYTES = 120 * 2 ** 20;
const SHOWN_SIDE = 3600;

/**
 * Decodes a photo for the board, turned as its EXIF says and no larger than is useful.
 * @throws PainterError with a sentence when it is too large, or cannot be read as a picture.
 */
export async function decodePhoto(blob: Blob, name: string): Promise<ImageBitmap> {
  if (blob.size > MAX_BYTES) {
    throw new PainterError(`“${name}” is larger than 120 MB: make it smaller before hanging it up.`);
  }
  const unreadable = new PainterError(
    `“${name}” cannot be read as a picture. JPEG, PNG, WebP and AVIF can be hung up.`,
  );
  let size: { width: number; height: number } | undefined;
  try {
    size = imageSize(new Uint8Array(await blob.slice(0, 2 ** 20).arrayBuffer()));
  } catch {
    // not every kind tells its size at the start; the browser decides
  }
  if (size && size.width * size.height > MAX_PIXELS) {
    const mega = Math.round((size.width * size.height) / 1e6);
    throw new PainterError(`“${name}” has ${mega} megapixels; up to 80 can be hung up. Make it smaller first.`);
  }
  try {
    const longest = size ? Math.max(size.width, size.height) : 0;
    const decoded = await createImageBitmap(blob, { imageOrientation: 'from-image' });
    if (Math.max(longest, decoded.width, decoded.height) <= SHOWN_SIDE) return decoded;
    const scale = SHOWN_SIDE / Math.max(decoded.width, decoded.height);
    const small = await createImageBitmap(decoded, {
      resizeWidth: Math.round(decoded.width * scale),
      resizeHeight: Math.round(decoded.height * scale),
      resizeQuality: 'high',
    });
    decoded.close();
    return small;
  } catch {
    throw unreadable;
  }
}
