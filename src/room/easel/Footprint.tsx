'use client';
import { useEffect, useRef, type RefObject } from 'react';
import { bladeWidthMm } from '@/core/marks/knifeForm';
import { brushForm, kindOf, washForm } from '@/core/marks/tools';
import { useCompare } from './compareStore';
import { useEasel } from './easelStore';
import styles from './easel.module.css';

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
  const form = kindOf(settings.tool) === 'brush' ? brushForm(settings) : undefined;
  const dpr = typeof window === 'undefined' ? 1 : window.devicePixelRatio;
  const kind = kindOf(settings.tool);
  const reachMm =
    kind === 'knife'
      ? bladeWidthMm(settings)
      : kind === 'spatter'
        ? 0.44 * settings.distanceMm
        : kind === 'splatter'
          ? 0.44 * settings.distanceMm
          : kind === 'spray'
            ? settings.sizeMm * (0.6 + 0.4 * (settings.distanceMm / 80))
            : kind === 'stick' && settings.tool !== 'graphite' && settings.hold !== 'flat'
              ? settings.sizeMm * (settings.hold === 'edge' ? 0.1 : 0.3)
              : settings.sizeMm;
  const width = Math.max(2, ((reachMm / 25.4) * ppi * zoom) / dpr);
  const side = kind === 'stick' && settings.tool !== 'graphite' && settings.hold === 'flat';
  const bar = side
    ? 0.22
    : kind === 'wash' && washForm(settings.tool).shape === 'bar'
      ? washForm(settings.tool).thick
      : 0;
  const length = bar
    ? width * bar
    : form
      ? width * form.aspect
      : kind === 'knife'
        ? Math.max(2, ((0.8 / 25.4) * ppi * zoom) / dpr)
        : width;
  const flat = bar > 0 || kind === 'knife' || (form && form.shape !== 'round' && form.shape !== 'dome');
  const round = { fill: 'none', cx: 0, cy: 0, rx: width / 2, ry: length / 2 };
  const square = { fill: 'none', x: -width / 2, y: -length / 2, width, height: length };
  return (
    <svg ref={mark} className={styles.footprint} aria-hidden="true">
      {flat ? <rect {...square} className={styles.halo} /> : <ellipse {...round} className={styles.halo} />}
      {flat ? <rect {...square} /> : <ellipse {...round} />}
    </svg>
  );
}
