'use client';
import { useEffect, useRef } from 'react';
import type { CanvasSize, Place } from '@/core/study/register';
import { gridLines, sightWords, type Sight } from '@/core/study/sighting';
import { isPulled, unitOf, useSight } from './sightStore';
import styles from './easel.module.css';

/** How far a contour goes before it gets another place, CSS pixels. */
const STEP_PX = 4;

/**
 * What has been sighted, drawn over the canvas or over the photo in register with it; and the hand that takes a sight.
 * @param toScreen CSS pixels of a place on the canvas (mm) @param toCanvas the other way round
 */
export function SightLayer({
  canvas,
  toScreen,
  toCanvas,
  name,
  width,
}: {
  canvas: CanvasSize;
  toScreen: (p: Place) => Place;
  toCanvas: (p: Place) => Place;
  name: string;
  /** Of the view, CSS pixels. */
  width: number;
}) {
  const { sights, kind, taking, unit, grid } = useSight();
  const svg = useRef<SVGSVGElement>(null);
  const maps = useRef({ toCanvas });
  useEffect(() => {
    maps.current = { toCanvas };
  });

  // the hand is caught here before the canvas or the photo takes it for painting or moving
  useEffect(() => {
    const element = svg.current;
    if (!element || !kind) return;
    let down = false;
    let last = { x: 0, y: 0 };
    const at = (event: PointerEvent) => {
      const box = element.getBoundingClientRect();
      last = { x: event.clientX - box.left, y: event.clientY - box.top };
      return maps.current.toCanvas(last);
    };
    const begin = (event: PointerEvent) => {
      if (event.button !== 0) return;
      event.stopPropagation();
      element.setPointerCapture(event.pointerId);
      down = true;
      const p = at(event);
      const { take } = useSight.getState();
      take(p, false);
      if (isPulled(kind) && useSight.getState().taking.length === 1) useSight.setState({ taking: [p, p] });
    };
    const move = (event: PointerEvent) => {
      event.stopPropagation();
      if (!down) return;
      const before = last;
      if (isPulled(kind)) useSight.getState().moveLast(at(event));
      else if (kind === 'contour') {
        const box = element.getBoundingClientRect();
        const far = Math.hypot(event.clientX - box.left - before.x, event.clientY - box.top - before.y);
        if (far >= STEP_PX) useSight.getState().take(at(event), false);
      }
    };
    const end = (event: PointerEvent) => {
      if (!down) return;
      event.stopPropagation();
      down = false;
      const p = at(event);
      if (isPulled(kind)) {
        const [first] = useSight.getState().taking;
        useSight.setState({ taking: [] });
        if (!first || Math.hypot(first.x - p.x, first.y - p.y) < 0.2) return;
        useSight.setState({ taking: [first] });
        useSight.getState().take(p, true);
      } else if (kind === 'contour') useSight.getState().take(p, true);
    };
    element.addEventListener('pointerdown', begin);
    element.addEventListener('pointermove', move);
    element.addEventListener('pointerrawupdate', stop);
    element.addEventListener('pointerup', end);
    element.addEventListener('pointercancel', end);
    return () => {
      element.removeEventListener('pointerdown', begin);
      element.removeEventListener('pointermove', move);
      element.removeEventListener('pointerrawupdate', stop);
      element.removeEventListener('pointerup', end);
      element.removeEventListener('pointercancel', end);
    };
  }, [kind]);

  const unitMm = unitOf(sights, unit);
  const path = (points: readonly Place[]) => points.map((p, i) => { const s = toScreen(p); return `${i ? 'L' : 'M'}${s.x.toFixed(1)} ${s.y.toFixed(1)}`; }).join(''); // prettier-ignore
  const { widthMm: w, heightMm: h } = canvas;
  const draw = (sight: Sight, key: number | string) => {
    const { points } = sight;
    const [a, b] = points;
    const d =
      sight.kind === 'plumb'
        ? path([{ x: a.x, y: -h }, { x: a.x, y: 2 * h }]) // prettier-ignore
        : sight.kind === 'level'
          ? path([{ x: -w, y: a.y }, { x: 2 * w, y: a.y }]) // prettier-ignore
          : sight.kind === 'box' && b
            ? `${path([a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }])}Z`
            : path(points);
    const end = toScreen(points[points.length - 1]);
    const words = key === 'taking' || sight.kind !== 'contour' ? sightWords(sight, sight.id === unit ? undefined : unitMm) : ''; // prettier-ignore
    const says = sight.id === unit ? `1 unit, ${words}` : words;
    return (
      <g key={key}>
        <path d={d} className={styles.markHalo} />
        <path d={d} className={styles.markLine} />
        {sight.kind === 'drift' &&
          points.map((p, i) => {
            const s = toScreen(p);
            return <circle key={i} cx={s.x} cy={s.y} r={4} className={styles.markLine} />;
          })}{' '}
        {/* prettier-ignore */}
        {says && !['plumb', 'level'].includes(sight.kind) && (
          <text
            x={end.x > width - 130 ? end.x - 8 : end.x + 8}
            y={end.y - 6}
            textAnchor={end.x > width - 130 ? 'end' : 'start'}
          >
            {says}
          </text>
        )}
      </g>
    );
  };
  const lines = grid.columns > 0 ? gridLines(canvas, grid.columns, grid.diagonals) : [];
  return (
    <svg
      ref={svg}
      className={styles.marksOver}
      data-testid={`sights-${name}`}
      style={kind ? { pointerEvents: 'all', cursor: 'crosshair', touchAction: 'none' } : undefined}
    >
      {lines.map((line, i) => (
        <path key={i} d={path(line)} className={styles.gridLine} />
      ))}
      {sights.map((sight) => draw(sight, sight.id))}
      {kind && taking.length > 0 && draw({ id: -1, kind, points: taking }, 'taking')}
    </svg>
  );
}

const stop = (event: Event) => event.stopPropagation();
