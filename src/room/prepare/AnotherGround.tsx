'use client';
import { LeftOutlined } from '@ant-design/icons';
import { Button, Form } from 'antd';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { TUBE_SETS } from '@/core/colour/tubeSets';
import { PainterError } from '@/core/errors';
import { putOnGround, stepsToPaint } from '@/engine/keeping/anotherGround';
import type { PaintingRecord } from '@/engine/keeping/paintingRecord';
import { readPainting } from '@/engine/keeping/shelf';
import { usePalette } from '../colour/paletteStore';
import { newId } from '../rack/hangFile';
import { GroundSeen } from './GroundSeen';
import { lacks, preparationOf, specOf, whyNotBegun, type Preparation } from './preparation';
import { SurfaceSection } from './SurfaceSection';
import { ToneSection } from './ToneSection';
import styles from './prepare.module.css';

/** Another surface or tone for a painting that has been begun. */
export function AnotherGround({ painting }: { painting: string }) {
  const router = useRouter();
  const [record, setRecord] = useState<PaintingRecord>();
  const [it, setIt] = useState<Preparation>();
  const [steps, setSteps] = useState(0);
  const [trouble, setTrouble] = useState('');
  const [beginning, setBeginning] = useState(false);
  const ownPaints = usePalette((s) => s.ownPaints);
  useEffect(() => {
    void usePalette.getState().open(painting);
    const open = async () => {
      const found = await readPainting(painting);
      if (!found) throw new PainterError('This painting is not on the rack of this browser.');
      setSteps(await stepsToPaint(painting));
      setRecord(found);
      setIt(preparationOf(found));
    };
    open().catch((error: unknown) =>
      setTrouble(error instanceof PainterError ? error.message : 'This painting could not be read.'),
    );
  }, [painting]);

  const begin = async () => {
    if (!it || !record) return;
    setTrouble('');
    setBeginning(true);
    try {
      router.push(`/easel?painting=${await putOnGround(painting, specOf(it, record.spec.seed, ownPaints), newId())}`);
    } catch (error) {
      setBeginning(false);
      setTrouble(whyNotBegun(error));
    }
  };
  const change = (changes: Partial<Preparation>) => setIt((before) => before && { ...before, ...changes });
  return (
    <main className={styles.prepare}>
      <header className={styles.head}>
        <Link href={`/easel?painting=${painting}`} className={styles.back}>
          <LeftOutlined /> The easel
        </Link>
        <h1>Another ground</h1>
      </header>
      <Form layout="vertical" className={styles.form} size="middle" onFinish={() => void begin()}>
        {record && (
          <p>
            {steps > 0
              ? `“${record.title}” is painted again on this ground from its journal, ${steps} steps, as a second painting. What lies on the old ground may come out otherwise, as it would in the studio; the painting that you have stays on the rack as it is.`
              : `Nothing has been painted on “${record.title}” yet: its ground is changed.`}
          </p>
        )}
        {it && (
          <>
            <SurfaceSection it={it} change={change} />
            <ToneSection it={it} change={change} set={TUBE_SETS[0]} />
          </>
        )}
        {trouble && (
          <p role="alert" className="trouble">
            {trouble}
          </p>
        )}
        {it && (
          <Button type="primary" htmlType="submit" loading={beginning} disabled={lacks(it) !== ''}>
            {steps > 0 ? 'Paint it again on this' : 'Change the ground'}
          </Button>
        )}
      </Form>
      {it && <GroundSeen it={it} />}
    </main>
  );
}
