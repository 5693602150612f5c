'use client';
import { LeftOutlined } from '@ant-design/icons';
import { Checkbox, Select } from 'antd';
import Link from 'next/link';
import { useEffect } from 'react';
import { KEY_ACTS } from '@/room/easel/keys/keyActs';
import { KeyList } from '@/room/easel/keys/KeyList';
import { useKeyStore } from '@/room/easel/keys/keyStore';
import { useLikings, type BarrelHold, type EraserEnd } from '@/room/likings';
import styles from './settings.module.css';

/** What can be liked, in the order in which it is asked. */
const ASKED: readonly {
  readonly group: string;
  readonly key: 'leftHanded' | 'ownPaint' | 'dimmed';
  readonly says: string;
  readonly does: string;
}[] = [
  {
    group: 'Hand',
    key: 'leftHanded',
    says: 'Left-handed',
    does: 'Drawers and bench change sides, so that the hand that paints covers nothing.',
  },
  {
    group: 'Hand',
    key: 'ownPaint',
    says: 'Each brush keeps its own paint',
    does: 'As in the studio. Otherwise the colour in hand follows the hand to the next tool that carries paint.',
  },
  {
    group: 'Look',
    key: 'dimmed',
    says: 'Dimmed room',
    does: 'For the evening: everything around the painting is darker.',
  },
];

/** What the button on a pen, and its other end, can be set to. */
const BARREL: Readonly<Record<BarrelHold, string>> = {
  sample: 'samples',
  blend: 'blends with the tool in hand',
  size: 'sets the size',
  strength: 'sets the strength',
  view: 'moves the view',
  compare: 'compares two spots',
  none: 'does nothing',
};
const ERASER: Readonly<Record<EraserEnd, string>> = {
  rub: 'rubs out',
  blend: 'blends with the tool in hand',
  none: 'paints as the tip does',
};
const options = <T extends string>(words: Readonly<Record<T, string>>) =>
  (Object.keys(words) as T[]).map((value) => ({ value, label: words[value] }));

/** What a painter likes, whatever is painted: the hand, the pen, the look of the room, the keys. */
export function Settings() {
  const likings = useLikings();
  const { read, like } = likings;
  const readKeys = useKeyStore((s) => s.read);
  useEffect(() => {
    void read();
    void readKeys();
  }, [read, readKeys]);
  return (
    <main className={styles.settings}>
      <Link href="/" className={styles.back}>
        <LeftOutlined /> The rack
      </Link>
      <h1>Settings</h1>
      {[...new Set(ASKED.map(({ group }) => group))].map((group) => (
        <section key={group}>
          <h2>{group}</h2>
          {ASKED.filter((asked) => asked.group === group).map(({ key, says, does }) => (
            <div key={key} className={styles.asked}>
              <Checkbox checked={likings[key]} onChange={(e) => like({ [key]: e.target.checked })}>
                {says}
              </Checkbox>
              <p className="quiet">{does}</p>
            </div>
          ))}
        </section>
      ))}
      <section>
        <h2>Pen</h2>
        <label className={styles.pen}>
          <span>The button on the barrel, while it is held,</span>
          <Select
            aria-label="The button on the barrel"
            value={likings.barrel}
            options={options(BARREL)}
            onChange={(barrel) => like({ barrel })}
          />
        </label>
        <label className={styles.pen}>
          <span>The other end of the pen</span>
          <Select
            aria-label="The other end of the pen"
            value={likings.eraser}
            options={options(ERASER)}
            onChange={(eraser) => like({ eraser })}
          />
        </label>
      </section>
      <section>
        <h2>Keys</h2>
        <KeyList acts={KEY_ACTS} />
      </section>
      <section>
        <h2>About</h2>
        <p>
          Stigmos keeps paintings, tubes, keys and settings in this browser, and nowhere else. The rack shows how much
          room is left, and sends everything out as one archive.
        </p>
      </section>
    </main>
  );
}
