'use client';
import { Button, Slider } from 'antd';
import { useMemo, useState } from 'react';
import { chroma, hue, labToLinear, linearToHex } from '@/core/colour/colorimetry';
import { masstoneLab, type Mixture } from '@/core/colour/mixture';
import { solverFor } from '@/core/mixing/recipe';
import { lch } from '@/core/mixing/relations';
import { usePalette } from '../colour/paletteStore';
import { inParts } from '@/core/colour/recipeWords';
import { RecipeLine } from '../colour/RecipeLine';
import { useDeskHand } from './deskHand';
import styles from './desk.module.css';

/** A colour asked for by value, chroma and hue, beside what the tubes at hand make of it. */
export function AskedColour({ mixture }: { mixture: Mixture }) {
  const { tubes, rules } = usePalette();
  const { take } = useDeskHand();
  const [asked, setAsked] = useState({ L: 55, C: 30, h: 60 });
  const lab = lch(asked.L, asked.C, asked.h);
  const recipe = useMemo(
    () => solverFor(tubes).solve(lch(asked.L, asked.C, asked.h), { mostTubes: rules.mostTubes }),
    [tubes, rules.mostTubes, asked],
  );
  const hand = Object.keys(mixture).length > 0 ? masstoneLab(mixture) : undefined;
  const dial = (key: 'L' | 'C' | 'h', label: string, most: number, say: (v: number) => string) => (
    <div className={styles.askedDial}>
      <span>{label}</span>
      <Slider
        min={0}
        max={most}
        value={asked[key]}
        tooltip={{ formatter: null }}
        ariaLabelForHandle={label}
        onChange={(v) => setAsked((before) => ({ ...before, [key]: v }))}
      />
      <span className="fact">{say(asked[key])}</span>
    </div>
  );
  return (
    <section className={styles.card} aria-label="Recipe for a colour">
      <h2>
        A colour asked for
        {hand && (
          <Button
            type="link"
            size="small"
            onClick={() => setAsked({ L: Math.round(hand[0]), C: Math.round(chroma(hand)), h: Math.round(hue(hand)) })}
          >
            as in hand
          </Button>
        )}
      </h2>
      {dial('L', 'Value', 100, (v) => (v / 10).toFixed(1))}
      {dial('C', 'Chroma', 110, (v) => String(v))}
      {dial('h', 'Hue', 360, (v) => `${v}°`)}
      <RecipeLine
        asked={linearToHex(labToLinear(lab))}
        recipe={recipe}
        onChoose={() => take(inParts(recipe.mixture))}
      />
    </section>
  );
}
