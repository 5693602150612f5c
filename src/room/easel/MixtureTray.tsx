'use client';
import { CloseOutlined } from '@ant-design/icons';
import { Button, InputNumber } from 'antd';
import { Drawdown } from '../parts/Drawdown';
import { shortName } from '../parts/recipeWords';
import { mixtureOf, useEasel } from './easelStore';
import { PaintMake } from './PaintMake';
import { kindOf, takesPaint } from '@/core/marks/tools';
import { cardOf } from './roll';
import styles from './easel.module.css';

/** A mixture by parts, with its drawdown: what will be on the brush when it is loaded. */
export function MixtureTray() {
  const parts = useEasel((s) => s.parts);
  const { loadMixture, setParts } = useEasel.getState();
  const tool = useEasel((s) => s.bench?.tool.tool);
  const name = tool && takesPaint(tool) && kindOf(tool) !== 'brush' ? cardOf(tool).name.toLowerCase() : 'brush';
  const mixture = mixtureOf(parts);
  const empty = Object.keys(mixture).length === 0;
  return (
    <section className={styles.mixture} aria-label="Mixture">
      <h3>Mixture by parts</h3>
      <div className={styles.mixtureBody}>
        {empty ? (
          <span className={`${styles.swatch} ${styles.noSwatch}`}>choose tubes</span>
        ) : (
          <Drawdown mixture={mixture} className={styles.swatch} />
        )}
        <ul className={styles.partList}>
          {Object.entries(parts).map(([id, n]) => (
            <li key={id}>
              <InputNumber
                size="small"
                min={0}
                max={999}
                step={n < 1 ? 0.1 : 1}
                value={Math.round(n * 100) / 100}
                aria-label={`Parts of ${shortName(id)}`}
                onChange={(v) => setParts({ ...parts, [id]: v ?? 0 })}
              />
              <span>{shortName(id)}</span>
              <Button
                type="text"
                icon={<CloseOutlined />}
                aria-label={`Leave out ${shortName(id)}`}
                onClick={() => {
                  const { [id]: _, ...rest } = parts;
                  setParts(rest);
                }}
              />
            </li>
          ))}
        </ul>
      </div>
      <PaintMake />
      <Button type="primary" block disabled={empty} onClick={() => loadMixture(parts)}>
        Load the {name}
      </Button>
    </section>
  );
}
