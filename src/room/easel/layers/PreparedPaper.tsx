'use client';
import { Button, Popover, Select } from 'antd';
import { useState } from 'react';
import { PREPARED_STYLES, type PreparedStyle } from '@/core/marks/wet/preparedWash';
import { usePalette } from '@/room/colour/paletteStore';
import { hundredths, percent } from '@/core/tools/dials';
import { Dial } from '@/room/easel/hand/Dial';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import styles from '../easel.module.css';

const STYLES: Record<PreparedStyle, string> = {
  flat: 'Flat wash',
  graded: 'Graded wash',
  variegated: 'Colours charged in',
  blooms: 'Blooms of water',
};

/** Washes laid beforehand on a layer under the work, from the mixture set out and those set aside; can be laid anew. */
export function PreparedPaper() {
  const layers = useEasel((s) => s.bench?.layers ?? []);
  const [style, setStyle] = useState<PreparedStyle>('variegated');
  const [strength, setStrength] = useState(0.35);
  const [texture, setTexture] = useState(0.5);
  const [seed, setSeed] = useState(1);
  const laid = layers.find((l) => l.name === 'Prepared paper');
  const lay = (next: number) => {
    setSeed(next);
    const { parts, apply } = useEasel.getState();
    const { aside } = usePalette.getState();
    const mixtures = [mixtureOf(parts), ...aside].filter((m) => Object.keys(m).length > 0).slice(0, 3);
    if (mixtures.length === 0) return;
    mixtures.forEach((m) => usePalette.getState().bring(m));
    apply({
      do: 'layer.prepare',
      ...(laid ? { layer: laid.id } : {}),
      style,
      mixtures: mixtures.map((m) => ({ ...m })),
      seed: next,
      strength,
      texture,
    });
  };
  return (
    <Popover
      trigger="click"
      placement="left"
      title="Prepared paper"
      content={
        <div className={styles.make}>
          <p className="quiet">Washed with the mixture set out, and the first two set aside.</p>
          <Select
            aria-label="How it is washed"
            value={style}
            options={PREPARED_STYLES.map((value) => ({ value, label: STYLES[value] }))}
            onChange={setStyle}
          />
          <Dial label="Strength" value={strength} say={percent} onSet={(v) => setStrength(hundredths(v))} />
          <Dial label="Texture" value={texture} say={percent} onSet={(v) => setTexture(hundredths(v))} />
          <div className={styles.line}>
            <Button type="primary" onClick={() => lay(seed)}>
              {laid ? 'Lay it anew' : 'Lay it under the work'}
            </Button>
            {laid && <Button onClick={() => lay(seed + 1)}>Another sheet</Button>}
          </div>
        </div>
      }
    >
      <Button>Prepared paper …</Button>
    </Popover>
  );
}
