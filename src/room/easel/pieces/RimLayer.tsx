'use client';
import { useRef } from 'react';
import type { OverCanvas } from '@/room/easel/feature';
import { placeIn, useHand } from '@/room/parts/useHand';
import { pulled, useRim, type Rim } from './rimStore';
import styles from '../easel.module.css';

/** Half of the length of a handle, and how near the hand must come, CSS pixels. */
const HANDLE_PX = 26;
const REACH_PX = 14;

/** The rim that the canvas is about to get; the middle of each side is pulled. */
export function RimLayer({ spec, toScreen, toCanvas }: OverCanvas) {
  const { shown, by } = useRim();
  const svg = useRef<SVGSVGElement>(null);
  const pulling = useRef<keyof Rim | undefined>(undefined);
  const [left, top] = [-by.leftMm, -by.topMm];
  const [right, bottom] = [spec.widthMm + by.rightMm, spec.heightMm + by.bottomMm];
  const corners = [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ].map(([x, y]) => toScreen({ x, y }));
  const sides = (['topMm', 'rightMm', 'bottomMm', 'leftMm'] as const).map((side, k) => {
    const [a, b] = [corners[k], corners[(k + 1) % 4]];
    const length = Math.hypot(b.x - a.x, b.y - a.y) || 1;
    const [dx, dy] = [((b.x - a.x) / length) * HANDLE_PX, ((b.y - a.y) / length) * HANDLE_PX];
    return { side, x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, dx, dy };
  });
  useHand(svg, shown, {
    down(event) {
      if (event.button !== 0) return false;
      const { x, y } = placeIn(svg.current!, event);
      const [near] = sides
        .map((s) => ({ side: s.side, far: Math.hypot(s.x - x, s.y - y) }))
        .sort((p, q) => p.far - q.far);
      if (near.far > HANDLE_PX + REACH_PX) return false;
      pulling.current = near.side;
      return true;
    },
    move(event) {
      const side = pulling.current;
      if (!side) return false;
      const at = toCanvas(placeIn(svg.current!, event));
      const across = side === 'leftMm' || side === 'rightMm';
      useRim.setState({ by: pulled(useRim.getState().by, side, across ? at.x : at.y, spec) });
      return true;
    },
    up() {
      if (!pulling.current) return false;
      pulling.current = undefined;
      return true;
    },
  });
  if (!shown) return null;
  const d = `M${corners.map(({ x, y }) => `${x} ${y}`).join('L')}Z`;
  return (
    <svg ref={svg} className={styles.marksOver} data-testid="rim">
      <path d={d} className={styles.markHalo} />
      <path d={d} className={styles.markLine} />
      {sides.map(({ side, x, y, dx, dy }) => (
        <path
          key={side}
          d={`M${x - dx} ${y - dy}L${x + dx} ${y + dy}`}
          stroke="var(--verdigris)"
          strokeWidth={8}
          strokeLinecap="round"
          style={{
            pointerEvents: 'all',
            cursor: side === 'leftMm' || side === 'rightMm' ? 'ew-resize' : 'ns-resize',
            touchAction: 'none',
          }}
        />
      ))}
    </svg>
  );
}
