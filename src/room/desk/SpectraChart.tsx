'use client';
import { useMemo } from 'react';
import { linearToHex } from '@/core/colour/colorimetry';
import { masstoneLinear, type Mixture } from '@/core/colour/mixture';
import { tube } from '@/core/colour/pigments';
import { masstoneSpectrum } from '@/core/colour/spectrum';
import { shortName } from '@/core/colour/recipeWords';
import { SpectrumPlot, type Curve } from './SpectrumPlot';
import styles from './desk.module.css';

/** Reflectance of the tubes in the mixture (thin) and of the mixture itself (thick), 380 to 730 nm. */
export function SpectraChart({ mixture }: { mixture: Mixture }) {
  const ids = Object.keys(mixture);
  const key = JSON.stringify(mixture);
  const curves = useMemo((): Curve[] => {
    const parts = JSON.parse(key) as Mixture;
    const tubes = Object.keys(parts);
    const thin = tubes.map((id) => ({
      key: id,
      reflectance: masstoneSpectrum({ [id]: 1 }),
      stroke: tube(id)?.masstoneHex ?? '#777777',
      width: 1.2,
      dashed: true,
    }));
    if (tubes.length === 0) return [];
    const stroke = linearToHex(masstoneLinear(parts));
    return [...thin, { key: 'mixture', reflectance: masstoneSpectrum(parts), stroke, width: 3 }];
  }, [key]);
  return (
    <section className={styles.card} aria-label="Spectra">
      <h2>Spectra</h2>
      <SpectrumPlot curves={curves} />
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
