'use client';
import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { WAVELENGTHS } from '@/core/colour/spectrum';

/** One curve: reflectance 0..1 at WAVELENGTHS, and how it is drawn. */
export interface Curve {
  readonly key: string;
  readonly reflectance: readonly number[];
  readonly stroke: string;
  readonly width: number;
  readonly dashed?: boolean;
}

/** Reflectance over wavelength, 380 to 730 nm. */
export function SpectrumPlot({ curves }: { curves: readonly Curve[] }) {
  const data = WAVELENGTHS.map((nm, i) => ({
    nm,
    ...Object.fromEntries(curves.map((c) => [c.key, c.reflectance[i] * 100])),
  }));
  return (
    <ResponsiveContainer width="100%" height={190}>
      <LineChart data={data} margin={{ top: 6, right: 8, bottom: 0, left: -18 }}>
        <CartesianGrid stroke="#cbc8c0" vertical={false} />
        <XAxis dataKey="nm" type="number" domain={[380, 730]} ticks={[400, 450, 500, 550, 600, 650, 700]} unit=" nm" />
        <YAxis domain={[0, 100]} ticks={[0, 25, 50, 75, 100]} unit=" %" />
        {curves.map(({ key, stroke, width, dashed }) => (
          <Line
            key={key}
            dataKey={key}
            dot={false}
            isAnimationActive={false}
            stroke={stroke}
            strokeWidth={width}
            strokeDasharray={dashed ? '5 3' : undefined}
          />
        ))}
      </LineChart>
    </ResponsiveContainer>
  );
}
