import { useEasel } from '@/room/easel/easelStore';

/** What is done with the tool in hand from keys, from the ledge and from the bench. */

/** Sizes that a tool can have, mm. */
const LEAST_MM = 0.3;
const MOST_MM = 120;

/** Gives the tool in hand a size, mm. */
export function setSize(mm: number): void {
  const { bench, apply } = useEasel.getState();
  if (!bench) return;
  const sizeMm = Math.round(Math.min(MOST_MM, Math.max(LEAST_MM, mm)) * 10) / 10;
  apply({ do: 'tool', tool: bench.tool.tool, sizeMm });
}

/** Changes the size of the tool in hand by a factor. */
export function resize(factor: number): void {
  const { bench } = useEasel.getState();
  if (bench) setSize(bench.tool.sizeMm * factor);
}

/** Gives the tool in hand a strength, 0..1. */
export function setStrength(strength: number): void {
  const { bench, apply } = useEasel.getState();
  if (!bench) return;
  apply({ do: 'tool', tool: bench.tool.tool, strength: Math.round(Math.min(1, Math.max(0.02, strength)) * 100) / 100 });
}

/** Takes the last step back; what has been chosen for the hand since stays. */
export const undo = (): void => useEasel.getState().apply({ do: 'undo', hand: 'stays' });
export const redo = (): void => useEasel.getState().apply({ do: 'redo', hand: 'stays' });
