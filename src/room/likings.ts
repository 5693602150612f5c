'use client';
import { create } from 'zustand';
import { z } from '@/core/schema';
import { kept } from '@/engine/keeping/kept';

/** What a painter likes, whatever is painted. */
export interface Likings {
  /** Each brush keeps its own paint, as in the studio; else the colour in hand follows the hand to the next tool. */
  readonly ownPaint: boolean;
  /** The room is laid out for the left hand. */
  readonly leftHanded: boolean;
  /** The room is dimmed, as for work in the evening. */
  readonly dimmed: boolean;
}

const AT_FIRST: Likings = { ownPaint: false, leftHanded: false, dimmed: false };

const flag = z.boolean().catch(false);
const own = kept<Likings>({
  store: 'likings',
  key: 'own',
  version: 1,
  schema: z.object({ ownPaint: flag, leftHanded: flag, dimmed: flag }),
});

/** Whether anything has been chosen since the page was opened. */
let chosen = false;

interface LikingState extends Likings {
  read: () => Promise<void>;
  like: (changes: Partial<Likings>) => void;
}

export const useLikings = create<LikingState>((set, get) => ({
  ...AT_FIRST,
  async read() {
    const read = await own.read();
    // what has been chosen meanwhile holds
    if (read && !chosen) set(read);
  },
  like(changes) {
    chosen = true;
    set(changes);
    const { ownPaint, leftHanded, dimmed } = get();
    // what cannot be kept holds for today
    void own.write({ ownPaint, leftHanded, dimmed }).catch(() => {});
  },
}));
