'use client';
import { Checkbox, Form, Select } from 'antd';
import { isTube } from '@/core/colour/pigments';
import type { TubeSet } from '@/core/colour/tubeSets';
import { Drawdown } from '../parts/Drawdown';
import { shortName } from '../parts/recipeWords';
import type { Section } from './section';
import styles from './prepare.module.css';

/** Which tubes are at hand. */
export function TubesSection({ it, change, sets, set }: Section & { sets: readonly TubeSet[]; set: TubeSet }) {
  return (
    <Form.Item label="Tubes">
      <div className={styles.line}>
        <Select
          aria-label="Set of tubes"
          style={{ width: 190 }}
          value={set.id}
          options={sets.map((s) => ({ value: s.id, label: s.name }))}
          onChange={(tubes) => change({ tubes })}
        />
        <Checkbox checked={it.onlyTheseTubes} onChange={(e) => change({ onlyTheseTubes: e.target.checked })}>
          house rule: only these
        </Checkbox>
      </div>
      <div className={styles.tubes} title={set.tubes.map(shortName).join(', ')}>
        {set.tubes.filter(isTube).map((id) => (
          <Drawdown key={id} mixture={{ [id]: 1 }} className={styles.tubeChip} />
        ))}
      </div>
      <p className="quiet">{set.note}</p>
    </Form.Item>
  );
}
