'use client';
import { useEffect, useState, type RefObject } from 'react';
import { labToLinear, linearToHex } from '@/core/colour/colorimetry';
import type { Triple } from '@/core/colour/colorimetry';
import { masstoneLab, masstoneLinear } from '@/core/colour/mixture';
import { missWords, recipeWords } from '@/core/colour/recipeWords';
import { usePalette } from '@/room/colour/paletteStore';
import { besideHand, solveFor } from './sampling';
import { useEasel } from '@/room/easel/easelStore';
import easel from '../easel.module.css';
import styles from './compare.module.css';

/** The value of a colour as it is seen, and how it differs from the mixture in hand. */
export function Beside({ lab, seen = lab }: { lab: Readonly<Triple>; seen?: Readonly<Triple> }) {
  const words = besideHand(lab);
  return (
    <>
      <br />
      value {(seen[0] / 10).toFixed(1)}
      {words && `; ${words}`}
    </>
  );
}

/** What is under the pointer while the sample key is held: the mixture itself, whatever the light. */
export function SampleTag({
  box,
  pointer,
}: {
  box: RefObject<HTMLDivElement | null>;
  pointer: RefObject<{ x: number; y: number } | undefined>;
}) {
  const [at, setAt] = useState<{ x: number; y: number }>();
  const sampling = useEasel((s) => s.sampling);
  const sample = useEasel((s) => s.sample);
  const layers = useEasel((s) => s.bench?.layers);
  const asSeen = useEasel((s) => s.asSeen);
  const forbidden = usePalette((s) => !s.rules.sampleCanvas);
  useEffect(() => {
    const element = box.current;
    if (!element || !sampling) return;
    const follow = () => setAt(pointer.current && { x: pointer.current.x, y: pointer.current.y });
    element.addEventListener('hand', follow);
    follow();
    return () => element.removeEventListener('hand', follow);
  }, [box, pointer, sampling]);
  if (!sampling || !at) return null;
  const dpr = window.devicePixelRatio;
  const width = useEasel.getState().view.width / dpr;
  const style = { left: Math.min(at.x / dpr + 18, width - 300), top: at.y / dpr + 18 };
  if (forbidden) {
    return (
      <div className={styles.sampleTag} style={style} role="status">
        By your house rules nothing is sampled from this canvas.
      </div>
    );
  }
  if (!sample) return null;
  if (asSeen) {
    const recipe = solveFor(sample.lab);
    return (
      <div className={styles.sampleTag} style={style} role="status">
        <span className={easel.pairChip}>
          <span style={{ background: linearToHex(labToLinear(sample.lab)) }} />
          <span style={{ background: linearToHex(masstoneLinear(recipe.mixture)) }} />
        </span>
        <span>
          {recipeWords(recipe.mixture)}
          <br />
          <span className="quiet">
            the colour seen, as a recipe; {missWords(recipe.deltaE)}
            <Beside lab={sample.lab} />
          </span>
        </span>
      </div>
    );
  }
  const bare = Object.keys(sample.mixture).length === 0;
  const layer = layers?.find((l) => l.id === sample.layer)?.name ?? (sample.layer === 'slab' ? 'the slab' : undefined);
  const state = sample.wetness > 0.5 ? 'wet' : 'dry';
  return (
    <div className={styles.sampleTag} style={style} role="status">
      {!bare && <span className={styles.chip} style={{ background: linearToHex(masstoneLinear(sample.mixture)) }} />}
      <span>
        {bare ? 'Bare ground' : recipeWords(sample.mixture)}
        <br />
        <span className="quiet">
          {layer ? `from ${layer}, ${state}` : 'the tone of the ground'}
          <Beside lab={bare ? sample.lab : masstoneLab(sample.mixture)} seen={sample.lab} />
        </span>
      </span>
    </div>
  );
}
