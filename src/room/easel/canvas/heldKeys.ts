import { useCompare } from '@/room/easel/compare/compareStore';
import { useEasel } from '@/room/easel/easelStore';
import { useSight } from '@/room/easel/sighting/sightStore';

/** Keys that are held while the hand does something else. Read by the canvas at every event. */
export const heldKeys = { space: false, sample: false, strength: false, compare: false };

/** Everything that a held key shows or changes is over: its release is not heard once another window has the keys. */
export function letGo(): void {
  for (const key of Object.keys(heldKeys) as (keyof typeof heldKeys)[]) heldKeys[key] = false;
  const { sampling, engine, set } = useEasel.getState();
  if (sampling) set({ sampling: false, sample: undefined, photoSample: undefined });
  useCompare.getState().hold(false);
  useSight.getState().set({ held: false });
  engine?.without([]);
}

/** While one looks through a spot, the wheel opens and closes it. @returns whether it did */
export function wheelSetsSpot(deltaY: number): boolean {
  if (!heldKeys.sample && !heldKeys.compare) return false;
  const { spotPx, set } = useEasel.getState();
  set({ spotPx: Math.max(0, Math.min(30, spotPx + (deltaY < 0 ? 1 : -1))) });
  return true;
}
