'use client';
import { create } from 'zustand';
import { note, type Noted, type Pinned } from '@/room/easel/looking/lookNotes';

/** Most places that should hold the eye: more hold it nowhere. */
const MOST = 3;

type Mark = Noted['marks'][number];
type OwnLine = Noted['lines'][number];

/** What is noted at the study desk: places that should hold the eye, the first the most; own lines; looks that were pinned. */
export const useFocus = create<{
  readonly marks: readonly Mark[];
  readonly lines: readonly OwnLine[];
  readonly looks: readonly Pinned[];
  readonly open: (noted: Noted) => void;
  readonly mark: (place: Mark) => void;
  readonly clear: () => void;
  readonly setLines: (lines: readonly OwnLine[]) => void;
  readonly pin: (look: Omit<Pinned, 'id'>) => void;
  readonly unpin: (id: number) => void;
}>((set, get) => ({
  marks: [],
  lines: [],
  looks: [],
  open: ({ marks, lines, looks }) => set({ marks, lines, looks }),
  setLines(lines) {
    set({ lines });
    note({ lines: [...lines] });
  },
  pin(look) {
    const id = 1 + Math.max(0, ...get().looks.map((l) => l.id));
    const looks = [...get().looks, { ...look, id }];
    set({ looks });
    note({ looks });
  },
  unpin(id) {
    const looks = get().looks.filter((l) => l.id !== id);
    set({ looks });
    note({ looks });
  },
  mark(place) {
    const marks = [...get().marks, { x: place.x, y: place.y }].slice(-MOST);
    set({ marks });
    note({ marks });
  },
  clear() {
    set({ marks: [] });
    note({ marks: [] });
  },
}));
