'use client';
import { useEffect, useRef } from 'react';
import { curveThrough, ellipseOf, type Guide } from '@/core/study/guides';
import type { Place } from '@/core/study/register';
import { useEasel } from './easelStore';
import { useSight } from './sightStore';
import styles from './easel.module.css';

/** How far lines of guides are drawn, mm. */
const FAR_MM = 3000;
/** Lines drawn from each vanishing point. */
const RAYS = 24;

/** Lines of a guide as they are seen. */
function linesOf({ kind, points }: Guide): Place[][] {
  if (kind === 'straight') {
    const [a, b] = points;
    const d = Math.hypot(b.x - a.x, b.y - a.y) || 1;
    const [ux, uy] = [((b.x - a.x) / d) * FAR_MM, ((b.y - a.y) / d) * FAR_MM];
    return [[{ x: a.x - ux, y: a.y - uy }, { x: b.x + ux, y: b.y + uy }]]; // prettier-ignore
  }
  if (kind === 'curve') return [curveThrough(points)];
  if (kind === 'ellipse') {
    const e = ellipseOf(points);
    const [c, s] = [Math.cos(e.turn), Math.sin(e.turn)];
    return [Array.from({ length: 97 }, (_, i) => {
      const [u, v] = [e.a * Math.cos((i * Math.PI) / 48), e.b * Math.sin((i * Math.PI) / 48)];
      return { x: e.x + c * u - s * v, y: e.y + s * u + c * v };
    })]; // prettier-ignore
  }
  const rays = points.flatMap((p) =>
    Array.from({ length: RAYS }, (_, i) => {
      const angle = (i * Math.PI) / RAYS;
      const [x, y] = [Math.cos(angle) * FAR_MM, Math.sin(angle) * FAR_MM];
      return [{ x: p.x - x, y: p.y - y }, { x: p.x + x, y: p.y + y }]; // prettier-ignore
    }),
  );
  return points.length === 2 ? [[...points], ...rays] : rays;
}

/** The guides over the canvas; while their drawer is open, with places to hold them by. */
export function GuideLayer({ toScreen, toCanvas }: { toScreen: (p: Place) => Place; toCanvas: (p: Place) => Place }) {
  const { guides, guide, setGuide } = useSight();
  const open = useEasel((s) => s.drawer === 'guides');
  const svg = useRef<SVGSVGElement>(null);
  const used = guide === undefined ? undefined : guides[guide];
  const live = useRef({ toCanvas, setGuide, used, guide });
  useEffect(() => {
    live.current = { toCanvas, setGuide, used, guide };
  });

  useEffect(() => {
    const element = svg.current;
    if (!element || !open) return;
    let held: number | undefined;
    const down = (event: PointerEvent) => {
      const handle = (event.target as Element).getAttribute('data-place');
      if (handle === null) return;
      event.stopPropagation();
      element.setPointerCapture(event.pointerId);
      held = Number(handle);
    };
    const move = (event: PointerEvent) => {
      const { used: now, guide: index } = live.current;
      if (held === undefined || !now || index === undefined) return;
      event.stopPropagation();
      const box = element.getBoundingClientRect();
      const p = live.current.toCanvas({ x: event.clientX - box.left, y: event.clientY - box.top });
      const from = now.points[held];
      // an ellipse is moved by its middle as a whole
      const points = now.kind === 'ellipse' && held === 0
        ? now.points.map((q) => ({ x: q.x + p.x - from.x, y: q.y + p.y - from.y }))
        : now.points.map((q, i) => (i === held ? p : q)); // prettier-ignore
      live.current.setGuide(index, points);
    };
    const up = (event: PointerEvent) => {
      if (held === undefined) return;
      event.stopPropagation();
      held = undefined;
    };
    element.addEventListener('pointerdown', down);
    element.addEventListener('pointermove', move);
    element.addEventListener('pointerup', up);
    element.addEventListener('pointercancel', up);
    return () => {
      element.removeEventListener('pointerdown', down);
      element.removeEventListener('pointermove', move);
      element.removeEventListener('pointerup', up);
      element.removeEventListener('pointercancel', up);
    };
  }, [open]);

  if (!used) return null;
  const path = (points: readonly Place[]) => points.map((p, i) => { const s = toScreen(p); return `${i ? 'L' : 'M'}${s.x.toFixed(1)} ${s.y.toFixed(1)}`; }).join(''); // prettier-ignore
  return (
    <svg ref={svg} className={styles.marksOver} data-testid="guides">
      {linesOf(used).map((line, i) => (
        <path key={i} d={path(line)} className={styles.guideLine} />
      ))}
      {open &&
        used.points.map((p, i) => {
          const s = toScreen(p);
          return <circle key={i} cx={s.x} cy={s.y} r={7} data-place={i} className={styles.guideHandle} />;
        })}
    </svg>
  );
}
