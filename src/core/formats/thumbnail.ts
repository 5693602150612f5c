import { encodePng } from './png';
import type { Painting } from '@/core/film/painting';
import type { Pyramid } from '@/core/picture/pyramid';

/** Longest side of a picture on the rack, pixels. */
const THUMBNAIL_PX = 480;

/** A small PNG of the whole picture, from the level of the pyramid that is just large enough. */
export function thumbnailPng(pyramid: Pyramid, painting: Painting): Uint8Array<ArrayBuffer> {
  const { u32 } = painting.arena;
  const level = pyramid.levels.findLast((l) => Math.max(l.width, l.height) >= THUMBNAIL_PX) ?? pyramid.levels[0];
  const scale = Math.min(1, THUMBNAIL_PX / Math.max(level.width, level.height));
  const width = Math.max(1, Math.round(level.width * scale));
  const height = Math.max(1, Math.round(level.height * scale));
  const data = new Uint8Array(width * height * 3);
  for (let y = 0; y < height; y++) {
    const y0 = Math.floor(y / scale);
    const y1 = Math.max(y0 + 1, Math.min(level.height, Math.floor((y + 1) / scale)));
    for (let x = 0; x < width; x++) {
      const x0 = Math.floor(x / scale);
      const x1 = Math.max(x0 + 1, Math.min(level.width, Math.floor((x + 1) / scale)));
      let r = 0;
      let g = 0;
      let b = 0;
      for (let sy = y0; sy < y1; sy++) {
        for (let sx = x0; sx < x1; sx++) {
          const v = u32[level.at + sy * level.width + sx];
          r += v & 255;
          g += (v >>> 8) & 255;
          b += (v >>> 16) & 255;
        }
      }
      const n = (y1 - y0) * (x1 - x0);
      const at = (y * width + x) * 3;
      data[at] = r / n;
      data[at + 1] = g / n;
      data[at + 2] = b / n;
    }
  }
  return encodePng({ width, height, channels: 3, data }, 72);
}
