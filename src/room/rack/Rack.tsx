'use client';
import { DeleteOutlined, FolderOpenOutlined, PlusOutlined } from '@ant-design/icons';
import { Button, Tooltip } from 'antd';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { PainterError } from '@/core/errors';
import type { Offer } from '@/engine/files/intakeWorker';
import { amendPainting, erasePainting, listPaintings, type PaintingFace } from '@/engine/keeping/shelf';
import type { PaintingRecord } from '@/engine/keeping/paintingRecord';
import { FileButton } from '../parts/FileButton';
import { ifFree } from '@/engine/hand/holding';
import { sweep } from '@/engine/keeping/sweeping';
import { DEMO_SERIES, FileRefused, hangAll, hangDemo, hangFile } from './hangFile';
import { SendOutAll } from './SendOutAll';
import { askToStay, roomInWords } from './storageRoom';
import styles from './rack.module.css';

/** A painting taken off the rack is gone for good after this time, ms. */
const ERASE_AFTER = 24 * 3600 * 1000;
/** Says that this tab has looked for leftovers. */
const SWEPT = 'stigmos-swept';

/** All paintings, like canvases standing on a drying rack. */
export function Rack() {
  const router = useRouter();
  const [paintings, setPaintings] = useState<(PaintingRecord & PaintingFace)[]>();
  const [removed, setRemoved] = useState<PaintingRecord>();
  const [trouble, setTrouble] = useState('');
  /** A damaged file, and what can be done with it all the same. */
  const [again, setAgain] = useState<{ file: File; offers: Offer }>();
  const [room, setRoom] = useState('');
  const [stays, setStays] = useState('');
  const [swept, setSwept] = useState('');
  const [hanging, setHanging] = useState(false);

  const refresh = useCallback(async () => {
    const all = await listPaintings();
    setPaintings(all.filter((p) => !p.removedAt));
    setRoom(await roomInWords());
  }, []);

  useEffect(() => {
    void askToStay().then(setStays);
    const begin = async () => {
      for (const p of await listPaintings()) {
        if (p.removedAt && Date.now() - p.removedAt > ERASE_AFTER) await ifFree(p.id, () => erasePainting(p.id));
      }
      // what is there is shown at once; the demo joins it when it has been unpacked
      await refresh();
      setHanging(true);
      await hangDemo();
      if (sessionStorage.getItem(SWEPT)) return;
      sessionStorage.setItem(SWEPT, 'yes');
      const bytes = await sweep();
      if (bytes > 0) setSwept(`${megabytes(bytes)} left over from interrupted work were cleared away.`);
    };
    begin()
      .catch((error: unknown) => setTrouble(sentence(error)))
      .finally(() => {
        setHanging(false);
        void refresh();
      });
  }, [refresh]);

  const openFile = async (file: File, paintAgain = false) => {
    setTrouble('');
    setAgain(undefined);
    setHanging(true);
    try {
      if (/\.zip$/i.test(file.name)) {
        await hangAll(file);
        await refresh();
      } else router.push(`/easel?painting=${await hangFile(file, undefined, paintAgain)}`);
    } catch (error) {
      setTrouble(`“${file.name}”: ${sentence(error)}`);
      if (error instanceof FileRefused && error.offers) setAgain({ file, offers: error.offers });
    } finally {
      setHanging(false);
    }
  };

  /** Brings the rest of the demo series, one after another. */
  const hangSeries = async () => {
    setTrouble('');
    setHanging(true);
    try {
      for (const id of DEMO_SERIES) {
        await hangDemo(id);
        await amendPainting(id, { removedAt: undefined });
        await refresh();
      }
    } catch (error) {
      setTrouble(sentence(error));
    } finally {
      setHanging(false);
    }
  };
  const seriesHangs = DEMO_SERIES.every((id) => paintings?.some((p) => p.id === id));

  const takeOff = async (painting: PaintingRecord) => {
    await amendPainting(painting.id, { removedAt: Date.now() });
    setRemoved(painting);
    await refresh();
  };

  const hangBack = async () => {
    if (removed) await amendPainting(removed.id, { removedAt: undefined });
    setRemoved(undefined);
    await refresh();
  };

  return (
    <main className={styles.rack}>
      <header className={styles.head}>
        <div>
          <h1>The rack</h1>
          <p className="quiet">
            Every painting stands here and keeps itself. {room} {stays} {swept}
          </p>
        </div>
        <div className={styles.actions}>
          {paintings && !seriesHangs && (
            <Tooltip title="The same place in oil: alla prima, glazed in layers, with the knife; and in watercolour: ink and wash, a wet sky, a shell">
              <Button size="middle" loading={hanging} onClick={() => void hangSeries()}>
                Hang the demo series
              </Button>
            </Tooltip>
          )}
          <FileButton
            size="middle"
            icon={<FolderOpenOutlined />}
            accept=".stigmos,.zip"
            label="Open a painting file"
            onFile={(file) => void openFile(file)}
          >
            Open a file
          </FileButton>
          {paintings && paintings.length > 0 && <SendOutAll onDone={() => void refresh()} onTrouble={setTrouble} />}
          <Link href="/settings">
            <Button size="middle">Settings</Button>
          </Link>
          <Link href="/prepare">
            <Button size="middle" type="primary" icon={<PlusOutlined />}>
              New painting
            </Button>
          </Link>
        </div>
      </header>
      {trouble && (
        <p role="alert" className="trouble">
          {trouble}
          {again && (
            <Button type="link" onClick={() => void openFile(again.file, true)}>
              {again.offers === 'rest' ? 'Open what is left' : 'Paint it again'}
            </Button>
          )}
        </p>
      )}
      {removed && (
        <p role="status" className={styles.removed}>
          “{removed.title}” was taken off the rack.{' '}
          <Button type="link" onClick={() => void hangBack()}>
            Hang it back
          </Button>
        </p>
      )}
      {hanging && (
        <p className="quiet" role="status">
          Hanging a painting …
        </p>
      )}
      {paintings?.length === 0 && !hanging && <p className="quiet">The rack is empty. Prepare a ground to begin.</p>}
      <ul className={styles.list} aria-label="Paintings">
        {paintings?.map((painting) => (
          <li key={painting.id}>
            <Link
              href={`/easel?painting=${painting.id}`}
              className={styles.canvas}
              aria-label={`Open ${painting.title}`}
            >
              <Thumbnail painting={painting} />
            </Link>
            <div className={styles.ledge} />
            <div className={styles.label}>
              <div>
                <h2>{painting.title}</h2>
                <span className="quiet">
                  <span className="fact">
                    {Math.round(painting.spec.widthMm)} × {Math.round(painting.spec.heightMm)} mm
                  </span>
                  , {when(painting.changedAt)}
                </span>
                <span className={`quiet ${styles.sentOut}`}>{sentOut(painting)}</span>
              </div>
              <Tooltip title="Take off the rack">
                <Button
                  type="text"
                  icon={<DeleteOutlined />}
                  aria-label={`Take ${painting.title} off the rack`}
                  onClick={() => void takeOff(painting)}
                />
              </Tooltip>
            </div>
          </li>
        ))}
      </ul>
    </main>
  );
}

function Thumbnail({ painting }: { painting: PaintingRecord & PaintingFace }) {
  const picture = useRef<HTMLImageElement>(null);
  const { thumbnail, spec } = painting;
  useEffect(() => {
    if (!thumbnail || !picture.current) return;
    const url = URL.createObjectURL(new Blob([thumbnail], { type: 'image/png' }));
    picture.current.src = url;
    return () => URL.revokeObjectURL(url);
  }, [thumbnail]);
  // eslint-disable-next-line @next/next/no-img-element -- a picture from memory, not from a server
  if (thumbnail) return <img ref={picture} alt="" />;
  return <span className={styles.unseen} style={{ aspectRatio: `${spec.widthMm} / ${spec.heightMm}` }} />;
}

const sentence = (error: unknown) =>
  error instanceof PainterError ? error.message : 'Something went wrong while reading from this browser’s storage.';

/** When a painting was last sent out as a file, and whether it has been painted on since. */
function sentOut({ sentOutAt, changedAt }: PaintingRecord & PaintingFace): string {
  if (!sentOutAt) return 'no file of it was sent out';
  return `sent out ${when(sentOutAt)}${changedAt > sentOutAt ? ', painted on since' : ''}`;
}

function when(time: number): string {
  const minutes = Math.round((Date.now() - time) / 60_000);
  if (minutes < 1) return 'just now';
  if (minutes < 60) return `${minutes} min ago`;
  if (minutes < 36 * 60) return `${Math.round(minutes / 60)} h ago`;
  return new Date(time).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
}

const megabytes = (bytes: number) => `${(bytes / 2 ** 20).toFixed(1)} MB`;
