import { hypot } from '@/core/maths/maths';
import type { Guard } from './guard';
import type { Layer } from './layer';
import { layRow } from '@/core/surface/heightField';
import type { Painting } from './painting';
import { addShare, gather, scatter, tidy, type Mover } from '@/core/film/packing/interleave';
import { solidUnder } from '@/core/film/packing/solid';
import { PLANE_BYTES, TILE, type Tile } from './tile';

/** Masses below this (coats) are nothing: they would only make the processor slow (denormals). */
const FLUSH_COATS = 1e-12;
/** Cells around the tiles of a window: paint pushed over the painting's edge lands there, and is gone. */
const RING = 24;
/** A pigment that nowhere in a tile exceeds this (coats) cannot be seen; it is wiped off and entered as removed. */
const TRACE_COATS = 1e-6;

/** Room for a list of as many planes as a cell can have floats. */
const LIST_BYTES = 256 * 4;

interface Rect {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

const emptyRect = (): Rect => ({ left: Infinity, top: Infinity, right: -1, bottom: -1 });

/** Called before a tile is changed for the first time, so that undo can keep what was there. */
export type BeforeTile = (layer: Layer, index: number) => void;

/**
 * A dense stretch of one layer around the brush. A brush works on cells that lie side by side, whatever tiles they
 * belong to and whichever way it is turned, so tiles are laid out here while it passes and put back behind it.
 * Copying is exact: where the borders of tiles or windows lie makes no difference to the paint.
 *
 * `film` holds for each cell its channels side by side: the mass (coats) of every pigment in play, then the volume
 * (um), padded to a multiple of four; then the same again for the part of them that lies on top and is not worked in. The other planes have one float a cell.
 */
export class FilmWindow {
  x0 = 0;
  y0 = 0;
  width = 0;
  height = 0;
  /** Pigment index of each mass channel. */
  pigments: readonly number[] = [];
  /** Addresses in the arena. */
  film = 0;
  /** Height of everything sealed under the wet film: surface and dry paint, um. */
  relief = 0;
  body = 0;
  laid = 0;
  /** How far the wet film has dried. */
  cure = 0;
  /** Levelling passes that a cell still has to go through. */
  fresh = 0;
  /** The layer below, where a brush takes up its wet paint. */
  private readonly lower: Layer | undefined;
  /** Word addresses: list of planes, and the largest float of each kind. */
  private readonly list: number;
  private readonly most: number;
  private capacity = 0;
  private filmCapacity = 0;
  private loaded = false;
  /** Whether anything in the window has begun to dry. */
  private curing = false;
  /** Cells changed since the last flush, and since they were last shown (window coordinates). */
  private dirty = emptyRect();
  private unseen = emptyRect();

  constructor(
    private readonly painting: Painting,
    private readonly layer: Layer,
    private readonly before: BeforeTile,
    /** What `laid` means in this stroke: paint left (false) or share taken off (true). */
    private readonly rubbing = false,
    private readonly mover: Mover = plainMover(painting),
    private readonly guard?: Guard,
  ) {
    this.lower = layer.look.wetThrough ? layerBelow(painting, layer) : undefined;
    this.list = painting.arena.allocate(LIST_BYTES) >> 2;
    this.most = painting.arena.allocate(LIST_BYTES) >> 2;
  }

  /** Channels a cell: pigments, padding to a multiple of four (always 0), and the volume, last. */
  get channels(): number {
    return (this.pigments.length + 4) & ~3;
  }

  /** Floats a cell: its channels, and as many for what lies on top. */
  get stride(): number {
    return 2 * this.channels;
  }

  /** Whether pixel rectangle [left, right) x [top, bottom) lies inside. */
  contains(left: number, top: number, right: number, bottom: number): boolean {
    return (
      this.loaded &&
      left >= this.x0 + RING &&
      top >= this.y0 + RING &&
      right <= this.x0 + this.width - RING &&
      bottom <= this.y0 + this.height - RING
    );
  }

  /** Notes that cells of the rectangle (window coordinates, inclusive) changed. */
  touch(left: number, top: number, right: number, bottom: number): void {
    for (const d of [this.dirty, this.unseen]) {
      if (left < d.left) d.left = left;
      if (top < d.top) d.top = top;
      if (right > d.right) d.right = right;
      if (bottom > d.bottom) d.bottom = bottom;
    }
  }

  /**
   * Moves the window so that it holds a pixel rectangle, with a tile's room around it.
   * @param toolPigments pigments on the tool, which get channels beside those in the tiles.
   * @returns whether the channels are others than before.
   */
  moveTo(left: number, top: number, right: number, bottom: number, toolPigments: readonly number[]): boolean {
    const { tilesX, tilesY } = this.painting;
    this.flush();
    const tx0 = Math.max(0, Math.floor((left - TILE / 2) / TILE));
    const ty0 = Math.max(0, Math.floor((top - TILE / 2) / TILE));
    const tx1 = Math.max(tx0 + 1, Math.min(tilesX, Math.ceil((right + TILE / 2) / TILE)));
    const ty1 = Math.max(ty0 + 1, Math.min(tilesY, Math.ceil((bottom + TILE / 2) / TILE)));

    const present = new Set(toolPigments);
    for (let ty = ty0; ty < ty1; ty++) {
      for (let tx = tx0; tx < tx1; tx++) {
        this.layer.tiles[ty * tilesX + tx]?.pigments.forEach((p) => present.add(p));
        this.lower?.tiles[ty * tilesX + tx]?.pigments.forEach((p) => present.add(p));
      }
    }
    const pigments = [...present].sort((a, b) => a - b);
    const changed = pigments.length !== this.pigments.length || pigments.some((p, i) => p !== this.pigments[i]);
    const keptFresh = this.loaded ? this.copyFresh() : undefined;
    this.curing = false;
    this.pigments = pigments;
    this.x0 = tx0 * TILE - RING;
    this.y0 = ty0 * TILE - RING;
    this.width = (tx1 - tx0) * TILE + 2 * RING;
    this.height = (ty1 - ty0) * TILE + 2 * RING;
    this.reserve(this.width * this.height);
    for (let ty = ty0; ty < ty1; ty++) for (let tx = tx0; tx < tx1; tx++) this.load(tx, ty);
    if (keptFresh) this.pasteFresh(keptFresh);
    this.loaded = true;
    return changed;
  }

  /**
   * Writes changed cells back to their tiles, and wipes off what is too little to be seen. The window stays loaded.
   * Only called where the stroke itself says so, for it changes what the brush meets next.
   */
  flush(): void {
    if (this.loaded) this.dropOverEdge();
    if (this.guard) this.eachTile(this.dirty, (tx, ty) => this.holdBack(this.guard!, tx, ty));
    this.eachTile(this.dirty, (tx, ty) => this.store(tx, ty));
    this.dirty = emptyRect();
    this.unseen = emptyRect();
  }

  /** Copies changed cells to their tiles so that they can be looked at; changes nothing in the window. */
  publish(): void {
    this.eachTile(this.unseen, (tx, ty, part) => this.show(tx, ty, part));
    this.unseen = emptyRect();
  }

  /** Paint that went over the edge of the painting is taken off and entered as removed. */
  private dropOverEdge(): void {
    const { painting } = this;
    const { f32 } = painting.arena;
    const n = this.channels;
    const { stride } = this;
    const drop = (left: number, top: number, right: number, bottom: number) => {
      for (let y = top; y < bottom; y++) {
        const at = (this.film >> 2) + (y * this.width + left) * stride;
        const end = (this.film >> 2) + (y * this.width + right) * stride;
        for (let k = at; k < end; k += stride) {
          if (f32[k + n - 1] === 0) continue;
          this.pigments.forEach((p, i) => (painting.ledger.removed[p] += f32[k + i] * painting.cellArea));
          f32.fill(0, k, k + stride);
        }
      }
    };
    const left = Math.max(0, -this.x0);
    const top = Math.max(0, -this.y0);
    const right = Math.min(this.width, painting.width - this.x0);
    const bottom = Math.min(this.height, painting.height - this.y0);
    drop(0, 0, this.width, top);
    drop(0, bottom, this.width, this.height);
    drop(0, top, left, bottom);
    drop(right, top, this.width, bottom);
  }

  /** Puts back what the tool did in cells that are shut, and enters what it laid there as removed. */
  private holdBack(guard: Guard, tx: number, ty: number): void {
    const { painting, channels: n, stride } = this;
    const index = ty * painting.tilesX + tx;
    const shares = guard.shares(index);
    if (shares?.every((v) => v === 255)) return;
    const { pigments, planes, skin } = guard.film(index);
    const { f32 } = painting.arena;
    const places = this.pigments.map((p) => pigments.indexOf(p));
    for (let i = 0; i < TILE * TILE; i++) {
      const share = shares ? shares[i] / 255 : 0;
      const cell = (ty * TILE - this.y0 + (i >> 6)) * this.width + tx * TILE - this.x0 + (i & 63);
      if (this.rubbing) f32[(this.laid >> 2) + cell] *= share;
      if (share > 0) continue;
      const o = (this.film >> 2) + cell * stride;
      this.pigments.forEach((pigment, k) => {
        const was = places[k] < 0 ? 0 : planes[places[k]][i];
        painting.ledger.removed[pigment] += (f32[o + k] - was) * painting.cellArea;
        f32[o + k] = was;
        f32[o + n + k] = places[k] < 0 ? 0 : (skin[places[k]]?.[i] ?? 0);
      });
      f32[o + n - 1] = planes[pigments.length]?.[i] ?? 0;
      f32[o + 2 * n - 1] = skin[pigments.length]?.[i] ?? 0;
      f32[(this.body >> 2) + cell] = planes[pigments.length + 1]?.[i] ?? 0;
      f32[(this.cure >> 2) + cell] = planes[pigments.length + 2]?.[i] ?? 0;
      f32[(this.laid >> 2) + cell] = 0;
    }
  }

  /**
   * Brings wet paint of the layer below up to this one, within a distance of a place: a brush that goes there takes it
   * up and works it in. Cells of the painting.
   * @param within cells that lie in the window
   */
  takeFromBelow(x: number, y: number, reach: number, within: Rect): void {
    const { lower, painting, channels: n } = this;
    if (!lower) return;
    const { f32 } = painting.arena;
    const left = Math.max(within.left, Math.floor(x - reach));
    const top = Math.max(within.top, Math.floor(y - reach));
    const right = Math.min(within.right - 1, Math.ceil(x + reach));
    const bottom = Math.min(within.bottom - 1, Math.ceil(y + reach));
    this.touch(left - this.x0, top - this.y0, right - this.x0, bottom - this.y0);
    for (let ty = top >> 6; ty <= bottom >> 6; ty++) {
      for (let tx = left >> 6; tx <= right >> 6; tx++) {
        const index = ty * painting.tilesX + tx;
        const tile = lower.tiles[index];
        if (!tile?.volume) continue;
        this.before(lower, index);
        tile.version++;
        const channel = tile.pigments.map((p) => this.pigments.indexOf(p));
        for (let py = Math.max(top, ty * TILE); py <= Math.min(bottom, ty * TILE + TILE - 1); py++) {
          for (let px = Math.max(left, tx * TILE); px <= Math.min(right, tx * TILE + TILE - 1); px++) {
            const i = (py & 63) * TILE + (px & 63);
            const um = f32[(tile.volume >> 2) + i];
            if (um <= 0 || hypot(px + 0.5 - x, py + 0.5 - y) > reach) continue;
            if (this.guard && this.guard.at(px, py) === 0) continue;
            const cell = (py - this.y0) * this.width + px - this.x0;
            const o = (this.film >> 2) + cell * this.stride;
            const all = f32[o + n - 1] + um;
            const share = um / all;
            const body = (this.body >> 2) + cell;
            f32[body] += share * (f32[(tile.body >> 2) + i] - f32[body]);
            const cure = (this.cure >> 2) + cell;
            const cured = tile.cure ? f32[(tile.cure >> 2) + i] : 0;
            f32[cure] += share * (cured - f32[cure]);
            this.curing ||= f32[cure] > 0;
            f32[o + n - 1] = all;
            f32[(tile.volume >> 2) + i] = 0;
            // what was below carried this film; now it is part of it
            f32[(this.relief >> 2) + cell] -= um;
            if (tile.skinVolume) f32[(tile.skinVolume >> 2) + i] = 0;
            channel.forEach((c, k) => {
              f32[o + c] += f32[(tile.mass[k] >> 2) + i];
              f32[(tile.mass[k] >> 2) + i] = 0;
              if (tile.skinVolume) f32[(tile.skin[k] >> 2) + i] = 0;
            });
          }
        }
      }
    }
  }

  /** Tiles of the layer below from which everything was taken give their planes back. */
  private tidyBelow(): void {
    const { lower, painting } = this;
    lower?.forEachTile((tile, index) => {
      if (!tile.volume) return;
      const at = tile.volume >> 2;
      if (painting.arena.f32.subarray(at, at + TILE * TILE).some((v) => v > 0)) return;
      this.before(lower, index);
      tile.dropWet();
      tile.version++;
      if (!tile.bare) return;
      tile.dispose();
      lower.tiles[index] = undefined;
    });
  }

  /** Calls back for the tiles of the painting in a rectangle of the window, with the part of each that lies in it. */
  private eachTile(d: Rect, visit: (tx: number, ty: number, part: Rect) => void): void {
    if (!this.loaded || d.right < d.left) return;
    const { tilesX, tilesY } = this.painting;
    const left = Math.max(0, this.x0 + d.left);
    const top = Math.max(0, this.y0 + d.top);
    const right = Math.min(tilesX * TILE - 1, this.x0 + d.right);
    const bottom = Math.min(tilesY * TILE - 1, this.y0 + d.bottom);
    for (let ty = top >> 6; ty <= bottom >> 6; ty++) {
      for (let tx = left >> 6; tx <= right >> 6; tx++) {
        visit(tx, ty, {
          left: Math.max(left, tx * TILE),
          top: Math.max(top, ty * TILE),
          right: Math.min(right, tx * TILE + TILE - 1),
          bottom: Math.min(bottom, ty * TILE + TILE - 1),
        });
      }
    }
  }

  /** Copies a part of a tile out of the window as it is, zeros and all. Cells of the painting, inclusive. */
  private show(tx: number, ty: number, part: Rect): void {
    const { arena, tilesX } = this.painting;
    const index = ty * tilesX + tx;
    this.before(this.layer, index);
    const tile = this.layer.ensureTile(index, arena);
    tile.wet();
    this.pigments.forEach((p) => tile.massPlane(p));
    tile.skinned();
    const cures = tile.cure !== 0 || this.curing;
    if (cures) tile.curing();
    if (!tile.laid) {
      tile.laid = arena.allocate(PLANE_BYTES);
      tile.rubbing = this.rubbing;
    }
    const { f32 } = arena;
    const { stride } = this;
    this.listPlanes(tile);
    const columns = part.right - part.left + 1;
    const first = (this.film >> 2) + ((part.top - this.y0) * this.width + part.left - this.x0) * stride;
    const place = (part.top & 63) * TILE + (part.left & 63);
    this.mover.scatter(
      this.list,
      stride,
      place,
      TILE,
      first,
      stride,
      this.width * stride,
      columns,
      part.bottom - part.top + 1,
    );
    for (let y = part.top; y <= part.bottom; y++) {
      const from = (y - this.y0) * this.width + part.left - this.x0;
      const to = (y & 63) * TILE + (part.left & 63);
      const count = columns;
      f32.copyWithin((tile.body >> 2) + to, (this.body >> 2) + from, (this.body >> 2) + from + count);
      f32.copyWithin((tile.laid >> 2) + to, (this.laid >> 2) + from, (this.laid >> 2) + from + count);
      if (cures) f32.copyWithin((tile.cure >> 2) + to, (this.cure >> 2) + from, (this.cure >> 2) + from + count);
    }
    tile.version++;
    this.guard?.hide(tile, index);
  }

  /** Gives the window's memory back. */
  dispose(): void {
    const { arena } = this.painting;
    for (const plane of this.planes) if (plane) arena.free(plane, this.capacity * 4);
    arena.free(this.list << 2, LIST_BYTES);
    this.tidyBelow();
    arena.free(this.most << 2, LIST_BYTES);
    if (this.film) arena.free(this.film, this.filmCapacity * 4);
    this.film = this.relief = this.body = this.laid = this.fresh = 0;
    this.loaded = false;
  }

  /** Planes with one float a cell. */
  private get planes(): readonly number[] {
    return [this.relief, this.body, this.laid, this.fresh, this.cure];
  }

  /** Room for so many cells, all of them empty: tiles are loaded over them. */
  private reserve(cells: number): void {
    const { arena } = this.painting;
    const floats = cells * this.stride;
    if (cells <= this.capacity) for (const plane of this.planes) arena.f32.fill(0, plane >> 2, (plane >> 2) + cells);
    else {
      for (const plane of this.planes) if (plane) arena.free(plane, this.capacity * 4);
      this.capacity = cells;
      this.relief = arena.allocate(cells * 4);
      this.body = arena.allocate(cells * 4);
      this.laid = arena.allocate(cells * 4);
      this.fresh = arena.allocate(cells * 4);
      this.cure = arena.allocate(cells * 4);
    }
    if (floats <= this.filmCapacity) arena.f32.fill(0, this.film >> 2, (this.film >> 2) + floats);
    else {
      if (this.film) arena.free(this.film, this.filmCapacity * 4);
      this.filmCapacity = floats;
      this.film = arena.allocate(floats * 4);
    }
  }

  /** Lays a tile out in the window. */
  private load(tx: number, ty: number): void {
    const { arena, tilesX, surface } = this.painting;
    const { f32 } = arena;
    const index = ty * tilesX + tx;
    const tile = this.layer.tiles[index];
    const { stride } = this;
    const wx = tx * TILE - this.x0;
    const wy = ty * TILE - this.y0;
    if (tile?.cure) this.curing = true;
    if (tile?.volume) {
      this.listPlanes(tile);
      const to = (this.film >> 2) + (wy * this.width + wx) * stride;
      this.mover.gather(this.list, stride, 0, TILE, to, stride, this.width * stride, TILE, TILE);
    }
    const cell = wy * this.width + wx;
    for (const [plane, mine] of [[tile?.body, this.body], [tile?.laid, this.laid], [tile?.cure, this.cure]] as const) {
      if (!plane) continue;
      for (let y = 0; y < TILE; y++) {
        const from = (plane >> 2) + y * TILE;
        f32.copyWithin((mine >> 2) + cell + y * this.width, from, from + TILE);
      }
    } // prettier-ignore
    // the support, then everything solid up to this layer
    const relief = (this.relief >> 2) + cell;
    for (let y = 0; y < TILE; y++) layRow(surface, tx * TILE, ty * TILE + y, f32, relief + y * this.width, TILE);
    for (const { plane, share } of solidUnder(this.painting, this.layer, index)) {
      this.mover.addShare(plane >> 2, TILE, share, relief, this.width, TILE, TILE);
    }
  }

  /** Lists the planes of a tile in the order of a cell's floats; 0 where it has no such plane. */
  private listPlanes(tile: Tile): void {
    const { i32 } = this.painting.arena;
    const n = this.channels;
    i32.fill(0, this.list, this.list + 2 * n);
    tile.pigments.forEach((pigment, k) => {
      const i = this.pigments.indexOf(pigment);
      i32[this.list + i] = tile.mass[k] >> 2;
      if (tile.skinVolume) i32[this.list + n + i] = tile.skin[k] >> 2;
    });
    i32[this.list + n - 1] = tile.volume >> 2;
    i32[this.list + 2 * n - 1] = tile.skinVolume >> 2;
  }

  /** Puts a tile back, keeping only planes that hold something. */
  private store(tx: number, ty: number): void {
    const { arena, tilesX } = this.painting;
    const index = ty * tilesX + tx;
    const n = this.channels;
    const wx = tx * TILE - this.x0;
    const wy = ty * TILE - this.y0;
    const max = this.maxima(wx, wy);
    const wet = max[n - 1] > 0 || this.pigments.some((_, i) => max[i] > 0);
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
        const cell = (wy + y) * this.width + wx;
        arena.f32.copyWithin((tile.laid >> 2) + y * TILE, (this.laid >> 2) + cell, (this.laid >> 2) + cell + TILE);
      }
    }
    tile.version++;
  }

  private storeWet(tile: Tile, wx: number, wy: number, max: Float64Array): void {
    const { arena } = this.painting;
    const n = this.channels;
    const { stride } = this;
    tile.wet();
    const onTop = max[2 * n - 1] > 0;
    if (!onTop) tile.dropSkin();
    const planes = this.pigments.map((p, i) => (max[i] > TRACE_COATS ? tile.massPlane(p) : 0));
    if (onTop) tile.skinned();
    const { f32 } = arena;
    this.pigments.forEach((pigment, i) => {
      if (planes[i]) return;
      tile.dropPigment(pigment);
      if (max[i] === 0) return;
      // too little to be seen anywhere in this tile
      let sum = 0;
      for (let y = 0; y < TILE; y++) {
        const at = (this.film >> 2) + ((wy + y) * this.width + wx) * stride + i;
        for (let x = 0; x < TILE; x++) {
          sum += f32[at + x * stride];
          f32[at + x * stride] = 0;
          f32[at + n + x * stride] = 0;
        }
      }
      this.painting.ledger.removed[pigment] += sum * this.painting.cellArea;
    });
    tile.pigments.filter((p) => !this.pigments.includes(p)).forEach((p) => tile.dropPigment(p));
    this.listPlanes(tile);
    const first = (this.film >> 2) + (wy * this.width + wx) * stride;
    this.mover.scatter(this.list, stride, 0, TILE, first, stride, this.width * stride, TILE, TILE);
    for (let y = 0; y < TILE; y++) {
      const cell = (wy + y) * this.width + wx;
      f32.copyWithin((tile.body >> 2) + y * TILE, (this.body >> 2) + cell, (this.body >> 2) + cell + TILE);
    }
    if (this.curing) this.storeCure(tile, wx, wy);
  }

  /** Keeps the plane of drying only where something has begun to dry. */
  private storeCure(tile: Tile, wx: number, wy: number): void {
    const { f32 } = this.painting.arena;
    let any = false;
    for (let y = 0; y < TILE && !any; y++) {
      const at = (this.cure >> 2) + (wy + y) * this.width + wx;
      for (let x = 0; x < TILE; x++) any ||= f32[at + x] > 0;
    }
    if (!any) {
      tile.dropCure();
      return;
    }
    tile.curing();
    const after = this.painting.arena.f32;
    for (let y = 0; y < TILE; y++) {
      const from = (this.cure >> 2) + (wy + y) * this.width + wx;
      after.copyWithin((tile.cure >> 2) + y * TILE, from, from + TILE);
    }
  }

  /** Largest value of every float of a cell in a tile of the window, then of `laid`; zeroes what is next to nothing. */
  private maxima(wx: number, wy: number): Float64Array {
    const { f32 } = this.painting.arena;
    const { stride } = this;
    const max = new Float64Array(stride + 1);
    const first = (this.film >> 2) + (wy * this.width + wx) * stride;
    this.mover.tidy(first, stride, this.width * stride, TILE, TILE, FLUSH_COATS, this.most);
    max.set(f32.subarray(this.most, this.most + stride));
    for (let y = 0; y < TILE; y++) {
      const laid = (this.laid >> 2) + (wy + y) * this.width + wx;
      for (let x = 0; x < TILE; x++) if (f32[laid + x] > max[stride]) max[stride] = f32[laid + x];
    }
    return max;
  }

  private copyFresh() {
    const { x0, y0, width, height } = this;
    const at = this.fresh >> 2;
    return { x0, y0, width, height, plane: this.painting.arena.f32.slice(at, at + width * height) };
  }

  private pasteFresh(old: { x0: number; y0: number; width: number; height: number; plane: Float32Array }): void {
    const { f32 } = this.painting.arena;
    const left = Math.max(this.x0, old.x0);
    const right = Math.min(this.x0 + this.width, old.x0 + old.width);
    const top = Math.max(this.y0, old.y0);
    const bottom = Math.min(this.y0 + this.height, old.y0 + old.height);
    if (right <= left) return;
    for (let y = top; y < bottom; y++) {
      const from = (y - old.y0) * old.width + left - old.x0;
      f32.set(
        old.plane.subarray(from, from + right - left),
        (this.fresh >> 2) + (y - this.y0) * this.width + left - this.x0,
      );
    }
  }
}

/** Copies by the plain loops. */
const plainMover = ({ arena }: Painting): Mover => ({
  gather: (...p) => gather([arena.f32, arena.i32], ...p),
  scatter: (...p) => scatter([arena.f32, arena.i32], ...p),
  tidy: (...p) => tidy([arena.f32, arena.i32], ...p),
  addShare: (...p) => addShare([arena.f32, arena.i32], ...p),
});

/** The nearest visible paint layer below one. */
function layerBelow({ layers }: Painting, layer: Layer): Layer | undefined {
  return layers.slice(0, Math.max(0, layers.indexOf(layer))).findLast((l) => l.kind === 'paint' && l.visible && !l.look.locked);
} // prettier-ignore
