'use client';
import { linearToHex } from '@/core/colour/colorimetry';
import { masstoneLinear } from '@/core/colour/mixture';
import type { Recipe } from '@/core/mixing/recipe';
import { missWords, recipeWords } from '@/core/colour/recipeWords';
import styles from './colour.module.css';

/** What was asked for beside what the tubes make of it, with the recipe; a click takes it in hand. */
export function RecipeLine({
  asked,
  recipe,
  onChoose,
  note,
}: {
  /** `#rrggbb` */
  asked: string;
  recipe: Recipe;
  onChoose: () => void;
  note?: string;
}) {
  const words = recipeWords(recipe.mixture);
  return (
    <button type="button" className={styles.recipeLine} onClick={onChoose}>
      <span className={styles.askedChip} style={{ background: asked }} />
      <span className={styles.askedChip} style={{ background: linearToHex(masstoneLinear(recipe.mixture)) }} />
      <span>
        <span className="visually-hidden">Take</span> {words}
        <br />
        <span className={recipe.deltaE > 3 ? 'trouble' : 'quiet'}>
          {note && `${note}; `}
          {missWords(recipe.deltaE)}
        </span>
      </span>
    </button>
  );
}
