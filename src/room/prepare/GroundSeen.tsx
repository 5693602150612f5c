'use client';
import { useMemo } from 'react';
import { PLAIN_SURFACE } from './choices';
import { GroundPreview } from './GroundPreview';
import { surfaceOf, toneOf, type Preparation } from './preparation';
import styles from './prepare.module.css';

/** The ground that is being chosen, in raking light. */
export function GroundSeen({ it }: { it: Preparation }) {
  const { kind, scale, depth, own, weight, sizing, tint } = it;
  // the preview is made anew when this is another object
  const surface = useMemo(
    () => (kind === 'own' && !own ? PLAIN_SURFACE : surfaceOf({ kind, scale, depth, own, weight, sizing, tint })),
    [kind, scale, depth, own, weight, sizing, tint],
  );
  return (
    <aside className={styles.side} aria-label="The ground in raking light">
      <GroundPreview surface={surface} mixture={toneOf(it)} widthMm={it.widthMm} heightMm={it.heightMm} />
      <p className="quiet">A piece 50 mm wide, in raking light.</p>
    </aside>
  );
}
