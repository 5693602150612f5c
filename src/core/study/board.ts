import { maths } from '@/core/maths/maths';
import type { Place } from './register';

/** How a photo hangs on the motif board. Lengths in units of the board, parts of the photo in shares of its sides. */
export interface Hanging {
  readonly id: string;
  /** Its middle. */
  readonly x: number;
  readonly y: number;
  /** Width of what is seen of it. */
  readonly width: number;
  /** Clockwise, radians. */
  readonly turn: number;
  readonly mirror: boolean;
  readonly grey: boolean;
  /** What is seen of it. */
  readonly crop: { readonly x: number; readonly y: number; readonly w: number; readonly h: number };
}

export interface PhotoSize {
  readonly width: number;
  readonly height: number;
}

export const WHOLE = { x: 0, y: 0, w: 1, h: 1 } as const;

export const heightOf = ({ width, crop }: Hanging, photo: PhotoSize): number =>
  (width * crop.h * photo.height) / (crop.w * photo.width);

/** Place on the board of a place in what is seen of a photo, shares from its top left. */
export function toBoard(hanging: Hanging, photo: PhotoSize, u: number, v: number): Place {
  const dx = (u - 0.5) * hanging.width * (hanging.mirror ? -1 : 1);
  const dy = (v - 0.5) * heightOf(hanging, photo);
  const [c, s] = [maths.cos(hanging.turn), maths.sin(hanging.turn)];
  return { x: hanging.x + c * dx - s * dy, y: hanging.y + s * dx + c * dy };
}

/** The other way round: shares of what is seen of a photo; outside 0..1 beside it. */
export function fromBoard(hanging: Hanging, photo: PhotoSize, { x, y }: Place): { u: number; v: number } {
  const [c, s] = [maths.cos(hanging.turn), maths.sin(hanging.turn)];
  const [dx, dy] = [x - hanging.x, y - hanging.y];
  const u = (c * dx + s * dy) / hanging.width;
  return { u: 0.5 + (hanging.mirror ? -u : u), v: 0.5 + (-s * dx + c * dy) / heightOf(hanging, photo) };
}

export const isOver = (hanging: Hanging, photo: PhotoSize, p: Place): boolean => {
  const { u, v } = fromBoard(hanging, photo, p);
  return u >= 0 && u <= 1 && v >= 0 && v <= 1;
};

/** Takes a share off one side of what is seen of a photo, or gives it back; the rest stays where it hangs. */
export function cropped(
  hanging: Hanging,
  photo: PhotoSize,
  side: 'left' | 'right' | 'top' | 'bottom',
  share: number,
): Hanging {
  const { crop } = hanging;
  const along = side === 'left' || side === 'right';
  const first = side === 'left' || side === 'top';
  const [at, long] = along ? [crop.x, crop.w] : [crop.y, crop.h];
  const from = first ? Math.max(0, Math.min(at + long - 0.05, at + share * long)) : at;
  const to = first ? at + long : Math.min(1, Math.max(at + 0.05, at + long - share * long));
  const next = along ? { ...crop, x: from, w: to - from } : { ...crop, y: from, h: to - from };
  // the middle moves with what is left
  const u = along ? ((from + to) / 2 - at) / long : 0.5;
  const v = along ? 0.5 : ((from + to) / 2 - at) / long;
  const middle = toBoard(hanging, photo, u, v);
  return { ...hanging, ...middle, crop: next, width: hanging.width * (along ? (to - from) / long : 1) };
}

/** The smallest upright rectangle around all that hangs; undefined where nothing does. */
export function around(
  hangings: readonly Hanging[],
  sizes: ReadonlyMap<string, PhotoSize>,
): { x: number; y: number; w: number; h: number } | undefined {
  const corners = hangings.flatMap((h) => {
    const size = sizes.get(h.id);
    return size
      ? [
          [0, 0],
          [1, 0],
          [1, 1],
          [0, 1],
        ].map(([u, v]) => toBoard(h, size, u, v))
      : [];
  });
  if (corners.length === 0) return undefined;
  const xs = corners.map((c) => c.x);
  const ys = corners.map((c) => c.y);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, w: Math.max(...xs) - x, h: Math.max(...ys) - y };
}

/** Where the next photo is hung: beside the others, in rows of four. */
export function nextPlace(count: number, id: string): Hanging {
  return {
    id,
    x: (count % 4) * 340,
    y: Math.floor(count / 4) * 280,
    width: 320,
    turn: 0,
    mirror: false,
    grey: false,
    crop: WHOLE,
  };
}
