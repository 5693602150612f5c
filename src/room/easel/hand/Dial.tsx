'use client';
import { Button, Dropdown, Slider, Tooltip } from 'antd';
import { useState } from 'react';
import { useEasel } from '@/room/easel/easelStore';
import styles from '../easel.module.css';

/** A slider that follows the hand at once and tells the engine when it is let go. */
export function Dial({
  label,
  value,
  say,
  onSet,
  onTry,
  hint,
  presets,
}: {
  label: string;
  value: number;
  say: (value: number) => string;
  onSet: (value: number) => void;
  /** While it is held. */
  onTry?: (value: number) => void;
  hint?: string;
  /** Settings that are taken at once, from a list behind the number. */
  presets?: readonly { readonly name: string; readonly at: number }[];
}) {
  /** Where the hand has it; once it is let go, what it was before: shown until the engine tells of another. */
  const [held, setHeld] = useState<{ readonly at: number; readonly before?: number }>();
  const refused = useEasel((s) => s.refused !== '');
  const waits = held && (held.before === undefined || (held.before === value && !refused));
  const shown = waits ? held.at : value;
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
          setHeld({ at: v });
          onTry?.(v);
        }}
        onChangeComplete={(v) => {
          setHeld({ at: v, before: value });
          onSet(v);
        }}
      />
      {presets ? (
        <Dropdown
          trigger={['click']}
          placement="topRight"
          menu={{
            items: presets.map(({ name }) => ({ key: name, label: name })),
            onClick: ({ key }) => {
              const preset = presets.find(({ name }) => name === key);
              if (preset) onSet(preset.at);
            },
          }}
        >
          <Button
            type="text"
            size="small"
            className={styles.dialNumber}
            aria-label={`${label}s to take: ${say(shown)}`}
          >
            {say(shown)}
          </Button>
        </Dropdown>
      ) : (
        <span className="fact">{say(shown)}</span>
      )}
    </div>
  );
}
