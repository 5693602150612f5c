'use client';
import { create } from 'zustand';
import type { CoreSample } from '@/core/picture/coreSample';
import type { FilmHistory } from '@/core/journal/toldCore';
import type { Place } from '@/core/study/register';
import { useEasel } from '@/room/easel/easelStore';

/** A line shorter than this is a place, mm; and so many cores are taken along a longer one. */
const PLACE_MM = 1.5;
const CORES = 90;

interface CoreState {
  /** Whether the hand takes cores. */
  on: boolean;
  /** The line along which they were taken, mm; one place where both ends are the same. */
  line: readonly [Place, Place] | undefined;
  cores: readonly CoreSample[];
  /** How the films of a single core came there. */
  told: readonly FilmHistory[];
  trouble: string;
  toggle: () => void;
  take: (from: Place, to: Place) => void;
}

/** Cores through the paint: a place, or a section along a line. The painting does not know of them. */
export const useCore = create<CoreState>((set, get) => ({
  on: false,
  line: undefined,
  cores: [],
  told: [],
  trouble: '',
  toggle: () => set({ on: !get().on }),
  take(from, to) {
    const place = Math.hypot(to.x - from.x, to.y - from.y) < PLACE_MM;
    const line = [from, place ? from : to] as const;
    set({ line, trouble: '' });
    const count = place ? 1 : CORES;
    useEasel
      .getState()
      .engine?.ask({ of: 'section', from: line[0], to: line[1], count })
      .then(
        ({ cores, told }) =>
          get().line === line && set({ cores, told, trouble: cores.length ? '' : 'That is beside the painting.' }),
        (error: unknown) => set({ trouble: error instanceof Error ? error.message : 'No core could be taken.' }),
      );
  },
}));
