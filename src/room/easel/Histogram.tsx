'use client';
import { useEffect, useState } from 'react';
import { useEasel } from './easelStore';
import styles from './layers.module.css';

const WIDE = 256;
const HIGH = 84;
const PLACE = { red: 0, green: 1, blue: 2, all: 3 };

/** Curve over the counts; the root lets small amounts be seen. */
export function histogramPath(counts: readonly number[]): string {
  // what is cut off at both ends would press the rest flat
  const most = Math.max(1, ...counts.slice(1, -1));
  const y = (n: number) => HIGH - Math.min(1, Math.sqrt(n / most)) * (HIGH - 4);
  return `M0 ${HIGH}${counts.map((n, i) => `L${i} ${y(n).toFixed(1)}`).join('')}L${WIDE - 1} ${HIGH}Z`;
}

/** How often each value is there: in the picture without a layer, or in counts that are given (of a photo). */
export function Histogram({ below, counts, channel, marks = [] }: { below?: string; counts?: number[][]; channel: keyof typeof PLACE; marks?: readonly number[] }) {
  const engine = useEasel((s) => s.engine);
  const strokes = useEasel((s) => s.bench?.strokes);
  const [asked, setAsked] = useState<number[][]>();
  useEffect(() => {
    if (counts || !engine) return;
    let gone = false;
    engine.ask({ of: 'histogram', below }).then(
      (answer) => !gone && setAsked(answer),
      () => {},
    );
    return () => {
      gone = true;
    };
  }, [engine, below, counts, strokes]);
  const shown = (counts ?? asked)?.[PLACE[channel]];
  return (
    <svg className={styles.histogram} viewBox={`0 0 ${WIDE} ${HIGH}`} preserveAspectRatio="none" role="img" aria-label="Histogram">
      {shown && <path d={histogramPath(shown)} data-channel={channel} />}
      {marks.map((at, i) => <line key={i} x1={at * (WIDE - 1)} x2={at * (WIDE - 1)} y1={0} y2={HIGH} />)}
    </svg>
  );
} // prettier-ignore
