'use client';
import { useRef } from 'react';
import { curveThrough, ellipseOf, type Guide } from '@/core/study/guides';
import type { Place } from '@/core/study/register';
import { useEasel } from '@/room/easel/easelStore';
import { useSight } from './sightStore';
import { pathThrough, placeIn, useHand } from '@/room/parts/useHand';
import easel from '../easel.module.css';
import styles from './sighting.module.css';

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
    return [
      [
        { x: a.x - ux, y: a.y - uy },
        { x: b.x + ux, y: b.y + uy },
      ],
    ];
  }
  if (kind === 'curve') return [curveThrough(points)];
  if (kind === 'ellipse') {
    const e = ellipseOf(points);
    const [c, s] = [Math.cos(e.turn), Math.sin(e.turn)];
    return [
      Array.from({ length: 97 }, (_, i) => {
        const [u, v] = [e.a * Math.cos((i * Math.PI) / 48), e.b * Math.sin((i * Math.PI) / 48)];
        return { x: e.x + c * u - s * v, y: e.y + s * u + c * v };
      }),
    ];
  }
  const rays = points.flatMap((p) =>
    Array.from({ length: RAYS }, (_, i) => {
      const angle = (i * Math.PI) / RAYS;
      const [x, y] = [Math.cos(angle) * FAR_MM, Math.sin(angle) * FAR_MM];
      return [
        { x: p.x - x, y: p.y - y },
        { x: p.x + x, y: p.y + y },
      ];
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
  const held = useRef<number | undefined>(undefined);
  useHand(svg, open && used !== undefined, {
    down(event) {
      const handle = (event.target as Element).getAttribute('data-place');
      if (handle === null) return false;
      held.current = Number(handle);
      return true;
    },
    move(event) {
      const { current: at } = held;
      if (at === undefined || !used || guide === undefined) return false;
      const p = toCanvas(placeIn(svg.current!, event));
      const from = used.points[at];
      // an ellipse is moved by its middle as a whole
      const whole = used.kind === 'ellipse' && at === 0;
      setGuide(
        guide,
        used.points.map((q, i) => (whole ? { x: q.x + p.x - from.x, y: q.y + p.y - from.y } : i === at ? p : q)),
      );
      return true;
    },
    up() {
      const was = held.current !== undefined;
      held.current = undefined;
      return was;
    },
  });

  if (!used) return null;
  const path = (points: readonly Place[]) => pathThrough(points.map(toScreen));
  return (
    <svg ref={svg} className={easel.marksOver} data-testid="guides">
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
