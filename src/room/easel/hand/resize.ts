import { useEasel } from '@/room/easel/easelStore';

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
