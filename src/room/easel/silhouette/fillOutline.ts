import type { Place } from '@/core/study/register';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { useShape } from './shapeStore';

/** Fills an outline with the mixture in hand, or cuts it out of the layer, as is set for silhouettes. */
export function fillOutline(points: readonly Place[]): void {
  if (points.length < 3) return;
  const { cut, edgeMm, streaks } = useShape.getState();
  const { apply, parts, bench } = useEasel.getState();
  const outline = cornersOf(points);
  if (cut) apply({ do: 'silhouette', outline, cut, edgeMm, streaks: 0 });
  else {
    const set = mixtureOf(parts);
    const mixture = Object.keys(set).length > 0 ? set : (bench?.mixture ?? {});
    apply({ do: 'silhouette', outline, mixture, edgeMm, streaks });
  }
}

/** An outline as commands have it, to a hundredth of a millimetre. */
export const cornersOf = (points: readonly Place[]): [number, number][] =>
  points.map(({ x, y }) => [Math.round(x * 100) / 100, Math.round(y * 100) / 100]);
