'use client';
import { Cell, ReferenceLine, Scatter, ScatterChart, XAxis, YAxis, ZAxis } from 'recharts';
import type { HueSpot } from '@/core/study/looking/hues';

/** Chroma up to which a plot reaches, CIELAB units, at least. */
const LEAST_REACH = 40;

/** Hues and chromas of a picture: warm to the right and up, the stronger the further out, the larger the more there is. */
export function HuePlot({ spots, reach, name }: { spots: readonly HueSpot[]; reach: number; name: string }) {
  const far = Math.max(LEAST_REACH, Math.ceil(reach / 10) * 10);
  return (
    <div role="img" aria-label={`${name}: hue and chroma`}>
      <ScatterChart width={170} height={150} margin={{ top: 4, right: 4, bottom: 0, left: 0 }}>
        <XAxis dataKey="a" type="number" domain={[-far, far]} hide />
        <YAxis dataKey="b" type="number" domain={[-far, far]} hide width={0} />
        <ZAxis dataKey="share" range={[8, 260]} />
        <ReferenceLine x={0} stroke="#bcb9b2" />
        <ReferenceLine y={0} stroke="#bcb9b2" />
        <Scatter data={[...spots]} isAnimationActive={false}>
          {spots.map(({ hex }, i) => (
            <Cell key={i} fill={hex} stroke="#57544e" strokeWidth={0.4} />
          ))}
        </Scatter>
      </ScatterChart>
    </div>
  );
}

/** The strongest chroma in some pictures. */
export const reachOf = (...pictures: readonly (readonly HueSpot[])[]): number =>
  Math.max(0, ...pictures.flat().map(({ a, b }) => Math.max(Math.abs(a), Math.abs(b))));
