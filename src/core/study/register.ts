import { maths } from '@/core/maths/maths';

/** Which frame of a photo the canvas shows: what is measured on one is then known on the other. */

export interface Place {
  readonly x: number;
  readonly y: number;
}

/** A frame on a photo in the proportions of the canvas, pixels of the photo. */
export interface Register {
  readonly photo: string;
  /** Its middle, and how wide it is. */
  readonly x: number;
  readonly y: number;
  readonly widthPx: number;
  /** Turned clockwise on the photo, radians. */
  readonly turn: number;
}

export interface CanvasSize {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** The largest frame that a photo holds, in its middle. */
export function wholeFrame(photo: string, width: number, height: number, { widthMm, heightMm }: CanvasSize): Register {
  return { photo, x: width / 2, y: height / 2, widthPx: Math.min(width, (height * widthMm) / heightMm), turn: 0 };
}

/** Millimetres on the canvas for each pixel of the photo. */
export const mmPerPhotoPx = ({ widthPx }: Register, { widthMm }: CanvasSize): number => widthMm / widthPx;

/** Millimetres on the canvas of a place on the photo, pixels. */
export function photoToCanvas(r: Register, canvas: CanvasSize, { x, y }: Place): Place {
  const s = mmPerPhotoPx(r, canvas);
  const [dx, dy] = [x - r.x, y - r.y];
  const [c, n] = [maths.cos(r.turn), maths.sin(r.turn)];
  return { x: canvas.widthMm / 2 + s * (c * dx + n * dy), y: canvas.heightMm / 2 + s * (-n * dx + c * dy) };
}

/** Pixels on the photo of a place on the canvas, millimetres. */
export function canvasToPhoto(r: Register, canvas: CanvasSize, { x, y }: Place): Place {
  const s = mmPerPhotoPx(r, canvas);
  const [dx, dy] = [(x - canvas.widthMm / 2) / s, (y - canvas.heightMm / 2) / s];
  const [c, n] = [maths.cos(r.turn), maths.sin(r.turn)];
  return { x: r.x + c * dx - n * dy, y: r.y + n * dx + c * dy };
}

/** Corners of the frame on the photo, clockwise from the top left. */
export const frameCorners = (r: Register, canvas: CanvasSize): Place[] =>
  [
    [0, 0],
    [canvas.widthMm, 0],
    [canvas.widthMm, canvas.heightMm],
    [0, canvas.heightMm],
  ].map(([x, y]) => canvasToPhoto(r, canvas, { x, y }));
