'use client';
import { EyeInvisibleOutlined, EyeOutlined, LockOutlined } from '@ant-design/icons';
import { useSortable } from '@dnd-kit/sortable';
import { Button, Tooltip } from 'antd';
import { useState } from 'react';
import type { LayerState } from '@/engine/protocol';
import { useEasel } from '@/room/easel/easelStore';
import { stateWords } from './layerWords';
import styles from './layers.module.css';

/** Height of a stratum in the section: paint by how thick it lies, the rest thin. */
const heightOf = ({ kind, thicknessUm }: LayerState): number =>
  kind === 'paint' ? 36 + Math.min(20, Math.sqrt(thicknessUm)) : 36;

/** A brush whose tip touches the stratum that is painted on. */
const Brush = () => (
  <svg className={styles.brush} viewBox="0 0 30 14" aria-hidden="true">
    <path d="M1 5.6 16 4.4v5.2L1 8.4z" className={styles.handle} />
    <path d="M16 3.8h4.4v6.4H16z" className={styles.ferrule} />
    <path d="M20.4 3.6c3.4.2 6.2 1.4 9 3.4-2.8 2-5.6 3.2-9 3.4z" className={styles.hair} />
  </svg>
);

/** One layer in the cross-section. */
export function Stratum({
  layer,
  painted,
  onMask,
  depth,
}: {
  layer: LayerState;
  painted: boolean;
  onMask: boolean;
  depth: number;
}) {
  const apply = useEasel((s) => s.apply);
  const [name, setName] = useState<string>();
  const { setNodeRef, attributes, listeners, transform, isDragging } = useSortable({ id: layer.id });
  const rename = () => {
    if (name?.trim() && name.trim() !== layer.name) apply({ do: 'layer.set', layer: layer.id, name: name.trim() });
    setName(undefined);
  };
  return (
    <li
      ref={setNodeRef}
      className={styles.stratum}
      data-kind={layer.kind}
      data-painted={painted}
      data-wet={layer.wet}
      data-hidden={!layer.visible}
      data-lifted={isDragging}
      style={{
        height: heightOf(layer),
        marginLeft: depth * 12,
        transform: transform ? `translateY(${transform.y}px)` : undefined,
      }}
    >
      {painted && <Brush />}
      <button
        type="button"
        className={styles.choose}
        {...attributes}
        {...listeners}
        role="button"
        aria-pressed={painted}
        title="Drag to another place; double click to rename"
        onClick={() => apply({ do: 'layer.choose', layer: layer.id })}
        onDoubleClick={() => setName(layer.name)}
      >
        {name === undefined ? (
          <span className={styles.name}>
            <span className="visually-hidden">Paint on</span> {layer.name}
          </span>
        ) : (
          <input
            autoFocus
            value={name}
            maxLength={60}
            aria-label="Name of the layer"
            onChange={(e) => setName(e.target.value)}
            onBlur={rename}
            onPointerDown={(e) => e.stopPropagation()}
            onKeyDown={(e) => {
              e.stopPropagation();
              if (e.key === 'Enter') rename();
            }}
          />
        )}
        <span className="quiet">{stateWords(layer)}</span>
      </button>
      {layer.clip && (
        <span className={styles.mark} title="Seen only on the layer below">
          ↧
        </span>
      )}
      {layer.mask && (
        <Tooltip title={painted && onMask ? 'The mask is painted on: back to the layer' : 'Paint on the mask'}>
          <button
            type="button"
            className={styles.maskMark}
            data-on={layer.mask.on}
            data-painted={painted && onMask}
            data-fill={layer.mask.fill}
            aria-label={`Mask of ${layer.name}`}
            aria-pressed={painted && onMask}
            onClick={() => apply({ do: 'layer.choose', layer: layer.id, part: painted && onMask ? 'layer' : 'mask' })}
          />
        </Tooltip>
      )}
      {layer.locked && <LockOutlined className={styles.mark} title="Locked" />}
      <Tooltip title={layer.visible ? 'Hide' : 'Show'}>
        <Button
          type="text"
          size="small"
          icon={layer.visible ? <EyeOutlined /> : <EyeInvisibleOutlined />}
          aria-label={`${layer.visible ? 'Hide' : 'Show'} ${layer.name}`}
          onClick={() => apply({ do: 'layer.set', layer: layer.id, visible: !layer.visible })}
        />
      </Tooltip>
    </li>
  );
}
