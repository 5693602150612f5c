'use client';
import { Button, InputNumber, Segmented, Slider } from 'antd';
import { useMemo, useState } from 'react';
import { labToLinear, linearToHex } from '@/core/colour/colorimetry';
import { PIGMENTS } from '@/core/colour/pigments';
import { limitedSet, LOST, type LimitedSet } from '@/core/mixing/limitedSet';
import { solverFor } from '@/core/mixing/recipe';
import { photoPalette } from '@/core/study/photoPalette';
import { Drawdown } from '../parts/Drawdown';
import { usePalette } from '../colour/paletteStore';
import { inParts, shortName } from '@/core/colour/recipeWords';
import { RecipeLine } from '../colour/RecipeLine';
import { useDeskHand } from './deskHand';
import type { DeskPhoto } from './usePhotos';
import styles from './desk.module.css';

/** The few colours of a photo that matter, each with its recipe; and few tubes that would do for all of them. */
export function FromPhotos({ photos }: { photos: readonly DeskPhoto[] | undefined }) {
  const { tubes, rules } = usePalette();
  const { take } = useDeskHand();
  const [chosen, setChosen] = useState(0);
  const [count, setCount] = useState(8);
  const photo = photos?.[Math.min(chosen, photos.length - 1)];
  const colours = useMemo(
    () => (photo ? photoPalette(photo.pixels.data, photo.pixels.width, photo.pixels.height, count) : []),
    [photo, count],
  );
  const recipes = useMemo(
    () => colours.map(({ lab }) => solverFor(tubes).solve(lab, { mostTubes: rules.mostTubes })),
    [colours, tubes, rules.mostTubes],
  );
  if (!rules.samplePhoto) return <p className={styles.nothing}>By your house rules nothing is sampled from photos.</p>;
  if (photos?.length === 0 || !photos) {
    return (
      <p className={styles.nothing}>
        {photos ? 'No photo hangs beside this painting. Hang one on its motif board first.' : 'Looking for photos …'}
      </p>
    );
  }
  return (
    <div className={styles.fromPhotos}>
      <div className={styles.column}>
        <section className={styles.card} aria-label="Photo">
          {photos.length > 1 && (
            <Segmented
              size="small"
              options={photos.map((p, i) => ({ value: i, label: p.name }))}
              value={chosen}
              onChange={setChosen}
            />
          )}
          <div className={styles.photoBox}>
            {/* eslint-disable-next-line @next/next/no-img-element -- a picture from memory */}
            <img src={photo!.url} alt={photo!.name} />
            {colours.map((c, i) => (
              <span key={i} style={{ left: `${c.at[0] * 100}%`, top: `${c.at[1] * 100}%` }}>
                {i + 1}
              </span>
            ))}
          </div>
          <div className={styles.askedDial}>
            <span>Colours</span>
            <Slider
              min={3}
              max={16}
              value={count}
              ariaLabelForHandle="How many colours"
              tooltip={{ formatter: null }}
              onChange={setCount}
            />
            <span className="fact">{colours.length}</span>
          </div>
        </section>
        <Proposal key={`${photo!.id} ${count}`} colours={colours} />
      </div>
      <section className={styles.card} aria-label="Colours that matter">
        <h2>Colours that matter</h2>
        <p className="quiet">In the photo, and as the tubes at hand mix it. A click takes the mixture in hand.</p>
        {recipes.map((recipe, i) => (
          <RecipeLine
            key={i}
            asked={linearToHex(labToLinear(colours[i].lab))}
            recipe={recipe}
            note={`${i + 1}: ${colours[i].weight < 0.01 ? 'under 1' : Math.round(colours[i].weight * 100)} % of the photo`}
            onChoose={() => take(inParts(recipe.mixture))}
          />
        ))}
      </section>
    </div>
  );
}

/** A limited set of tubes for the photo, and what is lost with it. */
function Proposal({ colours }: { colours: readonly { lab: [number, number, number]; weight: number }[] }) {
  const { tubes, ownPaints, choose } = usePalette();
  const [most, setMost] = useState(4);
  const [pool, setPool] = useState<'all' | 'hand'>('all');
  const [found, setFound] = useState<LimitedSet>();
  const [looking, setLooking] = useState(false);
  const propose = () => {
    setLooking(true);
    // the button shows that it works before the work begins
    setTimeout(() => {
      const all = [...PIGMENTS.map((p) => p.id), ...ownPaints.map((p) => p.id)];
      setFound(limitedSet(colours, pool === 'all' ? all : tubes, most));
      setLooking(false);
    }, 30);
  };
  const lost = found ? found.recipes.flatMap((r, i) => (r.deltaE > LOST ? [{ r, i }] : [])) : [];
  return (
    <section className={styles.card} aria-label="A limited set for this photo">
      <h2>A limited set for this photo</h2>
      <div className={styles.line}>
        at most
        <InputNumber
          size="small"
          min={2}
          max={8}
          value={most}
          aria-label="Most tubes in the set"
          style={{ width: 56 }}
          onChange={(v) => v && setMost(v)}
        />
        tubes of
        <Segmented
          size="small"
          options={[
            { value: 'all', label: 'the whole rack' },
            { value: 'hand', label: 'those at hand' },
          ]}
          value={pool}
          onChange={(v) => setPool(v as 'all' | 'hand')}
        />
        <Button size="small" loading={looking} disabled={colours.length === 0} onClick={propose}>
          Propose
        </Button>
      </div>
      {found && (
        <>
          <ul className={styles.proposed} aria-label="Proposed tubes">
            {found.tubes.map((id) => (
              <li key={id}>
                <Drawdown mixture={{ [id]: 1 }} />
                {shortName(id)}
              </li>
            ))}
          </ul>
          <p>
            On the whole Delta E {found.error.toFixed(1)}.{' '}
            {lost.length === 0 ? 'Nothing that matters is lost.' : `Lost: ${lost.length} of ${colours.length} colours.`}
          </p>
          {lost.map(({ r, i }) => (
            <RecipeLine
              key={i}
              asked={linearToHex(labToLinear(colours[i].lab))}
              recipe={r}
              note={`colour ${i + 1}`}
              onChoose={() => {}}
            />
          ))}
          <Button
            size="small"
            type="primary"
            onClick={() =>
              choose({
                id: '',
                name: 'From the photo',
                tubes: found.tubes,
                note: 'Proposed for the colours of the photo.',
              })
            }
          >
            Take these tubes to the bench
          </Button>
        </>
      )}
    </section>
  );
}
