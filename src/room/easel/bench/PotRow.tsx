'use client';
import { Tooltip } from 'antd';
import { isTube } from '@/core/colour/pigments';
import { linearToHex } from '@/core/colour/colorimetry';
import { masstoneLinear } from '@/core/colour/mixture';
import { ROW, type Pot } from '@/room/colour/pots';
import { usePots } from '@/room/colour/potStore';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { recipeWords } from '@/core/colour/recipeWords';
import { useCarried, useLanding } from './carry';
import styles from './bench.module.css';

/** Whether all its tubes are known here: a pot can outlive an own paint. */
export const isKnown = ({ mixture }: Pot): boolean => Object.keys(mixture).every(isTube);

/** What a pot is called: by the painter, else by its recipe. */
export const potWords = ({ name, mixture }: Pot): string => name || recipeWords(mixture);

/** Ready mixtures under the one in hand: a click takes one, or keeps the mixture in hand in an empty one. */
export function PotRow() {
  const { pots, rows } = usePots();
  return (
    <div className={styles.pots} data-rows={rows} role="group" aria-label="Pots">
      {pots.slice(0, rows * ROW).map((pot, place) => (
        <PotOnBench key={place} pot={pot} place={place} />
      ))}
    </div>
  );
}

function PotOnBench({ pot, place }: { pot: Pot | null; place: number }) {
  const { loadMixture, togglePanel } = useEasel.getState();
  const known = pot !== null && isKnown(pot);
  const { setNodeRef: pulled, listeners } = useCarried(
    `pot-${place}`,
    known ? { of: 'pot', place, mixture: pot.mixture } : undefined,
  );
  const { setNodeRef: landing, isOver } = useLanding(`potplace-${place}`, (what) => {
    const { fill, swap } = usePots.getState();
    if (what.of === 'pot') swap(what.place, place);
    else if (what.of === 'mixture') fill(place, what.mixture);
    else if (what.of === 'tube') fill(place, { [what.tube]: 1 });
  });
  const label = pot
    ? known
      ? `Take pot ${place + 1}: ${potWords(pot)}`
      : `Pot ${place + 1}: a paint that is not here`
    : `Keep the mixture in pot ${place + 1}`;
  return (
    <Tooltip title={pot ? (known ? potWords(pot) : 'A paint that is not here') : 'Keep the mixture here'}>
      <button
        type="button"
        ref={(element) => {
          pulled(element);
          landing(element);
        }}
        {...listeners}
        className={styles.pot}
        data-over={isOver}
        data-full={pot !== null}
        aria-label={label}
        aria-disabled={pot !== null && !known}
        style={known ? { background: linearToHex(masstoneLinear(pot.mixture)) } : undefined}
        onClick={() => {
          if (known) loadMixture({ ...pot.mixture });
          else if (!pot) keepInHand(place);
        }}
        onContextMenu={(event) => {
          event.preventDefault();
          togglePanel('pots');
        }}
      />
    </Tooltip>
  );
}

/** Keeps the mixture in hand in a pot, the next empty one where none is said. */
export function keepInHand(place?: number): void {
  const mixture = mixtureOf(useEasel.getState().parts);
  if (Object.keys(mixture).length === 0) return;
  const { fill, keep } = usePots.getState();
  if (place !== undefined) fill(place, mixture);
  else if (!keep([mixture])) useEasel.getState().set({ refused: usePots.getState().trouble });
}
