import { coverageRaster } from '@/core/film/coverage';
import type { Raster } from '@/core/formats/png';
import type { Step } from '@/core/formats/step';
import type { Picture } from '@/core/picture/picture';
import { encodeCurve, fromSrgb, type Space } from './iccProfile';

/** What a picture that is sent out shows: the light on it, the paint by itself, or that without what it lies on. */
export const SHOWN = { lit: 'As lit', unlit: 'Colours alone', clear: 'Colours alone, ground clear' } as const;
export type Shown = keyof typeof SHOWN;

/** Rows that are worked out at a time. */
const ROWS = 64;

/**
 * The whole picture, from the film itself.
 * @param depth bits a channel, @param step is told how far it is
 */
export function pictureOf(picture: Picture, shown: Shown, depth: 8 | 16, space: Space, step: Step = () => {}): Raster {
  const { painting } = picture;
  const { width, height } = painting;
  const cover =
    shown === 'clear'
      ? coverageRaster(
          painting,
          painting.layers.filter((l) => l.visible),
        )
      : undefined;
  const channels = cover ? 4 : 3;
  const most = depth === 16 ? 65535 : 255;
  const data = new (depth === 16 ? Uint16Array : Uint8Array)(width * height * channels);
  const convert = space === 'srgb' ? undefined : fromSrgb(space);
  const linear = new Float32Array(3 * width * ROWS);
  for (let top = 0; top < height; top += ROWS) {
    const bottom = Math.min(height, top + ROWS);
    step(top / height);
    picture.linearRows(top, bottom, shown === 'lit', linear);
    for (let i = 0, to = top * width * channels; i < (bottom - top) * width; i++) {
      const r = linear[3 * i];
      const g = linear[3 * i + 1];
      const b = linear[3 * i + 2];
      for (let c = 0; c < 3; c++) {
        const v = convert ? convert[c][0] * r + convert[c][1] * g + convert[c][2] * b : linear[3 * i + c];
        data[to++] = Math.round(most * encodeCurve(v));
      }
      if (cover) data[to++] = Math.round(most * cover[top * width + i]);
    }
  }
  return { width, height, channels, data };
}
