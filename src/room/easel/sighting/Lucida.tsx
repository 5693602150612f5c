'use client';
import { useEffect, useRef } from 'react';
import { canvasToPhoto, type CanvasSize, type Place } from '@/core/study/register';
import { useSight } from './sightStore';
import styles from './sighting.module.css';

/** Longest side at which the photo is laid over the canvas, pixels. */
const MOST_PX = 1600;

/** The camera lucida: while its key is held, the photo is seen faintly over the canvas, in register with it. */
export function Lucida({ canvas, toScreen }: { canvas: CanvasSize; toScreen: (p: Place) => Place }) {
  const { held, lucida, register, pictures } = useSight();
  const element = useRef<HTMLCanvasElement>(null);
  const picture = register && pictures.get(register.photo);
  const shown = held && register !== undefined && picture !== undefined;
  const frame = register
    ? [
        { x: 0, y: 0 },
        { x: canvas.widthMm, y: 0 },
        { x: canvas.widthMm, y: canvas.heightMm },
      ].map((p) => canvasToPhoto(register, canvas, p))
    : [];
  const widthPx = frame.length ? Math.hypot(frame[1].x - frame[0].x, frame[1].y - frame[0].y) : 1;
  const heightPx = frame.length ? Math.hypot(frame[2].x - frame[1].x, frame[2].y - frame[1].y) : 1;
  const scale = Math.min(1, MOST_PX / Math.max(widthPx, heightPx));
  const [wide, high] = [Math.max(1, Math.round(widthPx * scale)), Math.max(1, Math.round(heightPx * scale))];

  // the part of the photo that the canvas shows, as large as that is useful
  useEffect(() => {
    const context = element.current?.getContext('2d');
    if (!context || !shown || !register || !picture) return;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, wide, high);
    context.translate(wide / 2, high / 2);
    context.scale(wide / widthPx, high / heightPx);
    context.rotate(-register.turn);
    context.drawImage(picture, -register.x, -register.y);
  }, [shown, register, picture, wide, high, widthPx, heightPx]);

  if (!shown) return null;
  const o = toScreen({ x: 0, y: 0 });
  const x = toScreen({ x: canvas.widthMm, y: 0 });
  const y = toScreen({ x: 0, y: canvas.heightMm });
  const matrix = `matrix(${(x.x - o.x) / wide},${(x.y - o.y) / wide},${(y.x - o.x) / high},${(y.y - o.y) / high},${o.x},${o.y})`;
  return (
    <canvas
      ref={element}
      width={wide}
      height={high}
      className={styles.lucida}
      data-testid="lucida"
      style={{ transform: matrix, opacity: lucida }}
    />
  );
}
