'use client';
import { Select } from 'antd';
import { useMemo, useState } from 'react';
import { labToLinear, linearToHex } from '@/core/colour/colorimetry';
import { masstoneLab, type Mixture } from '@/core/colour/mixture';
import { solverFor } from '@/core/mixing/recipe';
import { related, RELATIONS, type Relation } from '@/core/mixing/relations';
import { usePalette } from '../colour/paletteStore';
import { inParts } from '@/core/colour/recipeWords';
import { RecipeLine } from '../colour/RecipeLine';
import { useDeskHand } from './deskHand';
import styles from './desk.module.css';

const NAMES = Object.entries(RELATIONS).map(([value, { name }]) => ({ value: value as Relation, label: name }));

/** Colours that stand in a relation to the mixture in hand, each as what the tubes can really mix. */
export function Relations({ mixture }: { mixture: Mixture }) {
  const { tubes } = usePalette();
  const { take } = useDeskHand();
  const [relation, setRelation] = useState<Relation>('complement');
  const found = useMemo(
    () => (Object.keys(mixture).length > 0 ? related(masstoneLab(mixture), relation, solverFor(tubes)) : []),
    [mixture, relation, tubes],
  );
  return (
    <section className={styles.card} aria-label="Relations">
      <h2>
        Relations
        <Select size="small" aria-label="Relation" value={relation} options={NAMES} onChange={setRelation} />
      </h2>
      {found.map((recipe, i) => (
        <RecipeLine
          key={i}
          asked={linearToHex(labToLinear(recipe.asked))}
          recipe={recipe}
          onChoose={() => take(inParts(recipe.mixture))}
        />
      ))}
    </section>
  );
}
