'use client';
import { useMemo } from 'react';
import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { linearToHex } from '@/core/colour/colorimetry';
import { masstoneLinear, type Mixture } from '@/core/colour/mixture';
import { tube } from '@/core/colour/pigments';
import { masstoneSpectrum, WAVELENGTHS } from '@/core/colour/spectrum';
import { shortName } from '../parts/recipeWords';
import styles from './desk.module.css';

/** Reflectance of the tubes in the mixture (thin) and of the mixture itself (thick), 380 to 730 nm. */
export function SpectraChart({ mixture }: { mixture: Mixture }) {
  const ids = Object.keys(mixture);
  const key = JSON.stringify(mixture);
  const data = useMemo(() => {
    const parts = JSON.parse(key) as Mixture;
    const tubes = Object.keys(parts).map((id) => [id, masstoneSpectrum({ [id]: 1 })] as const);
    const mixed = tubes.length > 0 ? masstoneSpectrum(parts) : [];
    return WAVELENGTHS.map((nm, i) => ({
      nm,
      ...Object.fromEntries(tubes.map(([id, r]) => [id, r[i] * 100])),
      ...(tubes.length > 0 ? { mixture: mixed[i] * 100 } : {}),
    }));
  }, [key]);
  return (
    <section className={styles.card} aria-label="Spectra">
      <h2>Spectra</h2>
      <ResponsiveContainer width="100%" height={190}>
        <LineChart data={data} margin={{ top: 6, right: 8, bottom: 0, left: -18 }}>
          <CartesianGrid stroke="#cbc8c0" vertical={false} />
          <XAxis
            dataKey="nm"
            type="number"
            domain={[380, 730]}
            ticks={[400, 450, 500, 550, 600, 650, 700]}
            unit=" nm"
          />
          <YAxis domain={[0, 100]} ticks={[0, 25, 50, 75, 100]} unit=" %" />
          {ids.map((id) => (
            <Line
              key={id}
              dataKey={id}
              dot={false}
              isAnimationActive={false}
              strokeWidth={1.2}
              strokeDasharray="5 3"
              stroke={tube(id)?.masstoneHex ?? '#777777'}
            />
          ))}
          {ids.length > 0 && (
            <Line
              dataKey="mixture"
              dot={false}
              isAnimationActive={false}
              strokeWidth={3}
              stroke={linearToHex(masstoneLinear(mixture))}
            />
          )}
        </LineChart>
      </ResponsiveContainer>
      <p className={styles.legend}>
        {ids.map((id) => (
          <span key={id}>
            <i style={{ background: tube(id)?.masstoneHex }} /> {shortName(id)}
          </span>
        ))}
        {ids.length > 1 && (
          <span>
            <i style={{ background: linearToHex(masstoneLinear(mixture)), height: 5 }} /> mixture
          </span>
        )}
      </p>
    </section>
  );
}
