'use client';
import { TOOLS } from '@/core/tools/tools';
import { useReplay } from './replayStore';
import styles from './replay.module.css';

/** The outline of the tool, where it is at this moment. */
export function TipOver() {
  const { tip, laid, told, place } = useReplay();
  const hand = told.inHandAt(place.done);
  if (!tip || !laid || !hand) return null;
  const { setting } = hand.stroke;
  const { widthMm, lengthMm, corners } = TOOLS.of(setting.tool).outline(setting);
  const dpr = window.devicePixelRatio;
  const perMm = laid.perMm / dpr;
  const [width, length] = [Math.max(2, widthMm * perMm), Math.max(2, lengthMm * perMm)];
  const [x, y] = [laid.left / dpr + tip.x * perMm, laid.top / dpr + tip.y * perMm];
  const radius = corners === 'square' ? 0 : width / 2;
  const shape = { x: -width / 2, y: -length / 2, width, height: length, rx: radius, ry: radius && length / 2 };
  return (
    <svg className={styles.tip} aria-hidden="true">
      <g transform={`translate(${x} ${y}) rotate(${(tip.angle * 180) / Math.PI + 90})`}>
        <rect {...shape} className={styles.halo} />
        <rect {...shape} />
      </g>
    </svg>
  );
}
