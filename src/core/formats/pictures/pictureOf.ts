import { coverageRaster } from '@/core/film/coverage';
import type { Raster } from '@/core/formats/png';
import type { Step } from '@/core/formats/step';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { albedoOf } from '@/core/picture/layers/albedo';
import type { Picture } from '@/core/picture/picture';
import { PLAIN_VIEW, type ViewOptions } from '@/core/picture/viewOptions';
import { encodeCurve, fromSrgb, type Space } from './iccProfile';

/** What a picture that is sent out shows: the light on it, the paint by itself, that without what it lies on, or of one layer. */
export const SHOWN = {
  lit: 'As lit',
  unlit: 'Colours alone',
  clear: 'Colours alone, ground clear',
  layer: 'The layer in hand alone, clear around it',
} as const;
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
  const alone = shown === 'layer' ? painting.active : undefined;
  const cover = alone
    ? coverageRaster(painting, [alone])
    : shown === 'clear'
      ? coverageRaster(
          painting,
          painting.layers.filter((l) => l.visible),
        )
      : undefined;
  const only = alone && onlyOf(painting, alone);
  const channels = cover ? 4 : 3;
  const most = depth === 16 ? 65535 : 255;
  const data = new (depth === 16 ? Uint16Array : Uint8Array)(width * height * channels);
  const convert = space === 'srgb' ? undefined : fromSrgb(space);
  const linear = new Float32Array(3 * width * ROWS);
  for (let top = 0; top < height; top += ROWS) {
    const bottom = Math.min(height, top + ROWS);
    step(top / height);
    if (only) albedoOf(painting).linear({ left: 0, top, right: width, bottom }, linear, only);
    else picture.linearRows(top, bottom, shown === 'lit', linear);
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

/** How one layer is looked at by itself: without all that it is not a part of, and seen though it may be hidden. */
function onlyOf({ layers }: Painting, layer: Layer): ViewOptions {
  const kept = [layer];
  for (let up = layer.look.group; up; up = kept[kept.length - 1].look.group)
    kept.push(layers.find((l) => l.id === up)!);
  const within = (other: Layer): boolean =>
    other.look.group !== undefined &&
    (other.look.group === layer.id || within(layers.find((l) => l.id === other.look.group)!));
  const without = layers.filter((l) => !kept.includes(l) && !within(l)).map((l) => l.id);
  return { ...PLAIN_VIEW, without, looks: new Map(kept.map((l) => [l.id, { ...l.look, visible: true }])) };
}
