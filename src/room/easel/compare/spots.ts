'use client';
import type { Triple } from '@/core/colour/colorimetry';
import { decodeSrgb, linearToLab } from '@/core/colour/colorimetry';
import type { SpotReading } from '@/core/picture/readings';
import { useEasel } from '@/room/easel/easelStore';

/** What of the canvas is read: the spot that is set, mm, and the layer, where it is to be one alone. */
export function readAs(): { readonly radiusMm: number; readonly layer?: string } | undefined {
  const { opened, view, spotPx, oneLayer, bench } = useEasel.getState();
  if (!opened) return undefined;
  const radiusMm = ((spotPx * window.devicePixelRatio) / view.zoom) * (25.4 / opened.spec.ppi);
  return { radiusMm, layer: oneLayer ? bench?.activeLayer : undefined };
}

/** A place that is to be read. @param meant it was clicked, and not only passed by */
interface Reading {
  readonly x: number;
  readonly y: number;
  readonly done: (reading: SpotReading | null) => void;
  readonly meant: boolean;
}

let asking = false;
let waiting: readonly Reading[] = [];

/**
 * Reads the canvas at a place (mm), over the spot that is set. While an answer is on its way, of the places that a hand
 * passes by only the newest waits: it asks for more than anybody can read. What is meant is read in any case.
 */
export function readCanvas(x: number, y: number, done: Reading['done'], meant = false): void {
  const { engine } = useEasel.getState();
  const as = readAs();
  if (!engine || !as) return;
  const reading = { x, y, done, meant };
  if (asking) {
    waiting = [...waiting.filter((other) => other.meant), reading];
    return;
  }
  asking = true;
  engine
    .ask({ of: 'spot', x, y, ...as })
    .then(done, () => {})
    .finally(() => {
      asking = false;
      const [next, ...rest] = waiting;
      waiting = [];
      if (next) readCanvas(next.x, next.y, next.done, next.meant);
      waiting = rest;
    });
}

/** Pixels of photos that were sampled, while they hang. */
const pixels = new WeakMap<ImageBitmap, ImageData>();

/** The pixels of a photo; read from it once. */
export function photoPixels(bitmap: ImageBitmap): ImageData {
  let data = pixels.get(bitmap);
  if (!data) {
    const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d')!;
    context.drawImage(bitmap, 0, 0);
    data = context.getImageData(0, 0, bitmap.width, bitmap.height);
    pixels.set(bitmap, data);
  }
  return data;
}

/** Mean colour of a round spot of a photo, CIELAB; undefined beside it. Places and radius in its pixels. */
export function readPhotoSpot(bitmap: ImageBitmap, x: number, y: number, radius: number): Triple | undefined {
  const { data, width, height } = photoPixels(bitmap);
  if (x < 0 || y < 0 || x >= width || y >= height) return undefined;
  const sum: Triple = [0, 0, 0];
  let count = 0;
  const r = Math.max(0.5, radius);
  const step = Math.max(1, r / 12);
  for (let dy = -r; dy <= r; dy += step) {
    for (let dx = -r; dx <= r; dx += step) {
      const [px, py] = [Math.floor(x + dx), Math.floor(y + dy)];
      if (dx * dx + dy * dy > r * r || px < 0 || py < 0 || px >= width || py >= height) continue;
      const i = 4 * (py * width + px);
      for (let c = 0; c < 3; c++) sum[c] += decodeSrgb(data[i + c] / 255);
      count++;
    }
  }
  return count > 0 ? linearToLab(sum.map((v) => v / count) as Triple) : undefined;
}
