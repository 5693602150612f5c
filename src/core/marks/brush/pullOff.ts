import type { FilmWindow } from '@/core/film/window/window';
import type { Arena } from '@/core/film/arena';
import type { PixelRect } from '@/core/film/pixelRect';
import { noise1, noise2 } from '@/core/surface/noise';
import { PRESS_UM, type Footprint } from './footprint';
import type { BrushInterior } from './brushInterior';

/** Share of what hangs on stiff hair that stays behind as lip and peaks, before it is divided by place. */
const LEFT = 3.6;
/** Lips do not grow higher than this, um: they fall over. */
const HIGHEST_UM = 1100;
/** From how far paint is drawn to the lip, mm. */
const DRAWN_MM = 0.7;
/** Pressure at which a brush has all its hair in the paint. */
const PRESSED = 0.45;
/** Least film under hair, and paint on it, to which anything clings, um. */
const FILM_UM = 8;
const CARRIED_UM = 15;

/** Where a brush stood last, before it was taken off. */
export interface Stand {
  readonly x: number;
  readonly y: number;
  readonly cos: number;
  readonly sin: number;
  readonly dx: number;
  readonly dy: number;
  readonly pressure: number;
  readonly rect: PixelRect;
}

interface Tuft {
  readonly arena: Arena;
  readonly window: FilmWindow;
  readonly footprint: Footprint;
  readonly interior: BrushInterior;
  readonly seed: number;
  /** mm a cell. */
  readonly mm: number;
  /** A round tuft ends in one point. */
  readonly pointed: boolean;
  /** Mark by which fresh paint is known. */
  readonly mark: number;
}

/**
 * A brush is taken off where it stands: stiff paint clings to its hair and is drawn up with it until it parts. What was
 * piled up before the tuft stays as a lip, what lay under it as small peaks, lock by lock; and some of the film behind
 * is drawn along to the lip. Paint only moves.
 * @param clings 0 fluid paint .. 1 stiff paint under a hard brush
 */
export function pullOff(tuft: Tuft, at: Stand, clings: number): void {
  const { arena, window, footprint, interior, seed, mm, pointed, mark } = tuft;
  // what was nearly lifted already leaves hardly anything
  const pressed = Math.min(1, at.pressure / PRESSED);
  const share = LEFT * clings * pressed * Math.sqrt(pressed);
  if (share < 0.01) return;
  const { f32, i32 } = arena;
  const n = interior.channels;
  const { perPx, halfWidth, halfLength, mapWidth, mapLength } = footprint;
  const inverse = 1 / footprint.cellArea;
  const depth = at.pressure * PRESS_UM;
  const far = DRAWN_MM / mm;
  const { rect, cos, sin, dx, dy } = at;
  for (let py = rect.top; py < rect.bottom; py++) {
    for (let px = rect.left; px < rect.right; px++) {
      const X = px + 0.5 - at.x;
      const Y = py + 0.5 - at.y;
      const U = cos * X + sin * Y;
      const V = -sin * X + cos * Y;
      if (Math.abs(U) >= halfWidth || Math.abs(V) >= halfLength) continue;
      const ui = Math.min(mapWidth - 2, ((U + halfWidth) * perPx) | 0);
      const k = Math.min(mapLength - 1, ((V + halfLength) * perPx) | 0) * mapWidth + ui;
      const lift = f32[(footprint.profile >> 2) + 2 * k] - depth + f32[(interior.hair.address >> 2) + ui];
      if (lift > 40) continue;
      const q = (interior.tip >> 2) + (i32[(footprint.cells >> 2) + k] >> 2) * n;
      const cell = (py - window.y0) * window.width + px - window.x0;
      const o = (window.film >> 2) + 2 * cell * n;
      if (f32[q + n - 1] < CARRIED_UM || f32[o + n - 1] < FILM_UM) continue;
      const x = U * mm + 300;
      const along = noise1(x / 0.9, seed + 62) + 0.5 * noise1(x / 0.35, seed + 63);
      // the rim towards which it moved, and locks within
      const rim = (dx * X + dy * Y > 0 ? 1 : 0.25) * Math.max(0, 1 - Math.abs(lift + 90) / 150);
      const lock = noise2(x / 0.55, (V * mm + 300) / 0.5, seed + 61);
      // a pointed tuft draws one peak up in its middle
      const peak = pointed
        ? 0.5 * Math.max(0, 1 - (lift + depth) / (0.6 * depth))
        : lock > 0.62
          ? (lock - 0.62) * 2.2
          : 0;
      const grows = Math.max(0, 1 - f32[o + n - 1] / HIGHEST_UM);
      const left = grows * Math.min(0.8, share * (rim * (pointed ? 0.3 : 1) * (0.5 + 0.85 * along) + peak));
      if (left <= 0.004) continue;
      for (let i = 0; i < n; i++) {
        const m = f32[q + i] * left;
        f32[q + i] -= m * inverse;
        f32[o + i] += m;
        f32[o + n + i] += m;
      }
      f32[(window.fresh >> 2) + cell] = mark;
      const drawn = grows * Math.min(0.5, (pointed ? 0.3 : 0.8) * share * rim * along);
      if (drawn >= 0.01) drawUp(tuft, rect, px, py, o, Math.round(dx * far), Math.round(dy * far), drawn);
    }
  }
}

/** Draws film from two places behind a cell to it. @param o word of the cell's film */
function drawUp(
  { arena, window, interior, mark }: Tuft,
  rect: PixelRect,
  px: number,
  py: number,
  o: number,
  sx: number,
  sy: number,
  share: number,
) {
  if (sx === 0 && sy === 0) return;
  const { f32 } = arena;
  const n = interior.channels;
  for (let k = 1; k <= 2; k++) {
    const bx = px - sx * k;
    const by = py - sy * k;
    if (bx < rect.left || by < rect.top || bx >= rect.right || by >= rect.bottom) return;
    const behind = (by - window.y0) * window.width + bx - window.x0;
    const from = (window.film >> 2) + 2 * behind * n;
    const wet = share * (1 - f32[(window.cure >> 2) + behind]);
    for (let i = 0; i < 2 * n; i++) {
      const m = f32[from + i] * wet;
      f32[from + i] -= m;
      f32[o + i] += m;
    }
    f32[(window.fresh >> 2) + behind] = mark;
  }
}
