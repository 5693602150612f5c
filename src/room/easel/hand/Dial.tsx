'use client';
import { Slider, Tooltip } from 'antd';
import { useState } from 'react';
import styles from '../easel.module.css';

/** A slider that follows the hand at once and tells the engine when it is let go. */
export function Dial({
  label,
  value,
  say,
  onSet,
  onTry,
  hint,
}: {
  label: string;
  value: number;
  say: (value: number) => string;
  onSet: (value: number) => void;
  /** While it is held. */
  onTry?: (value: number) => void;
  hint?: string;
}) {
  const [held, setHeld] = useState<number>();
  const shown = held ?? value;
  return (
    <div className={styles.dial}>
      <Tooltip title={hint}>
        <span>{label}</span>
      </Tooltip>
      <Slider
        min={0}
        max={1}
        step={0.01}
        value={shown}
        tooltip={{ open: false }}
        ariaLabelForHandle={label}
        onChange={(v) => {
          setHeld(v);
          onTry?.(v);
        }}
        onChangeComplete={(v) => {
          setHeld(undefined);
          onSet(v);
        }}
      />
      <span className="fact">{say(shown)}</span>
    </div>
  );
}
