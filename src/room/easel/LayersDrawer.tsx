'use client';
import {
  ArrowDownOutlined,
  ArrowUpOutlined,
  DeleteOutlined,
  EyeInvisibleOutlined,
  EyeOutlined,
} from '@ant-design/icons';
import { Button, Tooltip } from 'antd';
import { useState } from 'react';
import { isSheet, type SurfaceKind } from '@/core/surface/heightField';
import { isPaper } from '@/core/surface/paper';
import { BringDrawing, DrawingTools } from './DrawingTools';
import { PreparedPaper } from './PreparedPaper';
import type { LayerState } from '@/engine/protocol';
import { useEasel } from './easelStore';
import styles from './easel.module.css';

const SUPPORTS: Record<SurfaceKind, string> = {
  'linen-fine': 'Fine linen',
  'linen-coarse': 'Coarse linen',
  panel: 'Panel',
  smooth: 'Smooth panel',
  'paper-hot': 'Hot-pressed paper',
  'paper-cold': 'Cold-pressed paper',
  'paper-rough': 'Rough paper',
  cotton: 'Cotton duck',
  'paper-laid': 'Laid paper',
  'paper-sanded': 'Sanded paper',
  'paper-velour': 'Velour paper',
  own: 'Own surface',
};

/** The painting in cross-section, as a conservator sees it: support and ground below, strata above. */
export function LayersDrawer() {
  const bench = useEasel((s) => s.bench);
  const tone = useEasel((s) => s.opened?.spec.tone);
  const surface = useEasel((s) => s.opened?.spec.surface.kind);
  const apply = useEasel((s) => s.apply);
  if (!bench) return null;
  const top = bench.layers.length - 1;
  const drawing = bench.layers.find((l) => l.kind === 'drawing' && l.id === bench.activeLayer);
  return (
    <>
      <h2>Cross-section</h2>
      <ol className={styles.section}>
        {[...bench.layers].reverse().map((layer, i) => (
          <Stratum key={layer.id} layer={layer} at={top - i} top={top} painted={layer.id === bench.activeLayer} />
        ))}
        {(tone || !isSheet(surface ?? 'panel')) && (
          <li className={styles.ground}>{tone ? 'Ground, toned' : 'Ground, white'}</li>
        )}
        <li className={styles.support}>{SUPPORTS[surface ?? 'linen-fine']}</li>
      </ol>
      <div className={styles.line}>
        <Button onClick={() => apply({ do: 'layer.add', kind: 'paint' })}>Add paint</Button>
        <Button onClick={() => apply({ do: 'layer.add', kind: 'drawing' })}>Add sketch</Button>
        <BringDrawing />
      </div>
      {drawing && <DrawingTools layer={drawing} />}
      {isPaper(surface ?? 'panel') && <PreparedPaper />}
    </>
  );
}

function Stratum({ layer, at, top, painted }: { layer: LayerState; at: number; top: number; painted: boolean }) {
  const apply = useEasel((s) => s.apply);
  const [name, setName] = useState<string>();
  const state =
    layer.kind === 'drawing'
      ? layer.opacity < 1
        ? `drawing, ${Math.round(layer.opacity * 100)} %`
        : 'drawing'
      : layer.tacky
        ? 'setting'
        : layer.wet
          ? layer.dry
            ? 'wet over dry'
            : 'wet'
          : layer.dry
            ? 'dry'
            : 'empty';
  const rename = () => {
    if (name?.trim() && name.trim() !== layer.name) apply({ do: 'layer.set', layer: layer.id, name: name.trim() });
    setName(undefined);
  };
  return (
    <li
      className={painted ? `${styles.stratum} ${styles.painted}` : styles.stratum}
      data-wet={layer.wet}
      data-hidden={!layer.visible}
    >
      <button
        type="button"
        className={styles.choose}
        aria-pressed={painted}
        aria-label={`Paint on ${layer.name}`}
        onClick={() => apply({ do: 'layer.choose', layer: layer.id })}
        onDoubleClick={() => setName(layer.name)}
      >
        {name === undefined ? (
          layer.name
        ) : (
          <input
            autoFocus
            value={name}
            maxLength={60}
            aria-label="Name of the layer"
            onChange={(e) => setName(e.target.value)}
            onBlur={rename}
            onKeyDown={(e) => e.key === 'Enter' && rename()}
          />
        )}
        <span className="quiet">{state}</span>
      </button>
      <Tooltip title={layer.visible ? 'Hide' : 'Show'}>
        <Button
          type="text"
          icon={layer.visible ? <EyeOutlined /> : <EyeInvisibleOutlined />}
          aria-label={`${layer.visible ? 'Hide' : 'Show'} ${layer.name}`}
          onClick={() => apply({ do: 'layer.set', layer: layer.id, visible: !layer.visible })}
        />
      </Tooltip>
      <Button
        type="text"
        icon={<ArrowUpOutlined />}
        disabled={at === top}
        aria-label={`Move ${layer.name} up`}
        onClick={() => apply({ do: 'layer.move', layer: layer.id, to: at + 1 })}
      />
      <Button
        type="text"
        icon={<ArrowDownOutlined />}
        disabled={at === 0}
        aria-label={`Move ${layer.name} down`}
        onClick={() => apply({ do: 'layer.move', layer: layer.id, to: at - 1 })}
      />
      <Tooltip title="Remove, with its paint (can be undone)">
        <Button
          type="text"
          icon={<DeleteOutlined />}
          aria-label={`Remove ${layer.name}`}
          onClick={() => apply({ do: 'layer.remove', layer: layer.id })}
        />
      </Tooltip>
    </li>
  );
}
