'use client';
import { CloseOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { linearToHex } from '@/core/colour/colorimetry';
import { masstoneLinear, type Mixture } from '@/core/colour/mixture';
import { toolOf } from '@/core/tools/tools';
import { usePalette } from '@/room/colour/paletteStore';
import { inParts, recipeWords, shortName } from '@/core/colour/recipeWords';
import { useEasel } from '@/room/easel/easelStore';
import { stickRow } from './sticks';
import easel from '../easel.module.css';
import styles from './hand.module.css';

/** A box of sticks: a row for each tube at hand, from shades over the colour itself to tints. A click takes one up. */
export function StickBox() {
  const open = useEasel((s) => s.panel === 'sticks');
  const tubes = usePalette((s) => s.tubes);
  const tool = useEasel((s) => s.bench?.tool.tool);
  if (!open) return null;
  const take = (mixture: Mixture) => {
    const { apply, loadMixture } = useEasel.getState();
    const held = tool && toolOf(tool);
    if (!held?.stick || !held.takesPaint) apply({ do: 'tool', tool: 'pastel-soft' });
    loadMixture(inParts(mixture));
  };
  return (
    <section className={easel.roll} aria-label="Box of sticks">
      <header>
        <h2>Box of sticks</h2>
        <span className={easel.spring} />
        <span className="quiet">shades to the left, tints to the right; each is a mixture of your tubes</span>
        <Button
          type="text"
          icon={<CloseOutlined />}
          aria-label="Close the box"
          onClick={() => useEasel.getState().togglePanel('sticks')}
        />
      </header>
      <div className={styles.sticks}>
        {tubes.map((id) => (
          <div key={id} className={styles.stickRow}>
            <span className={styles.stickName}>{shortName(id)}</span>
            {stickRow(id, tubes).map((mixture, k) => (
              <button
                key={k}
                type="button"
                className={styles.stick}
                style={{ background: linearToHex(masstoneLinear(mixture)) }}
                aria-label={`Take a stick of ${recipeWords(mixture)}`}
                title={recipeWords(mixture)}
                onClick={() => take(mixture)}
              />
            ))}
          </div>
        ))}
      </div>
    </section>
  );
}
