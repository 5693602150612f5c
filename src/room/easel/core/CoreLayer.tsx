'use client';
import { useRef, useState } from 'react';
import type { Place } from '@/core/study/register';
import type { OverCanvas } from '@/room/easel/feature';
import { placeIn, useHand } from '@/room/parts/useHand';
import { useCore } from './coreStore';
import styles from '../easel.module.css';

/** Where a core is taken: touched, or along a line that is drawn. */
export function CoreLayer({ toScreen, toCanvas }: OverCanvas) {
  const { on, line, take } = useCore();
  const svg = useRef<SVGSVGElement>(null);
  const [drawn, setDrawn] = useState<readonly [Place, Place]>();
  const placeOf = (event: PointerEvent) => toCanvas(placeIn(svg.current!, event));
  useHand(svg, on, {
    down(event) {
      if (event.button !== 0) return false;
      const at = placeOf(event);
      setDrawn([at, at]);
      return true;
    },
    move(event) {
      if (drawn) setDrawn([drawn[0], placeOf(event)]);
      return true;
    },
    up(event) {
      if (!drawn) return true;
      take(drawn[0], placeOf(event));
      setDrawn(undefined);
      return true;
    },
  });
  if (!on) return null;
  const shown = drawn ?? line;
  const [a, b] = shown ? [toScreen(shown[0]), toScreen(shown[1])] : [];
  return (
    <svg
      ref={svg}
      className={styles.marksOver}
      data-testid="core"
      style={{ pointerEvents: 'all', cursor: 'crosshair', touchAction: 'none' }}
    >
      {a && b && (
        <>
          <path d={`M${a.x} ${a.y}L${b.x} ${b.y}`} className={styles.markHalo} />
          <path d={`M${a.x} ${a.y}L${b.x} ${b.y}`} className={styles.markLine} />
          {[a, b].map(({ x, y }, i) => (
            <circle key={i} cx={x} cy={y} r={4} className={styles.markLine} />
          ))}
        </>
      )}
    </svg>
  );
}
