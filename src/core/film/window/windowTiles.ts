import { layRow } from '@/core/surface/heightField';
import type { Mover } from '@/core/film/packing/interleave';
import { solidUnder } from '@/core/film/packing/solid';
import type { Guard } from '@/core/film/guard';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import type { PixelRect } from '@/core/film/pixelRect';
import { PLANE_BYTES, TILE, type Tile } from '@/core/film/tile';
import type { BeforeTile, WindowPlanes } from './windowPlanes';

/** Masses below this (coats) are nothing: they would only make the processor slow (denormals). */
const FLUSH_COATS = 1e-12;
/** A pigment that nowhere in a tile exceeds this (coats) cannot be seen; it is wiped off and entered as removed. */
const TRACE_COATS = 1e-6;
/** Room for a list of as many planes as a cell can have floats. */
const LIST_BYTES = 256 * 4;

/** Tiles on their way into a window and back: laid out cell by cell, put away plane by plane. */
export class WindowTiles {
  /** Word addresses: list of planes, and the largest float of each kind. */
  private readonly list: number;
  private readonly most: number;

  /** @param rubbing what `laid` means in this stroke: paint left (false) or share taken off (true) */
  constructor(
    private readonly w: WindowPlanes,
    private readonly painting: Painting,
    private readonly layer: Layer,
    private readonly before: BeforeTile,
    private readonly rubbing: boolean,
    private readonly mover: Mover,
    private readonly guard: Guard | undefined,
  ) {
    this.list = painting.arena.allocate(LIST_BYTES) >> 2;
    this.most = painting.arena.allocate(LIST_BYTES) >> 2;
  }

  dispose(): void {
    for (const at of [this.list, this.most]) this.painting.arena.free(at << 2, LIST_BYTES);
  }

  /** Lays a tile out in the window. */
  load(tx: number, ty: number): void {
    const { arena, tilesX, surface } = this.painting;
    const { f32 } = arena;
    const index = ty * tilesX + tx;
    const tile = this.layer.tiles[index];
    const { stride } = this.w;
    const wx = tx * TILE - this.w.x0;
    const wy = ty * TILE - this.w.y0;
    if (tile?.cure) this.w.curing = true;
    if (tile?.volume) {
      this.listPlanes(tile);
      const to = (this.w.film >> 2) + (wy * this.w.width + wx) * stride;
      this.mover.gather(this.list, stride, 0, TILE, to, stride, this.w.width * stride, TILE, TILE);
    }
    const cell = wy * this.w.width + wx;
    for (const [plane, mine] of [
      [tile?.body, this.w.body],
      [tile?.laid, this.w.laid],
      [tile?.cure, this.w.cure],
    ] as const) {
      if (!plane) continue;
      for (let y = 0; y < TILE; y++) {
        const from = (plane >> 2) + y * TILE;
        f32.copyWithin((mine >> 2) + cell + y * this.w.width, from, from + TILE);
      }
    }
    // the support, then everything solid up to this layer
    const relief = (this.w.relief >> 2) + cell;
    for (let y = 0; y < TILE; y++) layRow(surface, tx * TILE, ty * TILE + y, f32, relief + y * this.w.width, TILE);
    for (const { plane, share } of solidUnder(this.painting, this.layer, index)) {
      this.mover.addShare(plane >> 2, TILE, share, relief, this.w.width, TILE, TILE);
    }
  }

  /** Lists the planes of a tile in the order of a cell's floats; 0 where it has no such plane. */
  private listPlanes(tile: Tile): void {
    const { i32 } = this.painting.arena;
    const n = this.w.channels;
    i32.fill(0, this.list, this.list + 2 * n);
    tile.pigments.forEach((pigment, k) => {
      const i = this.w.pigments.indexOf(pigment);
      i32[this.list + i] = tile.mass[k] >> 2;
      if (tile.skinVolume) i32[this.list + n + i] = tile.skin[k] >> 2;
    });
    i32[this.list + n - 1] = tile.volume >> 2;
    i32[this.list + 2 * n - 1] = tile.skinVolume >> 2;
  }

  /** Puts a tile back, keeping only planes that hold something. */
  store(tx: number, ty: number): void {
    const { arena, tilesX } = this.painting;
    const index = ty * tilesX + tx;
    const n = this.w.channels;
    const wx = tx * TILE - this.w.x0;
    const wy = ty * TILE - this.w.y0;
    const max = this.maxima(wx, wy);
    const wet = max[n - 1] > 0 || this.w.pigments.some((_, i) => max[i] > 0);
    const hasLaid = max[2 * n] > 0;
    const known = this.layer.tiles[index];
    if (!wet && !hasLaid && !known) return;
    // shown only in passing, and bare again
    if (!wet && !hasLaid && known?.strata.length === 0 && !known.wash && !known.mask) {
      this.before(this.layer, index);
      known.dispose();
      this.layer.tiles[index] = undefined;
      return;
    }

    this.before(this.layer, index);
    const tile = this.layer.ensureTile(index, arena);
    if (!wet) tile.dropWet();
    else this.storeWet(tile, wx, wy, max);
    if (hasLaid) {
      tile.laid ||= arena.allocate(PLANE_BYTES);
      tile.rubbing = this.rubbing;
      for (let y = 0; y < TILE; y++) {
        const cell = (wy + y) * this.w.width + wx;
        arena.f32.copyWithin((tile.laid >> 2) + y * TILE, (this.w.laid >> 2) + cell, (this.w.laid >> 2) + cell + TILE);
      }
    }
    tile.version++;
  }

  private storeWet(tile: Tile, wx: number, wy: number, max: Float64Array): void {
    const { arena } = this.painting;
    const n = this.w.channels;
    const { stride } = this.w;
    tile.wet();
    const onTop = max[2 * n - 1] > 0;
    if (!onTop) tile.dropSkin();
    const planes = this.w.pigments.map((p, i) => (max[i] > TRACE_COATS ? tile.massPlane(p) : 0));
    if (onTop) tile.skinned();
    const { f32 } = arena;
    this.w.pigments.forEach((pigment, i) => {
      if (planes[i]) return;
      tile.dropPigment(pigment);
      if (max[i] === 0) return;
      // too little to be seen anywhere in this tile
      let sum = 0;
      for (let y = 0; y < TILE; y++) {
        const at = (this.w.film >> 2) + ((wy + y) * this.w.width + wx) * stride + i;
        for (let x = 0; x < TILE; x++) {
          sum += f32[at + x * stride];
          f32[at + x * stride] = 0;
          f32[at + n + x * stride] = 0;
        }
      }
      this.painting.ledger.removed[pigment] += sum * this.painting.cellArea;
    });
    tile.pigments.filter((p) => !this.w.pigments.includes(p)).forEach((p) => tile.dropPigment(p));
    this.listPlanes(tile);
    const first = (this.w.film >> 2) + (wy * this.w.width + wx) * stride;
    this.mover.scatter(this.list, stride, 0, TILE, first, stride, this.w.width * stride, TILE, TILE);
    for (let y = 0; y < TILE; y++) {
      const cell = (wy + y) * this.w.width + wx;
      f32.copyWithin((tile.body >> 2) + y * TILE, (this.w.body >> 2) + cell, (this.w.body >> 2) + cell + TILE);
    }
    if (this.w.curing) this.storeCure(tile, wx, wy);
  }

  /** Keeps the plane of drying only where something has begun to dry. */
  private storeCure(tile: Tile, wx: number, wy: number): void {
    const { f32 } = this.painting.arena;
    let any = false;
    for (let y = 0; y < TILE && !any; y++) {
      const at = (this.w.cure >> 2) + (wy + y) * this.w.width + wx;
      for (let x = 0; x < TILE; x++) any ||= f32[at + x] > 0;
    }
    if (!any) {
      tile.dropCure();
      return;
    }
    tile.curing();
    const after = this.painting.arena.f32;
    for (let y = 0; y < TILE; y++) {
      const from = (this.w.cure >> 2) + (wy + y) * this.w.width + wx;
      after.copyWithin((tile.cure >> 2) + y * TILE, from, from + TILE);
    }
  }

  /** Largest value of every float of a cell in a tile of the window, then of `laid`; zeroes what is next to nothing. */
  private maxima(wx: number, wy: number): Float64Array {
    const { f32 } = this.painting.arena;
    const { stride } = this.w;
    const max = new Float64Array(stride + 1);
    const first = (this.w.film >> 2) + (wy * this.w.width + wx) * stride;
    this.mover.tidy(first, stride, this.w.width * stride, TILE, TILE, FLUSH_COATS, this.most);
    max.set(f32.subarray(this.most, this.most + stride));
    for (let y = 0; y < TILE; y++) {
      const laid = (this.w.laid >> 2) + (wy + y) * this.w.width + wx;
      for (let x = 0; x < TILE; x++) if (f32[laid + x] > max[stride]) max[stride] = f32[laid + x];
    }
    return max;
  }

  /** Copies a part of a tile out of the window as it is, zeros and all. Cells of the painting. */
  show(tx: number, ty: number, part: Readonly<PixelRect>): void {
    const { arena, tilesX } = this.painting;
    const index = ty * tilesX + tx;
    this.before(this.layer, index);
    const tile = this.layer.ensureTile(index, arena);
    tile.wet();
    this.w.pigments.forEach((p) => tile.massPlane(p));
    tile.skinned();
    const cures = tile.cure !== 0 || this.w.curing;
    if (cures) tile.curing();
    if (!tile.laid) {
      tile.laid = arena.allocate(PLANE_BYTES);
      tile.rubbing = this.rubbing;
    }
    const { f32 } = arena;
    const { stride } = this.w;
    this.listPlanes(tile);
    const columns = part.right - part.left;
    const first = (this.w.film >> 2) + ((part.top - this.w.y0) * this.w.width + part.left - this.w.x0) * stride;
    const place = (part.top & 63) * TILE + (part.left & 63);
    this.mover.scatter(
      this.list,
      stride,
      place,
      TILE,
      first,
      stride,
      this.w.width * stride,
      columns,
      part.bottom - part.top,
    );
    for (let y = part.top; y < part.bottom; y++) {
      const from = (y - this.w.y0) * this.w.width + part.left - this.w.x0;
      const to = (y & 63) * TILE + (part.left & 63);
      const count = columns;
      f32.copyWithin((tile.body >> 2) + to, (this.w.body >> 2) + from, (this.w.body >> 2) + from + count);
      f32.copyWithin((tile.laid >> 2) + to, (this.w.laid >> 2) + from, (this.w.laid >> 2) + from + count);
      if (cures) f32.copyWithin((tile.cure >> 2) + to, (this.w.cure >> 2) + from, (this.w.cure >> 2) + from + count);
    }
    tile.version++;
    this.guard?.hide(tile, index);
  }
}
