'use client';
import { Checkbox, InputNumber, Segmented } from 'antd';
import type { ReactNode } from 'react';
import type { HouseRules } from '@/core/commands/houseRules';
import styles from './colour.module.css';

/** Rules that a painter sets for one painting; each can be left out. */
export function HouseRulesForm({
  rules,
  change,
}: {
  rules: HouseRules;
  change: (changes: Partial<HouseRules>) => void;
}) {
  return (
    <div className={styles.houseRules}>
      <Checkbox checked={rules.onlyTheseTubes} onChange={(e) => change({ onlyTheseTubes: e.target.checked })}>
        Only these tubes in this painting
      </Checkbox>
      <Counted
        says="Tubes in the whole painting, at most"
        value={rules.mostInPainting}
        first={4}
        most={60}
        set={(mostInPainting) => change({ mostInPainting })}
      />
      <span className={styles.most}>
        Tubes in a recipe, at most
        <Segmented
          size="small"
          aria-label="Most tubes in a recipe"
          options={[2, 3, 4]}
          value={rules.mostTubes}
          onChange={(mostTubes) => change({ mostTubes })}
        />
      </span>
      <Checkbox checked={!rules.sampleCanvas} onChange={(e) => change({ sampleCanvas: !e.target.checked })}>
        No sampling from the canvas
      </Checkbox>
      <Checkbox checked={!rules.samplePhoto} onChange={(e) => change({ samplePhoto: !e.target.checked })}>
        No sampling from photos
      </Checkbox>
      <Checkbox checked={rules.noUndo} onChange={(e) => change({ noUndo: e.target.checked })}>
        Nothing is taken back
      </Checkbox>
      <Checkbox checked={rules.oneLayer} onChange={(e) => change({ oneLayer: e.target.checked })}>
        No other layers
      </Checkbox>
      <Counted
        says="Looked at no nearer than"
        unit="%"
        value={rules.nearest && Math.round(rules.nearest * 100)}
        first={100}
        least={5}
        most={2400}
        set={(percent) => change({ nearest: percent && percent / 100 })}
      />
      <Counted
        says="Time to paint"
        unit="min"
        value={rules.minutes}
        first={60}
        most={6000}
        set={(minutes) => change({ minutes })}
      />
    </div>
  );
}

/** A rule with a number, while it is one. */
function Counted({
  says,
  unit,
  value,
  first,
  least = 1,
  most,
  set,
}: {
  says: string;
  unit?: ReactNode;
  value: number | undefined;
  /** What it begins with. */
  first: number;
  least?: number;
  most: number;
  set: (value: number | undefined) => void;
}) {
  return (
    <span className={styles.most}>
      <Checkbox checked={value !== undefined} onChange={(e) => set(e.target.checked ? first : undefined)}>
        {says}
      </Checkbox>
      {value !== undefined && (
        <>
          <InputNumber
            size="small"
            min={least}
            max={most}
            precision={0}
            value={value}
            aria-label={says}
            onChange={(v) => v !== null && set(v)}
          />
          {unit}
        </>
      )}
    </span>
  );
}
