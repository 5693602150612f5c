'use client';
import { CloseOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { Leaf } from '@/room/colour/Leaf';
import { usePalette } from '@/room/colour/paletteStore';
import { inParts } from '@/core/colour/recipeWords';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import easel from '../easel.module.css';
import styles from './bench.module.css';

/** The leaf, laid over the lower part of the view: choosing a colour by eye gives its recipe. */
export function LeafPanel() {
  const open = useEasel((s) => s.panel === 'leaf');
  const parts = useEasel((s) => s.parts);
  const { togglePanel, loadMixture } = useEasel.getState();
  const tubes = usePalette((s) => s.tubes);
  if (!open) return null;
  return (
    <section className={`${easel.roll} ${styles.leafPanel}`} aria-label="Leaf">
      <header>
        <h2>Leaf</h2>
        <span className="quiet">value upwards, chroma to the right; empty where the tubes at hand do not reach</span>
        <span className={easel.spring} />
        <Button type="text" icon={<CloseOutlined />} aria-label="Close the leaf" onClick={() => togglePanel('leaf')} />
      </header>
      <Leaf tubes={tubes} mixture={mixtureOf(parts)} onChoose={({ mixture }) => loadMixture(inParts(mixture))} />
    </section>
  );
}
