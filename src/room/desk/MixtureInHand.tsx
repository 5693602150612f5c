'use client';
import { Button, InputNumber, Select } from 'antd';
import { chroma, hue, linearToHex } from '@/core/colour/colorimetry';
import { masstoneLab, masstoneLinear, type Mixture } from '@/core/colour/mixture';
import { usePalette } from '../colour/paletteStore';
import { Drawdown } from '../parts/Drawdown';
import { recipeWords, shortName } from '@/core/colour/recipeWords';
import { useDeskHand } from './deskHand';
import styles from './desk.module.css';

/** The mixture in hand: drawdown, parts, and where it stands. */
export function MixtureInHand({ mixture }: { mixture: Mixture }) {
  const { tubes, keepParts, aside, setAside } = usePalette();
  const { take } = useDeskHand();
  const ids = Object.keys(mixture);
  const lab = ids.length > 0 ? masstoneLab(mixture) : undefined;
  return (
    <section className={styles.card} aria-label="Mixture in hand">
      <h2>
        Mixture in hand
        <Button type="link" size="small" disabled={!lab} onClick={() => setAside({ ...mixture })}>
          set aside
        </Button>
      </h2>
      <div className={styles.hand}>
        {lab ? (
          <Drawdown mixture={mixture} className={styles.handDrawdown} />
        ) : (
          <span className={styles.noPaint}>no paint</span>
        )}
        <div className={styles.handParts}>
          {ids.map((id) => (
            <label key={id}>
              <InputNumber
                size="small"
                min={0}
                max={999}
                step={mixture[id] < 0.1 ? 0.01 : mixture[id] < 1 ? 0.1 : 1}
                value={Number(mixture[id].toPrecision(3))}
                aria-label={`Parts of ${shortName(id)}`}
                onChange={(v) => keepParts({ ...mixture, [id]: v ?? 0 })}
              />
              {shortName(id)}
            </label>
          ))}
          <Select
            size="small"
            placeholder="add a tube"
            aria-label="Add a tube to the mixture"
            value={null}
            options={tubes.filter((id) => !(id in mixture)).map((id) => ({ value: id, label: shortName(id) }))}
            onChange={(id: string | null) => id && keepParts({ ...mixture, [id]: 1 })}
          />
        </div>
      </div>
      {lab && (
        <p>
          <span data-testid="hand">{recipeWords(mixture)}</span>
          <br />
          <span className="quiet">
            value <span className="fact">{(lab[0] / 10).toFixed(1)}</span>, chroma{' '}
            <span className="fact">{chroma(lab).toFixed(0)}</span>, hue{' '}
            <span className="fact">{hue(lab).toFixed(0)}°</span>
          </span>
        </p>
      )}
      {aside.length > 0 && (
        <div className={styles.aside} aria-label="Set aside">
          {aside.map((m) => (
            <button
              key={JSON.stringify(m)}
              type="button"
              title={recipeWords(m)}
              aria-label={`Take up again ${recipeWords(m)}`}
              style={{ background: linearToHex(masstoneLinear(m)) }}
              onClick={() => take({ ...m })}
            />
          ))}
        </div>
      )}
    </section>
  );
}
