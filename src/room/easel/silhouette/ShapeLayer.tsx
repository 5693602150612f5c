'use client';
import { useEffect, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import type { Place } from '@/core/study/register';
import { fillOutline } from './fillOutline';
import { useShape } from './shapeStore';
import { pathThrough, placeIn, useHand } from '@/room/parts/useHand';
import styles from '../easel.module.css';

/** How far a free outline goes before it gets another corner, CSS pixels; and a double click may be apart. */
const STEP_PX = 3;
const SAME_PX = 4;

/** The outline of a silhouette over the canvas, and the hand that draws it. */
export function ShapeLayer({ toScreen, toCanvas }: { toScreen: (p: Place) => Place; toCanvas: (p: Place) => Place }) {
  const way = useShape((s) => s.way);
  const [points, setPoints] = useState<readonly Place[]>([]);
  const svg = useRef<SVGSVGElement>(null);
  const hand = useRef<{ drawn: Place[]; down: boolean; last: Place }>({ drawn: [], down: false, last: { x: 0, y: 0 } });
  const begin = (drawn: Place[]) => {
    hand.current.drawn = drawn;
    setPoints(drawn);
  };
  const add = (p: Place) => begin([...hand.current.drawn, toCanvas((hand.current.last = p))]);
  const done = () => {
    fillOutline(hand.current.drawn);
    begin([]);
  };
  useHand(svg, way !== undefined, {
    down(event) {
      if (event.button !== 0) return false;
      const p = placeIn(svg.current!, event);
      const { drawn, last } = hand.current;
      const twice = way === 'straight' && drawn.length > 2 && Math.hypot(p.x - last.x, p.y - last.y) < SAME_PX;
      if (twice) done();
      else {
        if (way === 'free') hand.current.drawn = [];
        add(p);
        hand.current.down = true;
      }
      return true;
    },
    move(event) {
      const { down, last } = hand.current;
      const p = placeIn(svg.current!, event);
      if (down && way === 'free' && Math.hypot(p.x - last.x, p.y - last.y) >= STEP_PX) add(p);
      return true;
    },
    up() {
      if (hand.current.down && way === 'free') done();
      hand.current.down = false;
      return true;
    },
  });
  useHotkeys('enter', () => hand.current.drawn.length > 2 && done(), { enabled: way !== undefined });
  useHotkeys('escape', () => begin([]), { enabled: way !== undefined });
  useEffect(() => {
    hand.current.drawn = [];
  }, [way]);

  if (!way) return null;
  const d = pathThrough(points.map(toScreen));
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
