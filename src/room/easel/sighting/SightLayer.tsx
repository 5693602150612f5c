'use client';
import { useRef } from 'react';
import type { CanvasSize, Place } from '@/core/study/register';
import { gridLines, sightWords, type Sight } from '@/core/study/sighting';
import { isPulled, unitOf, useSight } from './sightStore';
import { pathThrough, placeIn, useHand } from '@/room/parts/useHand';
import easel from '../easel.module.css';
import styles from './sighting.module.css';

/** How far a contour goes before it gets another place, CSS pixels. */
const STEP_PX = 4;
/** A pull shorter than this is none, mm. */
const LEAST_MM = 0.2;

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
  const hand = useRef({ down: false, last: { x: 0, y: 0 } });
  const at = (event: PointerEvent) => {
    hand.current.last = placeIn(svg.current!, event);
    return toCanvas(hand.current.last);
  };
  useHand(svg, kind !== undefined, {
    down(event) {
      if (event.button !== 0 || !kind) return false;
      hand.current.down = true;
      const p = at(event);
      useSight.getState().take(p, false);
      if (isPulled(kind) && useSight.getState().taking.length === 1) useSight.setState({ taking: [p, p] });
      return true;
    },
    move(event) {
      if (!hand.current.down) return true;
      const { last } = hand.current;
      const now = placeIn(svg.current!, event);
      if (kind && isPulled(kind)) useSight.getState().moveLast(at(event));
      else if (kind === 'contour' && Math.hypot(now.x - last.x, now.y - last.y) >= STEP_PX) {
        useSight.getState().take(at(event), false);
      }
      return true;
    },
    up(event) {
      if (!hand.current.down || !kind) return true;
      hand.current.down = false;
      const p = at(event);
      const { taking, take } = useSight.getState();
      if (isPulled(kind)) {
        const [first] = taking;
        const far = first ? Math.hypot(first.x - p.x, first.y - p.y) : 0;
        useSight.setState({ taking: far < LEAST_MM ? [] : [first] });
        if (far >= LEAST_MM) take(p, true);
      } else if (kind === 'contour') take(p, true);
      return true;
    },
  });

  const unitMm = unitOf(sights, unit);
  const path = (points: readonly Place[]) => pathThrough(points.map(toScreen));
  const { widthMm: w, heightMm: h } = canvas;
  const draw = (sight: Sight, key: number | string) => {
    const { points } = sight;
    const [a, b] = points;
    const d =
      sight.kind === 'plumb'
        ? path([
            { x: a.x, y: -h },
            { x: a.x, y: 2 * h },
          ])
        : sight.kind === 'level'
          ? path([
              { x: -w, y: a.y },
              { x: 2 * w, y: a.y },
            ])
          : sight.kind === 'box' && b
            ? `${path([a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }])}Z`
            : path(points);
    const end = toScreen(points[points.length - 1]);
    const words =
      key === 'taking' || sight.kind !== 'contour' ? sightWords(sight, sight.id === unit ? undefined : unitMm) : '';
    const says = sight.id === unit ? `1 unit, ${words}` : words;
    return (
      <g key={key}>
        <path d={d} className={easel.markHalo} />
        <path d={d} className={easel.markLine} />
        {sight.kind === 'drift' &&
          points.map((p, i) => {
            const s = toScreen(p);
            return <circle key={i} cx={s.x} cy={s.y} r={4} className={easel.markLine} />;
          })}{' '}
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
      className={easel.marksOver}
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
