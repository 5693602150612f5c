'use client';
import { createContext, useContext } from 'react';
import type { Mixture } from '@/core/colour/mixture';

/** Where mixtures go that are chosen at the desk: into the brush of the painting beside it, or to one that is put away. */
export interface DeskHand {
  /** Makes it the mixture in hand. */
  readonly take: (parts: Record<string, number>) => void;
  /** Squeezes them out on the slab in a row. */
  readonly setOut: (mixtures: readonly Mixture[]) => void;
}

export const DeskHandContext = createContext<DeskHand | undefined>(undefined);

/** @throws Error outside a desk */
export function useDeskHand(): DeskHand {
  const hand = useContext(DeskHandContext);
  if (!hand) throw new Error('There is no desk around this.');
  return hand;
}
