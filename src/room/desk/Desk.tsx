'use client';
import { LeftOutlined } from '@ant-design/icons';
import { Segmented } from 'antd';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { readPainting } from '@/engine/keeping/shelf';
import type { PaintingRecord } from '@/engine/keeping/paintingRecord';
import { usePalette } from '../colour/paletteStore';
import { RackShelves } from '../colour/RackShelves';
import { SetPlan } from '../colour/SetPlan';
import { FromPhotos } from './FromPhotos';
import { MixView } from './MixView';
import { OwnPaints } from './OwnPaints';
import { usePhotos } from './usePhotos';
import styles from './desk.module.css';

const VIEWS = ['Mix', 'From photos', 'Tubes', 'Own paints'] as const;

/** The mixing desk: everything about colour that is thought over before or beside painting. */
export function Desk({ painting }: { painting: string }) {
  const [view, setView] = useState<(typeof VIEWS)[number]>('Mix');
  const [record, setRecord] = useState<PaintingRecord | null>();
  const { open, name, trouble } = usePalette();
  useEffect(() => {
    void open(painting || undefined);
    void readPainting(painting).then(setRecord, () => setRecord(null));
  }, [open, painting]);
  const photos = usePhotos(record ?? undefined);
  return (
    <main className={styles.desk}>
      <header className={styles.head}>
        <Link href={painting ? `/easel?painting=${painting}` : '/'} className={styles.back}>
          <LeftOutlined /> {painting ? 'The easel' : 'The rack'}
        </Link>
        <h1>Mixing desk</h1>
        <span className="quiet">
          {record ? `${record.title}, ` : ''}
          {name}
        </span>
        <span className={styles.spring} />
        <Segmented
          aria-label="What lies on the desk"
          options={[...VIEWS]}
          value={view}
          onChange={(v) => setView(v as typeof view)}
        />
      </header>
      {trouble && (
        <p role="alert" className="trouble">
          {trouble}
        </p>
      )}
      {view === 'Mix' && <MixView photos={photos} />}
      {view === 'From photos' && <FromPhotos photos={photos} />}
      {view === 'Tubes' && (
        <div className={styles.rack}>
          <RackShelves />
          <SetPlan />
        </div>
      )}
      {view === 'Own paints' && <OwnPaints />}
    </main>
  );
}
