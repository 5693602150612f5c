'use client';
import { useRef } from 'react';
import { placedStrokes } from '@/core/study/signature';
import type { OverCanvas } from '@/room/easel/feature';
import { placeIn, useHand } from '@/room/parts/useHand';
import { signOf, useSignature } from './signatureStore';
import styles from '../easel.module.css';

/** The signature where it is to be painted; it is dragged about. */
export function SignatureLayer({ toScreen, toCanvas }: OverCanvas) {
  const state = useSignature();
  const { at } = state;
  const drawn = signOf(state);
  const svg = useRef<SVGSVGElement>(null);
  const last = useRef<{ x: number; y: number }>(undefined);
  const on = at !== undefined && drawn !== undefined;
  useHand(svg, on, {
    down(event) {
      if (event.button !== 0) return false;
      last.current = toCanvas(placeIn(svg.current!, event));
      return true;
    },
    move(event) {
      const place = useSignature.getState().at;
      if (!last.current || !place) return true;
      const to = toCanvas(placeIn(svg.current!, event));
      useSignature.getState().move({ x: place.x + to.x - last.current.x, y: place.y + to.y - last.current.y });
      last.current = to;
      return true;
    },
    up() {
      last.current = undefined;
      return true;
    },
  });
  if (!at || !drawn) return null;
  const paths = placedStrokes(drawn, at).map((stroke) =>
    stroke
      .map(([, x, y], i) => {
        const place = toScreen({ x, y });
        return `${i === 0 ? 'M' : 'L'}${place.x.toFixed(1)} ${place.y.toFixed(1)}`;
      })
      .join(''),
  );
  return (
    <svg
      ref={svg}
      className={styles.marksOver}
      data-testid="signature"
      style={{ pointerEvents: 'all', cursor: 'move', touchAction: 'none' }}
    >
      {paths.map((d, i) => (
        <g key={i}>
          <path d={d} className={styles.markHalo} />
          <path d={d} className={styles.markLine} />
        </g>
      ))}
    </svg>
  );
}
