'use client';
import { Button, Form, InputNumber, Segmented, Select } from 'antd';
import { useState } from 'react';
import { FORMATS } from './choices';
import { lacks, pixelsOf } from './preparation';
import type { Section } from './section';
import styles from './prepare.module.css';

/** Units in which a size is given: mm in one of them, and the step of the arrows. */
const UNITS = {
  mm: { mm: () => 1, step: 5 },
  in: { mm: () => 25.4, step: 0.25 },
  px: { mm: (ppi: number) => 25.4 / ppi, step: 10 },
} as const;
type Unit = keyof typeof UNITS;

/** How large the painting is, and how finely it is painted. */
export function SizeSection({ it, change }: Section) {
  const [unit, setUnit] = useState<Unit>('mm');
  const { widthMm, heightMm, ppi } = it;
  const { width, height } = pixelsOf(it);
  const tooLarge = lacks({ ...it, kind: 'smooth' });
  const perUnit = UNITS[unit].mm(ppi);
  const side = (label: string, valueMm: number, set: (mm: number) => void) => (
    <InputNumber
      aria-label={label}
      value={Math.round((valueMm / perUnit) * 100) / 100}
      min={Math.ceil((5 / perUnit) * 100) / 100}
      max={5000 / perUnit}
      step={UNITS[unit].step}
      precision={unit === 'px' ? 0 : undefined}
      onChange={(v) => v && set(v * perUnit)}
      style={{ width: 88 }}
    />
  );
  return (
    <Form.Item label="Support">
      <div className={styles.line}>
        <Select
          aria-label="Format"
          style={{ width: 160 }}
          options={FORMATS}
          value={FORMATS.find((f) => f.value === `${widthMm}x${heightMm}`)?.value}
          placeholder="Own size"
          onChange={(value) => {
            const [w, h] = value.split('x').map(Number);
            change({ widthMm: w, heightMm: h });
          }}
        />
        {side('Width', widthMm, (v) => change({ widthMm: v }))}
        <span>×</span>
        {side('Height', heightMm, (v) => change({ heightMm: v }))}
        <Segmented options={Object.keys(UNITS) as Unit[]} value={unit} onChange={setUnit} />
        <Button onClick={() => change({ widthMm: heightMm, heightMm: widthMm })}>Turn</Button>
      </div>
      <div className={styles.line}>
        <InputNumber
          aria-label="Resolution"
          value={ppi}
          min={50}
          max={600}
          step={10}
          onChange={(v) => v && change({ ppi: v })}
          suffix="ppi"
          style={{ width: 112 }}
        />
        <span className={tooLarge ? 'trouble' : 'quiet'}>
          <span className="fact">
            {width} × {height}
          </span>{' '}
          pixels. {tooLarge}
        </span>
      </div>
    </Form.Item>
  );
}
