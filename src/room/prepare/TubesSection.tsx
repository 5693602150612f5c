'use client';
import { Button, Form, Popover, Select } from 'antd';
import { isTube } from '@/core/colour/pigments';
import { rulesInWords } from '@/core/commands/houseRules';
import type { TubeSet } from '@/core/colour/tubeSets';
import { HouseRulesForm } from '../colour/HouseRulesForm';
import { Drawdown } from '../parts/Drawdown';
import { shortName } from '@/core/colour/recipeWords';
import type { Section } from './section';
import styles from './prepare.module.css';

/** Which tubes are at hand. */
export function TubesSection({ it, change, sets, set }: Section & { sets: readonly TubeSet[]; set: TubeSet }) {
  const said = rulesInWords(it.rules);
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
        <Popover
          trigger="click"
          title="House rules"
          content={<HouseRulesForm rules={it.rules} change={(rules) => change({ rules: { ...it.rules, ...rules } })} />}
        >
          <Button>House rules{said.length > 0 ? `: ${said.join(', ')}` : ' …'}</Button>
        </Popover>
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
