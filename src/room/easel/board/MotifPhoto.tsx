'use client';
import { useEffect, useRef, useState } from 'react';
import { compareColours } from '@/core/study/compare';
import { canvasToPhoto, photoToCanvas, type Place } from '@/core/study/register';
import type { Hung } from './boardStore';
import { Mark, Spot } from '@/room/easel/compare/CompareTag';
import { useCompare } from '@/room/easel/compare/compareStore';
import { decodePart } from '@/room/photos';
import { seenThrough, type PhotoLens } from './photoThrough';
import { PhotoTag } from './PhotoTag';
import { RegisterFrame } from '@/room/easel/sighting/RegisterFrame';
import { samplePhoto } from '@/room/easel/compare/sampling';
import { SightLayer } from '@/room/easel/sighting/SightLayer';
import { useSight } from '@/room/easel/sighting/sightStore';
import { readPhotoSpot } from '@/room/easel/compare/spots';
import { isHeld, wheelSetsSpot } from '@/room/easel/canvas/holds';
import { useEasel } from '@/room/easel/easelStore';
import { useViewGestures } from '@/room/parts/useViewGestures';
import easel from '../easel.module.css';
import styles from './board.module.css';

/** Longest side of what is decoded to look closely, pixels. */
const DETAIL_PX = 2000;

/** How one photo is looked at: offset of its middle from the board's (CSS pixels), scale over fit, mirrored. */
export interface Sight {
  x: number;
  y: number;
  zoom: number;
  mirror: boolean;
  grey: boolean;
}
export const START: Sight = { x: 0, y: 0, zoom: 1, mirror: false, grey: false };

/** One photo: the wheel zooms under the pointer, dragging moves it. */
export function MotifPhoto({
  photo,
  sight,
  see,
  lens,
}: {
  photo: Hung;
  sight: Sight;
  see: (change: (sight: Sight) => Partial<Sight>) => void;
  lens: PhotoLens | undefined;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  /** A part of the photo at its full resolution, where one looks closely: its place in the small picture. */
  const [detail, setDetail] = useState<{ bitmap: ImageBitmap; x: number; y: number; w: number; h: number }>();

  useEffect(() => {
    const element = canvas.current!.parentElement!;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const { bitmap } = photo;
  const fit = Math.min((size.width - 16) / bitmap.width, (size.height - 16) / bitmap.height);

  useEffect(() => {
    if (size.width === 0) return;
    const dpr = window.devicePixelRatio;
    const element = canvas.current!;
    element.width = Math.round(size.width * dpr);
    element.height = Math.round(size.height * dpr);
    const context = element.getContext('2d')!;
    const scale = fit * sight.zoom * dpr;
    context.imageSmoothingQuality = 'high';
    context.translate((size.width / 2 + sight.x) * dpr, (size.height / 2 + sight.y) * dpr);
    context.scale(sight.mirror ? -scale : scale, scale);
    context.drawImage(seenThrough(bitmap, lens), -bitmap.width / 2, -bitmap.height / 2, bitmap.width, bitmap.height);
    // a part by itself is not what an aid sees of the whole
    if (!detail || (lens && lens.aid !== 'values')) return;
    const near = seenThrough(detail.bitmap, lens);
    context.drawImage(near, detail.x - bitmap.width / 2, detail.y - bitmap.height / 2, detail.w, detail.h);
  }, [size, sight, lens, bitmap, fit, detail]);

  // looked at closely, the part that is seen is decoded once more from the file, a moment after the hand rests
  useEffect(() => {
    const scale = fit * sight.zoom * window.devicePixelRatio;
    const finer = photo.full.width / bitmap.width;
    if (size.width === 0 || scale < 1.2 || finer < 1.2) return;
    let gone = false;
    const timer = setTimeout(() => {
      const [w, h] = [(size.width / fit / sight.zoom) * 1.2, (size.height / fit / sight.zoom) * 1.2];
      const cx = bitmap.width / 2 - (sight.mirror ? -1 : 1) * (sight.x / fit / sight.zoom);
      const cy = bitmap.height / 2 - sight.y / fit / sight.zoom;
      const [x0, y0] = [Math.max(0, cx - w / 2), Math.max(0, cy - h / 2)];
      const [x1, y1] = [Math.min(bitmap.width, cx + w / 2), Math.min(bitmap.height, cy + h / 2)];
      if (x1 - x0 < 2 || y1 - y0 < 2) return;
      const part = [x0, y0, x1 - x0, y1 - y0].map((v) => Math.round(v * finer)) as [number, number, number, number];
      decodePart(photo.blob, photo.turned, part, DETAIL_PX).then(
        (found) => {
          if (gone) found.close();
          else
            setDetail({
              bitmap: found,
              x: part[0] / finer,
              y: part[1] / finer,
              w: part[2] / finer,
              h: part[3] / finer,
            });
        },
        () => {},
      );
    }, 180);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [photo, bitmap, fit, sight, size]);
  useEffect(() => () => detail?.bitmap.close(), [detail]);

  useViewGestures(canvas, {
    moves: () => !isHeld('sample') && !isHeld('compare'),
    pan: (dx, dy) => see((s) => ({ x: s.x + dx, y: s.y + dy })),
    zoom: (factor, at) =>
      see((s) => {
        const zoom = Math.max(0.5, Math.min(40, s.zoom * factor));
        const k = zoom / s.zoom;
        const px = at.x - size.width / 2;
        const py = at.y - size.height / 2;
        return { zoom, x: px - (px - s.x) * k, y: py - (py - s.y) * k };
      }),
    wheel: ({ deltaY }) => wheelSetsSpot(deltaY),
  });

  /** Where on the photo the pointer is, in its pixels; and the colour of the spot there. */
  const under = (event: React.PointerEvent) => {
    const box = canvas.current!.getBoundingClientRect();
    const scale = fit * sight.zoom;
    const dx = (event.clientX - box.left - size.width / 2 - sight.x) / scale;
    const x = bitmap.width / 2 + (sight.mirror ? -dx : dx);
    const y = bitmap.height / 2 + (event.clientY - box.top - size.height / 2 - sight.y) / scale;
    return { x, y, lab: readPhotoSpot(bitmap, x, y, useEasel.getState().spotPx / scale) };
  };
  const sampleHere = (event: React.PointerEvent, use: boolean) => {
    const { x, y } = under(event);
    samplePhoto(bitmap, x, y, useEasel.getState().spotPx / (fit * sight.zoom), use);
  };
  const compareHere = (event: React.PointerEvent, mark: boolean) => {
    const { x, y, lab } = under(event);
    const spot = lab && {
      on: 'photo' as const,
      x: x / bitmap.width,
      y: y / bitmap.height,
      photo: photo.id,
      lab,
    };
    if (mark && spot) useCompare.getState().mark(spot);
    else useCompare.getState().see(spot);
  };
  const { pairs, pending, held, live } = useCompare();
  const marked = [
    ...pairs.flatMap(({ id, first, second }) => [
      { spot: first, name: `${id}a` },
      { spot: second, name: `${id}b` },
    ]),
    ...(pending ? [{ spot: pending, name: '?' }] : []),
  ].filter(({ spot }) => spot.photo === photo.id);
  const placeOf = ({ x, y }: { x: number; y: number }) => {
    const dx = (x - 0.5) * bitmap.width * fit * sight.zoom;
    return {
      x: size.width / 2 + sight.x + (sight.mirror ? -dx : dx),
      y: size.height / 2 + sight.y + (y - 0.5) * bitmap.height * fit * sight.zoom,
    };
  };

  const spec = useEasel((s) => s.opened?.spec);
  const { register, registering } = useSight();
  /** CSS pixels of a place on the photo (its pixels), and the other way round. */
  const toScreen = ({ x, y }: Place): Place => placeOf({ x: x / bitmap.width, y: y / bitmap.height });
  const toPhoto = ({ x, y }: Place): Place => {
    const scale = fit * sight.zoom;
    const dx = (x - size.width / 2 - sight.x) / scale;
    return {
      x: bitmap.width / 2 + (sight.mirror ? -dx : dx),
      y: bitmap.height / 2 + (y - size.height / 2 - sight.y) / scale,
    };
  };
  const mine = register?.photo === photo.id ? register : undefined;

  return (
    <div className={styles.photo}>
      <canvas
        ref={canvas}
        data-testid="photo"
        data-near={detail !== undefined}
        role="img"
        aria-label={`Photo ${photo.name}`}
        onPointerDown={(event) => {
          if (isHeld('sample')) sampleHere(event, true);
          else if (isHeld('compare')) compareHere(event, true);
        }}
        onPointerLeave={() => useEasel.getState().set({ photoSample: undefined })}
        onPointerMove={(event) => {
          if (isHeld('sample')) sampleHere(event, false);
          else if (isHeld('compare')) compareHere(event, false);
        }}
      />
      <svg className={easel.marksOver} aria-hidden="true">
        {marked.map(({ spot, name }) => (
          <Mark key={name} {...placeOf(spot)} name={name} />
        ))}
      </svg>
      {spec && mine && (
        <SightLayer
          canvas={spec}
          toScreen={(p) => toScreen(canvasToPhoto(mine, spec, p))}
          toCanvas={(p) => photoToCanvas(mine, spec, toPhoto(p))}
          name="photo"
          width={size.width}
        />
      )}
      {spec && registering && (
        <RegisterFrame
          photo={photo.id}
          width={bitmap.width}
          height={bitmap.height}
          canvas={spec}
          toScreen={toScreen}
          toPhoto={toPhoto}
        />
      )}
      <PhotoTag />
      {held && live?.photo === photo.id && (
        <div className={styles.photoTag} role="status">
          <Spot spot={live} />
          {pending ? `here: ${compareColours(live.lab, pending.lab).words}` : 'click to mark the first spot'}
        </div>
      )}
    </div>
  );
}
