'use client';
import { aidOf, type Aid } from '@/core/picture/aids/aids';
import { OPEN_EYES, type Looking } from '@/core/picture/aids/definition';
import { showsAnyPicture, throughAid } from '@/core/picture/aids/throughAid';

/** What photos on the board are looked at through. */
export interface PhotoLens {
  readonly aid: Aid;
  readonly how: Looking;
  /** Width that the photo would have on the canvas, mm. */
  readonly widthMm: number;
}

/** In greys, whatever else is looked at. */
export const GREYS: PhotoLens = { aid: 'values', how: OPEN_EYES, widthMm: 1 };

/** The lens that photos follow; nothing where they stay as they are. */
export function photoLens(aid: Aid, how: Looking, widthMm: number): PhotoLens | undefined {
  const definition = aidOf(aid);
  const shows = definition !== undefined && showsAnyPicture(definition);
  return shows || how.squintMm > 0 ? { aid: shows ? aid : 'none', how, widthMm } : undefined;
}

/** What looks around a place is worked out on a photo of at most this width, pixels. */
const MOST_PX = 720;

interface Seen {
  readonly lens: PhotoLens;
  readonly bitmap: ImageBitmap;
}
const lastSeen = new WeakMap<ImageBitmap, Seen>();

/** A photo through a lens; kept until it is seen through another, and gone with the photo. */
export function seenThrough(bitmap: ImageBitmap, lens: PhotoLens | undefined): ImageBitmap {
  if (!lens) return bitmap;
  const last = lastSeen.get(bitmap);
  if (last && last.lens.aid === lens.aid && last.lens.how === lens.how && last.lens.widthMm === lens.widthMm) {
    return last.bitmap;
  }
  const aid = aidOf(lens.aid);
  const fine = aid?.seeCode !== undefined && lens.how.squintMm === 0;
  const scale = fine ? 1 : Math.min(1, MOST_PX / bitmap.width);
  const [width, height] = [bitmap.width, bitmap.height].map((px) => Math.max(1, Math.round(px * scale)));
  const off = new OffscreenCanvas(width, height);
  const context = off.getContext('2d')!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, width, height);
  const image = context.getImageData(0, 0, width, height);
  const codes = new Uint32Array(image.data.buffer);
  codes.set(throughAid({ codes: codes.slice(), width, height, mmPerPx: lens.widthMm / width }, aid, lens.how));
  context.putImageData(image, 0, 0);
  const seen = { lens, bitmap: off.transferToImageBitmap() };
  lastSeen.set(bitmap, seen);
  return seen.bitmap;
}
