'use client';
import { Slider } from 'antd';
import { useMemo, useState } from 'react';
import { CartesianGrid, ReferenceLine, ResponsiveContainer, Scatter, ScatterChart, XAxis, YAxis } from 'recharts';
import { labToLinear, linearToHex, type Triple } from '@/core/colour/colorimetry';
import { masstoneLab, type Mixture } from '@/core/colour/mixture';
import { OUTLINE_HUES, strongestChroma } from '@/core/mixing/leaf';
import { solverFor } from '@/core/mixing/recipe';
import { lch } from '@/core/mixing/relations';
import { scatteredColours, within } from '@/core/study/reach';
import { usePalette } from '../colour/paletteStore';
import { useGradually } from '../colour/useGradually';
import type { DeskPhoto } from './usePhotos';
import styles from './desk.module.css';

/** Colours taken from every photo; and half the height of the slice of values that is shown, CIELAB lightness. */
const COLOURS = 1600;
const SLICE = 5;

interface Point {
  a: number;
  b: number;
  lab: Triple;
  reached: boolean;
}

/** What the set reaches at one value: chroma by hue as an outline, and the photos' colours of that value as points. */
export function GamutChart({ photos, mixture }: { photos: readonly DeskPhoto[] | undefined; mixture: Mixture }) {
  const tubes = usePalette((s) => s.tubes);
  const [L, setL] = useState(50);
  const chromas = useGradually(
    `${[...tubes].sort().join()} ${L}`,
    OUTLINE_HUES.length,
    (i) => strongestChroma(solverFor(tubes), OUTLINE_HUES[i], L),
    true,
  );
  const colours = useMemo(
    () => (photos ?? []).flatMap(({ pixels: p }) => scatteredColours(p.data, p.width, p.height, COLOURS)),
    [photos],
  );
  const ready = chromas.every((c) => c !== undefined);
  const outline = OUTLINE_HUES.flatMap((h, i) => {
    const C = chromas[i];
    if (C === undefined) return [];
    const [, a, b] = lch(L, C, h);
    return [{ a, b }];
  });
  if (ready && outline.length > 0) outline.push(outline[0]);
  const points: Point[] = colours
    .filter((lab) => Math.abs(lab[0] - L) <= SLICE)
    .map((lab) => ({ a: lab[1], b: lab[2], lab, reached: !ready || within(lab, OUTLINE_HUES, chromas as number[]) }));
  const lost = points.filter((p) => !p.reached).length;
  const hand = Object.keys(mixture).length > 0 ? masstoneLab(mixture) : undefined;
  const inHand = hand && Math.abs(hand[0] - L) <= SLICE ? [{ a: hand[1], b: hand[2] }] : [];
  return (
    <section className={styles.card} aria-label="What the set reaches">
      <h2>
        What the set reaches
        <span className="quiet">at value {(L / 10).toFixed(1)}</span>
      </h2>
      <ResponsiveContainer width="100%" height={260}>
        <ScatterChart margin={{ top: 4, right: 8, bottom: 0, left: -22 }}>
          <CartesianGrid stroke="#d4d1ca" />
          <XAxis dataKey="a" type="number" domain={[-90, 90]} ticks={[-80, -40, 0, 40, 80]} />
          <YAxis dataKey="b" type="number" domain={[-90, 100]} ticks={[-80, -40, 0, 40, 80]} />
          <ReferenceLine x={0} stroke="#8e8a82" />
          <ReferenceLine y={0} stroke="#8e8a82" />
          <Scatter
            data={points}
            isAnimationActive={false}
            shape={(p: { cx?: number; cy?: number; payload?: Point }) => <Dot {...p} />}
          />
          <Scatter
            data={outline}
            isAnimationActive={false}
            line={{ stroke: '#22211f', strokeWidth: 1.5 }}
            shape={() => <g />}
          />
          <Scatter
            data={inHand}
            isAnimationActive={false}
            shape={({ cx, cy }: { cx?: number; cy?: number }) => (
              <circle cx={cx} cy={cy} r={6} fill="none" stroke="#22211f" strokeWidth={2} />
            )}
          />
        </ScatterChart>
      </ResponsiveContainer>
      <Slider
        min={5}
        max={95}
        step={5}
        value={L}
        ariaLabelForHandle="Value of the slice"
        tooltip={{ formatter: null }}
        onChange={setL}
      />
      <p className="quiet">
        {!ready
          ? 'Looking how far the tubes reach …'
          : points.length === 0
            ? 'Red to the right, yellow up, green left, blue down. No photo has colours of this value.'
            : lost === 0
              ? `Red right, yellow up. All of the photos’ colours of this value are within reach.`
              : `Red right, yellow up. ${Math.round((100 * lost) / points.length)} % of the photos’ colours of this value are beyond reach (crosses).`}
      </p>
    </section>
  );
}

function Dot({ cx = 0, cy = 0, payload }: { cx?: number; cy?: number; payload?: Point }) {
  if (!payload) return <g />;
  const fill = linearToHex(labToLinear(payload.lab));
  return payload.reached ? (
    <circle cx={cx} cy={cy} r={2.6} fill={fill} stroke="#22211f" strokeOpacity={0.35} strokeWidth={0.5} />
  ) : (
    <path d={`M${cx - 3.4} ${cy - 3.4}l6.8 6.8m0-6.8l-6.8 6.8`} stroke={fill} strokeWidth={2.4} />
  );
}
