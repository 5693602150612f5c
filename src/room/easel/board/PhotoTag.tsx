'use client';
import { labToLinear, linearToHex } from '@/core/colour/colorimetry';
import { masstoneLinear } from '@/core/colour/mixture';
import { usePalette } from '@/room/colour/paletteStore';
import { missWords, recipeWords } from '@/core/colour/recipeWords';
import { useEasel } from '@/room/easel/easelStore';
import { Beside } from '@/room/easel/compare/SampleTag';
import easel from '../easel.module.css';
import styles from './board.module.css';

/** What is under the pointer on a photo while the sample key is held: its colour beside what the tubes make of it. */
export function PhotoTag() {
  const sampling = useEasel((s) => s.sampling);
  const sample = useEasel((s) => s.photoSample);
  const forbidden = usePalette((s) => !s.rules.samplePhoto);
  if (!sampling) return null;
  if (forbidden) {
    return (
      <div className={styles.photoTag} role="status">
        By your house rules nothing is sampled from photos.
      </div>
    );
  }
  if (!sample) return null;
  const { lab, recipe } = sample;
  return (
    <div className={styles.photoTag} role="status">
      <span className={easel.pairChip}>
        <span style={{ background: linearToHex(labToLinear(lab)) }} />
        <span style={{ background: linearToHex(masstoneLinear(recipe.mixture)) }} />
      </span>
      <span>
        {recipeWords(recipe.mixture)}
        <br />
        <span className="quiet">
          {missWords(recipe.deltaE)}
          <Beside lab={lab} />
        </span>
      </span>
    </div>
  );
}
