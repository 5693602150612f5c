'use client';
import { useEffect, useRef, type RefObject } from 'react';
import { labToLinear, linearToHex } from '@/core/colour/colorimetry';
import { masstoneLab } from '@/core/colour/mixture';
import { cellToView } from '@/core/picture/view';
import { compareColours } from '@/core/study/compare';
import { useCompare, type MarkedSpot } from './compareStore';
import { useEasel } from '@/room/easel/easelStore';
import easel from '../easel.module.css';
import styles from './compare.module.css';

/** Marks of compared spots on the canvas, and what is said beside the pointer: of a live spot, or of the brush. */
export function CompareTag({
  box,
  pointer,
}: {
  box: RefObject<HTMLDivElement | null>;
  pointer: RefObject<{ x: number; y: number } | undefined>;
}) {
  const { held, pending, live, probe, under, pairs } = useCompare();
  const view = useEasel((s) => s.view);
  const ppi = useEasel((s) => s.opened?.spec.ppi ?? 100);
  const carried = useEasel((s) => s.bench?.mixture);
  const tag = useRef<HTMLDivElement>(null);

  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const follow = () => {
      const p = pointer.current;
      if (!tag.current) return;
      tag.current.style.visibility = p ? 'visible' : 'hidden';
      if (!p) return;
      const dpr = window.devicePixelRatio;
      const x = Math.min(p.x / dpr + 22, element.clientWidth - 230);
      tag.current.style.transform = `translate(${x}px, ${p.y / dpr + 24}px)`;
    };
    element.addEventListener('hand', follow);
    follow();
    return () => element.removeEventListener('hand', follow);
  });

  const spots = [
    ...pairs.flatMap(({ id, first, second }) => [
      { spot: first, name: `${id}a` },
      { spot: second, name: `${id}b` },
    ]),
    ...(pending ? [{ spot: pending, name: '?' }] : []),
  ].filter(({ spot }) => spot.on === 'canvas');
  const dpr = typeof window === 'undefined' ? 1 : window.devicePixelRatio;
  const words = held
    ? live && pending
      ? `here: ${compareColours(live.lab, pending.lab).words}`
      : live
        ? 'click to mark the first spot'
        : ''
    : probe && under && carried && Object.keys(carried).length > 0
      ? `the brush: ${compareColours(masstoneLab(carried), under).words}`
      : '';
  return (
    <>
      <svg className={easel.marksOver} aria-hidden="true">
        {spots.map(({ spot, name }) => {
          const at = cellToView(view, (spot.x / 25.4) * ppi, (spot.y / 25.4) * ppi);
          return <Mark key={name} x={at.x / dpr} y={at.y / dpr} name={name} />;
        })}
      </svg>
      {words && (
        <div ref={tag} className={styles.compareTag} role="status">
          {held && live && <Spot spot={live} />}
          {words}
        </div>
      )}
    </>
  );
}

export function Mark({ x, y, name }: { x: number; y: number; name: string }) {
  return (
    <g transform={`translate(${x} ${y})`}>
      <circle r={6} className={easel.markHalo} />
      <circle r={6} className={easel.markLine} />
      <text x={9} y={4}>
        {name}
      </text>
    </g>
  );
}

export function Spot({ spot }: { spot: MarkedSpot }) {
  return <span className={styles.spotChip} style={{ background: linearToHex(labToLinear(spot.lab)) }} />;
}
