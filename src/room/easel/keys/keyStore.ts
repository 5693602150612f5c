'use client';
import { create } from 'zustand';
import { sharedFile } from '@/core/formats/sharedFile';
import { z } from '@/core/schema';
import { kept } from '@/engine/keeping/kept';
import type { KeyAct } from './keyAct';

const MOST = 3;
const changesSchema = z.record(z.string().max(60), z.array(z.string().regex(/^[a-z0-9+]{1,40}$/)).max(MOST));
/** What a painter presses instead, by the ids of acts. */
export type KeyChanges = Readonly<Record<string, readonly string[]>>;

const own = kept<KeyChanges>({ store: 'keys', key: 'own', version: 1, schema: changesSchema });

/** What keys are shared as. */
const file = sharedFile({
  format: 'stigmos-keys',
  version: 1,
  called: 'a list of keys',
  schema: z.object({ keys: changesSchema }),
});

interface KeyState {
  readonly changes: KeyChanges;
  /** What could not be kept, in a sentence. */
  readonly trouble: string;
  read: () => Promise<void>;
  /** Gives an act other keys, and takes them from whatever had them. */
  give: (act: KeyAct, keys: readonly string[], all: readonly KeyAct[]) => void;
  /** Keys as at first: of one act, or of all. */
  reset: (act?: KeyAct) => void;
  /** Takes over the keys of a file. @throws PainterError when it is none */
  bring: (text: string) => void;
}

/** What an act's keys are, with what the painter has changed. */
export const keysOf = (act: KeyAct, changes: KeyChanges): readonly string[] => changes[act.id] ?? act.keys;

/** The other act that a combination belongs to. */
export const holderOf = (combination: string, act: KeyAct, all: readonly KeyAct[], changes: KeyChanges) =>
  all.find((other) => other !== act && keysOf(other, changes).includes(combination));

export const useKeyStore = create<KeyState>((set, get) => {
  /** Whether anything has been changed since the page was opened. */
  let changed = false;
  const change = (changes: KeyChanges) => {
    changed = true;
    set({ changes, trouble: '' });
    own.write(changes).catch(() => set({ trouble: 'The keys could not be kept in this browser.' }));
  };
  return {
    changes: {},
    trouble: '',
    async read() {
      const read = await own.read();
      // what has been changed meanwhile holds
      if (read && !changed) set({ changes: read });
    },
    give(act, keys, all) {
      const changes: Record<string, readonly string[]> = { ...get().changes, [act.id]: keys.slice(0, MOST) };
      for (const key of keys) {
        const other = holderOf(key, act, all, changes);
        if (other) changes[other.id] = keysOf(other, changes).filter((k) => k !== key);
      }
      change(changes);
    },
    reset(act) {
      const { [act?.id ?? '']: _, ...rest } = get().changes;
      change(act ? rest : {});
    },
    bring(text) {
      change(file.decode(text).keys);
    },
  };
});

/** The painter's keys as a file's text. */
export const keysFile = (changes: KeyChanges): string =>
  file.encode({ keys: Object.fromEntries(Object.entries(changes).map(([id, keys]) => [id, [...keys]])) });
