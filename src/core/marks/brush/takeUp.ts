import { isColoured } from '@/core/colour/pigments';
import { WASH_UM } from '@/core/film/basin';
import type { Painting } from '@/core/film/painting';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import { TILE, type Tile } from '@/core/film/tile';
import type { BeforeTile } from '@/core/film/window/window';
import { fullWash } from '@/core/flow/washRates';
import { hypot } from '@/core/maths/maths';
import { planeOf, type Carrier, type Reservoir } from './reservoir';
import type { WashForm } from '@/core/marks/wet/washForms';

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

/** Wet paint within reach of a dip. */
class WetPaint {
  /** um, over all cells. */
  readonly there: number;
  /** Mean stiffness, by volume. */
  readonly body: number;
  /** Coats of each pigment, over all cells. */
  readonly coats = new Map<number, number>();

  constructor(
    private readonly painting: Painting,
    private readonly dip: Dip,
  ) {
    const { f32 } = painting.arena;
    let there = 0;
    let stiffness = 0;
    this.visit((tile, cell) => {
      const um = f32[(tile.volume >> 2) + cell];
      there += um;
      stiffness += um * f32[(tile.body >> 2) + cell];
      tile.pigments.forEach((pigment, i) =>
        this.coats.set(pigment, (this.coats.get(pigment) ?? 0) + f32[(tile.mass[i] >> 2) + cell]),
      );
    });
    this.there = there;
    this.body = there > 0 ? stiffness / there : 0;
  }

  /** Takes a share of it off. @returns coats of each pigment over all cells, and the cells that changed */
  take(share: number, before: BeforeTile): { taken: Map<number, number>; rect: PixelRect } {
    const { arena, tilesX, width, height, active: layer } = this.painting;
    const taken = new Map<number, number>();
    const rect = noRect();
    this.visit((tile, cell, index) => {
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
    return { taken, rect };
  }

  private visit(each: (tile: Tile, cell: number, index: number) => void): void {
    const { mmPerPx, tilesX, width, height, active: layer } = this.painting;
    const [cx, cy, reach] = [this.dip.x / mmPerPx, this.dip.y / mmPerPx, this.dip.reachMm / mmPerPx];
    for (let py = Math.max(0, Math.floor(cy - reach)); py <= Math.min(height - 1, cy + reach); py++) {
      for (let px = Math.max(0, Math.floor(cx - reach)); px <= Math.min(width - 1, cx + reach); px++) {
        if (hypot(px + 0.5 - cx, py + 0.5 - cy) > reach) continue;
        const index = (py >> 6) * tilesX + (px >> 6);
        const tile = layer.tiles[index];
        if (tile?.volume) each(tile, (py & 63) * TILE + (px & 63), index);
      }
    }
  }
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
  dip: Dip,
  before: BeforeTile,
): PixelRect {
  const { cellArea } = painting;
  const paint = new WetPaint(painting, dip);
  const room = (c: number) => ({
    tip: carrier.hairy[c] ? Math.max(0, carrier.tipUm * FULL_TIP - reservoir.tipVolume[c]) : 0,
    tuft: carrier.hairy[c] ? Math.max(0, carrier.tuftUm - reservoir.tuftVolume[c]) : 0,
  });
  let free = 0;
  for (let c = 0; c < reservoir.tipVolume.length; c++) free += room(c).tip + room(c).tuft;
  free *= reservoir.cellMm2;
  const { there } = paint;
  if (there <= 0 || free <= 0) return noRect();
  const share = Math.min(MOST_SHARE, free / (there * cellArea));
  const filled = (share * there * cellArea) / free;
  const { taken, rect } = paint.take(share, before);

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
  reservoir.body = paint.body;
  reservoir.tipFull = Math.max(reservoir.tipFull, carrier.tipUm * FULL_TIP);
  reservoir.amount = Math.max(reservoir.amount, filled);
  return rect;
}

/**
 * Presses a wet watercolour brush into paint: its water takes pigment up until it is a wash as strong as the tool
 * makes it up, or little is left. What binds the paint is rinsed out, and booked as removed.
 * @returns the cells that changed; empty when there was nothing to take
 */
export function takeUpWash(
  painting: Painting,
  reservoir: Reservoir,
  form: WashForm,
  dip: Dip,
  before: BeforeTile,
): PixelRect {
  const { cellArea, ledger } = painting;
  const paint = new WetPaint(painting, dip);
  const coloured = [...paint.coats].filter(([p, coats]) => isColoured(p) && coats > 0).sort(([a], [b]) => a - b);
  const there = coloured.reduce((sum, [, coats]) => sum + coats * cellArea, 0);
  if (there <= 0) return noRect();
  const parts = new Map(coloured.map(([p, coats]) => [p, (coats * cellArea) / there]));
  const carried = reservoir.tuftMass.reduce((sum, plane) => sum + plane[0], 0);
  const wants = (form.strength * fullWash(parts) * reservoir.tuftVolume[0]) / WASH_UM - carried;
  if (wants <= 0) return noRect();
  const { taken, rect } = paint.take(Math.min(MOST_SHARE, wants / there), before);
  for (const [pigment, coats] of [...taken].sort(([a], [b]) => a - b)) {
    if (isColoured(pigment)) reservoir.tuftMass[planeOf(reservoir, pigment)][0] += coats * cellArea;
    else ledger.removed[pigment] += coats * cellArea;
  }
  return rect;
}
