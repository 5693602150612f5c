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
