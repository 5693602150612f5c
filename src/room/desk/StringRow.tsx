'use client';
import { Button, InputNumber, Select } from 'antd';
import { useMemo, useState } from 'react';
import { linearToHex } from '@/core/colour/colorimetry';
import { masstoneLinear, type Mixture } from '@/core/colour/mixture';
import { solverFor } from '@/core/mixing/recipe';
import { stringBetween, valueString } from '@/core/mixing/strings';
import { usePalette } from '../colour/paletteStore';
import { usePots } from '../colour/potStore';
import { inParts, recipeWords, shortName } from '@/core/colour/recipeWords';
import { useDeskHand } from './deskHand';
import styles from './desk.module.css';

/** Values at the ends of a string from dark to light, CIELAB lightness. */
const DARK = 18;
const LIGHT = 92;

/** A row of mixtures: the one in hand from dark to light, or on its way to another tube. */
export function StringRow({ mixture }: { mixture: Mixture }) {
  const { tubes, painting, aside } = usePalette();
  const { take, setOut } = useDeskHand();
  const [end, setEnd] = useState('value');
  const [count, setCount] = useState(9);
  const some = Object.keys(mixture).length > 0;
  const row = useMemo(() => {
    if (!some) return [];
    return end === 'value'
      ? valueString(mixture, solverFor(tubes), count, DARK, LIGHT)
      : stringBetween(mixture, aside.find((m) => JSON.stringify(m) === end) ?? { [end]: 1 }, count);
  }, [mixture, end, count, tubes, some, aside]);
  return (
    <section className={styles.card} aria-label="String">
      <h2>
        String
        <Select
          size="small"
          aria-label="Where the string leads"
          style={{ width: 190 }}
          value={end}
          options={[
            { value: 'value', label: 'from dark to light' },
            ...aside.map((m) => ({ value: JSON.stringify(m), label: `towards ${recipeWords(m)}` })),
            ...tubes.map((id) => ({ value: id, label: `towards ${shortName(id)}` })),
          ]}
          onChange={setEnd}
        />
        <InputNumber
          size="small"
          min={3}
          max={13}
          value={count}
          aria-label="Mixtures in the string"
          style={{ width: 58 }}
          onChange={(v) => v && setCount(v)}
        />
      </h2>
      <div className={styles.string}>
        {row.map((step, i) => {
          const missed = 'deltaE' in step && step.deltaE > 3;
          return (
            <button
              key={i}
              type="button"
              title={recipeWords(step.mixture)}
              aria-label={`Step ${i + 1}, value ${(step.lab[0] / 10).toFixed(1)}: ${recipeWords(step.mixture)}`}
              data-missed={missed}
              style={{ background: linearToHex(masstoneLinear(step.mixture)) }}
              onClick={() => take(inParts(step.mixture))}
            >
              <span>{(step.lab[0] / 10).toFixed(1)}</span>
            </button>
          );
        })}
      </div>
      <div className={styles.line}>
        <span className="quiet">{end === 'value' ? 'Even steps of value, one hue.' : 'Steps that look alike.'}</span>
        <span className={styles.spring} />
        <Button
          size="small"
          disabled={row.length === 0}
          onClick={() => usePots.getState().keep(row.map((step) => inParts(step.mixture)))}
        >
          Into pots
        </Button>
        {painting && (
          <Button size="small" disabled={row.length === 0} onClick={() => setOut(row.map((step) => step.mixture))}>
            Set it out on the slab
          </Button>
        )}
      </div>
    </section>
  );
}
