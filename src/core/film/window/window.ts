import { addShare, gather, scatter, tidy, type Mover } from '@/core/film/packing/interleave';
import type { Guard } from '@/core/film/guard';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import type { PixelRect } from '@/core/film/pixelRect';
import { TILE } from '@/core/film/tile';
import { tilesIn } from '@/core/film/tilesIn';
import { takeFromBelow, tidyBelow, type Below } from '@/core/film/wetThrough';
import { holdBack } from './windowGuard';
import type { BeforeTile, CellRect, WindowPlanes } from './windowPlanes';
import { WindowTiles } from './windowTiles';

export type { BeforeTile };

/** Cells around the tiles of a window: paint pushed over the painting's edge lands there, and is gone. */
const RING = 24;

const emptyRect = (): CellRect => ({ left: Infinity, top: Infinity, right: -1, bottom: -1 });

/**
 * A dense stretch of one layer around the brush. A brush works on cells that lie side by side, whatever tiles they
 * belong to and whichever way it is turned, so tiles are laid out here while it passes and put back behind it.
 * Copying is exact: where the borders of tiles or windows lie makes no difference to the paint.
 */
export class FilmWindow implements WindowPlanes {
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
  private readonly below: Below | undefined;
  private readonly tiles: WindowTiles;
  private capacity = 0;
  private filmCapacity = 0;
  private loaded = false;
  /** Whether anything in the window has begun to dry. */
  curing = false;
  /** Cells changed since the last flush, and since they were last shown (window coordinates). */
  private dirty = emptyRect();
  private unseen = emptyRect();

  constructor(
    private readonly painting: Painting,
    private readonly layer: Layer,
    before: BeforeTile,
    /** What `laid` means in this stroke: paint left (false) or share taken off (true). */
    private readonly rubbing = false,
    mover: Mover = plainMover(painting),
    private readonly guard?: Guard,
  ) {
    const lower = layer.look.wetThrough ? layerBelow(painting, layer) : undefined;
    this.below = lower && { painting, lower, before, guard };
    this.tiles = new WindowTiles(this, painting, layer, before, rubbing, mover, guard);
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
        this.below?.lower.tiles[ty * tilesX + tx]?.pigments.forEach((p) => present.add(p));
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
    for (let ty = ty0; ty < ty1; ty++) for (let tx = tx0; tx < tx1; tx++) this.tiles.load(tx, ty);
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
    if (this.guard)
      this.eachTile(this.dirty, (tx, ty) => holdBack(this, this.painting, this.guard!, this.rubbing, tx, ty));
    this.eachTile(this.dirty, (tx, ty) => this.tiles.store(tx, ty));
    this.dirty = emptyRect();
    this.unseen = emptyRect();
  }

  /** Copies changed cells to their tiles so that they can be looked at; changes nothing in the window. */
  publish(): void {
    this.eachTile(this.unseen, (tx, ty, part) => this.tiles.show(tx, ty, part));
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

  /**
   * Takes up wet paint of the layer below around a place, where this one lets it through. Cells of the painting.
   * @param within cells that lie in the window
   */
  takeFromBelow(x: number, y: number, reach: number, within: CellRect): void {
    if (!this.below) return;
    const { left, top, right, bottom } = takeFromBelow(this, this.below, { x, y, reach }, within);
    this.touch(left - this.x0, top - this.y0, right - this.x0, bottom - this.y0);
  }

  /** Calls back for the tiles of the painting in a rectangle of the window, with the part of each that lies in it. */
  private eachTile(d: CellRect, visit: (tx: number, ty: number, part: PixelRect) => void): void {
    if (!this.loaded || d.right < d.left) return;
    const { tilesX, tilesY } = this.painting;
    const inside = {
      left: Math.max(0, this.x0 + d.left),
      top: Math.max(0, this.y0 + d.top),
      right: Math.min(tilesX * TILE, this.x0 + d.right + 1),
      bottom: Math.min(tilesY * TILE, this.y0 + d.bottom + 1),
    };
    for (const { index, part } of tilesIn(inside, tilesX)) visit(index % tilesX, Math.floor(index / tilesX), part);
  }

  /** Gives the window's memory back. */
  dispose(): void {
    const { arena } = this.painting;
    for (const plane of this.planes) if (plane) arena.free(plane, this.capacity * 4);
    this.tiles.dispose();
    if (this.below) tidyBelow(this.below);
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
  return layers
    .slice(0, Math.max(0, layers.indexOf(layer)))
    .findLast((l) => l.kind === 'paint' && l.visible && !l.look.locked);
}
