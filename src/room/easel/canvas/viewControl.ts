import { viewToCell, type View } from '@/core/picture/view';

/** Zoom limits, device pixels for each cell. */
const LEAST = 0.03;
const MOST = 24;

/** The whole painting in the middle of the view, with a margin. */
export function fitView(view: View, paintingWidth: number, paintingHeight: number): View {
  const cos = Math.abs(Math.cos(view.turn));
  const sin = Math.abs(Math.sin(view.turn));
  const wide = paintingWidth * cos + paintingHeight * sin;
  const high = paintingWidth * sin + paintingHeight * cos;
  const margin = 0.94;
  return {
    ...view,
    centreX: paintingWidth / 2,
    centreY: paintingHeight / 2,
    zoom: clampZoom(Math.min((view.width * margin) / wide, (view.height * margin) / high)),
  };
}

/** Whether a view shows the whole painting as it would be fitted. */
export function isFitted(view: View, paintingWidth: number, paintingHeight: number): boolean {
  const fitted = fitView(view, paintingWidth, paintingHeight);
  const near = (a: number, b: number) => Math.abs(a - b) < 1e-3 * Math.max(1, Math.abs(b));
  return near(view.zoom, fitted.zoom) && near(view.centreX, fitted.centreX) && near(view.centreY, fitted.centreY);
}

const clampZoom = (zoom: number) => Math.max(LEAST, Math.min(MOST, zoom));

/** Keeps a cell under a view pixel: where a view must be centred for it. */
function pinned(view: View, cell: { x: number; y: number }, vx: number, vy: number): View {
  const there = viewToCell(view, vx, vy);
  return { ...view, centreX: view.centreX + cell.x - there.x, centreY: view.centreY + cell.y - there.y };
}

/** Zooms by a factor, keeping what is under a view pixel in its place. */
export function zoomAt(view: View, factor: number, vx: number, vy: number): View {
  const cell = viewToCell(view, vx, vy);
  return pinned({ ...view, zoom: clampZoom(view.zoom * factor) }, cell, vx, vy);
}

/** Turns by an angle (radians, clockwise) around a view pixel. */
export function turnAt(view: View, angle: number, vx: number, vy: number): View {
  const cell = viewToCell(view, vx, vy);
  return pinned({ ...view, turn: wrapAngle(view.turn + angle) }, cell, vx, vy);
}

/** Moves what is seen by a number of view pixels. */
export function panBy(view: View, dx: number, dy: number): View {
  const cell = viewToCell(view, view.width / 2 - dx, view.height / 2 - dy);
  return { ...view, centreX: cell.x, centreY: cell.y };
}

/** Mirrors around the middle of the view. */
export const mirrored = (view: View): View => ({ ...view, mirror: !view.mirror });

const wrapAngle = (a: number) => Math.atan2(Math.sin(a), Math.cos(a));

/**
 * The CSS matrix that shows a picture drawn for one view as it would lie in another, until that is drawn.
 * Both views are of the same size; pixels are CSS pixels.
 */
export function previewMatrix(drawn: View, wanted: View, dpr: number): string {
  const map = (vx: number, vy: number) => {
    const cell = viewToCell(drawn, vx * dpr, vy * dpr);
    const cos = Math.cos(wanted.turn);
    const sin = Math.sin(wanted.turn);
    const dx = (wanted.mirror ? wanted.centreX - cell.x : cell.x - wanted.centreX) * wanted.zoom;
    const dy = (cell.y - wanted.centreY) * wanted.zoom;
    return { x: (wanted.width / 2 + cos * dx - sin * dy) / dpr, y: (wanted.height / 2 + sin * dx + cos * dy) / dpr };
  };
  const o = map(0, 0);
  const x = map(1, 0);
  const y = map(0, 1);
  return `matrix(${x.x - o.x},${x.y - o.y},${y.x - o.x},${y.y - o.y},${o.x},${o.y})`;
}
