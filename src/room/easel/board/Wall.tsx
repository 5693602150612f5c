'use client';
import { useEffect, useRef, useState } from 'react';
import { around, heightOf, isOver, toBoard, type Hanging } from '@/core/study/board';
import type { Place } from '@/core/study/register';
import { useBoard, type Hung } from './boardStore';
import { greyOf } from './photoGrey';
import { smaller } from './photoMips';
import styles from './board.module.css';

/** Reach of the places by which a photo is sized and turned, CSS pixels; how far the one that turns stands off. */
const HANDLE_PX = 12;
const TURN_PX = 26;

/** Draws what hangs into a context. @param px device pixels for a unit of the board */
export function drawHangings(
  context: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
  hung: readonly Hung[],
  hangings: readonly Hanging[],
  px: number,
): void {
  // prettier-ignore
  for (const hanging of hangings) {
    const photo = hung.find((p) => p.id === hanging.id);
    if (!photo) continue;
    const whole = hanging.grey ? greyOf(photo.bitmap) : photo.bitmap;
    const picture = smaller(whole, (hanging.width / hanging.crop.w) * px);
    const height = heightOf(hanging, photo.full);
    const { crop } = hanging;
    context.save();
    context.translate(hanging.x, hanging.y);
    context.rotate(hanging.turn);
    context.scale(hanging.mirror ? -1 : 1, 1);
    context.drawImage(picture, crop.x * picture.width, crop.y * picture.height, crop.w * picture.width, crop.h * picture.height, -hanging.width / 2, -height / 2, hanging.width, height); // prettier-ignore
    context.restore();
  }
}

/** The whole board: photos hung freely. Pull moves them, a corner sizes, the place above turns; the wheel goes nearer. */
export function Wall({ hung, values }: { hung: readonly Hung[]; values: boolean }) {
  const { hangings, chosen } = useBoard();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [view, setView] = useState<{ x: number; y: number; zoom: number }>();
  const all = hung.map((p) => useBoard.getState().hangingOf(p.id));
  const order = [...all].sort((a, b) => hangings.findIndex((h) => h.id === a.id) - hangings.findIndex((h) => h.id === b.id)); // prettier-ignore
  const shown = values ? order.map((h) => ({ ...h, grey: true })) : order;

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
    ? { x: box.x + box.w / 2, y: box.y + box.h / 2, zoom: Math.min((size.width - 24) / box.w, (size.height - 60) / box.h, 1.5) } // prettier-ignore
    : { x: 0, y: 0, zoom: 1 };
  const seen = view ?? fitted;
  const live = useRef({ seen, order, hung, size });
  useEffect(() => {
    live.current = { seen, order, hung, size };
  });

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
    drawHangings(context, hung, shown, px);
    if (!picked || !pickedPhoto) return;
    const at = (u: number, v: number) => toBoard(picked, pickedPhoto.full, u, v);
    context.strokeStyle = '#2e6f66';
    context.fillStyle = '#e8e6e1';
    context.lineWidth = 2 / seen.zoom;
    context.beginPath();
    [[0, 0], [1, 0], [1, 1], [0, 1]].forEach(([u, v], i) => { const p = at(u, v); if (i) context.lineTo(p.x, p.y); else context.moveTo(p.x, p.y); }); // prettier-ignore
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

  useEffect(() => {
    const element = canvas.current!;
    let held: { what: 'move' | 'size' | 'turn' | 'pan'; from: Place; at: Hanging; view: { x: number; y: number; zoom: number } } | undefined; // prettier-ignore
    const place = (event: { clientX: number; clientY: number }): Place => {
      const { seen: v } = live.current;
      const r = element.getBoundingClientRect();
      return { x: v.x + (event.clientX - r.left - r.width / 2) / v.zoom, y: v.y + (event.clientY - r.top - r.height / 2) / v.zoom }; // prettier-ignore
    };
    const down = (event: PointerEvent) => {
      if (event.button !== 0) return;
      element.setPointerCapture(event.pointerId);
      const { seen: v, order: now, hung: photos } = live.current;
      const p = place(event);
      const near = (q: Place) => Math.hypot(q.x - p.x, q.y - p.y) * v.zoom < HANDLE_PX;
      const { chosen: id, change } = useBoard.getState();
      const mine = now.find((h) => h.id === id);
      const photo = photos.find((q) => q.id === id);
      if (mine && photo) {
        const off = TURN_PX / v.zoom / heightOf(mine, photo.full);
        if (near(toBoard(mine, photo.full, 0.5, -off)))
          return void (held = { what: 'turn', from: p, at: mine, view: v });
        if ([[0, 0], [1, 0], [1, 1], [0, 1]].some(([a, b]) => near(toBoard(mine, photo.full, a, b)))) return void (held = { what: 'size', from: p, at: mine, view: v }); // prettier-ignore
      }
      const hit = [...now].reverse().find((h) => { const q = photos.find((x) => x.id === h.id); return q && isOver(h, q.full, p); }); // prettier-ignore
      if (!hit) return void (held = { what: 'pan', from: { x: event.clientX, y: event.clientY }, at: now[0], view: v });
      change({ chosen: hit.id });
      held = { what: 'move', from: p, at: hit, view: v };
    };
    const move = (event: PointerEvent) => {
      if (!held) return;
      const { what, from, at, view: v } = held;
      const { hang } = useBoard.getState();
      if (what === 'pan') {
        setView({ ...v, x: v.x - (event.clientX - from.x) / v.zoom, y: v.y - (event.clientY - from.y) / v.zoom });
        return;
      }
      const p = place(event);
      if (what === 'move') hang({ ...at, x: at.x + p.x - from.x, y: at.y + p.y - from.y });
      else if (what === 'size') {
        const grown = Math.hypot(p.x - at.x, p.y - at.y) / Math.max(1, Math.hypot(from.x - at.x, from.y - at.y));
        hang({ ...at, width: Math.max(20, at.width * grown) });
      } else {
        const angle = (q: Place) => Math.atan2(q.y - at.y, q.x - at.x);
        hang({ ...at, turn: at.turn + angle(p) - angle(from) });
      }
    };
    const up = () => {
      held = undefined;
    };
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const { seen: v } = live.current;
      const p = place(event);
      const zoom = Math.max(0.03, Math.min(30, v.zoom * Math.exp(-event.deltaY * 0.0016)));
      setView({ zoom, x: p.x - ((p.x - v.x) * v.zoom) / zoom, y: p.y - ((p.y - v.y) * v.zoom) / zoom });
    };
    element.addEventListener('pointerdown', down);
    element.addEventListener('pointermove', move);
    element.addEventListener('pointerup', up);
    element.addEventListener('pointercancel', up);
    element.addEventListener('wheel', wheel, { passive: false });
    return () => {
      element.removeEventListener('pointerdown', down);
      element.removeEventListener('pointermove', move);
      element.removeEventListener('pointerup', up);
      element.removeEventListener('pointercancel', up);
      element.removeEventListener('wheel', wheel);
    };
  }, []);

  return (
    <div className={styles.wall}>
      <canvas ref={canvas} data-testid="wall" role="img" aria-label={`Motif board with ${hung.length} photos`} />
    </div>
  );
}
