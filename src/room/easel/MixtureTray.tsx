'use client';
import { BgColorsOutlined, CloseOutlined } from '@ant-design/icons';
import { Button, Dropdown, InputNumber, Tooltip } from 'antd';
import { pigmentName } from '@/core/colour/pigments';
import { GENERAL_TWELVE } from '@/core/colour/tubeSets';
import { Drawdown } from '../parts/Drawdown';
import { shortName } from '../parts/recipeWords';
import { mixtureOf, useEasel } from './easelStore';
import { PaintMake } from './PaintMake';
import { kindOf, takesPaint } from '@/core/marks/tools';
import { cardOf } from './roll';
import styles from './easel.module.css';

/** How much of the brush's width a second colour takes. */
const SIDES = [
  { key: 'half', label: 'Half of it', share: 0.5 },
  { key: 'corner', label: 'A corner', share: 0.2 },
];

/** A mixture by parts, with its drawdown: what will be on the brush when it is loaded. */
export function MixtureTray() {
  const parts = useEasel((s) => s.parts);
  const { loadMixture, loadTwo, setParts } = useEasel.getState();
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
      <div className={styles.loadRow}>
        <Button type="primary" disabled={empty} onClick={() => loadMixture(parts)}>
          Load the {name}
        </Button>
        <Dropdown
          trigger={['click']}
          disabled={empty}
          menu={{
            items: SIDES.map(({ key, label }) => ({
              key,
              label,
              children: GENERAL_TWELVE.map((id) => ({ key: `${key} ${id}`, label: pigmentName(id) })),
            })),
            onClick: ({ key }) => {
              const [side, tube] = key.split(' ');
              loadTwo(tube, SIDES.find((s) => s.key === side)!.share);
            },
          }}
        >
          <Tooltip title="Load it with a second colour on one side">
            <Button aria-label="Load with a second colour" icon={<BgColorsOutlined />} />
          </Tooltip>
        </Dropdown>
      </div>
    </section>
  );
}
