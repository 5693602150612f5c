'use client';
import { Button, Progress, Select } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { MAX_CELLS, MOST_BYTES } from '@/core/commands/memoryBudget';
import { PainterError } from '@/core/errors';
import { gridOf } from '@/core/film/painting';
import { ReplayClient } from '@/engine/replay/replayClient';
import type { FromReplay } from '@/engine/replay/replayMessages';
import { useEasel } from '@/room/easel/easelStore';
import { fileName, saveFile } from '@/room/parts/saveFile';
import styles from './sendOut.module.css';

type Again = Extract<FromReplay, { say: 'again' }>;
const SCALES = [2, 3, 4];
const ENOUGH_PPI = 300;

const gigabytes = (bytes: number) => `${(bytes / 1e9).toFixed(1)} GB`;

/** The painting painted again for print: the same strokes in more cells, instead of pixels that are enlarged. */
export function PaintAgain({ title }: { title: string }) {
  const opened = useEasel((s) => s.opened);
  const memory = useEasel((s) => s.bench?.memory ?? 0);
  const [scale, setScale] = useState(2);
  const [making, setMaking] = useState<{ done: number; total: number }>();
  const [made, setMade] = useState<Again>();
  const [trouble, setTrouble] = useState('');
  const client = useRef<ReplayClient>(undefined);
  useEffect(() => () => client.current?.close(), []);
  if (!opened) return null;
  const { spec } = opened;
  const ppi = Math.round(spec.ppi);
  const { width, height } = gridOf({ ...spec, ppi: spec.ppi * scale });
  const bytes = memory * scale * scale;
  const tooMuch = width * height > MAX_CELLS || bytes > MOST_BYTES;

  const begin = async () => {
    const { engine, light } = useEasel.getState();
    if (!engine) return;
    setTrouble('');
    setMade(undefined);
    setMaking({ done: 0, total: 1 });
    const worker = new ReplayClient((message) => message.say === 'making' && setMaking(message));
    client.current = worker;
    try {
      const { begun, history } = await engine.ask({ of: 'journal' });
      worker.say({ say: 'open', begun, history, light });
      const found = await worker.make({ say: 'again', scale });
      if (found?.say === 'again') setMade(found);
    } catch (error) {
      setTrouble(error instanceof PainterError ? error.message : 'It could not be painted again.');
    } finally {
      setMaking(undefined);
      worker.close();
    }
  };

  return (
    <section className={styles.again} aria-label="Painted again for print">
      <h3>Painted again</h3>
      <p className="quiet">
        At its real size, {Math.round(spec.widthMm)} × {Math.round(spec.heightMm)} mm, it has {ppi} ppi
        {ppi < ENOUGH_PPI ? ', few for looking at it from near.' : ', enough for a fine print.'} The same strokes can be
        painted in more cells.
      </p>
      <label>
        <Select
          size="small"
          aria-label="How much finer"
          value={scale}
          onChange={setScale}
          options={SCALES.map((value) => ({ value, label: `${ppi * value} ppi` }))}
        />
        <span className="quiet">
          {width} × {height} px, about {gigabytes(bytes)} of memory
        </span>
      </label>
      {tooMuch && <p role="alert">That is more than can be painted at once here. Choose fewer.</p>}
      {making ? (
        <p className={styles.making} role="status">
          <Progress size="small" percent={Math.floor((100 * making.done) / Math.max(1, making.total))} />
          <Button size="small" onClick={() => client.current?.say({ say: 'cancel' })}>
            Give it up
          </Button>
        </p>
      ) : (
        <Button disabled={tooMuch} onClick={() => void begin()}>
          Paint it again
        </Button>
      )}
      {trouble && (
        <p role="alert" className="trouble">
          {trouble}
        </p>
      )}
      {made && (
        <>
          <div className={styles.compared}>
            <Piece of={made} which="coarse" name={`${ppi} ppi, enlarged`} />
            <Piece of={made} which="fine" name={`${Math.round(made.ppi)} ppi`} />
          </div>
          <Button
            type="primary"
            onClick={() => saveFile(fileName(`${title} ${Math.round(made.ppi)} ppi`, 'png'), made.png, 'image/png')}
          >
            Save it, {(made.png.length / 1e6).toFixed(0)} MB
          </Button>
        </>
      )}
    </section>
  );
}

function Piece({ of: { compared }, which, name }: { of: Again; which: 'coarse' | 'fine'; name: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height } = compared;
  useEffect(() => {
    canvas.current!.getContext('2d')!.putImageData(new ImageData(compared[which], width, height), 0, 0);
  }, [compared, which, width, height]);
  return (
    <figure>
      <canvas ref={canvas} width={width} height={height} aria-label={name} />
      <figcaption>{name}</figcaption>
    </figure>
  );
}
