import type { Player } from '@/core/journal/playing/player';
import { cellToView, type View } from '@/core/picture/view';
import type { Laid, Tip } from './replayMessages';

/** Where the tool is while a stroke is under way. */
export function tipAt({ history, place: { done, readings } }: Player): Tip | undefined {
  const command = history[done];
  if (command?.do !== 'stroke' || command.on || readings === 0) return undefined;
  const [, x, y] = command.samples[readings - 1];
  const [, fromX, fromY] = command.samples[Math.max(0, readings - 6)];
  return { x, y, angle: Math.atan2(y - fromY, x - fromX) };
}

/** Where the canvas lies in a view. */
export function laidIn(view: View, { studio: { painting } }: Player): Laid {
  const { x: left, y: top } = cellToView(view, 0, 0);
  return { left, top, perMm: view.zoom / painting.mmPerPx };
}
