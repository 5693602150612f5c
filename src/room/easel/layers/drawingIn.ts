import type { Command } from '@/core/commands/commands';
import { packed } from './pictureIn';

/** Longest side at which a drawing is taken in, pixels. */
const MOST_PX = 2400;

/** Share of pixels that are taken for paper when its lightness is found. */
const PAPER_SHARE = 0.5;
/** Darkness that still counts as paper, and as a full line, shares of the paper's lightness. */
const CLEAR = 0.06;
const FULL = 0.78;

/**
 * How dark each pixel of a drawing is against its paper, 0 paper .. 255 line: the paper's own lightness is found, so
 * that grey scans come in clear.
 * @param rgba pixels, four bytes each
 */
export function darkness(rgba: Uint8ClampedArray): Uint8Array {
  const count = rgba.length / 4;
  const light = new Uint8Array(count);
  const histogram = new Uint32Array(256);
  for (let i = 0; i < count; i++) {
    light[i] = Math.round(0.2126 * rgba[i * 4] + 0.7152 * rgba[i * 4 + 1] + 0.0722 * rgba[i * 4 + 2]);
    histogram[light[i]]++;
  }
  // the middle of the lightest half: paper, whatever its tone
  let seen = 0;
  let paper = 255;
  while (paper > 1 && (seen += histogram[paper]) < (count * PAPER_SHARE) / 2) paper--;
  const out = new Uint8Array(count);
  for (let i = 0; i < count; i++) {
    const dark = 1 - light[i] / paper;
    out[i] = Math.round(255 * Math.max(0, Math.min(1, (dark - CLEAR) / (FULL - CLEAR))));
  }
  return out;
}

/** What brings a drawing in as a drawing layer, its paper made clear: a scan, or lines on nothing. The bitmap is closed. */
export function drawingIn(bitmap: ImageBitmap, fileName: string): Command {
  const scale = Math.min(1, MOST_PX / Math.max(bitmap.width, bitmap.height));
  const [widthPx, heightPx] = [bitmap.width, bitmap.height].map((side) => Math.max(1, Math.round(side * scale)));
  const context = new OffscreenCanvas(widthPx, heightPx).getContext('2d')!;
  context.fillStyle = '#fff';
  context.fillRect(0, 0, widthPx, heightPx);
  context.drawImage(bitmap, 0, 0, widthPx, heightPx);
  bitmap.close();
  const dark = packed(darkness(context.getImageData(0, 0, widthPx, heightPx).data));
  const name = fileName.replace(/\.[^.]*$/, '').slice(0, 60) || 'Drawing';
  return { do: 'layer.bring', name, widthPx, heightPx, dark };
}
