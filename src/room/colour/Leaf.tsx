'use client';
import { useState } from 'react';
import { hue, labToLinear, linearToHex, type Triple } from '@/core/colour/colorimetry';
import { masstoneLab, masstoneLinear, type Mixture } from '@/core/colour/mixture';
import { LEAF_CHROMAS, LEAF_HUES, LEAF_VALUES, leafRow } from '@/core/mixing/leaf';
import { solverFor, type Recipe } from '@/core/mixing/recipe';
import { lch } from '@/core/mixing/relations';
import { recipeWords } from '@/core/colour/recipeWords';
import { useGradually } from './useGradually';
import styles from './colour.module.css';

/**
 * A book of the colours that the tubes at hand can mix: leaves by hue, and on the open one chips by value and chroma.
 * What the tubes do not reach is an empty outline.
 */
export function Leaf({
  tubes,
  mixture,
  onChoose,
}: {
  tubes: readonly string[];
  /** The mixture in hand: its leaf is open at first. */
  mixture: Mixture;
  onChoose: (recipe: Recipe) => void;
}) {
  const hand: Triple | undefined = Object.keys(mixture).length > 0 ? masstoneLab(mixture) : undefined;
  const near = hand ? LEAF_HUES.findIndex((h) => Math.abs(h - hue(hand)) <= 9) : 3;
  const [turned, setTurned] = useState<number>();
  const open = turned ?? Math.max(0, near);
  const h = LEAF_HUES[open];
  const key = `${[...tubes].sort().join()} ${h}`;
  const rows = useGradually(key, LEAF_VALUES.length, (i) => leafRow(solverFor(tubes), h, LEAF_VALUES[i]));
  return (
    <div className={styles.leaf}>
      <div className={styles.fan} role="tablist" aria-label="Leaves by hue">
        {LEAF_HUES.map((angle, i) => (
          <button
            key={angle}
            type="button"
            role="tab"
            aria-selected={i === open}
            aria-label={`Hue ${angle} degrees`}
            style={{ background: linearToHex(labToLinear(lch(60, 34, angle))) }}
            onClick={() => setTurned(i)}
          />
        ))}
      </div>
      <table className={styles.chips} aria-label="Chips by value and chroma">
        <tbody>
          {LEAF_VALUES.map((L, r) => (
            <tr key={L}>
              <th scope="row">{L / 10}</th>
              {LEAF_CHROMAS.map((C, c) => {
                const chip = rows[r]?.[c];
                const words = chip?.recipe && recipeWords(chip.recipe.mixture);
                return (
                  <td key={C}>
                    {chip?.recipe ? (
                      <button
                        type="button"
                        className={styles.chip}
                        title={words}
                        aria-label={`Value ${L / 10}, chroma ${C}: ${words}`}
                        style={{ background: linearToHex(masstoneLinear(chip.recipe.mixture)) }}
                        onClick={() => onChoose(chip.recipe!)}
                      />
                    ) : (
                      <span
                        className={styles.noChip}
                        role={chip && 'img'}
                        data-known={chip !== undefined}
                        aria-label={chip && `Value ${L / 10}, chroma ${C}: beyond these tubes`}
                      />
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
          <tr>
            <td />
            {LEAF_CHROMAS.map((C) => (
              <th key={C} scope="col">
                {C}
              </th>
            ))}
          </tr>
        </tbody>
      </table>
    </div>
  );
}
