'use client';
import { LeftOutlined } from '@ant-design/icons';
import { Button, Form, Input } from 'antd';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { TUBE_SETS } from '@/core/colour/tubeSets';
import { PainterError } from '@/core/errors';
import { whileHeld } from '@/engine/hand/holding';
import { writePainting, writePhoto } from '@/engine/keeping/shelf';
import { usePalette } from '../colour/paletteStore';
import { decodePhoto } from '../photos';
import { newId } from '../rack/hangFile';
import { GroundSeen } from './GroundSeen';
import { PhotosSection, type HungPhoto } from './PhotosSection';
import {
  AT_FIRST,
  lacks,
  lastPreparation,
  paletteOf,
  specOf,
  started,
  STARTS,
  type Preparation,
  whyNotBegun,
} from './preparation';
import { SizeSection } from './SizeSection';
import { SurfaceSection } from './SurfaceSection';
import { ToneSection } from './ToneSection';
import { TubesSection } from './TubesSection';
import styles from './prepare.module.css';

/** Choosing a support, a surface, a tone and photos, with the ground seen in raking light while one chooses. */
export function Prepare() {
  const router = useRouter();
  const [it, setIt] = useState(AT_FIRST);
  const [last, setLast] = useState<Preparation>();
  const [photos, setPhotos] = useState<HungPhoto[]>([]);
  const [trouble, setTrouble] = useState('');
  const [beginning, setBeginning] = useState(false);
  const ownSets = usePalette((s) => s.ownSets);
  const ownPaints = usePalette((s) => s.ownPaints);
  useEffect(() => {
    void usePalette.getState().open();
    void lastPreparation.read().then(setLast);
  }, []);

  const change = (changes: Partial<Preparation>) => setIt((before) => ({ ...before, ...changes }));
  const sets = [...TUBE_SETS, ...ownSets];
  const set = sets.find(({ id }) => id === it.tubes) ?? TUBE_SETS[0];
  const waits = lacks(it);
  const addPhotos = async (files: File[]) => {
    setTrouble('');
    for (const file of files) {
      try {
        const decoded = await decodePhoto(file, file.name);
        decoded.close();
        const hung = { id: newId(), name: file.name, blob: file, url: URL.createObjectURL(file) };
        setPhotos((before) => [...before, hung]);
      } catch (error) {
        setTrouble(error instanceof PainterError ? error.message : `“${file.name}” cannot be hung up.`);
      }
    }
  };
  const drop = useDropzone({ onDrop: (files) => void addPhotos(files), noClick: true });

  const begin = async () => {
    const id = newId();
    try {
      const spec = specOf(it, Math.floor(Math.random() * 1e6) + 1, ownPaints);
      setBeginning(true);
      await whileHeld(id, async () => {
        for (const photo of photos) await writePhoto(id, photo.id, photo.blob);
        await writePainting({
          id,
          title: it.title.trim() || 'Untitled',
          createdAt: Date.now(),
          spec,
          photos: photos.map(({ id: photo, name }) => ({ id: photo, name })),
          palette: paletteOf(it, set),
        });
      });
      // it may be prepared by hand again where this is not kept
      await lastPreparation.write(it).catch(() => {});
      router.push(`/easel?painting=${id}`);
    } catch (error) {
      setBeginning(false);
      setTrouble(whyNotBegun(error));
    }
  };

  return (
    <main className={styles.prepare} {...drop.getRootProps({ tabIndex: -1, role: 'main' })}>
      <header className={styles.head}>
        <Link href="/" className={styles.back}>
          <LeftOutlined /> The rack
        </Link>
        <h1>Prepare a ground</h1>
        <div className={styles.starts} role="group" aria-label="Ready starts">
          {STARTS.map((start) => (
            <Button key={start.name} onClick={() => setIt((before) => started(before, start))}>
              {start.name}
            </Button>
          ))}
          {last && <Button onClick={() => setIt(last)}>As my last one</Button>}
        </div>
      </header>
      <Form layout="vertical" className={styles.form} size="middle" onFinish={() => void begin()}>
        <Form.Item label="Title">
          <Input
            value={it.title}
            maxLength={120}
            onChange={(e) => change({ title: e.target.value })}
            aria-label="Title"
          />
        </Form.Item>
        <SizeSection it={it} change={change} />
        <SurfaceSection it={it} change={change} />
        <TubesSection it={it} change={change} sets={sets} set={set} />
        <ToneSection it={it} change={change} set={set} />
        <PhotosSection
          photos={photos}
          drop={drop}
          takeDown={(photo) => setPhotos((before) => before.filter((p) => p !== photo))}
        />
        {trouble && (
          <p role="alert" className="trouble">
            {trouble}
          </p>
        )}
        <Button type="primary" htmlType="submit" loading={beginning} disabled={waits !== ''}>
          Set it on the easel
        </Button>
      </Form>
      <GroundSeen it={it} />
    </main>
  );
}
