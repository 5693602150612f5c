import type { Painting } from '@/core/film/painting';
import type { FilmWindow } from '@/core/film/window/window';
import type { Kernels } from '@/core/kernels/kernels';
import type { Sample } from '@/core/marks/path';
import { hypot, maths } from '@/core/maths/maths';
import { PRESS_UM, type Footprint } from './footprint';

/** What of a stroke stays the same from stamp to stamp. */
export interface Pressed {
  readonly kernels: Kernels;
  /** Byte address of the parameters (kernels/contact.ts). */
  readonly block: number;
  readonly footprint: Footprint;
  readonly window: FilmWindow;
  readonly painting: Painting;
}

/**
 * Presses a turned footprint on the film, row by row, from the front of the motion backwards so that pushed paint moves
 * once.
 * @param x middle of the tuft, cells; so y
 * @param cos direction of its width; so sin
 * @param dx direction of the motion; so dy
 * @param reachY half the rows that the footprint may touch
 */
export function pressFootprint(
  { kernels, block, footprint, window, painting }: Pressed,
  point: Sample,
  x: number,
  y: number,
  cos: number,
  sin: number,
  dx: number,
  dy: number,
  pressure: number,
  reachY: number,
): void {
  const { halfWidth, halfLength, perPx } = footprint;
  // a tilted handle presses one side deeper and lifts the other
  const tiltX = maths.tan((clampTilt(point.tiltX) * Math.PI) / 180);
  const tiltY = maths.tan((clampTilt(point.tiltY) * Math.PI) / 180);
  const lean = Math.min(1, hypot(tiltX, tiltY)) * ((1.5 * PRESS_UM) / halfWidth) * (0.35 + 0.65 * pressure);
  const norm = hypot(tiltX, tiltY) || 1;
  const leanX = (lean * tiltX) / norm;
  const leanY = (lean * tiltY) / norm;

  const step = dx > 0 ? -1 : 1;
  const top = Math.max(0, Math.ceil(y - reachY - 0.5));
  const bottom = Math.min(painting.height - 1, Math.floor(y + reachY - 0.5));
  const du = cos * perPx * step;
  const dv = -sin * perPx * step;
  for (let k = 0; k <= bottom - top; k++) {
    const py = dy > 0 ? bottom - k : top + k;
    const Y = py + 0.5 - y;
    let from = -1e6;
    let to = 1e6;
    if (Math.abs(cos) > 1e-4) {
      const p = (-halfWidth - sin * Y) / cos;
      const q = (halfWidth - sin * Y) / cos;
      from = Math.max(from, Math.min(p, q));
      to = Math.min(to, Math.max(p, q));
    } else if (Math.abs(sin * Y) >= halfWidth) continue;
    if (Math.abs(sin) > 1e-4) {
      const p = (cos * Y - halfLength) / sin;
      const q = (cos * Y + halfLength) / sin;
      from = Math.max(from, Math.min(p, q));
      to = Math.min(to, Math.max(p, q));
    } else if (Math.abs(cos * Y) >= halfLength) continue;
    const left = Math.max(0, Math.ceil(x + from - 0.5));
    const right = Math.min(painting.width - 1, Math.floor(x + to - 0.5));
    const count = right - left + 1;
    if (count <= 0) continue;
    const px = step < 0 ? right : left;
    const X = px + 0.5 - x;
    kernels.contactRow(
      block,
      (py - window.y0) * window.width + px - window.x0,
      count,
      step,
      (cos * X + sin * Y + halfWidth) * perPx,
      (-sin * X + cos * Y + halfLength) * perPx,
      du,
      dv,
      pressure * PRESS_UM + leanX * X + leanY * Y,
      leanX * step,
    );
  }
}

const clampTilt = (degrees: number) => Math.max(-80, Math.min(80, degrees));
