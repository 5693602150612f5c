'use client';
import { UpOutlined } from '@ant-design/icons';
import { Button, Popover } from 'antd';
import { useEffect, useRef, useState } from 'react';
import type { BenchState, LayerState } from '@/engine/protocol';
import { useEasel } from '@/room/easel/easelStore';
import { addLayer, sketchShows, stepLayer, toggleSketch } from '@/room/easel/layers/layerActs';
import { stateWords } from '@/room/easel/layers/layerWords';
import styles from './ledge.module.css';

/** How many layers are shown around the one that is painted on. */
const NEAREST = 5;

/** What is painted on, in words. */
export function chipWords(layer: LayerState, { onMask, tool }: Pick<BenchState, 'onMask' | 'tool'>): string {
  const marks = `${layer.visible ? '' : ', hidden'}${layer.locked ? ', locked' : ''}`;
  if (onMask) return `mask of ${layer.name}: ${maskWords(tool.grey)}${marks}`;
  return `${layer.name}, ${stateWords(layer)}${marks}`;
}

const maskWords = (grey: number) => (grey === 0 ? 'black' : grey === 1 ? 'white' : `grey ${Math.round(grey * 100)} %`);

/** The layers nearest to the one that is painted on, the highest first. */
export function nearest(layers: readonly LayerState[], active: string): readonly LayerState[] {
  const at = layers.findIndex(({ id }) => id === active);
  const from = Math.max(0, Math.min(layers.length - NEAREST, at - (NEAREST >> 1)));
  return layers.slice(from, from + NEAREST).reverse();
}

/** The layer that is painted on: the wheel steps, a click shows those around it. */
export function LayerChip() {
  const bench = useEasel((s) => s.bench);
  const apply = useEasel((s) => s.apply);
  const [open, setOpen] = useState(false);
  const box = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      stepLayer(event.deltaY < 0 ? 1 : -1);
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, []);
  const layer = bench?.layers.find(({ id }) => id === bench.activeLayer);
  return (
    <span ref={box} className={styles.chip}>
      {bench && layer && (
        <Popover
          trigger="click"
          placement="top"
          open={open}
          onOpenChange={setOpen}
          content={
            <div className={styles.strata}>
              {nearest(bench.layers, layer.id).map((one) => (
                <Button
                  key={one.id}
                  type={one === layer ? 'primary' : 'text'}
                  aria-pressed={one === layer}
                  onClick={() => {
                    apply({ do: 'layer.choose', layer: one.id });
                    setOpen(false);
                  }}
                >
                  <span>{one.name}</span>
                  <span className="quiet">
                    {stateWords(one)}
                    {one.visible ? '' : ', hidden'}
                  </span>
                </Button>
              ))}
              <div className={styles.layerActs}>
                <Button size="small" onClick={() => addLayer('above')}>
                  New above
                </Button>
                <Button size="small" onClick={() => addLayer('below')}>
                  New below
                </Button>
                <Button size="small" onClick={toggleSketch}>
                  {sketchShows() ? 'Hide the sketch' : 'Show the sketch'}
                </Button>
              </div>
            </div>
          }
        >
          <Button type="text" icon={<UpOutlined />} iconPlacement="end" aria-label={`On: ${chipWords(layer, bench)}`}>
            <span className={styles.chipWords}>on: {chipWords(layer, bench)}</span>
          </Button>
        </Popover>
      )}
    </span>
  );
}
