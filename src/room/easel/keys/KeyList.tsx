'use client';
import { CloseOutlined } from '@ant-design/icons';
import { Button, Input } from 'antd';
import { useEffect, useState } from 'react';
import { PainterError } from '@/core/errors';
import { FileButton } from '@/room/parts/FileButton';
import { saveFile } from '@/room/parts/saveFile';
import { cannotUse, KEY_GROUPS, keyWords, pressed, type KeyAct } from './keyAct';
import { holderOf, keysFile, keysOf, useKeyStore } from './keyStore';
import styles from './keys.module.css';

/** All keys, to look up and to change: a click on a key waits for the one to be pressed instead. */
export function KeyList({ acts }: { acts: readonly KeyAct[] }) {
  const { changes, trouble, give, reset, bring } = useKeyStore();
  const [sought, setSought] = useState('');
  /** The act that waits for a key, and what was pressed that another act has. */
  const [waiting, setWaiting] = useState<{ act: KeyAct; taken?: string; why?: string }>();
  const [said, setSaid] = useState('');

  useEffect(() => {
    if (!waiting) return;
    const listen = (event: KeyboardEvent) => {
      event.preventDefault();
      event.stopImmediatePropagation();
      const keys = pressed(event);
      if (keys === '') return;
      if (keys === 'escape') {
        setWaiting(undefined);
        return;
      }
      const why = cannotUse(keys);
      if (why) setWaiting({ act: waiting.act, why });
      else if (holderOf(keys, waiting.act, acts, changes) && waiting.taken !== keys)
        setWaiting({ act: waiting.act, taken: keys });
      else {
        give(waiting.act, [keys], acts);
        setWaiting(undefined);
      }
    };
    window.addEventListener('keydown', listen, true);
    return () => window.removeEventListener('keydown', listen, true);
  }, [waiting, acts, changes, give]);

  const words = (act: KeyAct) => [act.says, ...keysOf(act, changes).map(keyWords)].join(' ').toLowerCase();
  const found = acts.filter((act) => words(act).includes(sought.trim().toLowerCase()));
  /** What stands on the button of an act: its keys, or that one is waited for. */
  const shown = (act: KeyAct) =>
    waiting?.act === act ? 'press a key' : keysOf(act, changes).map(keyWords).join(' or ') || 'none';
  return (
    <>
      <div className={styles.tools}>
        <Input.Search
          aria-label="Look for a key"
          placeholder="Look for a key"
          allowClear
          value={sought}
          onChange={(e) => setSought(e.target.value)}
        />
        <Button onClick={() => saveFile('stigmos.keys.json', keysFile(changes), 'application/json')}>
          Save as a file
        </Button>
        <FileButton
          accept=".json"
          label="A file of keys"
          onFile={(file) =>
            void file.text().then((text) => {
              try {
                bring(text);
                setSaid('');
              } catch (error) {
                setSaid(error instanceof PainterError ? error.message : 'This file cannot be read.');
              }
            })
          }
        >
          Open a file
        </FileButton>
        <Button disabled={Object.keys(changes).length === 0} onClick={() => reset()}>
          All as at first
        </Button>
      </div>
      {(said || trouble) && (
        <p role="alert" className="trouble">
          {said || trouble}
        </p>
      )}
      <div className={styles.groups}>
        {KEY_GROUPS.map((group) => {
          const own = found.filter((act) => act.group === group);
          return own.length === 0 ? null : (
            <section key={group}>
              <h3>{group}</h3>
              <dl className={styles.list}>
                {own.map((act) => (
                  <div key={act.id}>
                    <dt>{act.says}</dt>
                    <dd>
                      <Button
                        size="small"
                        className={styles.key}
                        aria-label={`Change the key of “${act.says}”: ${shown(act)}`}
                        aria-pressed={waiting?.act === act}
                        onClick={() => setWaiting({ act })}
                      >
                        {shown(act)}
                      </Button>
                      {changes[act.id] && (
                        <Button
                          size="small"
                          type="text"
                          icon={<CloseOutlined />}
                          aria-label={`“${act.says}” as at first`}
                          onClick={() => reset(act)}
                        />
                      )}
                    </dd>
                    {waiting?.act === act && (waiting.taken ?? waiting.why) && (
                      <p role="status" className="trouble">
                        {waiting.why ??
                          `${keyWords(waiting.taken!)} is “${holderOf(waiting.taken!, act, acts, changes)?.says}”: once more takes it from there, Esc leaves it.`}
                      </p>
                    )}
                  </div>
                ))}
              </dl>
            </section>
          );
        })}
      </div>
      {found.length === 0 && <p className="quiet">No key does that.</p>}
    </>
  );
}
