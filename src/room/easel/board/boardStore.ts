'use client';
import { z } from '@/core/schema';
import { create } from 'zustand';
import { nextPlace, type Hanging } from '@/core/study/board';
import { amendPainting } from '@/engine/keeping/shelf';
import type { PaintingRecord, PhotoNote } from '@/engine/keeping/paintingRecord';

/** A photo that hangs: small in memory, with the file that it came from. */
export interface Hung extends PhotoNote {
  readonly bitmap: ImageBitmap;
  readonly blob: Blob;
  readonly full: { readonly width: number; readonly height: number };
  readonly turned: boolean;
}

const share = z.number().min(0).max(1);
const keptSchema = z.object({
  hangings: z.array(
    z.object({
      id: z.string(),
      x: z.number(),
      y: z.number(),
      width: z.number().positive(),
      turn: z.number(),
      mirror: z.boolean(),
      grey: z.boolean(),
      crop: z.object({ x: share, y: share, w: share, h: share }),
    }),
  ),
  size: z.enum(['narrow', 'half', 'folded']),
  look: z.enum(['close', 'wall']),
});
type Kept = z.infer<typeof keptSchema>;
const AT_FIRST: Kept = { hangings: [], size: 'narrow', look: 'close' };

interface BoardState extends Kept {
  painting: string;
  /** The photo that is worked on. */
  chosen: string;
  /** The board is in a window of its own. */
  popped: boolean;
  open: (record: PaintingRecord) => void;
  /** How a photo hangs; one that was never hung gets a place. */
  hangingOf: (id: string) => Hanging;
  hang: (hanging: Hanging) => void;
  takeDown: (id: string) => void;
  change: (changes: Partial<Pick<BoardState, 'size' | 'look' | 'chosen' | 'popped'>>) => void;
}

/** The motif board: how photos hang, how wide it is, how it is looked at. Kept with the painting. */
export const useBoard = create<BoardState>((set, get) => {
  const keep = () => {
    const { painting, hangings, size, look } = get();
    if (painting) void amendPainting(painting, { board: { hangings, size, look } }).catch(() => {});
  };
  return {
    ...AT_FIRST,
    painting: '',
    chosen: '',
    popped: false,
    open(record) {
      const kept = keptSchema.safeParse(record.board);
      set({
        ...AT_FIRST,
        ...(kept.success ? kept.data : {}),
        painting: record.id,
        chosen: record.photos[0]?.id ?? '',
        popped: false,
      });
    },
    hangingOf(id) {
      const { hangings } = get();
      return hangings.find((h) => h.id === id) ?? nextPlace(hangings.length, id);
    },
    hang(hanging) {
      const rest = get().hangings.filter((h) => h.id !== hanging.id);
      set({ hangings: [...rest, hanging] });
      keep();
    },
    takeDown(id) {
      set({ hangings: get().hangings.filter((h) => h.id !== id) });
      keep();
    },
    change(changes) {
      set(changes);
      keep();
    },
  };
});
