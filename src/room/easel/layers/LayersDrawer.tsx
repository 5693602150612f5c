'use client';
import { DndContext, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { Button, Dropdown } from 'antd';
import { useEffect, useRef, useState } from 'react';
import type { AdjustmentKind } from '@/core/colour/adjust';
import { adjustmentSchema } from '@/core/colour/adjust';
import { isSheet, type SurfaceKind } from '@/core/surface/heightField';
import { isPaper } from '@/core/surface/paper';
import type { LayerState } from '@/engine/protocol';
import { BringDrawing, DrawingTools } from '@/room/easel/sighting/DrawingTools';
import { LayerCard } from './LayerCard';
import { ADJUST_WORDS } from './layerWords';
import { PictureIn } from './PictureIn';
import { PreparedPaper } from './PreparedPaper';
import { Stratum } from './Stratum';
import { useEasel } from '@/room/easel/easelStore';
import { usePieces } from '@/room/easel/pieces/pieceStore';
import styles from './layers.module.css';

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

/** From here on the painter is told how much of the memory is used. */
const TOLD = 0.75;

const depthOf = (layer: LayerState, all: readonly LayerState[]): number => {
  const group = layer.group && all.find((l) => l.id === layer.group);
  return group ? 1 + depthOf(group, all) : 0;
};

/** The painting in cross-section, as a conservator sees it: support and ground below, strata above. */
export function LayersDrawer() {
  const bench = useEasel((s) => s.bench);
  const tone = useEasel((s) => s.opened?.spec.tone);
  const surface = useEasel((s) => s.opened?.spec.surface.kind);
  const apply = useEasel((s) => s.apply);
  const [bringing, setBringing] = useState(false);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  useFlash(bench?.activeLayer);
  if (!bench) return null;
  const { layers } = bench;
  const down = [...layers].reverse();
  const chosen = layers.find((l) => l.id === bench.activeLayer);
  const moved = ({ active, over }: DragEndEvent) => {
    const to = layers.findIndex((l) => l.id === over?.id);
    if (to < 0 || active.id === over?.id) return;
    const target = layers[to];
    const mine = layers.find((l) => l.id === active.id)!;
    // dropped among the members of a group it becomes one of them
    const group = target.group ?? null;
    apply({ do: 'layer.move', layer: mine.id, to, ...((mine.group ?? null) !== group && { group }) });
  };
  const adjust = (kind: AdjustmentKind) =>
    apply({ do: 'layer.add', kind: 'adjust', adjust: adjustmentSchema.parse({ kind }) });
  const add = [
    { key: 'paint', label: 'Paint', onClick: () => apply({ do: 'layer.add', kind: 'paint' }) },
    { key: 'drawing', label: 'Sketch', onClick: () => apply({ do: 'layer.add', kind: 'drawing' }) },
    { key: 'picture', label: 'Picture or texture …', onClick: () => setBringing(true) },
    { type: 'divider' as const },
    {
      key: 'shade',
      label: 'Shade (multiply)',
      onClick: () => apply({ do: 'layer.add', kind: 'tone', blend: 'multiply' }),
    },
    { key: 'glow', label: 'Glow (screen)', onClick: () => apply({ do: 'layer.add', kind: 'tone', blend: 'screen' }) },
    { key: 'soft', label: 'Soft light', onClick: () => apply({ do: 'layer.add', kind: 'tone', blend: 'soft-light' }) },
    { type: 'divider' as const },
    ...(Object.keys(ADJUST_WORDS) as AdjustmentKind[]).map((kind) => ({
      key: kind,
      label: ADJUST_WORDS[kind],
      onClick: () => adjust(kind),
    })),
    { type: 'divider' as const },
    { key: 'group', label: 'Group', onClick: () => apply({ do: 'layer.add', kind: 'group' }) },
  ];
  const whole = [
    {
      key: 'copy',
      label: 'Copy of all, as a picture',
      onClick: () => apply({ do: 'layer.copy-all', name: 'Copy of all' }),
    },
    {
      key: 'grey',
      label: 'Copy of all in greys',
      onClick: () => apply({ do: 'layer.copy-all', name: 'Values', grey: true }),
    },
    { key: 'soften', label: 'Soften through a mask', onClick: () => apply({ do: 'layer.soften', radiusMm: 1.5 }) },
    {
      key: 'values',
      label: 'Lay colour over values',
      onClick: () => apply({ do: 'layer.values', name: 'Colour over values' }),
    },
  ];
  const share = bench.memory / bench.memoryMost;
  return (
    <>
      <h2>Cross-section</h2>
      <div className={`${styles.row} ${styles.above}`}>
        <Dropdown menu={{ items: add }} trigger={['click']}>
          <Button>Add a layer</Button>
        </Dropdown>
        <Dropdown menu={{ items: whole }} trigger={['click']}>
          <Button>Whole picture</Button>
        </Dropdown>
        <BringDrawing />
      </div>
      <DndContext id="layers" sensors={sensors} onDragEnd={moved}>
        <SortableContext items={down.map((l) => l.id)} strategy={verticalListSortingStrategy}>
          <ol className={styles.section}>
            {down.map((layer) => (
              <Stratum
                key={layer.id}
                layer={layer}
                depth={depthOf(layer, layers)}
                painted={layer.id === bench.activeLayer}
                onMask={bench.onMask}
              />
            ))}
            {(tone || !isSheet(surface ?? 'panel')) && (
              <li className={styles.ground}>{tone ? 'Ground, toned' : 'Ground, white'}</li>
            )}
            <li className={styles.support}>{SUPPORTS[surface ?? 'linen-fine']}</li>
          </ol>
        </SortableContext>
      </DndContext>
      {bringing && <PictureIn onDone={() => setBringing(false)} />}
      {chosen && <LayerCard key={chosen.id} layer={chosen} layers={layers} onMask={bench.onMask} />}
      {chosen?.kind === 'drawing' && <DrawingTools layer={chosen} />}
      {isPaper(surface ?? 'panel') && <PreparedPaper />}
      <p className={share > TOLD ? 'trouble' : styles.memory} role={share > TOLD ? 'alert' : undefined}>
        {share > TOLD
          ? `The painting takes ${(bench.memory / 1e9).toFixed(1)} GB of about ${(bench.memoryMost / 1e9).toFixed(1)} GB. Merge or remove layers soon.`
          : `${Math.round(bench.memory / 1e6)} MB in memory`}
      </p>
    </>
  );
}

/** Shows for a moment where the layer has something when another one is chosen. */
function useFlash(active: string | undefined): void {
  const before = useRef(active);
  const engine = useEasel((s) => s.engine);
  useEffect(() => {
    const was = before.current;
    before.current = active;
    if (!engine || !active || was === undefined || was === active) return;
    void usePieces.getState().flash(engine, active);
  }, [engine, active]);
}
