'use client';
import { CloseOutlined, EditOutlined } from '@ant-design/icons';
import { Button, InputNumber, Popover } from 'antd';
import { useRef } from 'react';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { recipeWords, shortName } from '@/core/colour/recipeWords';
import styles from './bench.module.css';

/** The recipe of the mixture in hand in words; a click gives its parts as numbers, and the brush has them when it closes. */
export function MixtureParts() {
  const parts = useEasel((s) => s.parts);
  const mixture = mixtureOf(parts);
  const empty = Object.keys(mixture).length === 0;
  const words = empty ? 'choose tubes' : recipeWords(mixture);
  const before = useRef(parts);
  const follow = (open: boolean) => {
    const { parts: now, loadMixture } = useEasel.getState();
    if (!open && now !== before.current) loadMixture(now);
    before.current = now;
  };
  return (
    <Popover trigger="click" placement="top" title="Mixture by parts" content={<Parts />} onOpenChange={follow}>
      <button type="button" className={styles.recipeButton} title={words} aria-label={`Mixture by parts: ${words}`}>
        <span className={styles.recipeWords}>
          <span data-testid="mixture">{words}</span> <EditOutlined />
        </span>
      </button>
    </Popover>
  );
}

/** The parts of the mixture as numbers. */
function Parts() {
  const parts = useEasel((s) => s.parts);
  const setParts = useEasel((s) => s.setParts);
  if (Object.keys(parts).length === 0) return <p className="quiet">Add tubes by their plus.</p>;
  return (
    <ul className={styles.partList}>
      {Object.entries(parts).map(([id, n]) => (
        <li key={id}>
          <InputNumber
            size="small"
            min={0}
            max={999}
            step={n < 0.1 ? 0.01 : n < 1 ? 0.1 : 1}
            value={Number(n.toPrecision(3))}
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
  );
}
