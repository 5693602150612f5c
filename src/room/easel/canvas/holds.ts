import { create } from 'zustand';
import { useCompare } from '@/room/easel/compare/compareStore';
import { useEasel } from '@/room/easel/easelStore';
import { useSight } from '@/room/easel/sighting/sightStore';
import { blendWhileHeld } from './blendHold';

/** What the hand does instead of painting while a key, or a button of the ledge, is held. */
const HOLDS = ['sample', 'blend', 'compare', 'view', 'strength', 'size'] as const;
export type Hold = (typeof HOLDS)[number];

const NONE = { sample: false, blend: false, compare: false, view: false, strength: false, size: false };

/** Which of them are held; read by the canvas at every event. */
export const useHolds = create<Readonly<Record<Hold, boolean>>>(() => NONE);

export const isHeld = (what: Hold): boolean => useHolds.getState()[what];

/** Begins to hold something, or lets it go. */
export function hold(what: Hold, held: boolean): void {
  if (isHeld(what) === held) return;
  useHolds.setState({ [what]: held });
  if (what === 'sample') useEasel.setState({ sampling: held, sample: undefined, photoSample: undefined });
  if (what === 'compare') useCompare.getState().hold(held);
  if (what === 'blend') blendWhileHeld(held);
}

/** Everything that is held is over: its release is not heard once another window has the keys. */
export function letGo(): void {
  for (const what of HOLDS) hold(what, false);
  useSight.getState().set({ held: false });
  useEasel.getState().engine?.without([]);
}

/** While one looks through a spot, the wheel opens and closes it. @returns whether it did */
export function wheelSetsSpot(deltaY: number): boolean {
  if (!isHeld('sample') && !isHeld('compare')) return false;
  const { spotPx, set } = useEasel.getState();
  set({ spotPx: Math.max(0, Math.min(30, spotPx + (deltaY < 0 ? 1 : -1))) });
  return true;
}
