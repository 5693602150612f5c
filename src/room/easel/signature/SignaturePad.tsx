'use client';
import { useRef, useState } from 'react';
import type { Signature } from '@/core/study/signature';
import { placeIn, useHand } from '@/room/parts/useHand';
import styles from './signature.module.css';

type Stroke = Signature[number];
/** Height of the pad, CSS pixels: one unit of what is drawn. */
const HIGH = 96;

/** The way of a stroke as an SVG path. */
const pathOf = (stroke: Stroke): string =>
  stroke.map(([, x, y], i) => `${i === 0 ? 'M' : 'L'}${(x * HIGH).toFixed(1)} ${(y * HIGH).toFixed(1)}`).join('');

/** A pad to sign on. What is drawn is kept at the end of each stroke. */
export function SignaturePad({ strokes, onChange }: { strokes: Signature; onChange: (strokes: Signature) => void }) {
  const pad = useRef<SVGSVGElement>(null);
  const begun = useRef(0);
  const [now, setNow] = useState<Stroke>();
  const read = (event: PointerEvent): Stroke[number] => {
    const { x, y } = placeIn(pad.current!, event);
    // a mouse presses evenly
    const pressure = event.pointerType === 'pen' ? event.pressure : 0.55;
    return [Math.max(0, Math.round(event.timeStamp - begun.current)), x / HIGH, y / HIGH, pressure];
  };
  useHand(pad, true, {
    down(event) {
      if (event.button !== 0) return false;
      begun.current = event.timeStamp;
      setNow([read(event)]);
      return true;
    },
    move(event) {
      if (now) setNow([...now, read(event)]);
      return true;
    },
    up() {
      if (now) onChange([...strokes, now]);
      setNow(undefined);
      return true;
    },
  });
  return (
    <svg ref={pad} className={styles.pad} height={HIGH} role="img" aria-label="Pad to sign on">
      <path d={`M10 ${HIGH * 0.72}H230`} className={styles.line} />
      {[...strokes, ...(now ? [now] : [])].map((stroke, i) => (
        <path key={i} d={pathOf(stroke)} />
      ))}
    </svg>
  );
}
