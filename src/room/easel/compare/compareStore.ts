'use client';
import { create } from 'zustand';
import type { Triple } from '@/core/colour/colorimetry';
import { note, type Noted } from '@/room/easel/looking/lookNotes';

/** A spot that is compared: where it was marked, and its colour there. */
export interface MarkedSpot {
  readonly on: 'canvas' | 'photo';
  /** Canvas: mm. Photo: share of its width and height, and which photo. */
  readonly x: number;
  readonly y: number;
  readonly photo?: string;
  /** Canvas: over which spot it was read, mm, and of which layer, where it was of one alone. */
  readonly radiusMm?: number;
  readonly layer?: string;
  readonly lab: Triple;
}

export interface MarkedPair {
  readonly id: number;
  readonly first: MarkedSpot;
  readonly second: MarkedSpot;
}

interface CompareState {
  /** Whether the key is held: clicks mark, and what is under the pointer is compared. */
  held: boolean;
  /** The spot marked first, waiting for the second. */
  pending: MarkedSpot | undefined;
  pairs: readonly MarkedPair[];
  /** What is under the pointer. */
  live: MarkedSpot | undefined;
  /** Whether what is on the brush is compared with what the brush is over. */
  probe: boolean;
  under: Triple | undefined;
  numbers: boolean;
  hold: (held: boolean) => void;
  mark: (spot: MarkedSpot) => void;
  see: (spot: MarkedSpot | undefined) => void;
  remove: (id: number) => void;
  clear: () => void;
  toggleProbe: () => void;
  toggleNumbers: () => void;
  feel: (under: Triple | undefined) => void;
  /** Takes up the pairs that were noted about a painting. */
  open: (noted: Noted) => void;
}

/** Most pairs that are kept at a time. */
const MOST = 12;

export const useCompare = create<CompareState>((set, get) => {
  const keep = (pairs: readonly MarkedPair[]) => {
    set({ pairs });
    note({ pairs: [...pairs] });
  };
  return {
    held: false,
    pending: undefined,
    pairs: [],
    live: undefined,
    probe: false,
    under: undefined,
    numbers: false,
    hold(held) {
      set(held ? { held } : { held, live: undefined });
    },
    mark(spot) {
      const { pending, pairs } = get();
      if (!pending) {
        set({ pending: spot });
        return;
      }
      const id = Math.max(0, ...pairs.map((p) => p.id)) + 1;
      keep([...pairs, { id, first: pending, second: spot }].slice(-MOST));
      set({ pending: undefined });
    },
    see(live) {
      set({ live });
    },
    remove(id) {
      keep(get().pairs.filter((p) => p.id !== id));
    },
    clear() {
      keep([]);
      set({ pending: undefined });
    },
    toggleProbe() {
      set({ probe: !get().probe, under: undefined });
    },
    toggleNumbers() {
      set({ numbers: !get().numbers });
    },
    feel(under) {
      set({ under });
    },
    open({ pairs }) {
      set({ pairs, pending: undefined });
    },
  };
});
