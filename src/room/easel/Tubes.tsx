'use client';
import { PlusOutlined } from '@ant-design/icons';
import { Select, Tooltip } from 'antd';
import { useState } from 'react';
import { PIGMENTS } from '@/core/colour/pigments';
import { GENERAL_TWELVE } from '@/core/colour/tubeSets';
import { Drawdown } from '../parts/Drawdown';
import { shortName } from '../parts/recipeWords';
import { useEasel } from './easelStore';
import styles from './easel.module.css';

/** The tubes at hand, each as a drawdown. A click loads the brush; the plus adds the tube to the mixture. */
export function Tubes() {
  const parts = useEasel((s) => s.parts);
  const { loadMixture, setParts } = useEasel.getState();
  const [tubes, setTubes] = useState<readonly string[]>(GENERAL_TWELVE);
  const others = PIGMENTS.filter((p) => !tubes.includes(p.id));
  return (
    <section className={styles.tubes} aria-label="Tubes">
      <h3>
        Tubes
        <Select
          className={styles.otherTube}
          variant="borderless"
          placeholder="another tube"
          aria-label="Bring another tube"
          showSearch={{ optionFilterProp: 'label' }}
          popupMatchSelectWidth={260}
          value={null}
          options={others.map((p) => ({ value: p.id, label: `${p.name}, ${p.colourIndex}` }))}
          onChange={(id: string | null) => id && setTubes((before) => [...before, id])}
        />
      </h3>
      <div className={styles.tubeRow}>
        {tubes.map((id) => {
          const pigment = PIGMENTS.find((p) => p.id === id)!;
          return (
            <div key={id} className={styles.tube} data-used={(parts[id] ?? 0) > 0}>
              <Tooltip
                title={`${pigment.name}, ${pigment.colourIndex}, ${pigment.transparency === 'semi' ? 'half transparent' : pigment.transparency}`}
              >
                <button type="button" aria-label={`Load ${pigment.name}`} onClick={() => loadMixture({ [id]: 1 })}>
                  <Drawdown mixture={{ [id]: 1 }} className={styles.drawdown} />
                  <span className={styles.tubeName}>{shortName(id)}</span>
                </button>
              </Tooltip>
              <button
                type="button"
                className={styles.add}
                aria-label={`Add ${pigment.name} to the mixture`}
                onClick={() => setParts({ ...parts, [id]: (parts[id] ?? 0) + 1 })}
              >
                <PlusOutlined />
              </button>
            </div>
          );
        })}
      </div>
    </section>
  );
}
