import { maths } from '@/core/maths/maths';
import type { Arena } from './arena';
import { TILE } from './cells';
import type { Copies } from '@/core/film/packing/copies';

/**
 * The water of one layer while it is wet: film, moisture and motion on a coarser grid, and how far the film covers
 * each cell. Rasters are as large as the painting, with a dry frame all round, so that no loop tests for borders; they
 * exist only while there is water.
 *
 * Depths are in washes (1 = a juicy wash, WASH_UM), velocities in reference cells (a 150th of an inch) a step.
 */

/** Depth of a juicy wash, um. */
export const WASH_UM = 150;
/** Side of a reference cell, mm: at this size the constants of the flow are given. */
export const REFERENCE_MM = 25.4 / 150;

/** A tile's state: nothing happens in it; its paper is damp; it has a water film. */
export const DRY = 0;
export const DAMP = 1;
export const WET = 2;

/** Planes that make up the state, on the coarse grid. */
const STATE_PLANES = ['water', 'moisture', 'rim', 'u', 'v', 'load', 'share'] as const;
/** What each step works out anew. */
const WORK_PLANES = [
  'depth',
  'open',
  'fluxX',
  'fluxY',
  'mass',
  'stream',
  'paintU',
  'paintV',
  'nextA',
  'nextB',
] as const;
export type CoarsePlane = (typeof STATE_PLANES)[number] | (typeof WORK_PLANES)[number];

/** Cells of frame at the left and right of the rasters: keeps rows aligned. */
export const FRAME = 4;

/** Cells along a flow cell: the power of two that brings it closest to two reference cells. */
export const flowFactor = (mmPerPx: number): number =>
  1 << Math.max(0, Math.min(2, Math.round(maths.log2((2 * REFERENCE_MM) / mmPerPx))));

/** A tile's water outside the arena. */
export interface WaterImage {
  /** State; steps that its paint has waited; fastest film and fastest paint in it. */
  readonly scalars: readonly [state: number, waited: number, film: number, paint: number];
  /** The planes of the state, then the coverage. */
  readonly planes: readonly Float32Array[];
}

/** A grain of salt on a wet wash: where (mm), how large, and until which step it works. */
export interface SaltGrain {
  readonly layer: string;
  readonly x: number;
  readonly y: number;
  readonly radiusMm: number;
  readonly until: number;
  readonly seed: number;
}

export class Basin {
  /** Cells along a flow cell, and flow cells along a tile. */
  readonly factor: number;
  readonly side: number;
  /** Words from row to row, of the coarse planes and of the coverage. */
  readonly stride: number;
  readonly coverStride: number;
  /** Word addresses of the coarse planes. */
  readonly at: Readonly<Record<CoarsePlane, number>>;
  /** Word address of the coverage: share of each cell under the film. */
  readonly cover: number;
  readonly state: Uint8Array;
  /** Steps for which a tile's paint has waited to be moved; fastest film and paint in it, reference cells a step. */
  readonly waited: Float64Array;
  readonly film: Float64Array;
  readonly paint: Float64Array;
  private readonly coarseWords: number;
  private readonly coverWords: number;

  constructor(
    private readonly arena: Arena,
    readonly tilesX: number,
    readonly tilesY: number,
    mmPerPx: number,
    /** Cells of the sheet: the tiles reach a little beyond. */
    readonly sheet: { readonly width: number; readonly height: number },
  ) {
    this.factor = flowFactor(mmPerPx);
    this.side = TILE / this.factor;
    this.stride = tilesX * this.side + 2 * FRAME;
    this.coverStride = tilesX * TILE + 2 * FRAME;
    this.coarseWords = this.stride * (tilesY * this.side + 2) + 8;
    this.coverWords = this.coverStride * (tilesY * TILE + 2) + 8;
    const names = [...STATE_PLANES, ...WORK_PLANES];
    this.at = Object.fromEntries(
      names.map((name) => [name, arena.allocate(this.coarseWords * 4) >> 2]),
    ) as unknown as Record<CoarsePlane, number>;
    this.cover = arena.allocate(this.coverWords * 4) >> 2;
    const tiles = tilesX * tilesY;
    this.state = new Uint8Array(tiles);
    this.waited = new Float64Array(tiles);
    this.film = new Float64Array(tiles);
    this.paint = new Float64Array(tiles);
  }

  /** Offset of a tile's first flow cell in the coarse planes. */
  first(index: number): number {
    const tx = index % this.tilesX;
    const ty = (index - tx) / this.tilesX;
    return (ty * this.side + 1) * this.stride + tx * this.side + FRAME;
  }

  /** Offset of a tile's first cell in the coverage. */
  firstCover(index: number): number {
    const tx = index % this.tilesX;
    const ty = (index - tx) / this.tilesX;
    return (ty * TILE + 1) * this.coverStride + tx * TILE + FRAME;
  }

  /** Word address of the flow cell that holds a cell. */
  coarseOf(plane: CoarsePlane, x: number, y: number): number {
    const { factor } = this;
    return this.at[plane] + (Math.floor(y / factor) + 1) * this.stride + Math.floor(x / factor) + FRAME;
  }

  /** Whether there is water anywhere. */
  get active(): boolean {
    return this.state.some((s) => s !== DRY);
  }

  get wetTiles(): number {
    let count = 0;
    for (const s of this.state) if (s === WET) count++;
    return count;
  }

  /** Sum of a coarse plane over a tile: covered water is in washes times flow cells. */
  sum(plane: 'water' | 'moisture', index: number): number {
    const { f32 } = this.arena;
    let total = 0;
    for (let y = 0; y < this.side; y++) {
      const row = this.at[plane] + this.first(index) + y * this.stride;
      for (let x = row; x < row + this.side; x++) total += f32[x];
    }
    return total;
  }

  /** Words of the copy that `capture` makes. */
  words(index: number): number {
    return this.state[index] === DRY ? 0 : STATE_PLANES.length * this.side * this.side + TILE * TILE;
  }

  capture(index: number, copies: Copies): WaterImage | undefined {
    if (this.state[index] === DRY) return undefined;
    const { stride, side } = this;
    const first = this.first(index);
    const planes = STATE_PLANES.map((name) => copies.rectangle(this.at[name] + first, stride, side, side));
    const cover = copies.rectangle(this.cover + this.firstCover(index), this.coverStride, TILE, TILE);
    return {
      scalars: [this.state[index], this.waited[index], this.film[index], this.paint[index]],
      planes: [...planes, cover],
    };
  }

  restore(index: number, image: WaterImage | undefined): void {
    this.clear(index);
    if (!image) return;
    [this.state[index], this.waited[index], this.film[index], this.paint[index]] = image.scalars;
    STATE_PLANES.forEach((name, k) =>
      this.rows(this.at[name] + this.first(index), this.stride, this.side, (row, y) =>
        this.arena.write(row << 2, image.planes[k].subarray(y * this.side, (y + 1) * this.side)),
      ),
    );
    const cover = image.planes[STATE_PLANES.length];
    this.rows(this.cover + this.firstCover(index), this.coverStride, TILE, (row, y) =>
      this.arena.write(row << 2, cover.subarray(y * TILE, (y + 1) * TILE)),
    );
  }

  /**
   * Moisture has nowhere to creep to at the edge of the rasters, for beyond is as damp; and a film that hangs over the
   * edge of the sheet has no rim there.
   */
  closeEdges(): void {
    this.mirror(this.at.moisture, this.tilesX * this.side, this.tilesY * this.side);
    this.mirror(this.at.rim, Math.ceil(this.sheet.width / this.factor), Math.ceil(this.sheet.height / this.factor));
  }

  /** Repeats the outermost cells of a plane beyond its first `wide` x `high` cells. */
  private mirror(plane: number, wide: number, high: number): void {
    const { f32 } = this.arena;
    const { stride } = this;
    f32.copyWithin(plane, plane + stride, plane + 2 * stride);
    f32.copyWithin(plane + (high + 1) * stride, plane + high * stride, plane + (high + 1) * stride);
    for (let y = 1; y <= high; y++) {
      const row = plane + y * stride + FRAME;
      f32[row - 1] = f32[row];
      f32[row + wide] = f32[row + wide - 1];
    }
  }

  /** Takes all water from a tile. */
  clear(index: number): void {
    this.still(index);
    const { f32 } = this.arena;
    for (const name of ['moisture', 'rim', 'share'] as const) {
      this.rows(this.at[name] + this.first(index), this.stride, this.side, (row) => f32.fill(0, row, row + this.side));
    }
    this.rows(this.cover + this.firstCover(index), this.coverStride, TILE, (row) => f32.fill(0, row, row + TILE));
    this.state[index] = DRY;
    this.waited[index] = this.film[index] = this.paint[index] = 0;
  }

  /** A tile has no film left: nothing moves in it. */
  still(index: number): void {
    const { f32 } = this.arena;
    for (const name of [
      'water',
      'u',
      'v',
      'load',
      'depth',
      'open',
      'fluxX',
      'fluxY',
      'mass',
      'stream',
      'paintU',
      'paintV',
    ] as const) {
      this.rows(this.at[name] + this.first(index), this.stride, this.side, (row) => f32.fill(0, row, row + this.side));
    }
  }

  dispose(): void {
    for (const plane of Object.values(this.at)) this.arena.free(plane << 2, this.coarseWords * 4);
    this.arena.free(this.cover << 2, this.coverWords * 4);
  }

  private rows(from: number, stride: number, count: number, visit: (row: number, y: number) => void): void {
    for (let y = 0; y < count; y++) visit(from + y * stride, y);
  }
}
