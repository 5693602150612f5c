'use client';
import { Button } from 'antd';
import Link from 'next/link';
import { useState } from 'react';
import { pigmentName } from '@/core/colour/pigments';
import type { Answers } from '@/engine/questions';
import { useEasel } from '@/room/easel/easelStore';
import { useLive } from '@/room/easel/replay/liveStore';
import styles from './journal.module.css';

/** What the painting's journal knows: strokes, paint used, memory, and how the machine keeps up. */
export function JournalDrawer() {
  const bench = useEasel((s) => s.bench);
  const painting = useEasel((s) => s.painting);
  const latency = useEasel((s) => s.latency);
  const live = useLive((s) => s.on);
  const [state, setState] = useState<Answers['state']>();
  if (!bench) return null;
  const count = async () => setState(await useEasel.getState().engine?.ask({ of: 'state' }));
  return (
    <>
      <h2>Journal</h2>
      <p className="quiet">
        Every stroke is written down as it is made, so the painting can be taken up where it was left.
      </p>
      <dl className={styles.facts}>
        <dt>Strokes</dt>
        <dd>{bench.strokes}</dd>
        <dt>In memory</dt>
        <dd>{Math.round(bench.memory / 2 ** 20)} MB</dd>
        <dt>Pen to picture</dt>
        <dd>{latency ? `${latency.toFixed(0)} ms` : 'paint to see'}</dd>
      </dl>
      <p>
        <Button onClick={() => useEasel.getState().togglePanel('made')} disabled={bench.strokes === 0}>
          How it was made
        </Button>{' '}
        <Button aria-pressed={live} onClick={() => useLive.setState({ on: !live })}>
          {live ? 'Close the live view' : 'Live view'}
        </Button>
      </p>
      <p>
        <Link href={`/prepare?again=${painting}`}>Another ground …</Link>
      </p>
      <Button onClick={() => void count()}>Weigh the paint</Button>
      {state && (
        <table className={styles.weights}>
          <caption className="quiet">Grams of tube paint</caption>
          <thead>
            <tr>
              <th>Tube</th>
              <th>used</th>
              <th>on it</th>
              <th>wiped</th>
            </tr>
          </thead>
          <tbody>
            {Object.entries(state.mass).map(([id, m]) => (
              <tr key={id}>
                <td>{pigmentName(id)}</td>
                <td>{grams(m.loaded)}</td>
                <td>{grams(m.film + m.settled + m.strata)}</td>
                <td>{grams(m.removed)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {state && (
        <p className={styles.seal} title="Two paintings with the same seal are the same, byte for byte">
          Seal {state.digest.slice(0, 16)}
        </p>
      )}
    </>
  );
}

/** One coat is about 0.17 kg on a square metre. */
const grams = (coatsMm2: number) => (coatsMm2 * 1.7e-4).toFixed(2);
