'use client';
import { create } from 'zustand';
import type { Mixture } from '@/core/colour/mixture';
import { ownPaint } from '@/core/colour/ownPaints';
import { PainterError } from '@/core/errors';
import { decodePots, encodePots } from '@/core/formats/potsFile';
import { ownPots } from '@/engine/files/colourShelf';
import { newId } from '../rack/hangFile';
import { usePalette } from './paletteStore';
import {
  emptied,
  filled,
  inPlaces,
  kept,
  MOST_ROWS,
  nextFilled,
  NO_POTS,
  placeOf,
  renamed,
  ROW,
  swapped,
  type Pot,
  type Pots,
} from './pots';

/** Pots that were put away together under a name. */
export interface PotSet {
  readonly id: string;
  readonly name: string;
  readonly pots: readonly Pot[];
}

interface PotState {
  readonly pots: Pots;
  readonly rows: number;
  readonly sets: readonly PotSet[];
  /** What could not be done, in a sentence. */
  readonly trouble: string;
  read: () => Promise<void>;
  /** Keeps mixtures in the next empty pots. @returns whether there was room; a second row is set up for it */
  keep: (mixtures: readonly Mixture[]) => boolean;
  fill: (place: number, mixture: Mixture) => void;
  swap: (one: number, other: number) => void;
  empty: (place: number) => void;
  rename: (place: number, name: string) => void;
  setRows: (rows: number) => void;
  /** Empties all. */
  clear: () => void;
  /** Puts what stands there away under a name; a set of that name is replaced. */
  putAway: (name: string) => void;
  /** Sets a set out in place of what stands there. */
  setOut: (set: PotSet) => void;
  removeSet: (id: string) => void;
  /** Takes the pots of a file over as a set, with the own paints in them. @throws PainterError when it is none */
  bring: (text: string) => Promise<void>;
}

const full = (pots: Pots): readonly Pot[] => pots.filter((pot): pot is Pot => pot !== null);

export const usePots = create<PotState>((set, get) => {
  /** Whether anything has been done since the page was opened. */
  let changed = false;
  const change = (changes: Partial<Pick<PotState, 'pots' | 'rows' | 'sets'>>) => {
    changed = true;
    set({ ...changes, trouble: '' });
    const { pots, rows, sets } = get();
    const all = {
      pots: pots.map((pot) => pot && { ...pot, mixture: { ...pot.mixture } }),
      rows,
      sets: sets.map((one) => ({ ...one, pots: one.pots.map((pot) => ({ ...pot, mixture: { ...pot.mixture } })) })),
    };
    ownPots.write(all).catch(() => set({ trouble: 'The pots could not be kept in this browser.' }));
  };
  return {
    pots: NO_POTS,
    rows: 1,
    sets: [],
    trouble: '',
    async read() {
      const read = await ownPots.read();
      // what has been done meanwhile holds
      if (read && !changed) set({ ...read, pots: inPlaces(read.pots) });
    },
    keep(mixtures) {
      const { pots, rows } = get();
      for (let n = rows; n <= MOST_ROWS; n++) {
        const next = kept(pots, mixtures, n);
        if (!next) continue;
        change({ pots: next, rows: n });
        return true;
      }
      set({ trouble: 'All pots are full: empty one, or put the set away.' });
      return false;
    },
    fill: (place, mixture) => change({ pots: filled(get().pots, place, mixture) }),
    swap: (one, other) => change({ pots: swapped(get().pots, one, other) }),
    empty: (place) => change({ pots: emptied(get().pots, place) }),
    rename: (place, name) => change({ pots: renamed(get().pots, place, name) }),
    setRows(rows) {
      // what stands in a row that goes stays in it until it is set up again
      change({ rows: Math.min(MOST_ROWS, Math.max(1, rows)) });
    },
    clear: () => change({ pots: NO_POTS }),
    putAway(name) {
      const pots = full(get().pots);
      const called = name.trim();
      if (!called || pots.length === 0) return;
      const same = get().sets.find((other) => other.name === called);
      const put: PotSet = { id: same?.id ?? newId(), name: called, pots };
      change({ sets: same ? get().sets.map((other) => (other === same ? put : other)) : [...get().sets, put] });
    },
    setOut({ pots }) {
      change({ pots: inPlaces(pots), rows: Math.max(get().rows, Math.ceil(pots.length / ROW)) });
    },
    removeSet: (id) => change({ sets: get().sets.filter((other) => other.id !== id) }),
    async bring(text) {
      const { name, pots, paints } = decodePots(text);
      for (const paint of paints) await usePalette.getState().addPaint(paint);
      const others = get().sets.filter((other) => other.name !== name);
      const brought: PotSet = { id: newId(), name, pots };
      change({ sets: [...others, brought] });
      if (full(get().pots).length === 0) get().setOut(brought);
    },
  };
});

/** The pots that stand there as a file's text. @throws PainterError when all are empty */
export function potsAsFile(name: string): string {
  const pots = full(usePots.getState().pots);
  if (pots.length === 0) throw new PainterError('There is nothing in the pots yet.');
  const used = new Set(pots.flatMap(({ mixture }) => Object.keys(mixture)));
  const paints = [...used].flatMap((id) => ownPaint(id) ?? []);
  return encodePots({ name: name.trim() || 'Pots', pots, paints });
}

/** The mixture in the pot beside the one that has the mixture in hand. */
export function besideInPots(inHand: Mixture, by: 1 | -1): Mixture | undefined {
  const { pots } = usePots.getState();
  return pots[nextFilled(pots, placeOf(pots, inHand) < 0 && by < 0 ? 0 : placeOf(pots, inHand), by)]?.mixture;
}
