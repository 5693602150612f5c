'use client';
import { create } from 'zustand';
import { z } from '@/core/schema';
import { kept } from '@/engine/keeping/kept';

/** What a painter likes, whatever is painted. */
export interface Likings {
  /** Each brush keeps its own paint, as in the studio; else the colour in hand follows the hand to the next tool. */
  readonly ownPaint: boolean;
  /** Every tool that carries paint takes it again for every stroke. */
  readonly keepLoaded: boolean;
  /** The room is laid out for the left hand. */
  readonly leftHanded: boolean;
  /** The room is dimmed, as for work in the evening. */
  readonly dimmed: boolean;
  /** What the button on the barrel of a pen is held for, and what its other end does. */
  readonly barrel: BarrelHold;
  readonly eraser: EraserEnd;
  /** Photos on the board are looked at through what the canvas is looked at. */
  readonly photosFollow: boolean;
  /** Something has been painted here before: no more needs to be said about how to begin. */
  readonly hasPainted: boolean;
}

export const BARREL_HOLDS = ['sample', 'blend', 'size', 'strength', 'view', 'compare', 'none'] as const;
export type BarrelHold = (typeof BARREL_HOLDS)[number];
export const ERASER_ENDS = ['rub', 'blend', 'none'] as const;
export type EraserEnd = (typeof ERASER_ENDS)[number];

const AT_FIRST: Likings = {
  ownPaint: false,
  keepLoaded: false,
  leftHanded: false,
  dimmed: false,
  barrel: 'sample',
  eraser: 'rub',
  photosFollow: true,
  hasPainted: false,
};

const flag = z.boolean().catch(false);
const own = kept<Likings>({
  store: 'likings',
  key: 'own',
  version: 1,
  schema: z.object({
    ownPaint: flag,
    keepLoaded: flag,
    leftHanded: flag,
    dimmed: flag,
    barrel: z.enum(BARREL_HOLDS).catch(AT_FIRST.barrel),
    eraser: z.enum(ERASER_ENDS).catch(AT_FIRST.eraser),
    photosFollow: z.boolean().catch(true),
    hasPainted: flag,
  }),
});

interface LikingState extends Likings {
  read: () => Promise<void>;
  like: (changes: Partial<Likings>) => void;
}

export const useLikings = create<LikingState>((set, get) => {
  /** What has been chosen since the page was opened: it holds over what is read later. */
  let chosen: Partial<Likings> = {};
  const read = async () => {
    const found = await own.read();
    if (found) set({ ...found, ...chosen });
  };
  return {
    ...AT_FIRST,
    read,
    like(changes) {
      chosen = { ...chosen, ...changes };
      set(changes);
      // what is kept is read first, for all of it is written; what cannot be kept holds for today
      void read()
        .then(() => {
          const { read: _, like: __, ...now } = get();
          return own.write(now);
        })
        .catch(() => {});
    },
  };
});
