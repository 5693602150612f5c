'use client';
import { LeftOutlined } from '@ant-design/icons';
import { Checkbox } from 'antd';
import Link from 'next/link';
import { useEffect } from 'react';
import { KEY_ACTS } from '@/room/easel/keys/keyActs';
import { KeyList } from '@/room/easel/keys/KeyList';
import { useKeyStore } from '@/room/easel/keys/keyStore';
import { useLikings, type Likings } from '@/room/likings';
import styles from './settings.module.css';

/** What can be liked, in the order in which it is asked. */
const ASKED: readonly {
  readonly group: string;
  readonly key: keyof Likings;
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

/** What a painter likes, whatever is painted: the hand, the look of the room, the keys. */
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
