'use client';
import { useEffect, useRef, type RefObject } from 'react';
import { toolOf } from '@/core/tools/tools';
import { useCompare } from '@/room/easel/compare/compareStore';
import { useEasel } from '@/room/easel/easelStore';
import styles from './hand.module.css';

/** The cursor: the tool's footprint at its true size and angle, moved without waiting for anything. */
export function Footprint({
  box,
  pointer,
}: {
  box: RefObject<HTMLDivElement | null>;
  pointer: RefObject<{ x: number; y: number; angle: number } | undefined>;
}) {
  const mark = useRef<SVGSVGElement>(null);
  const settings = useEasel((s) => s.bench?.tool);
  const zoom = useEasel((s) => s.view.zoom);
  const ppi = useEasel((s) => s.opened?.spec.ppi ?? 100);
  const sampling = useEasel((s) => s.sampling);
  const comparing = useCompare((s) => s.held);
  const spotPx = useEasel((s) => s.spotPx);

  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const follow = () => {
      const svg = mark.current;
      const p = pointer.current;
      if (!svg) return;
      svg.style.visibility = p ? 'visible' : 'hidden';
      if (!p) return;
      const dpr = window.devicePixelRatio;
      const degrees = (p.angle * 180) / Math.PI + 90;
      svg.style.transform = `translate(${p.x / dpr}px, ${p.y / dpr}px) rotate(${degrees}deg)`;
    };
    element.addEventListener('hand', follow);
    follow();
    return () => element.removeEventListener('hand', follow);
  }, [box, pointer, sampling, comparing, settings]);

  if (!settings) return null;
  if (sampling || comparing) {
    return (
      <svg ref={mark} className={styles.footprint} aria-hidden="true">
        <circle className={styles.halo} fill="none" r={Math.max(2, spotPx)} />
        <circle fill="none" r={Math.max(2, spotPx)} />
      </svg>
    );
  }
  const { widthMm, lengthMm, corners } = toolOf(settings.tool).outline(settings);
  const dpr = typeof window === 'undefined' ? 1 : window.devicePixelRatio;
  const pixels = (mm: number) => Math.max(2, ((mm / 25.4) * ppi * zoom) / dpr);
  const [width, length] = [pixels(widthMm), pixels(lengthMm)];
  const flat = corners === 'square';
  const round = { fill: 'none', cx: 0, cy: 0, rx: width / 2, ry: length / 2 };
  const square = { fill: 'none', x: -width / 2, y: -length / 2, width, height: length };
  return (
    <svg ref={mark} className={styles.footprint} aria-hidden="true">
      {flat ? <rect {...square} className={styles.halo} /> : <ellipse {...round} className={styles.halo} />}
      {flat ? <rect {...square} /> : <ellipse {...round} />}
    </svg>
  );
}
