'use client';
import { CloseOutlined } from '@ant-design/icons';
import { Button, Checkbox, Segmented, Slider } from 'antd';
import { chroma } from '@/core/colour/colorimetry';
import { warmth } from '@/core/colour/warmth';
import { compareColours } from '@/core/study/compare';
import { Spot } from './CompareTag';
import { useCompare, type MarkedSpot } from './compareStore';
import { useFollowed } from './useFollowed';
import { useEasel } from '@/room/easel/easelStore';
import easel from '../easel.module.css';
import styles from './compare.module.css';

const where = (spot: MarkedSpot) => (spot.on === 'canvas' ? 'canvas' : 'photo');
const plain = (v: number) => v.toFixed(1).replace('-', '−');
const signed = (v: number) => (v > 0.05 ? `+${plain(v)}` : plain(v)).replace('−0.0', '0.0');

/** Spots on canvas and photo compared in words and numbers; the probe that follows the brush; the spot itself. */
export function CompareDrawer() {
  const { pairs, pending, probe, numbers, remove, clear, toggleProbe, toggleNumbers } = useCompare();
  const { spotPx, asSeen, oneLayer, set } = useEasel();
  const followed = useFollowed(pairs);
  return (
    <>
      <h2>Compare</h2>
      <p className="quiet">Hold D and click two spots, on the canvas or a photo.</p>
      {pending && (
        <p className={easel.pairWords}>
          <Spot spot={pending} /> marked on the {where(pending)}; now the second.
        </p>
      )}
      <ul className={easel.pairs}>
        {pairs.map(({ id, first, second }) => {
          const c = compareColours(second.lab, first.lab);
          const now = followed[id];
          return (
            <li key={id}>
              <div className={styles.pairHead}>
                <Spot spot={first} />
                <Spot spot={second} />
                <span className="quiet">
                  {id}a {where(first)}, {id}b {where(second)}
                </span>
                <span className={easel.spring} />
                <Button
                  type="text"
                  size="small"
                  icon={<CloseOutlined />}
                  aria-label={`Forget pair ${id}`}
                  onClick={() => remove(id)}
                />
              </div>
              <div data-testid="pair">
                {id}b is {c.words}
                {c.deltaE >= 1 && ` than ${id}a`}
              </div>
              {now && (
                <div className="quiet" data-testid="followed">
                  Was {plain(Math.abs(c.valueSteps))} values apart, now {plain(Math.abs(now.valueSteps))}; now {id}b is{' '}
                  {now.words}.
                </div>
              )}
              {numbers && (
                <table className={styles.pairNumbers}>
                  <tbody>
                    <tr>
                      <th />
                      <th>a</th>
                      <th>b</th>
                      <th>b − a</th>
                    </tr>
                    {(
                      [
                        ['Value', first.lab[0] / 10, second.lab[0] / 10],
                        ['Warmth', warmth(first.lab), warmth(second.lab)],
                        ['Chroma', chroma(first.lab), chroma(second.lab)],
                      ] as const
                    ).map(([name, a, b]) => (
                      <tr key={name}>
                        <th scope="row">{name}</th>
                        <td>{plain(a)}</td>
                        <td>{plain(b)}</td>
                        <td>{signed(b - a)}</td>
                      </tr>
                    ))}
                    <tr>
                      <th scope="row">Delta E</th>
                      <td colSpan={3}>{c.deltaE.toFixed(1)}</td>
                    </tr>
                  </tbody>
                </table>
              )}
            </li>
          );
        })}
      </ul>
      <div className={easel.line}>
        <Checkbox checked={numbers} onChange={toggleNumbers}>
          Numbers
        </Checkbox>
        <span className={easel.spring} />
        <Button size="small" disabled={pairs.length === 0 && !pending} onClick={clear}>
          Forget all
        </Button>
      </div>
      <h3 className={easel.drawerHead}>The brush and its neighbour</h3>
      <Checkbox checked={probe} onChange={toggleProbe}>
        Say how the paint on the brush differs from what it is over (P)
      </Checkbox>
      <h3 className={easel.drawerHead}>The spot</h3>
      <p className="quiet">What is sampled (hold S) or compared is averaged over a round spot.</p>
      <Slider
        min={0}
        max={30}
        value={spotPx}
        ariaLabelForHandle="Radius of the spot"
        tooltip={{ formatter: (v) => (v === 0 ? 'a point' : `${v} px on the screen`) }}
        onChange={(v) => set({ spotPx: v })}
      />
      <Segmented
        size="small"
        block
        aria-label="What sampling gives"
        options={[
          { value: 'paint', label: 'The paint there' },
          { value: 'seen', label: 'The colour seen' },
        ]}
        value={asSeen ? 'seen' : 'paint'}
        onChange={(v) => set({ asSeen: v === 'seen' })}
      />
      <Checkbox checked={oneLayer} onChange={(e) => set({ oneLayer: e.target.checked })}>
        Only the layer that is painted on
      </Checkbox>
    </>
  );
}
