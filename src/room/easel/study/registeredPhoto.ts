'use client';
import type { PaintingSpec } from '@/core/film/painting';
import { WHOLE } from '@/core/picture/unlit';
import { mmPerPhotoPx, wholeFrame } from '@/core/study/register';
import { useSight } from '@/room/easel/sighting/sightStore';

/** The photo in register with the canvas, and what is to be said about it. */
export interface Registered {
  /** 0xAABBGGRR of as many pixels as the canvas is measured in; see-through beside the photo. */
  readonly codes?: Uint32Array;
  readonly says: string;
}

/** The part of the photo that the canvas shows; without a register the largest that has its proportions. @param width, height pixels @param crop of the canvas */
export function registeredPhoto(spec: PaintingSpec, width: number, height: number, crop = WHOLE): Registered {
  const { register, pictures } = useSight.getState();
  const [first] = pictures;
  const id = register?.photo ?? first?.[0];
  const bitmap = id === undefined ? undefined : pictures.get(id);
  if (!bitmap || id === undefined) return { says: 'Hang a photo on the board, and it is measured beside the canvas.' };
  const r = register ?? wholeFrame(id, bitmap.width, bitmap.height, spec);
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  const scale = (mmPerPhotoPx(r, spec) * width) / (spec.widthMm * crop.width);
  context.imageSmoothingQuality = 'high';
  // the middle of the canvas, as far from the middle of the part as that is
  context.translate(
    width / 2 + ((0.5 - crop.x - crop.width / 2) * width) / crop.width,
    height / 2 + ((0.5 - crop.y - crop.height / 2) * height) / crop.height,
  );
  context.scale(scale, scale);
  context.rotate(-r.turn);
  context.drawImage(bitmap, -r.x, -r.y);
  const { data } = context.getImageData(0, 0, width, height);
  // rims that are half see-through are no colour of the photo
  const codes = Uint32Array.from(new Uint32Array(data.buffer), (code) => (code >>> 24 === 255 ? code : 0));
  return {
    codes,
    says: register ? '' : 'The photo is not in register; its largest part of these proportions is taken.',
  };
}
