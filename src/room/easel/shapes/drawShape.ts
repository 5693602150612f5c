import type { Place } from '@/core/study/register';
import { handAlong, isClosed, wayOf, type ShapeKind } from '@/core/study/shapes';
import { useEasel } from '@/room/easel/easelStore';
import { usePieces } from '@/room/easel/pieces/pieceStore';
import { cornersOf, fillOutline } from '@/room/easel/silhouette/fillOutline';
import { useDrawn } from './drawnStore';

/** Readings that are sent together: so few that others come between. */
const TOGETHER = 40;

/** Makes of a shape what it is set to become. @param points see wayOf */
export function drawShape(kind: ShapeKind, points: readonly Place[]): void {
  const { becomes, pressure } = useDrawn.getState();
  const way = wayOf(kind, points);
  if (way.length < 2) return;
  // only what is closed has an inside
  if (becomes === 'stroke' || !isClosed(kind)) stroke(handAlong(way, pressure));
  else if (becomes === 'silhouette') fillOutline(way.slice(0, -1));
  else select(way.slice(0, -1));
}

function stroke(readings: readonly [number, number, number, number][]): void {
  const { engine } = useEasel.getState();
  if (!engine || readings.length < 2) return;
  useEasel.setState({ refused: '' });
  engine.beginStroke();
  for (let at = 0; at < readings.length; at += TOGETHER) {
    engine.addSamples(
      readings.slice(at, at + TOGETHER).map((reading) => [...reading]),
      Date.now(),
    );
  }
  engine.endStroke();
}

function select(outline: readonly Place[]): void {
  if (outline.length < 3) return;
  const { mode, edgeMm } = usePieces.getState();
  useEasel.getState().apply({
    do: 'select',
    how: 'outline',
    outline: cornersOf(outline),
    mode,
    edgeMm,
    tolerance: 10,
    touching: true,
    byMm: 1,
  });
}
