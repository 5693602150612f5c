'use client';
import { useCallback, useRef, useState } from 'react';
import { PainterError } from '@/core/errors';
import type { Made } from '@/core/formats/exports/definition';
import type { ExportId } from '@/core/formats/exports/exports';
import { useEasel } from '@/room/easel/easelStore';

interface OnItsWay {
  readonly key: string;
  readonly file: Promise<Made | undefined>;
  readonly giveUp: () => void;
}

/** A flag that the engine can look at while it works; undefined where memory cannot be shared. */
const flag = (): Int32Array | undefined =>
  globalThis.crossOriginIsolated ? new Int32Array(new SharedArrayBuffer(4)) : undefined;

/**
 * The file of the painting as it is now, of a kind and with its settings: made when it is asked for, made once, and
 * given up when another is.
 */
export function useMadeFile(kind: ExportId, title: string, values: Readonly<Record<string, unknown>>) {
  const engine = useEasel((s) => s.engine);
  const strokes = useEasel((s) => s.bench?.strokes);
  const [ready, setReady] = useState<{ readonly key: string; readonly made: Made }>();
  const [making, setMaking] = useState('');
  const [share, setShare] = useState(0);
  const [trouble, setTrouble] = useState({ key: '', why: '' });
  const onItsWay = useRef<OnItsWay>(undefined);
  const said = JSON.stringify(values);
  const key = JSON.stringify([kind, title, said, strokes]);
  const made = ready?.key === key ? ready.made : undefined;

  const make = useCallback((): Promise<Made | undefined> => {
    if (!engine) return Promise.resolve(undefined);
    if (made) return Promise.resolve(made);
    // who asks while it is being made waits for the same file
    if (onItsWay.current?.key === key) return onItsWay.current.file;
    onItsWay.current?.giveUp();
    const givenUp = flag();
    let over = false;
    setMaking(key);
    setShare(0);
    setTrouble({ key, why: '' });
    const settings = JSON.parse(said) as Record<string, unknown>;
    const asked = engine
      .ask({ of: 'export', as: kind, title, settings, givenUp }, (far) => !over && setShare(far))
      .then(
        (found) => {
          if (over) return undefined;
          setReady({ key, made: found });
          return found;
        },
        (error: unknown) => {
          if (!over)
            setTrouble({ key, why: error instanceof PainterError ? error.message : 'The file could not be made.' });
          return undefined;
        },
      );
    let leave = () => {};
    const left = new Promise<undefined>((done) => (leave = () => done(undefined)));
    // who gives it up waits for nothing, also where the engine cannot hear of it
    const giveUp = () => {
      over = true;
      if (givenUp) Atomics.store(givenUp, 0, 1);
      leave();
    };
    const file = Promise.race([asked, left]);
    const mine: OnItsWay = { key, file, giveUp };
    onItsWay.current = mine;
    void file.then(() => {
      if (onItsWay.current !== mine) return;
      onItsWay.current = undefined;
      setMaking('');
    });
    return file;
  }, [engine, made, key, kind, title, said]);

  const giveUp = useCallback(() => onItsWay.current?.giveUp(), []);
  const isMaking = making === key;
  return { made, make, giveUp, share, isMaking, trouble: trouble.key === key ? trouble.why : '' };
}
