'use client';
import { useMemo } from 'react';
import { Leaf } from '../colour/Leaf';
import { usePalette } from '../colour/paletteStore';
import { inParts } from '@/core/colour/recipeWords';
import { AskedColour } from './AskedColour';
import { useDeskHand } from './deskHand';
import { GamutChart } from './GamutChart';
import { MixtureInHand } from './MixtureInHand';
import { Relations } from './Relations';
import { SpectraChart } from './SpectraChart';
import { StringRow } from './StringRow';
import type { DeskPhoto } from './usePhotos';
import styles from './desk.module.css';

/** Mixtures: the one in hand, colours asked for, its relations, strings, the leaf, spectra and what the set reaches. */
export function MixView({ photos }: { photos: readonly DeskPhoto[] | undefined }) {
  const parts = usePalette((s) => s.parts);
  const tubes = usePalette((s) => s.tubes);
  const { take } = useDeskHand();
  const mixture = useMemo(() => Object.fromEntries(Object.entries(parts ?? {}).filter(([, n]) => n > 0)), [parts]);
  return (
    <div className={styles.mix}>
      <div className={styles.column}>
        <MixtureInHand mixture={mixture} />
        <AskedColour mixture={mixture} />
        <Relations mixture={mixture} />
      </div>
      <div className={styles.column}>
        <section className={styles.card} aria-label="Leaf">
          <h2>Leaf</h2>
          <Leaf tubes={tubes} mixture={mixture} onChoose={(recipe) => take(inParts(recipe.mixture))} />
        </section>
        <StringRow mixture={mixture} />
      </div>
      <div className={styles.column}>
        <SpectraChart mixture={mixture} />
        <GamutChart photos={photos} mixture={mixture} />
      </div>
    </div>
  );
}
