'use client';
import { Button } from 'antd';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { PainterError } from '@/core/errors';
import { readPainting } from '@/engine/keeping/shelf';
import type { PaintingRecord } from '@/engine/keeping/paintingRecord';
import { DEMO_ID, hangDemo } from '../rack/hangFile';
import { Bench } from '@/room/easel/bench/Bench';
import { useBoard } from '@/room/easel/board/boardStore';
import { CanvasView } from '@/room/easel/canvas/CanvasView';
import { MotifBoard } from '@/room/easel/board/MotifBoard';
import { Sill } from './Sill';
import { useCompare } from '@/room/easel/compare/compareStore';
import { useLight } from '@/room/easel/light/lightStore';
import { openNotes } from '@/room/easel/looking/lookNotes';
import { openLamp } from '@/room/easel/lamp/keptLamp';
import { useFocus } from '@/room/easel/study/focusStore';
import { StudyPanel } from '@/room/easel/study/StudyPanel';
import { Spine } from './Spine';
import { useLikings } from '@/room/likings';
import { useAutomation } from './automation';
import { useEasel } from './easelStore';
import { forgetBefore } from '@/room/easel/hand/taking';
import { countTime } from './paintingTime';
import { useSight } from '@/room/easel/sighting/sightStore';
import { KeyBindings } from '@/room/easel/keys/KeyBindings';
import { KeysPanel } from '@/room/easel/keys/KeysPanel';
import { Ledge } from '@/room/easel/ledge/Ledge';
import styles from './easel.module.css';

/** Something to know about the painting, until it has been read. */
function Told() {
  const told = useEasel((s) => s.told);
  if (!told) return null;
  return (
    <p className={styles.told} role="status">
      {told}
      <Button type="link" onClick={() => useEasel.setState({ told: '' })}>
        Understood
      </Button>
    </p>
  );
}

/** The main screen: the canvas in a neutral room, photos at its side, the bench in front. */
export function Easel({ painting }: { painting: string }) {
  const [record, setRecord] = useState<PaintingRecord | null>();
  const begin = useEasel((s) => s.begin);
  const failed = useEasel((s) => s.failed);
  const clear = useEasel((s) => s.clear);
  const { size, popped } = useBoard();
  useAutomation();
  const { leftHanded, dimmed, read } = useLikings();
  useEffect(() => void read(), [read]);

  useEffect(() => {
    let close: (() => void) | undefined;
    let closeLamp: (() => void) | undefined;
    let gone = false;
    const open = async () => {
      if (painting === DEMO_ID) await hangDemo().catch(() => {});
      const found = await readPainting(painting).catch((error: unknown) => {
        if (error instanceof PainterError) useEasel.setState({ failed: error.message });
        return null;
      });
      if (gone) return;
      setRecord(found);
      if (found) {
        forgetBefore();
        useSight.getState().open(found);
        useBoard.getState().open(found);
        useLight.getState().open(found);
        closeLamp = openLamp(found);
        const noted = openNotes(found);
        useCompare.getState().open(noted);
        useFocus.getState().open(noted);
      }
      if (found) {
        const [end, stop] = [begin(painting), countTime(painting, found.spentMs)];
        close = () => {
          stop();
          end();
        };
      }
    };
    void open();
    return () => {
      gone = true;
      close?.();
      closeLamp?.();
    };
  }, [painting, begin]);

  if (record === null || failed) {
    return (
      <main className={styles.lost}>
        <h1>This painting cannot be shown</h1>
        <p className="trouble" role="alert">
          {failed ||
            'It is not on the rack of this browser. Paintings are kept where they were painted; to bring one here, open its file.'}
        </p>
        <Link href="/">
          <Button size="middle">To the rack</Button>
        </Link>
      </main>
    );
  }
  if (!record) return <div className={styles.easel} aria-busy="true" />;
  return (
    <main
      className={[styles.easel, clear && styles.clear, leftHanded && styles.leftHanded, dimmed && styles.dimmed]
        .filter(Boolean)
        .join(' ')}
      style={
        {
          '--board': clear || popped || size === 'folded' ? '0px' : size === 'half' ? '50vw' : '280px',
        } as React.CSSProperties
      }
    >
      <Sill record={record} />
      <Told />
      <MotifBoard painting={record.id} photos={record.photos} />
      <CanvasView />
      <Ledge />
      <Spine />
      <Bench />
      <KeyBindings />
      <KeysPanel />
      <StudyPanel />
    </main>
  );
}
