import { BANDS } from '@/core/colour/bands';
import { FRAME, WASH_UM } from '@/core/film/basin';
import { TILE } from '@/core/film/cells';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import type { Tile } from '@/core/film/tile';
import type { Arena } from '@/core/film/arena';
import type { Coat, Wash } from '@/core/film/wash';
import { sheetOf } from '@/core/flow/bed';
import { CLOSED_UM } from '@/core/kernels/colour';
import type { Kernels } from '@/core/kernels/kernels';
import { isColoured } from '@/core/colour/pigments';

/** Washes in the picture: two films (what lay before, and what came after), darker while they are wet. */

/** Coats of the film below, and of the one above it. */
const BELOW: readonly Coat[] = ['under', 'fast'];
const ABOVE: readonly Coat[] = ['settled', 'suspended', 'soluble'];
/** Wet, light passes pigment more often, for no air lies between the grains; and the paper is a little darker. */
const WET_DEEPENS = 0.24;
const WET_PAPER = 0.04;
/** How damp paper looks against wet paper. */
const DAMP_LOOKS = 0.5;
/** A film as deep as this (washes) looks wet through; one this deep has a level surface. */
const LOOKS_WET = 0.1;
const LEVEL = 0.6;
/** Reflectance of masking fluid in the bands, and how well it hides. */
const MASKING = Float64Array.from({ length: BANDS.count }, (_, b) => 0.52 - 0.2 * (b / (BANDS.count - 1)));
const MASKING_HIDES = 0.7;

/** Water at the cells of a row of a tile. */
export interface WaterRow {
  /** How wet it looks, 0 dry .. 1; depth of the film in washes times its cover. */
  readonly looks: Float32Array;
  readonly film: Float32Array;
}

/** Washes of tiles into runs of reflectance (see Picture). */
export class WashFilm {
  /** Word addresses: a row that says "closed everywhere", rows of summed masses, the list of them. */
  private readonly closed: number;
  private readonly rows: number;
  private readonly list: number;
  private readonly capacity: number;
  private readonly water: WaterRow = { looks: new Float32Array(TILE), film: new Float32Array(TILE) };

  constructor(
    private readonly painting: Painting,
    private readonly kernels: Kernels,
    private readonly tablesFor: (pigments: readonly number[]) => number,
  ) {
    const { arena } = painting;
    this.closed = arena.allocate(TILE * 4) >> 2;
    this.rows = arena.allocate(TILE * 4 * 96) >> 2;
    this.list = arena.allocate(96 * 4) >> 2;
    arena.f32.fill(2 * CLOSED_UM, this.closed, this.closed + TILE);
    this.capacity = sheetOf(painting).capacity;
  }

  /** How wet a run of cells of a tile is. The result is overwritten by the next call. */
  waterAt(layer: Layer, index: number, cell: number, count: number): WaterRow | undefined {
    const { basin } = layer;
    if (!basin?.state[index]) return undefined;
    const { f32 } = this.painting.arena;
    const { factor } = basin;
    const x0 = (index % basin.tilesX) * TILE + (cell & 63);
    const y = Math.floor(index / basin.tilesX) * TILE + (cell >> 6);
    const cover = basin.cover + (y + 1) * basin.coverStride + x0 + FRAME;
    const coarse = (Math.floor(y / factor) + 1) * basin.stride + FRAME;
    for (let x = 0; x < count; x++) {
      const i = coarse + Math.floor((x0 + x) / factor);
      const share = f32[basin.at.share + i];
      const depth = share > 0 ? f32[basin.at.water + i] / share : 0;
      const covered = f32[cover + x];
      this.water.film[x] = depth * covered;
      const damp = (DAMP_LOOKS * f32[basin.at.moisture + i]) / this.capacity;
      this.water.looks[x] = Math.min(1, Math.max(covered * Math.min(1, depth / LOOKS_WET), damp));
    }
    return this.water;
  }

  /** Lays the washes of a tile over a run of reflectance. */
  lay(layer: Layer, tile: Tile, index: number, cell: number, count: number, run: number, stride: number): void {
    const wash = tile.wash!;
    const water = this.waterAt(layer, index, cell, count);
    const { f32 } = this.painting.arena;
    if (water) {
      for (let b = 0; b < BANDS.count; b++) {
        for (let x = 0; x < count; x++) f32[run + b * stride + x] *= 1 - WET_PAPER * water.looks[x];
      }
    }
    for (const coats of [BELOW, ABOVE]) this.film(tile, coats, cell, count, run, stride, water);
    const masking = wash.resist.masking >> 2;
    if (!masking) return;
    for (let x = 0; x < count; x++) {
      const hides = MASKING_HIDES * f32[masking + cell + x];
      if (hides === 0) continue;
      for (let b = 0; b < BANDS.count; b++)
        f32[run + b * stride + x] += hides * (MASKING[b] - f32[run + b * stride + x]);
    }
  }

  private film(
    tile: Tile,
    coats: readonly Coat[],
    cell: number,
    count: number,
    run: number,
    stride: number,
    water?: WaterRow,
  ): void {
    const wash = tile.wash!;
    const { f32, i32 } = this.painting.arena;
    const present = wash.pigments.filter((p, n) => isColoured(p) && coats.some((coat) => wash.coats[coat][n]));
    if (present.length === 0) return;
    const tables = this.tablesFor(present);
    present.forEach((pigment, k) => {
      const n = wash.pigments.indexOf(pigment);
      const row = this.rows + k * TILE;
      f32.fill(0, row, row + TILE);
      for (const coat of coats) {
        const plane = wash.coats[coat][n] >> 2;
        if (plane) for (let x = 0; x < count; x++) f32[row + x] += f32[plane + cell + x];
      }
      if (water) for (let x = 0; x < count; x++) f32[row + x] *= 1 + WET_DEEPENS * water.looks[x];
      i32[this.list + k] = row;
    });
    this.kernels.filmOver(count, this.list, 0, present.length, this.closed, 0, tables, BANDS.count, run, stride);
  }
}

/**
 * Height of a surface under water, um: it fills the valleys and lies level where it is deep.
 * @param um height of what lies under it @param film depth of the film, washes
 */
export const underWater = (um: number, film: number): number => {
  const level = 0.5 * film * WASH_UM;
  return um + (level - um) * Math.min(1, film / LEVEL);
};

/** Water at a cell of a layer: depth of film and moisture, um; how wet it looks, 0..1. */
export function waterAtCell(
  { arena, tilesX }: Painting,
  { basin }: Layer,
  x: number,
  y: number,
): { um: number; looks: number } {
  if (!basin?.state[(y >> 6) * tilesX + (x >> 6)]) return { um: 0, looks: 0 };
  const { f32 } = arena;
  const share = f32[basin.coarseOf('share', x, y)];
  const water = f32[basin.coarseOf('water', x, y)];
  const moisture = f32[basin.coarseOf('moisture', x, y)];
  const depth = share > 0 ? water / share : 0;
  return { um: (water + moisture) * WASH_UM, looks: Math.min(1, Math.max(share * Math.min(1, depth / LOOKS_WET), 2 * DAMP_LOOKS * moisture)) }; // prettier-ignore
}

/** Films of a wash at a cell, lower first: pigments and their coats. */
export function washFilmsAt({ f32 }: Arena, wash: Wash, cell: number): (readonly [pigment: number, coats: number])[][] {
  return [BELOW, ABOVE].map((coats) =>
    wash.pigments
      .map((pigment, n) => {
        const sum = coats.reduce(
          (s, coat) => s + (wash.coats[coat][n] ? f32[(wash.coats[coat][n] >> 2) + cell] : 0),
          0,
        );
        return [pigment, sum] as const;
      })
      .filter(([pigment, sum]) => sum > 0 && isColoured(pigment)),
  );
}

/** How wet a layer is at a cell: depth of its film, um; moisture in the paper, 0..1 of what it holds. */
export function paperAt(painting: Painting, { basin }: Layer, x: number, y: number): { filmUm: number; damp: number } {
  if (!basin?.state[(y >> 6) * painting.tilesX + (x >> 6)]) return { filmUm: 0, damp: 0 };
  const { f32 } = painting.arena;
  const share = f32[basin.coarseOf('share', x, y)];
  return {
    filmUm: share > 0.3 ? (f32[basin.coarseOf('water', x, y)] / share) * WASH_UM : 0,
    damp: Math.min(1, f32[basin.coarseOf('moisture', x, y)] / sheetOf(painting).capacity),
  };
}
