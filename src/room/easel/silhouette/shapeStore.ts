'use client';
import { create } from 'zustand';

interface ShapeState {
  /** Whether an outline is being drawn: free, or with straight edges; nothing while one paints. */
  way: 'free' | 'straight' | undefined;
  cut: boolean;
  edgeMm: number;
  streaks: number;
  set: (changes: Partial<Omit<ShapeState, 'set'>>) => void;
}

/** How outlines are drawn and filled. */
export const useShape = create<ShapeState>((set) => ({
  way: undefined,
  cut: false,
  edgeMm: 0,
  streaks: 0,
  set,
}));
