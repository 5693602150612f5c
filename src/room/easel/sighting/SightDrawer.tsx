'use client';
import { CloseOutlined } from '@ant-design/icons';
import { Button, Checkbox, InputNumber, Slider, Tooltip } from 'antd';
import { sightWords, type SightKind } from '@/core/study/sighting';
import { unitOf, useSight } from './sightStore';
import easel from '../easel.module.css';
import styles from './sighting.module.css';

const KINDS: { kind: SightKind; name: string; hint: string }[] = [
  {
    kind: 'length',
    name: 'Caliper',
    hint: 'Pull from end to end: the same length is seen at scale on canvas and photo',
  },
  { kind: 'angle', name: 'Angle', hint: 'Pull along an edge' },
  { kind: 'box', name: 'Box', hint: 'Pull from corner to corner: height against width' },
  { kind: 'plumb', name: 'Plumb line', hint: 'Hangs through the place you click' },
  { kind: 'level', name: 'Level', hint: 'Lies through the place you click' },
  { kind: 'contour', name: 'Contour', hint: 'Trace a shape, or the gap between two: it appears on both' },
  { kind: 'drift', name: 'Drift', hint: 'Click the place on the photo, then where you drew it on the canvas' },
];

/** Measuring as at the easel: on canvas and photo at once, once the photo's frame is set. */
export function SightDrawer() {
  const { kind, sights, unit, grid, register, registering, lucida, choose, remove, clear, change, set } = useSight();
  const unitMm = unitOf(sights, unit);
  return (
    <>
      <h2>Sighting</h2>
      <p className="quiet">
        {register
          ? 'The photo is in register: what is measured on one is seen on the other.'
          : 'Say first which frame of the photo the canvas shows.'}
      </p>
      <div className={easel.line}>
        <Button
          type={registering ? 'primary' : 'default'}
          aria-pressed={registering}
          onClick={() => set({ registering: !registering })}
        >
          {registering ? 'Frame is set' : 'Set the frame'}
        </Button>
      </div>
      <div className={easel.sightKinds} role="group" aria-label="What to sight">
        {KINDS.map(({ kind: k, name, hint }) => (
          <Tooltip key={k} title={hint} placement="left">
            <Button type={kind === k ? 'primary' : 'default'} aria-pressed={kind === k} onClick={() => choose(k)}>
              {name}
            </Button>
          </Tooltip>
        ))}
      </div>
      <ul className={styles.sightList}>
        {sights.map((sight) => (
          <li key={sight.id}>
            <span className="fact">
              {sight.id === unit ? `1 unit, ${sightWords(sight)}` : sightWords(sight, unitMm)}
            </span>
            {sight.kind === 'length' && sight.id !== unit && (
              <Button type="link" size="small" onClick={() => change({ unit: sight.id })}>
                as unit
              </Button>
            )}
            <Button
              type="text"
              size="small"
              icon={<CloseOutlined />}
              aria-label={`Take away ${sightWords(sight)}`}
              onClick={() => remove(sight.id)}
            />
          </li>
        ))}
      </ul>
      {sights.length > 0 && (
        <Button type="link" onClick={clear}>
          Take all away
        </Button>
      )}
      <h3>Grid</h3>
      <div className={easel.line}>
        <InputNumber
          aria-label="Columns of the grid"
          min={0}
          max={40}
          value={grid.columns}
          style={{ width: 70 }}
          onChange={(v) => change({ grid: { ...grid, columns: Math.round(v ?? 0) } })}
        />
        columns
        <Checkbox checked={grid.diagonals} onChange={(e) => change({ grid: { ...grid, diagonals: e.target.checked } })}>
          diagonals
        </Checkbox>
      </div>
      <h3>Camera lucida</h3>
      <p className="quiet">Hold G: the photo is seen over the canvas; the wheel sets how much.</p>
      <Slider
        min={5}
        max={95}
        value={Math.round(lucida * 100)}
        onChange={(v) => change({ lucida: v / 100 })}
        ariaLabelForHandle="How much of the photo is seen"
        tooltip={{ formatter: (v) => `${v} %` }}
      />
    </>
  );
}
