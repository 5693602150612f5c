'use client';
import type { RefObject } from 'react';
import { linearToHex } from '@/core/colour/colorimetry';
import { masstoneLinear } from '@/core/colour/mixture';
import { recipeWords } from '../parts/recipeWords';
import { useEasel } from './easelStore';
import styles from './easel.module.css';

/** What is under the pointer while the sample key is held: the mixture itself, whatever the light. */
export function SampleTag({ pointer }: { pointer: RefObject<{ x: number; y: number } | undefined> }) {
  const sampling = useEasel((s) => s.sampling);
  const sample = useEasel((s) => s.sample);
  const layers = useEasel((s) => s.bench?.layers);
  if (!sampling || !sample) return null;
  const dpr = window.devicePixelRatio;
  const at = pointer.current ?? { x: 40, y: 40 };
  const width = useEasel.getState().view.width / dpr;
  const bare = Object.keys(sample.mixture).length === 0;
  const layer = layers?.find((l) => l.id === sample.layer)?.name;
  const state = sample.wetness > 0.5 ? 'wet' : 'dry';
  return (
    <div
      className={styles.sampleTag}
      style={{ left: Math.min(at.x / dpr + 18, width - 300), top: at.y / dpr + 18 }}
      role="status"
    >
      {!bare && <span className={styles.chip} style={{ background: linearToHex(masstoneLinear(sample.mixture)) }} />}
      <span>
        {bare ? 'Bare ground' : recipeWords(sample.mixture)}
        <br />
        <span className="quiet">
          {layer ? `from ${layer}, ${state}` : 'the tone of the ground'}; L* {sample.lab[0].toFixed(0)}
        </span>
      </span>
    </div>
  );
}
