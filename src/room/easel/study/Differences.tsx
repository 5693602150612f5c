'use client';
import { Button } from 'antd';
import { labToLinear, linearToHex, type Triple } from '@/core/colour/colorimetry';
import type { AreaDifference, MassDifference } from '@/core/study/looking/differences';
import { WHOLE, type Crop } from '@/core/picture/unlit';
import { solveFor } from '@/room/easel/compare/sampling';
import { useEasel } from '@/room/easel/easelStore';
import { inParts, missWords, recipeWords } from '@/core/colour/recipeWords';
import styles from './study.module.css';

/** So many of the largest are said. */
const MOST = 10;
/** Smaller ones nobody mends, Delta E 2000. */
const LEAST = 3;

const keyOf = (d: AreaDifference | MassDifference) => ('column' in d ? `${d.column} ${d.row}` : `mass ${d.mass}`);
const hex = (lab: Readonly<Triple>) => linearToHex(labToLinear([...lab]));

/** Where canvas and photo differ, area by area or mass by mass, the largest first; one that is chosen is framed, with what the photo's colour is mixed from. */
export function Differences({
  all,
  chosen,
  choose,
  net: [columns, rows],
  crop = WHOLE,
}: {
  all: readonly (AreaDifference | MassDifference)[];
  chosen?: AreaDifference | MassDifference;
  choose: (one: AreaDifference | MassDifference) => void;
  net: readonly [number, number];
  crop?: Crop;
}) {
  const worth = all.filter((d) => d.compared.deltaE >= LEAST).slice(0, MOST);
  const recipe = chosen && solveFor(chosen.motif);
  const show = ({ column, row }: AreaDifference) => {
    const { opened, view, look, set } = useEasel.getState();
    if (!opened) return;
    const { widthMm, heightMm, ppi } = opened.spec;
    const cells = (mm: number) => (mm * ppi) / 25.4;
    set({ panel: null });
    look({
      ...view,
      centreX: cells((crop.x + ((column + 0.5) / columns) * crop.width) * widthMm),
      centreY: cells((crop.y + ((row + 0.5) / rows) * crop.height) * heightMm),
      zoom: Math.min(
        view.width / cells((2 * crop.width * widthMm) / columns),
        view.height / cells((2 * crop.height * heightMm) / rows),
      ),
    });
  };
  return (
    <section className={styles.differences} aria-label="Differences">
      <h3>Where they differ</h3>
      {all.length === 0 ? (
        <p className="quiet">There is nothing to compare with yet.</p>
      ) : worth.length === 0 ? (
        <p>Every area is as it is on the photo, as far as one sees.</p>
      ) : (
        <ol>
          {worth.map((d) => {
            const on = chosen !== undefined && keyOf(chosen) === keyOf(d);
            return (
              <li key={keyOf(d)}>
                <button type="button" aria-pressed={on} onClick={() => choose(d)}>
                  <i style={{ background: hex(d.painted) }} />
                  <i style={{ background: hex(d.motif) }} />
                  {d.words}
                </button>
                {on && recipe && (
                  <div className={styles.mend}>
                    <p>
                      The photo there: {recipeWords(recipe.mixture)}{' '}
                      <span className="quiet">{missWords(recipe.deltaE)}</span>
                    </p>
                    <Button size="small" onClick={() => useEasel.getState().loadMixture(inParts(recipe.mixture))}>
                      Load it
                    </Button>
                    {'column' in d && (
                      <Button size="small" onClick={() => show(d)}>
                        Show on the canvas
                      </Button>
                    )}
                  </div>
                )}
              </li>
            );
          })}
        </ol>
      )}
    </section>
  );
}
