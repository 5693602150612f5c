'use client';
import { useEffect, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import type { Place } from '@/core/study/register';
import { regular, wayOf } from '@/core/study/shapes';
import type { OverCanvas } from '@/room/easel/feature';
import { pathThrough, placeIn, useHand } from '@/room/parts/useHand';
import { drawShape } from './drawShape';
import { useDrawn } from './drawnStore';
import styles from '../easel.module.css';

/** A click and a drag differ by this much, and so do the two of a double click; CSS pixels. */
const SAME_PX = 4;

/** The shape over the canvas, and the hand that places it. */
export function ShapesLayer({ toScreen, toCanvas }: OverCanvas) {
  const kind = useDrawn((s) => s.kind);
  const svg = useRef<SVGSVGElement>(null);
  const [shown, setShown] = useState<readonly Place[]>([]);
  /** Places that are set, and where the hand was at the last of them, CSS pixels. */
  const set = useRef<{ points: Place[]; at: Place; down: boolean }>({ points: [], at: { x: 0, y: 0 }, down: false });
  const clear = () => {
    set.current = { points: [], at: { x: 0, y: 0 }, down: false };
    setShown([]);
  };
  const finish = (points: readonly Place[]) => {
    clear();
    if (kind) drawShape(kind, points);
  };
  const reached = (event: PointerEvent): Place => {
    const to = toCanvas(placeIn(svg.current!, event));
    const { points } = set.current;
    const from = points.at(-1);
    // the third place of an arc is free
    return event.shiftKey && from && kind && !(kind === 'arc' && points.length > 1) ? regular(kind, from, to) : to;
  };
  const far = (event: PointerEvent): boolean => {
    const { x, y } = placeIn(svg.current!, event);
    return Math.hypot(x - set.current.at.x, y - set.current.at.y) > SAME_PX;
  };
  useHand(svg, kind !== undefined, {
    down(event) {
      if (event.button !== 0) return false;
      const now = set.current;
      const place = reached(event);
      if (kind === 'arc' && now.points.length === 2) finish([...now.points, place]);
      else if (kind === 'polygon' && now.points.length > 2 && !far(event)) finish(now.points);
      else {
        now.points = [...now.points, place];
        now.at = placeIn(svg.current!, event);
        now.down = true;
        setShown(now.points);
      }
      return true;
    },
    move(event) {
      const { points } = set.current;
      if (points.length > 0) setShown([...points, reached(event)]);
      return true;
    },
    up(event) {
      const now = set.current;
      if (!now.down) return true;
      now.down = false;
      if (kind === 'polygon') return true;
      if (!far(event)) clear();
      else if (kind === 'arc') {
        now.points = [...now.points, reached(event)];
        now.at = placeIn(svg.current!, event);
      } else finish([...now.points, reached(event)]);
      return true;
    },
  });
  useHotkeys('enter', () => set.current.points.length > 2 && finish(set.current.points), {
    enabled: kind === 'polygon',
  });
  useHotkeys('escape', clear, { enabled: kind !== undefined });
  useEffect(() => clear, [kind]);

  if (!kind) return null;
  const d = pathThrough(wayOf(kind, shown).map(toScreen));
  return (
    <svg
      ref={svg}
      className={styles.marksOver}
      data-testid="shape"
      style={{ pointerEvents: 'all', cursor: 'crosshair', touchAction: 'none' }}
    >
      <path d={d} className={styles.markHalo} />
      <path d={d} className={styles.markLine} />
    </svg>
  );
}
