'use client';
import { useEffect, useRef, useState } from 'react';
import type { Place } from '@/core/study/register';
import { mixtureOf, useEasel } from './easelStore';
import { useShape } from './shapeStore';
import styles from './easel.module.css';

/** How far a free outline goes before it gets another corner, CSS pixels; and a double click may be apart. */
const STEP_PX = 3;
const SAME_PX = 4;

/** Fills or cuts the outline that was drawn. */
function close(points: readonly Place[]): void {
  if (points.length < 3) return;
  const { cut, edgeMm, streaks } = useShape.getState();
  const { apply, parts, bench } = useEasel.getState();
  const round = (v: number) => Math.round(v * 100) / 100;
  const outline = points.map(({ x, y }): [number, number] => [round(x), round(y)]);
  if (cut) apply({ do: 'silhouette', outline, cut, edgeMm, streaks: 0 });
  else {
    const set = mixtureOf(parts);
    const mixture = Object.keys(set).length > 0 ? set : (bench?.mixture ?? {});
    apply({ do: 'silhouette', outline, mixture, edgeMm, streaks });
  }
}

/** The outline of a silhouette over the canvas, and the hand that draws it. */
export function ShapeLayer({ toScreen, toCanvas }: { toScreen: (p: Place) => Place; toCanvas: (p: Place) => Place }) {
  const way = useShape((s) => s.way);
  const [points, setPoints] = useState<readonly Place[]>([]);
  const svg = useRef<SVGSVGElement>(null);
  const live = useRef({ toCanvas, toScreen });
  useEffect(() => {
    live.current = { toCanvas, toScreen };
  });

  useEffect(() => {
    const element = svg.current;
    if (!element || !way) return;
    let drawn: Place[] = [];
    let down = false;
    let last = { x: 0, y: 0 };
    const show = () => setPoints([...drawn]);
    const done = () => {
      close(drawn);
      drawn = [];
      show();
    };
    const at = (event: PointerEvent) => {
      const box = element.getBoundingClientRect();
      return { x: event.clientX - box.left, y: event.clientY - box.top };
    };
    const begin = (event: PointerEvent) => {
      if (event.button !== 0) return;
      event.stopPropagation();
      element.setPointerCapture(event.pointerId);
      const p = at(event);
      const twice = way === 'straight' && drawn.length > 2 && Math.hypot(p.x - last.x, p.y - last.y) < SAME_PX;
      last = p;
      if (twice) return done();
      if (way === 'free') drawn = [];
      drawn.push(live.current.toCanvas(p));
      down = true;
      show();
    };
    const move = (event: PointerEvent) => {
      event.stopPropagation();
      if (!down || way !== 'free') return;
      const p = at(event);
      if (Math.hypot(p.x - last.x, p.y - last.y) < STEP_PX) return;
      last = p;
      drawn.push(live.current.toCanvas(p));
      show();
    };
    const end = (event: PointerEvent) => {
      event.stopPropagation();
      if (down && way === 'free') done();
      down = false;
    };
    const key = (event: KeyboardEvent) => {
      if (event.key === 'Enter' && drawn.length > 2) done();
      else if (event.key === 'Escape') {
        drawn = [];
        show();
      }
    };
    const stop = (event: Event) => event.stopPropagation();
    element.addEventListener('pointerdown', begin);
    element.addEventListener('pointermove', move);
    element.addEventListener('pointerrawupdate', stop);
    element.addEventListener('pointerup', end);
    element.addEventListener('pointercancel', end);
    window.addEventListener('keydown', key);
    return () => {
      setPoints([]);
      element.removeEventListener('pointerdown', begin);
      element.removeEventListener('pointermove', move);
      element.removeEventListener('pointerrawupdate', stop);
      element.removeEventListener('pointerup', end);
      element.removeEventListener('pointercancel', end);
      window.removeEventListener('keydown', key);
    };
  }, [way]);

  if (!way) return null;
  const d = points.map((p, i) => { const s = toScreen(p); return `${i ? 'L' : 'M'}${s.x.toFixed(1)} ${s.y.toFixed(1)}`; }).join(''); // prettier-ignore
  return (
    <svg
      ref={svg}
      className={styles.marksOver}
      data-testid="silhouette"
      style={{ pointerEvents: 'all', cursor: 'crosshair', touchAction: 'none' }}
    >
      <path d={d} className={styles.markHalo} />
      <path d={d} className={styles.markLine} />
    </svg>
  );
}
