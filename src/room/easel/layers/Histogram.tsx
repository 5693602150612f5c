'use client';
import { useEffect, useMemo, useState } from 'react';
import { count, noCounts, type Counts } from '@/core/study/histogram';
import { useEasel } from '@/room/easel/easelStore';
import { photoPixels } from '@/room/easel/compare/spots';
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

/** How often each value is there, in the picture without a layer; over it, as a line, the same of a photo. */
export function Histogram({
  below,
  photo,
  channel,
  marks = [],
}: {
  below?: string;
  photo?: ImageBitmap;
  channel: keyof typeof PLACE;
  marks?: readonly number[];
}) {
  const engine = useEasel((s) => s.engine);
  const strokes = useEasel((s) => s.bench?.strokes);
  const [counts, setCounts] = useState<Counts>();
  useEffect(() => {
    let gone = false;
    engine?.ask({ of: 'histogram', below }).then(
      (answer) => !gone && setCounts(answer),
      () => {},
    );
    return () => {
      gone = true;
    };
  }, [engine, below, strokes]);
  const ofPhoto = useMemo(() => photo && countsOf(photo), [photo]);
  return (
    <svg
      className={styles.histogram}
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      preserveAspectRatio="none"
      role="img"
      aria-label="Histogram"
    >
      {counts && <path d={histogramPath(counts[PLACE[channel]])} data-channel={channel} />}
      {ofPhoto && <path d={histogramPath(ofPhoto[PLACE[channel]])} data-of="photo" />}
      {marks.map((at, i) => (
        <line key={i} x1={at * (WIDE - 1)} x2={at * (WIDE - 1)} y1={0} y2={HIGH} />
      ))}
    </svg>
  );
}

/** Pixels of a photo that are counted, about. */
const COUNTED = 250_000;

function countsOf(photo: ImageBitmap): Counts {
  const { data } = photoPixels(photo);
  const codes = new Uint32Array(data.buffer, data.byteOffset, data.byteLength >> 2);
  const counts = noCounts();
  count(counts, codes, Math.max(1, Math.round(codes.length / COUNTED)));
  return counts;
}
