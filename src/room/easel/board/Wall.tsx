'use client';
import { useEffect, useRef, useState } from 'react';
import { around, fromBoard, heightOf, isOver, toBoard, type Hanging } from '@/core/study/board';
import type { Place } from '@/core/study/register';
import { isHeld } from '@/room/easel/canvas/holds';
import { samplePhoto } from '@/room/easel/compare/sampling';
import { useEasel } from '@/room/easel/easelStore';
import { useBoard, type Hung } from './boardStore';
import { GREYS, seenThrough, type PhotoLens } from './photoThrough';
import { PhotoTag } from './PhotoTag';
import { smaller } from './photoMips';
import { placeIn, useHand } from '@/room/parts/useHand';
import { useViewGestures } from '@/room/parts/useViewGestures';
import styles from './board.module.css';

/** Reach of the places by which a photo is sized and turned, CSS pixels; how far the one that turns stands off. */
const HANDLE_PX = 12;
const TURN_PX = 26;

const CORNERS = [
  [0, 0],
  [1, 0],
  [1, 1],
  [0, 1],
] as const;

/** What is looked at: a place of the board in the middle, CSS pixels for each of its units. */
interface Seen {
  readonly x: number;
  readonly y: number;
  readonly zoom: number;
}

/** What the hand has of a photo, where it took hold, and how the photo hung then. */
interface Grip {
  readonly what: 'move' | 'size' | 'turn';
  readonly from: Place;
  readonly at: Hanging;
}

/** How a photo hangs when the hand that holds it is at a place. */
function moved({ what, from, at }: Grip, to: Place): Hanging {
  if (what === 'move') return { ...at, x: at.x + to.x - from.x, y: at.y + to.y - from.y };
  if (what === 'size') {
    const grown = Math.hypot(to.x - at.x, to.y - at.y) / Math.max(1, Math.hypot(from.x - at.x, from.y - at.y));
    return { ...at, width: Math.max(20, at.width * grown) };
  }
  const angle = (q: Place) => Math.atan2(q.y - at.y, q.x - at.x);
  return { ...at, turn: at.turn + angle(to) - angle(from) };
}

/** Draws what hangs into a context. @param px device pixels for a unit of the board */
export function drawHangings(
  context: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
  hung: readonly Hung[],
  hangings: readonly Hanging[],
  px: number,
  lens?: PhotoLens,
): void {
  for (const hanging of hangings) {
    const photo = hung.find((p) => p.id === hanging.id);
    if (!photo) continue;
    const whole = seenThrough(photo.bitmap, lens ?? (hanging.grey ? GREYS : undefined));
    const picture = smaller(whole, (hanging.width / hanging.crop.w) * px);
    const height = heightOf(hanging, photo.full);
    const { crop } = hanging;
    context.save();
    context.translate(hanging.x, hanging.y);
    context.rotate(hanging.turn);
    context.scale(hanging.mirror ? -1 : 1, 1);
    context.drawImage(
      picture,
      crop.x * picture.width,
      crop.y * picture.height,
      crop.w * picture.width,
      crop.h * picture.height,
      -hanging.width / 2,
      -height / 2,
      hanging.width,
      height,
    );
    context.restore();
  }
}

/** The whole board: photos hung freely. Pull moves them, a corner sizes, the place above turns; the wheel goes nearer. */
export function Wall({ hung, lens }: { hung: readonly Hung[]; lens: PhotoLens | undefined }) {
  const { hangings, chosen } = useBoard();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [view, setView] = useState<Seen>();
  const all = hung.map((p) => useBoard.getState().hangingOf(p.id));
  const order = [...all].sort(
    (a, b) => hangings.findIndex((h) => h.id === a.id) - hangings.findIndex((h) => h.id === b.id),
  );

  // photos that were never hung are hung once
  useEffect(() => {
    for (const photo of hung) {
      const { hangings: now, hang, hangingOf } = useBoard.getState();
      if (!now.some((h) => h.id === photo.id)) hang(hangingOf(photo.id));
    }
  }, [hung]);
  useEffect(() => {
    const element = canvas.current!.parentElement!;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const box = around(order, new Map(hung.map((p) => [p.id, p.full])));
  const fitted = box
    ? {
        x: box.x + box.w / 2,
        y: box.y + box.h / 2,
        zoom: Math.min((size.width - 24) / box.w, (size.height - 60) / box.h, 1.5),
      }
    : { x: 0, y: 0, zoom: 1 };
  const seen = view ?? fitted;

  const picked = order.find((h) => h.id === chosen);
  const pickedPhoto = hung.find((p) => p.id === chosen);
  useEffect(() => {
    if (size.width === 0 || !(seen.zoom > 0)) return;
    const element = canvas.current!;
    const dpr = element.ownerDocument.defaultView?.devicePixelRatio ?? 1;
    element.width = Math.round(size.width * dpr);
    element.height = Math.round(size.height * dpr);
    const context = element.getContext('2d')!;
    const px = seen.zoom * dpr;
    context.setTransform(px, 0, 0, px, element.width / 2 - seen.x * px, element.height / 2 - seen.y * px);
    drawHangings(context, hung, order, px, lens);
    if (!picked || !pickedPhoto) return;
    const at = (u: number, v: number) => toBoard(picked, pickedPhoto.full, u, v);
    context.strokeStyle = '#2e6f66';
    context.fillStyle = '#e8e6e1';
    context.lineWidth = 2 / seen.zoom;
    context.beginPath();
    CORNERS.forEach(([u, v], i) => {
      const p = at(u, v);
      if (i) context.lineTo(p.x, p.y);
      else context.moveTo(p.x, p.y);
    });
    context.closePath();
    context.stroke();
    const off = TURN_PX / seen.zoom / heightOf(picked, pickedPhoto.full);
    for (const p of [at(0, 0), at(1, 0), at(1, 1), at(0, 1), at(0.5, -off)]) {
      context.beginPath();
      context.arc(p.x, p.y, 6 / seen.zoom, 0, 7);
      context.fill();
      context.stroke();
    }
  }); // everything that is seen on the board goes into every drawing of it

  const placeOn = (event: PointerEvent): Place => {
    const at = placeIn(canvas.current!, event);
    return { x: seen.x + (at.x - size.width / 2) / seen.zoom, y: seen.y + (at.y - size.height / 2) / seen.zoom };
  };
  /** What lies under the hand: a handle of the photo that is chosen, a photo, or nothing. */
  const under = (p: Place): Grip | undefined => {
    const near = (q: Place) => Math.hypot(q.x - p.x, q.y - p.y) * seen.zoom < HANDLE_PX;
    if (picked && pickedPhoto) {
      const corner = (u: number, v: number) => near(toBoard(picked, pickedPhoto.full, u, v));
      const off = TURN_PX / seen.zoom / heightOf(picked, pickedPhoto.full);
      if (corner(0.5, -off)) return { what: 'turn', from: p, at: picked };
      if (CORNERS.some(([u, v]) => corner(u, v))) return { what: 'size', from: p, at: picked };
    }
    const hit = [...order].reverse().find((h) => {
      const photo = hung.find(({ id }) => id === h.id);
      return photo && isOver(h, photo.full, p);
    });
    return hit && { what: 'move', from: p, at: hit };
  };
  /** Samples the photo under the hand. */
  const sample = (event: PointerEvent, use: boolean) => {
    const p = placeOn(event);
    const photo = [...order].reverse().flatMap((h) => {
      const one = hung.find(({ id }) => id === h.id);
      return one && isOver(h, one.full, p) ? [{ h, one }] : [];
    })[0];
    if (!photo) {
      useEasel.setState({ photoSample: undefined });
      return;
    }
    const { h, one } = photo;
    const { u, v } = fromBoard(h, one.full, p);
    const { bitmap } = one;
    const x = (h.crop.x + u * h.crop.w) * bitmap.width;
    const y = (h.crop.y + v * h.crop.h) * bitmap.height;
    const radius = (useEasel.getState().spotPx / seen.zoom / h.width) * h.crop.w * bitmap.width;
    samplePhoto(bitmap, x, y, radius, use);
  };
  const grip = useRef<Grip>(undefined);
  useHand(canvas, true, {
    down: (event) => {
      if (event.button !== 0) return;
      if (isHeld('sample')) {
        sample(event, true);
        return true;
      }
      // a second finger: the board is moved, not the photo
      grip.current = grip.current ? undefined : under(placeOn(event));
      if (grip.current?.what === 'move') useBoard.getState().change({ chosen: grip.current.at.id });
      return true;
    },
    move: (event) => {
      if (isHeld('sample')) sample(event, false);
      else if (grip.current) useBoard.getState().hang(moved(grip.current, placeOn(event)));
    },
    up: () => {
      grip.current = undefined;
    },
  });
  const change = (next: (v: Seen) => Seen) => setView((v) => next(v ?? fitted));
  useViewGestures(canvas, {
    moves: (event) => !isHeld('sample') && under(placeOn(event)) === undefined,
    pinches: () => grip.current === undefined,
    pan: (dx, dy) => change((v) => ({ ...v, x: v.x - dx / v.zoom, y: v.y - dy / v.zoom })),
    zoom: (factor, at) =>
      change((v) => {
        const zoom = Math.max(0.03, Math.min(30, v.zoom * factor));
        const pinned = (middle: number, off: number) => middle + off / v.zoom - off / zoom;
        return { zoom, x: pinned(v.x, at.x - size.width / 2), y: pinned(v.y, at.y - size.height / 2) };
      }),
  });

  return (
    <div className={styles.wall}>
      <canvas ref={canvas} data-testid="wall" role="img" aria-label={`Motif board with ${hung.length} photos`} />
      <PhotoTag />
    </div>
  );
}
