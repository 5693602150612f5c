import { tilesIn } from '@/core/film/tilesIn';
import { normalise, type Mixture } from '@/core/colour/mixture';
import { pigmentIndex } from '@/core/colour/pigments';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import { COAT_UM } from '@/core/film/packing/stratum';
import { PLANE_BYTES, TILE, type Tile } from '@/core/film/tile';
import { Wash } from '@/core/film/wash';
import type { BeforeTile } from '@/core/film/window/window';
import { dustCoats } from '@/core/flow/washRates';
import { hypot, maths } from '@/core/maths/maths';
import { fineTooth } from '@/core/surface/fineTooth';
import { noise1 } from '@/core/surface/noise';
import { thinDry } from '@/core/marks/dry/rubOut';
import { OutlineDistance, type Outline } from './outlineDistance';
import { depthOf, meeting } from './partContact';
import type { StickForm } from '@/core/marks/dry/stickForms';

/** Which cells of a painting are meant, and how much of each. */
abstract class CellMask {
  abstract readonly rect: PixelRect;
  /** Share of a cell that lies inside, 0..1. */
  abstract at(px: number, py: number): number;

  /** Calls back for the tiles that it lies on, made where they are missing. */
  eachTile(
    painting: Painting,
    layer: Layer,
    before: BeforeTile,
    make: boolean,
    visit: (tile: Tile, cells: (each: (cell: number, share: number, px: number, py: number) => void) => void) => void,
  ): PixelRect {
    const changed = noRect();
    for (const { index, part } of tilesIn(this.rect, painting.tilesX)) {
      if (!make && !layer.tiles[index]) continue;
      before(layer, index);
      const tile = layer.ensureTile(index, painting.arena);
      const selected = painting.selected ? (painting.selection.tiles[index]?.mask ?? null) : undefined;
      visit(tile, (each) => {
        if (selected === null) return;
        for (let py = part.top; py < part.bottom; py++) {
          for (let px = part.left; px < part.right; px++) {
            const cell = (py & 63) * TILE + (px & 63);
            const share = this.at(px, py) * (selected ? selected[cell] / 255 : 1);
            if (share > 0.001) each(cell, share, px, py);
          }
        }
      });
      tile.version++;
      growRect(changed, part);
    }
    return changed;
  }
}

/** A region of the whole picture, 0..255 a cell, row by row. */
class RegionMask extends CellMask {
  readonly rect: PixelRect;

  constructor(
    { width, height }: Painting,
    private readonly region: Uint8Array,
  ) {
    super();
    this.rect = { left: width, top: height, right: 0, bottom: 0 };
    region.forEach((v, i) => {
      if (v === 0) return;
      const [x, y] = [i % width, Math.floor(i / width)];
      growRect(this.rect, { left: x, top: y, right: x + 1, bottom: y + 1 });
    });
    this.wide = width;
  }
  private readonly wide: number;

  at(px: number, py: number): number {
    return this.region[py * this.wide + px] / 255;
  }
}

/** A shape on the cells of a painting: how much of each cell lies inside, and how far it goes. */
export class ShapeMask extends CellMask {
  private readonly distance: OutlineDistance;
  private readonly soft: number;

  /** @param outline corners, mm; it is closed @param edgeMm width over which the edge is lost; 0 is found */
  constructor(painting: Painting, outline: Outline, edgeMm: number) {
    super();
    const { mmPerPx } = painting;
    this.soft = Math.max(mmPerPx, edgeMm);
    this.distance = new OutlineDistance(painting, outline, this.soft / 2);
  }

  get rect(): PixelRect {
    return this.distance.rect;
  }

  /** Share of a cell that lies inside, 0..1. */
  at(px: number, py: number): number {
    return lostEdge(this.distance.at(px, py), this.soft);
  }
}

/** Share of what lies so far inside an edge (mm) that is lost over a width (mm). */
export function lostEdge(inside: number, width: number): number {
  const s = Math.max(0, Math.min(1, 0.5 + inside / width));
  return s * s * (3 - 2 * s);
}

/** Direction of the longest extent of an outline (principal axis), a unit vector. */
function longAxis(outline: Outline): [number, number] {
  const n = outline.length;
  const mx = outline.reduce((s, [x]) => s + x, 0) / n;
  const my = outline.reduce((s, [, y]) => s + y, 0) / n;
  let [xx, yy, xy] = [0, 0, 0];
  for (const [x, y] of outline) {
    xx += (x - mx) ** 2;
    yy += (y - my) ** 2;
    xy += (x - mx) * (y - my);
  }
  const angle = 0.5 * maths.atan2(2 * xy, xx - yy);
  return [maths.cos(angle), maths.sin(angle)];
}

export interface Filling {
  readonly mixture: Mixture;
  /** Thickness of the film, um; a stick in place of it leaves dust on the tooth. */
  readonly um: number;
  readonly body: number;
  /** Share of the film that is paint, the rest being medium; 1 where left out. */
  readonly paint?: number;
  readonly stick?: StickForm;
  /** Unevenness along the long axis, 0..1. */
  readonly streaks: number;
  readonly seed: number;
}

/** Fills a region of the picture (0..255 a cell) with wet paint; it is entered as loaded. @returns cells that changed */
export const fillRegion = (
  painting: Painting,
  layer: Layer,
  region: Uint8Array,
  filling: Filling,
  before: BeforeTile,
): PixelRect =>
  fillShape(
    painting,
    layer,
    new RegionMask(painting, region),
    [
      [0, 0],
      [1, 0],
      [1, 1],
    ],
    filling,
    before,
  );

/** Fills a shape with wet paint, or with the dust of a stick; it is entered as loaded. @returns cells that changed */
export function fillShape(
  painting: Painting,
  layer: Layer,
  mask: CellMask,
  outline: Outline,
  filling: Filling,
  before: BeforeTile,
): PixelRect {
  const { arena, ledger, cellArea, mmPerPx, surface } = painting;
  const parts = Object.entries(normalise(filling.mixture))
    .map(([id, part]) => ({ pigment: pigmentIndex(id), part }))
    .filter(({ part }) => part > 0)
    .sort((a, b) => a.pigment - b.pigment);
  const [ax, ay] = longAxis(outline);
  const streak = (px: number, py: number) => {
    const across = (-ay * px + ax * py) * mmPerPx;
    return Math.max(
      0.05,
      1 +
        filling.streaks *
          1.6 *
          (noise1(across * 1.4 + 50, filling.seed) + 0.5 * noise1(across * 4 + 90, filling.seed) - 0.75),
    );
  };
  const { stick } = filling;
  const perUm = stick ? dustCoats(parts) : parts.map(({ part }) => ((filling.paint ?? 1) * part) / COAT_UM);
  const laid = new Float64Array(parts.length);
  const changed = mask.eachTile(painting, layer, before, true, (tile, cells) => {
    if (stick) {
      const wash = (tile.wash ??= new Wash(arena));
      for (const { pigment } of parts) wash.plane('loose', pigment);
      const planes = parts.map(({ pigment }) => wash.plane('loose', pigment) >> 2);
      const fine = fineTooth(surface, mmPerPx);
      const load = stick.rests + stick.presses * 0.7;
      const spread = hypot(fine.withinUm, stick.rough);
      cells((cell, share, px, py) => {
        const at = (py % surface.size) * surface.size + (px % surface.size);
        const depth = depthOf(fine.um[at] + 0.6 * load, spread);
        const um = stick.most * share * meeting(depth / stick.soft) * streak(px, py);
        planes.forEach((at, k) => {
          arena.f32[at + cell] += um * perUm[k];
          laid[k] += um * perUm[k];
        });
      });
      return;
    }
    // what is there stays below
    const wasWet = tile.volume !== 0;
    tile.wet();
    for (const { pigment } of parts) tile.massPlane(pigment);
    if (wasWet) tile.skinned();
    const at = parts.map(({ pigment }) => tile.pigments.indexOf(pigment));
    const { f32 } = arena;
    const [volume, body, skin] = [tile.volume >> 2, tile.body >> 2, tile.skinVolume >> 2];
    cells((cell, share, px, py) => {
      const um = filling.um * share * streak(px, py);
      const all = f32[volume + cell] + um;
      f32[body + cell] = (f32[body + cell] * f32[volume + cell] + filling.body * um) / all;
      f32[volume + cell] = all;
      // on the bare ground there is nothing to lie upon, whatever else lies in this tile
      const onPaint = skin !== 0 && all > um;
      if (onPaint) f32[skin + cell] += um;
      at.forEach((k, j) => {
        const coats = um * perUm[j];
        f32[(tile.mass[k] >> 2) + cell] += coats;
        if (onPaint) f32[(tile.skin[k] >> 2) + cell] += coats;
        laid[j] += coats;
      });
    });
  });
  parts.forEach(({ pigment }, k) => (ledger.loaded[pigment] += laid[k] * cellArea));
  return changed;
}

/** Cuts a shape out of a layer, wet and dry. @returns cells that changed */
export function cutShape(painting: Painting, layer: Layer, mask: CellMask, before: BeforeTile): PixelRect {
  const { arena, ledger, cellArea } = painting;
  const changed = mask.eachTile(painting, layer, before, false, (tile, cells) => {
    tile.laid ||= arena.allocate(PLANE_BYTES);
    const { f32 } = arena;
    const planes = [...tile.mass, tile.volume, ...tile.skin, tile.skinVolume].filter(Boolean).map((p) => p >> 2);
    const masses = tile.mass.map((p) => p >> 2);
    cells((cell, share) => {
      f32[(tile.laid >> 2) + cell] = share;
      masses.forEach((at, k) => (ledger.removed[tile.pigments[k]] += f32[at + cell] * share * cellArea));
      for (const at of planes) f32[at + cell] *= 1 - share;
    });
  });
  thinDry(painting, layer);
  layer.forEachTile((tile) => tile.dropLaid());
  return changed;
}
