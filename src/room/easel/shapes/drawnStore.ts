'use client';
import { create } from 'zustand';
import type { PressureKind, ShapeKind } from '@/core/study/shapes';

/** What becomes of a shape. */
export const BECOMES = { stroke: 'a stroke', selection: 'a selection', silhouette: 'a silhouette' } as const;
export type Becomes = keyof typeof BECOMES;

interface DrawnState {
  /** The shape that is drawn; none while one paints. */
  readonly kind: ShapeKind | undefined;
  readonly becomes: Becomes;
  readonly pressure: PressureKind;
  set: (changes: Partial<Omit<DrawnState, 'set'>>) => void;
}

/** How shapes are drawn. */
export const useDrawn = create<DrawnState>((set) => ({
  kind: undefined,
  becomes: 'stroke',
  pressure: 'even',
  set,
}));
