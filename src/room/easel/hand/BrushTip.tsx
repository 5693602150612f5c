'use client';
import type { ToolPicture } from '@/core/tools/drawing';
import styles from './hand.module.css';

/** The tip of the tool from the side, with the paint that is on it, and a gauge of its load. */
export function BrushTip({
  picture: { parts, tuft, paint, gauge },
  colour,
  level,
}: {
  picture: ToolPicture;
  colour: string | undefined;
  level: number;
}) {
  const full = Math.max(0, Math.min(1, level));
  const shown = colour && paint?.(full);
  // a brush stands without an outline, as its hair does
  const edge = tuft ? {} : { stroke: '#8d8271', strokeWidth: 0.6 };
  return (
    <svg viewBox="0 0 60 90" className={styles.tipPicture} aria-hidden="true">
      {parts.map(({ d, fill }, i) => (
        <path key={i} d={d} fill={fill} {...edge} />
      ))}
      {tuft && (
        <>
          <defs>
            <clipPath id="tuft">
              <path d={tuft.d} />
            </clipPath>
          </defs>
          <path d={tuft.d} fill={tuft.fill} />
          {colour && <rect x={0} y={72 - full * 44} width={60} height={90} fill={colour} clipPath="url(#tuft)" />}
        </>
      )}
      {shown && <path d={shown.d} fill={colour} opacity={shown.opacity} {...(shown.lined && edge)} />}
      {gauge && (
        <>
          <rect x={55} y={26} width={4} height={58} fill="#c3bfb7" />
          <rect
            x={55}
            y={84 - full * 58}
            width={4}
            height={full * 58}
            fill={colour ?? 'none'}
            stroke="#57544e"
            strokeWidth={0.4}
          >
            <title>{`Load ${Math.round(full * 100)} %`}</title>
          </rect>
        </>
      )}
    </svg>
  );
}
