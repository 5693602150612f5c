'use client';
import { CloseOutlined } from '@ant-design/icons';
import { Button, Form, InputNumber, Select } from 'antd';
import type { TubeSet } from '@/core/colour/tubeSets';
import { isSheet } from '@/core/surface/heightField';
import { Drawdown } from '../parts/Drawdown';
import { shortName } from '@/core/colour/recipeWords';
import { TONES } from './choices';
import type { Section } from './section';
import styles from './prepare.module.css';

/** What the ground is toned with. */
export function ToneSection({ it: { tone, kind, rules }, change, set }: Section & { set: TubeSet }) {
  return (
    <Form.Item label="Tone">
      <div className={styles.tones}>
        {TONES.map(({ name, mixture }) => {
          const tubes = Object.keys(mixture);
          const lacks = tubes.filter((id) => !set.tubes.includes(id));
          return (
            <button
              key={name}
              type="button"
              className={styles.tone}
              disabled={rules.onlyTheseTubes && lacks.length > 0}
              title={lacks.length > 0 ? `with ${lacks.map(shortName).join(', ')}, beside the set` : undefined}
              aria-pressed={JSON.stringify(mixture) === JSON.stringify(tone)}
              onClick={() => change({ tone: mixture })}
            >
              {tubes.length > 0 ? (
                <Drawdown mixture={mixture} className={styles.drawdown} />
              ) : (
                <span className={styles.white} />
              )}
              {isSheet(kind) && tubes.length === 0 ? 'Bare' : name}
            </button>
          );
        })}
      </div>
      <div className={styles.parts}>
        {Object.entries(tone).map(([id, parts]) => (
          <label key={id} className={styles.part}>
            <InputNumber
              value={parts}
              min={0}
              max={99}
              size="small"
              style={{ width: 58 }}
              aria-label={`Parts of ${shortName(id)}`}
              onChange={(v) => change({ tone: { ...tone, [id]: v ?? 0 } })}
            />
            {shortName(id)}
            <Button
              type="text"
              size="small"
              icon={<CloseOutlined />}
              aria-label={`Leave out ${shortName(id)}`}
              onClick={() => change({ tone: Object.fromEntries(Object.entries(tone).filter(([t]) => t !== id)) })}
            />
          </label>
        ))}
        <Select
          size="small"
          placeholder="Add a tube"
          aria-label="Add a tube to the tone"
          style={{ width: 170 }}
          value={null}
          options={set.tubes.filter((id) => !(id in tone)).map((id) => ({ value: id, label: shortName(id) }))}
          onChange={(id: string | null) => id && change({ tone: { ...tone, [id]: 1 } })}
        />
      </div>
    </Form.Item>
  );
}
