'use client';
import { useEffect, useRef } from 'react';
import type { Mixture } from '@/core/colour/mixture';
import { Painting } from '@/core/film/painting';
import { Picture, STUDIO_LIGHT } from '@/core/picture/picture';
import type { SurfaceSpec } from '@/core/surface/heightField';
import styles from './prepare.module.css';

const SIDE_MM = 50;
const PPI = 230;

/** A piece of the chosen ground at about twice its size, and the shape of the whole. */
export function GroundPreview({
  surface,
  mixture,
  widthMm,
  heightMm,
}: {
  surface: SurfaceSpec;
  mixture: Mixture;
  widthMm: number;
  heightMm: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const key = JSON.stringify(mixture);
  useEffect(() => {
    const tone = JSON.parse(key) as Mixture;
    const painting = new Painting({
      widthMm: SIDE_MM,
      heightMm: SIDE_MM,
      ppi: PPI,
      seed: 3,
      surface,
      tone: Object.keys(tone).length > 0 ? { mixture: tone } : undefined,
    });
    const picture = new Picture(painting);
    picture.light = { ...STUDIO_LIGHT, azimuth: 310, elevation: 22, room: 0.25 };
    const { width, height } = painting;
    picture.update({ left: 0, top: 0, right: width, bottom: height });
    const context = canvas.current!.getContext('2d')!;
    const image = context.createImageData(width, height);
    new Uint32Array(image.data.buffer).set(painting.arena.u32.subarray(picture.lit, picture.lit + width * height));
    canvas.current!.width = width;
    canvas.current!.height = height;
    context.putImageData(image, 0, 0);
  }, [surface, key]);
  const ratio = widthMm / heightMm;
  return (
    <div className={styles.preview}>
      <canvas ref={canvas} role="img" aria-label="The ground" />
      <span
        className={styles.shape}
        style={ratio > 1 ? { width: 86, height: 86 / ratio } : { width: 86 * ratio, height: 86 }}
        aria-hidden="true"
      />
    </div>
  );
}
