'use client';
import { Form, Segmented, Select, Slider } from 'antd';
import { isDrawingPaper } from '@/core/surface/drawingPaper';
import type { SurfaceKind } from '@/core/surface/heightField';
import { isPaper } from '@/core/surface/paper';
import { MORE_SURFACES, SIZINGS, SURFACES, TINTS, WEIGHTS } from './choices';
import { OwnSurfaceIn } from './OwnSurfaceIn';
import { onSurface } from './preparation';
import type { Section } from './section';
import styles from './prepare.module.css';

/** What it is painted on, and how its grain is. */
export function SurfaceSection({ it, change }: Section) {
  const { kind, scale, depth, own, weight, sizing, tint } = it;
  const choose = (next: SurfaceKind) => change(onSurface(it, next));
  const tints = (
    <Select
      aria-label="Tint of the paper"
      style={{ width: 110 }}
      options={TINTS}
      value={tint}
      onChange={(v) => change({ tint: v })}
    />
  );
  return (
    <Form.Item label="Surface">
      <Segmented options={SURFACES} value={kind} onChange={choose} />
      <div className={styles.line}>
        <Segmented options={MORE_SURFACES} value={kind} onChange={choose} />
        {isDrawingPaper(kind) && tints}
      </div>
      {kind === 'own' && <OwnSurfaceIn own={own} onChange={(scan) => change({ own: scan })} />}
      <div className={styles.line}>
        <span>Grain</span>
        <Slider
          min={-1}
          max={1}
          step={0.05}
          value={Math.log2(scale)}
          style={{ width: 120 }}
          ariaLabelForHandle="Size of the grain"
          tooltip={{ formatter: (v) => `${Math.round(100 * 2 ** (v ?? 0))} % of its size` }}
          onChange={(v) => change({ scale: Math.round(100 * 2 ** v) / 100 })}
        />
        <span>depth</span>
        <Slider
          min={0}
          max={2}
          step={0.05}
          value={depth}
          style={{ width: 120 }}
          ariaLabelForHandle="How deep the grain is"
          tooltip={{ formatter: (v) => `${Math.round(100 * (v ?? 0))} % of its depth` }}
          onChange={(v) => change({ depth: v })}
        />
      </div>
      {isPaper(kind) && (
        <div className={styles.line}>
          <Select
            aria-label="Weight of the paper"
            style={{ width: 110 }}
            options={WEIGHTS}
            value={weight}
            onChange={(v) => change({ weight: v })}
          />
          <Select
            aria-label="Sizing of the paper"
            style={{ width: 150 }}
            options={SIZINGS}
            value={sizing}
            onChange={(v) => change({ sizing: v })}
          />
          {tints}
        </div>
      )}
    </Form.Item>
  );
}
