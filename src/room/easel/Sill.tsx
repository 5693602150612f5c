'use client';
import { LeftOutlined } from '@ant-design/icons';
import { Button, Dropdown, Space, Tooltip } from 'antd';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { PainterError } from '@/core/errors';
import type { ExportDefinition } from '@/core/formats/exports/definition';
import { EXPORTS } from '@/core/formats/exports/exports';
import { AID_IDS, AIDS, aidOf } from '@/core/picture/aids/aids';
import { amendPainting } from '@/engine/keeping/shelf';
import type { PaintingRecord } from '@/engine/keeping/paintingRecord';
import { fileName, saveFile } from '../parts/saveFile';
import { usePalette } from '@/room/colour/paletteStore';
import { isRaking, useEasel } from './easelStore';
import { usePaintingTime } from './paintingTime';
import { DustTools } from '@/room/easel/hand/DustTools';
import { LookingGlass } from '@/room/easel/looking/LookingGlass';
import { LiveView } from '@/room/easel/replay/LiveView';
import { ReplayPanel } from '@/room/easel/replay/ReplayPanel';
import { SendOutPanel } from '@/room/easel/sendOut/SendOutPanel';
import { WaterTools } from '@/room/easel/hand/WaterTools';
import { mirrored } from '@/room/easel/canvas/viewControl';
import styles from './easel.module.css';

/** How long a painting may be left; oil dries over days, acrylic over minutes. */
const LEAVE = [
  { hours: 1 / 6, name: '10 minutes' },
  { hours: 1, name: 'An hour' },
  { hours: 12, name: 'Overnight' },
  { hours: 168, name: 'A week' },
  { hours: 720, name: 'A month' },
];

/** The sill: what is on the easel, how long ago it was kept, how it is looked at, and the way out. */
export function Sill({ record }: { record: PaintingRecord }) {
  const [title, setTitle] = useState(record.title);
  const [trouble, setTrouble] = useState('');
  const [sending, setSending] = useState(false);
  const { apply, look, toggleAid, toggleRaking, togglePanel, set } = useEasel.getState();
  const aid = useEasel((s) => s.aid);
  const raking = useEasel((s) => isRaking(s.light));
  const mirror = useEasel((s) => s.view.mirror);
  const notKept = useEasel((s) => s.notKept);
  const refused = useEasel((s) => s.refused);

  /** Saves all of it where it cannot be kept. */
  const saveAll = async () => {
    const { engine: now } = useEasel.getState();
    if (!now) return;
    setTrouble('');
    setSending(true);
    const { extension, type }: ExportDefinition = EXPORTS.file;
    try {
      saveFile(fileName(title, extension), (await now.ask({ of: 'export', as: 'file', title })).bytes, type);
      void amendPainting(record.id, { sentOutAt: Date.now() }).catch(() => {});
    } catch (error) {
      setTrouble(error instanceof PainterError ? error.message : 'The file could not be made.');
    } finally {
      setSending(false);
    }
  };

  const rename = (next: string) => {
    setTitle(next);
    if (next.trim()) void amendPainting(record.id, { title: next.trim() }).catch(() => {});
  };

  return (
    <header className={styles.sill}>
      <Tooltip title="To the rack">
        <Link href="/" aria-label="To the rack" className={styles.toRack}>
          <LeftOutlined />
        </Link>
      </Tooltip>
      <h1 className="visually-hidden">The easel</h1>
      <input
        className={styles.title}
        value={title}
        maxLength={120}
        aria-label="Title"
        onChange={(e) => rename(e.target.value)}
      />
      <Kept />
      <TimeSet />
      <span className={styles.spring} />
      <Elsewhere />
      <GoingBack />
      {(refused || trouble || notKept) && (
        <span className={styles.notice} role="alert">
          {refused || trouble || notKept}
          {notKept && !refused && !trouble && (
            <Button type="link" onClick={() => void saveAll()}>
              Save as a file
            </Button>
          )}
        </span>
      )}
      <WaterTools />
      <DustTools />
      <Space.Compact>
        <Tooltip title="Dries everything now">
          <Button onClick={() => apply({ do: 'dry' })}>Hair dryer</Button>
        </Tooltip>
        <Dropdown
          trigger={['click']}
          menu={{
            items: LEAVE.map(({ hours, name }) => ({ key: String(hours), label: name })),
            onClick: ({ key }) => apply({ do: 'leave', hours: Number(key) }),
          }}
        >
          <Button aria-label="Leave it to dry">Leave it</Button>
        </Dropdown>
      </Space.Compact>
      <div className={styles.aids} role="group" aria-label="Looking aids">
        <LookingGlass />
        <Tooltip title="Canvas and photo in register, measured (Shift W)">
          <Button type="text" onClick={() => togglePanel('study')}>
            Study
          </Button>
        </Tooltip>
        {AID_IDS.filter((id) => aidOf(id)?.onSill).map((id) => (
          <Tooltip key={id} title={AIDS[id].hint}>
            <Button type={aid === id ? 'primary' : 'text'} aria-pressed={aid === id} onClick={() => toggleAid(id)}>
              {AIDS[id].name}
            </Button>
          </Tooltip>
        ))}
        <Tooltip title="A low lamp from the side shows the relief">
          <Button type={raking ? 'primary' : 'text'} aria-pressed={raking} onClick={toggleRaking}>
            Raking
          </Button>
        </Tooltip>
        <Tooltip title="See it in the looking-glass (L)">
          <Button
            type={mirror ? 'primary' : 'text'}
            aria-pressed={mirror}
            onClick={() => look(mirrored(useEasel.getState().view))}
          >
            Mirror
          </Button>
        </Tooltip>
      </div>
      <Button
        type="primary"
        loading={sending}
        onClick={() => {
          set({ refused: '' });
          togglePanel('send');
        }}
      >
        Send out
      </Button>
      <SendOutPanel title={title} />
      <ReplayPanel title={title} />
      <LiveView title={title} />
    </header>
  );
}

/** How much of the time is over that has been set for the painting. */
function TimeSet() {
  const minutes = usePalette((s) => s.rules.minutes);
  const passed = usePaintingTime((s) => Math.floor(s.spentMs / 60_000));
  if (minutes === undefined) return null;
  return (
    <span className="quiet">
      {Math.min(passed, minutes)} of {minutes} min
    </span>
  );
}

/** What there is to say when another tab paints on this. */
function Elsewhere() {
  const painter = useEasel((s) => s.painter);
  const { takeOver } = useEasel.getState();
  if (painter !== 'elsewhere' && painter !== 'asking') return null;
  return (
    <span className={styles.elsewhere} role="status">
      Another tab paints on this: here you look at it.
      <Button type="link" loading={painter === 'asking'} onClick={takeOver}>
        Paint here
      </Button>
    </span>
  );
}

/** How far it is with an undo that has to paint things again. */
function GoingBack() {
  const progress = useEasel((s) => s.progress);
  const engine = useEasel((s) => s.engine);
  if (progress?.of !== 'undo') return null;
  return (
    <span className={styles.elsewhere} role="status">
      Going back: {progress.done} of {progress.total} steps painted again
      <Button type="link" onClick={() => engine?.cancel()}>
        Stay here
      </Button>
    </span>
  );
}

/** How long ago the painting was kept: all of it that the storage has acknowledged. */
function Kept() {
  const keptAt = useEasel((s) => s.keptAt);
  const waiting = useEasel((s) => s.waiting);
  const opened = useEasel((s) => s.opened);
  const progress = useEasel((s) => s.progress);
  const painter = useEasel((s) => s.painter);
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  if (progress?.of === 'opening') {
    return (
      <span className="quiet" role="status">
        opening: {progress.done} of {progress.total} steps painted again
      </span>
    );
  }
  if (!opened) return <span className="quiet">opening …</span>;
  if (painter === 'elsewhere' || painter === 'asking') return null;
  if (waiting > 1) return <span className="quiet">{waiting} strokes wait to be kept</span>;
  if (!keptAt) return <span className="quiet">kept</span>;
  const seconds = Math.max(0, Math.round((now - keptAt) / 1000));
  const ago = seconds < 60 ? `${seconds} s ago` : `${Math.floor(seconds / 60)} min ago`;
  return <span className="quiet">kept {ago}</span>;
}
