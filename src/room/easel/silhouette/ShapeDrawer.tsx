'use client';
import { Button, Segmented } from 'antd';
import { percent } from '@/core/tools/dials';
import { Dial } from '@/room/easel/hand/Dial';
import { toolOf } from '@/core/tools/tools';
import { useEasel } from '@/room/easel/easelStore';
import { useShape } from './shapeStore';
import styles from '../easel.module.css';

/** Widest edge that is lost, mm. */
const WIDEST_MM = 30;

/** Silhouettes: closed outlines, filled with the paint in hand or cut out of the layer. */
export function ShapeDrawer() {
  const { way, cut, edgeMm, streaks, set } = useShape();
  // a wash makes its own unevenness
  const water = useEasel((s) => s.bench !== undefined && toolOf(s.bench.tool.tool).wash !== undefined);
  return (
    <>
      <h2>Silhouette</h2>
      <p className="quiet">
        {way === 'straight'
          ? 'Click the corners; a double click or Enter closes the shape.'
          : 'Draw round the shape: it closes when the hand lifts.'}
      </p>
      <div className={styles.sightKinds} role="group" aria-label="How the outline is drawn">
        <Button
          type={way === 'free' ? 'primary' : 'default'}
          aria-pressed={way === 'free'}
          onClick={() => set({ way: way === 'free' ? undefined : 'free' })}
        >
          {' '}
          Free outline
        </Button>
        <Button
          type={way === 'straight' ? 'primary' : 'default'}
          aria-pressed={way === 'straight'}
          onClick={() => set({ way: way === 'straight' ? undefined : 'straight' })}
        >
          {' '}
          Straight edges
        </Button>
      </div>
      <Segmented
        aria-label="What is done with the shape"
        options={[
          { value: 'fill', label: 'Fill with the mixture' },
          { value: 'cut', label: 'Cut out' },
        ]}
        value={cut ? 'cut' : 'fill'}
        onChange={(v) => set({ cut: v === 'cut' })}
      />
      <Dial
        label="Edge"
        value={Math.sqrt(edgeMm / WIDEST_MM)}
        say={(v) => (v === 0 ? 'found' : `lost, ${(WIDEST_MM * v * v).toFixed(1)} mm`)}
        onSet={(v) => set({ edgeMm: Math.round(WIDEST_MM * v * v * 10) / 10 })}
        hint={water ? 'How wide the edge is lost, in clear water' : 'How wide the edge is lost'}
      />
      {!cut && !water && (
        <Dial
          label="Streaks"
          value={streaks}
          say={percent}
          onSet={(v) => set({ streaks: v })}
          hint="Unevenness along the shape"
        />
      )}{' '}
    </>
  );
}
