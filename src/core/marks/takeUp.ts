import type { Painting } from '@/core/film/painting';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import { TILE } from '@/core/film/tile';
import type { BeforeTile } from '@/core/film/window';
import { planeOf, type Carrier, type Reservoir } from './reservoir';

/** Share of the paint within reach that a tool can take up at once: some of it always stays. */
const MOST_SHARE = 0.85;
/** What a full tool holds on its outside, of what its shape could hold there. */
const FULL_TIP = 1;

/** Where a tool is pressed into paint: mm, and how far it reaches. */
export interface Dip {
  readonly x: number;
  readonly y: number;
  readonly reachMm: number;
}

/**
 * Presses a tool into the wet paint of a painting's active layer until it is full or little is left. What it takes is
 * mixed by the pressing and spread over the tool evenly; what it carried before stays on it.
 * @returns the cells that changed; empty when there was nothing to take
 */
export function takeUp(
  painting: Painting,
  reservoir: Reservoir,
  carrier: Carrier,
  { x, y, reachMm }: Dip,
  before: BeforeTile,
): PixelRect {
  const { arena, mmPerPx, tilesX, width, height, cellArea, active: layer } = painting;
  const rect = noRect();
  const [cx, cy, reach] = [x / mmPerPx, y / mmPerPx, reachMm / mmPerPx];
  /** Calls back for every cell within reach that has wet paint. */
  const within = (visit: (tile: NonNullable<(typeof layer.tiles)[0]>, cell: number, index: number) => void) => {
    for (let py = Math.max(0, Math.floor(cy - reach)); py <= Math.min(height - 1, cy + reach); py++) {
      for (let px = Math.max(0, Math.floor(cx - reach)); px <= Math.min(width - 1, cx + reach); px++) {
        if (Math.hypot(px + 0.5 - cx, py + 0.5 - cy) > reach) continue;
        const index = (py >> 6) * tilesX + (px >> 6);
        const tile = layer.tiles[index];
        if (tile?.volume) visit(tile, (py & 63) * TILE + (px & 63), index);
      }
    }
  };
  let there = 0;
  let stiffness = 0;
  within((tile, cell) => {
    const um = arena.f32[(tile.volume >> 2) + cell];
    there += um;
    stiffness += um * arena.f32[(tile.body >> 2) + cell];
  });
  const room = (c: number) => ({
    tip: carrier.hairy[c] ? Math.max(0, carrier.tipUm * FULL_TIP - reservoir.tipVolume[c]) : 0,
    tuft: carrier.hairy[c] ? Math.max(0, carrier.tuftUm - reservoir.tuftVolume[c]) : 0,
  });
  let free = 0;
  for (let c = 0; c < reservoir.tipVolume.length; c++) free += room(c).tip + room(c).tuft;
  free *= reservoir.cellMm2;
  if (there <= 0 || free <= 0) return rect;
  const share = Math.min(MOST_SHARE, free / (there * cellArea));
  const filled = (share * there * cellArea) / free;

  const taken = new Map<number, number>();
  within((tile, cell, index) => {
    before(layer, index);
    const { f32 } = arena;
    tile.pigments.forEach((pigment, i) => {
      const at = (tile.mass[i] >> 2) + cell;
      const had = f32[at];
      f32[at] = had * (1 - share);
      taken.set(pigment, (taken.get(pigment) ?? 0) + had - f32[at]);
      if (tile.skinVolume) f32[(tile.skin[i] >> 2) + cell] *= 1 - share;
    });
    f32[(tile.volume >> 2) + cell] *= 1 - share;
    if (tile.skinVolume) f32[(tile.skinVolume >> 2) + cell] *= 1 - share;
    tile.version++;
    const left = (index % tilesX) * TILE;
    const top = Math.floor(index / tilesX) * TILE;
    growRect(rect, { left, top, right: Math.min(width, left + TILE), bottom: Math.min(height, top + TILE) });
  });

  // places shift while planes are made
  for (const pigment of taken.keys()) planeOf(reservoir, pigment);
  const perUm = [...taken].map(([pigment, coats]) => [planeOf(reservoir, pigment), coats / (share * there)] as const);
  for (let c = 0; c < reservoir.tipVolume.length; c++) {
    const { tip, tuft } = room(c);
    reservoir.tipVolume[c] += tip * filled;
    reservoir.tuftVolume[c] += tuft * filled;
    for (const [k, coats] of perUm) {
      reservoir.tipMass[k][c] += tip * filled * coats;
      reservoir.tuftMass[k][c] += tuft * filled * coats;
    }
  }
  reservoir.body = stiffness / there;
  reservoir.tipFull = Math.max(reservoir.tipFull, carrier.tipUm * FULL_TIP);
  reservoir.amount = Math.max(reservoir.amount, filled);
  return rect;
}
