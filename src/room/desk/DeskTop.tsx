'use client';
import { Segmented } from 'antd';
import { useEffect, useState, type ReactNode } from 'react';
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

/** What lies on the mixing desk: mixtures, photos, tubes, own paints; on a page of its own or over the easel. */
export function DeskTop({ painting, heading, back }: { painting: string; heading: ReactNode; back: ReactNode }) {
  const [view, setView] = useState<(typeof VIEWS)[number]>('Mix');
  const [record, setRecord] = useState<PaintingRecord | null>();
  const { name, trouble } = usePalette();
  useEffect(() => {
    void readPainting(painting).then(setRecord, () => setRecord(null));
  }, [painting]);
  const photos = usePhotos(record ?? undefined);
  return (
    <>
      <header className={styles.head}>
        {back}
        {heading}
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
    </>
  );
}
