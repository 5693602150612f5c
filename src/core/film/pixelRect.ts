/** A rectangle of cells, right and bottom excluded. Empty when right <= left. */
export interface PixelRect {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** An empty rectangle that any other can be added to. */
export const noRect = (): PixelRect => ({ left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity });

/** Grows a rectangle so that it holds another. */
export function growRect(rect: PixelRect, by: PixelRect): void {
  if (by.left < rect.left) rect.left = by.left;
  if (by.top < rect.top) rect.top = by.top;
  if (by.right > rect.right) rect.right = by.right;
  if (by.bottom > rect.bottom) rect.bottom = by.bottom;
}

export const isEmpty = (r: PixelRect): boolean => !(r.right > r.left && r.bottom > r.top);

/** The part of a rectangle that lies in a picture, on whole cells. */
export const clipRect = (r: PixelRect, width: number, height: number): PixelRect => ({
  left: Math.max(0, Math.floor(r.left)),
  top: Math.max(0, Math.floor(r.top)),
  right: Math.min(width, Math.ceil(r.right)),
  bottom: Math.min(height, Math.ceil(r.bottom)),
});

/** A rectangle with a margin all round. */
export const widened = (r: PixelRect, by: number): PixelRect => ({
  left: r.left - by,
  top: r.top - by,
  right: r.right + by,
  bottom: r.bottom + by,
});
