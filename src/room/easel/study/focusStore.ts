'use client';
import { create } from 'zustand';
import { note, type Noted } from '@/room/easel/looking/lookNotes';

/** Most places that should hold the eye: more hold it nowhere. */
const MOST = 3;

type Mark = Noted['marks'][number];

/** Places that should hold the eye, the first the most. */
export const useFocus = create<{
  readonly marks: readonly Mark[];
  readonly open: (noted: Noted) => void;
  readonly mark: (place: Mark) => void;
  readonly clear: () => void;
}>((set, get) => ({
  marks: [],
  open: ({ marks }) => set({ marks }),
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
