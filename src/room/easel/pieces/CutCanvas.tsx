'use client';
import { Button, InputNumber } from 'antd';
import { useEffect } from 'react';
import { useEasel } from '@/room/easel/easelStore';
import { AS_IT_IS, useRim, type Rim } from './rimStore';
import styles from '../layers/layers.module.css';

const SIDES = ['topMm', 'leftMm', 'rightMm', 'bottomMm'] as const;
const SIDE_WORDS = { topMm: 'Top', leftMm: 'Left', rightMm: 'Right', bottomMm: 'Bottom' };

/** More canvas at a side or less, and the whole turned or mirrored. */
export function CutCanvas() {
  const apply = useEasel((s) => s.apply);
  const spec = useEasel((s) => s.opened?.spec);
  const by = useRim((s) => s.by);
  const setBy = (next: Rim) => useRim.setState({ by: next });
  useEffect(() => {
    useRim.setState({ shown: true, by: AS_IT_IS });
    return () => useRim.setState({ shown: false });
  }, []);
  if (!spec) return null;
  const act = (how: { turn?: 90 | 180 | 270; mirror?: 'across' | 'down' }) =>
    apply({ do: 'canvas', ...AS_IT_IS, ...how });
  const wide = spec.widthMm + by.leftMm + by.rightMm;
  const high = spec.heightMm + by.topMm + by.bottomMm;
  return (
    <>
      <p className={styles.caption}>
        More canvas at a side, or less (below 0, with what is painted there). Sides can be pulled on the canvas.
      </p>
      {SIDES.map((side) => (
        <label key={side} className={styles.row}>
          <span style={{ width: 54 }}>{SIDE_WORDS[side]}</span>
          <InputNumber
            size="small"
            aria-label={`${SIDE_WORDS[side]}, mm`}
            value={by[side]}
            min={-2000}
            max={2000}
            suffix="mm"
            style={{ width: 110 }}
            onChange={(v) => setBy({ ...by, [side]: v ?? 0 })}
          />
        </label>
      ))}
      <p className="fact">
        {Math.round(spec.widthMm)} × {Math.round(spec.heightMm)} mm becomes {Math.round(wide)} × {Math.round(high)} mm
      </p>
      <Button
        size="small"
        disabled={SIDES.every((s) => by[s] === 0)}
        onClick={() => {
          apply({ do: 'canvas', ...by });
          setBy(AS_IT_IS);
        }}
      >
        Cut or extend the canvas
      </Button>
      <div className={styles.row}>
        <Button size="small" onClick={() => act({ turn: 270 })}>
          Turn left
        </Button>
        <Button size="small" onClick={() => act({ turn: 90 })}>
          Turn right
        </Button>
        <Button size="small" onClick={() => act({ mirror: 'across' })}>
          Mirror
        </Button>
        <Button size="small" onClick={() => act({ mirror: 'down' })}>
          Upside down
        </Button>
      </div>
    </>
  );
}
