'use client';
import { memo } from 'react';
import { tube } from '@/core/colour/pigments';
import { Drawdown } from '../parts/Drawdown';
import { TintLadder } from '../parts/TintLadder';
import { factsOf } from './tubeFacts';
import styles from './colour.module.css';

/** A tube as it stands in the rack: drawdown, tints, and what its label says. */
export const TubeCard = memo(function TubeCard({
  id,
  chosen,
  onChoose,
}: {
  id: string;
  chosen: boolean;
  onChoose: (id: string) => void;
}) {
  const pigment = tube(id);
  if (!pigment) return null;
  return (
    <button type="button" className={styles.tubeCard} aria-pressed={chosen} onClick={() => onChoose(id)}>
      <Drawdown mixture={{ [id]: 1 }} className={styles.cardDrawdown} />
      <span className={styles.cardText}>
        <span>
          <span className="visually-hidden">{chosen ? 'Put back' : 'Take'}</span> <b>{pigment.name}</b>
        </span>
        <span className="quiet">
          {pigment.colourIndex}, {pigment.transparency === 'semi' ? 'half transparent' : pigment.transparency}
        </span>
        <TintLadder id={id} className={styles.ladder} />
        <span className={styles.cardFacts}>
          {factsOf(pigment).map(([name, value]) => (
            <span key={name}>
              <i>{name}</i> {value}
            </span>
          ))}
        </span>
      </span>
    </button>
  );
});
