import { coverageOf } from './coverage';
import type { Layer } from './layer';
import type { Painting } from './painting';
import { TILE, TILE_CELLS, type Tile, type TileImage } from './tile';
import { COATS } from './wash';
import type { BeforeTile } from '@/core/film/window/window';

/**
 * What holds a stroke back: the selection, and layers that take paint only where they have some. Nothing lands where a
 * guard is shut and nothing is taken from there; where it is half open, half of what the stroke did stays. What it holds
 * back of the paint that was laid counts as removed, as on masking tape.
 */
export class Guard {
  private readonly known = new Map<number, { shares: Uint8Array | undefined; before: TileImage | undefined }>();

  private constructor(
    private readonly painting: Painting,
    private readonly layer: Layer,
  ) {}

  /** The guard of a stroke on a layer; none where nothing is held back. */
  static of(painting: Painting, layer: Layer): Guard | undefined {
    return painting.layers.includes(layer) && (painting.selected || layer.look.onlyPaint)
      ? new Guard(painting, layer)
      : undefined;
  }

  /** Notes each tile before it is changed for the first time. */
  wrap(before: BeforeTile): BeforeTile {
    return (layer, index) => {
      if (layer === this.layer) this.note(index);
      before(layer, index);
    };
  }

  /** How far each cell of a tile is open, 0..255; undefined where all of it is shut. */
  shares(index: number): Uint8Array | undefined {
    return this.note(index).shares;
  }

  /** How far one cell is open, 0..1. */
  at(px: number, py: number): number {
    const shares = this.shares((py >> 6) * this.painting.tilesX + (px >> 6));
    return shares ? shares[(py & 63) * TILE + (px & 63)] / 255 : 0;
  }

  private note(index: number) {
    let known = this.known.get(index);
    if (!known) {
      known = { shares: this.sharesAtFirst(index), before: this.layer.capture(index, this.painting.arena) };
      this.known.set(index, known);
    }
    return known;
  }

  private sharesAtFirst(index: number): Uint8Array | undefined {
    const { painting, layer } = this;
    const selected = painting.selected ? painting.selection.tiles[index]?.mask : new Uint8Array(TILE_CELLS).fill(255);
    if (!selected || !layer.look.onlyPaint) return selected;
    const cover = coverageOf(painting, layer, index);
    return cover && selected.map((v, i) => Math.round(v * cover[i]));
  }

  /** Puts the wet film of shut cells back in a tile that is shown in passing. */
  hide(tile: Tile, index: number): void {
    const { shares, before } = this.note(index);
    this.blend(tile, before, (i) => (!shares || shares[i] === 0 ? 0 : 1), false);
  }

  /** What a plane of the wet film held in a cell at first. */
  film(index: number): { pigments: readonly number[]; planes: readonly Float32Array[]; skin: readonly Float32Array[] } {
    const { before } = this.note(index);
    return { pigments: before?.pigments ?? [], planes: before?.planes ?? [], skin: before?.skin ?? [] };
  }

  /** The stroke is over: cells that are half open keep half of what it did, shut ones nothing. */
  settle(): void {
    for (const [index, { shares, before }] of this.known) {
      const tile = this.layer.tiles[index];
      if (!tile || (shares && shares.every((v) => v === 255))) continue;
      this.blend(tile, before, (i) => (shares ? shares[i] / 255 : 0), true);
      tile.version++;
    }
  }

  /** Makes each amount of a tile what it was plus a share of what has come. */
  private blend(tile: Tile, before: TileImage | undefined, share: (cell: number) => number, book: boolean): void {
    const { arena, ledger, cellArea } = this.painting;
    const keep = Float32Array.from({ length: TILE_CELLS }, (_, i) => share(i));
    const one = (address: number, was: Float32Array | undefined, pigment?: number) => {
      if (!address) return;
      const at = address >> 2;
      const { f32 } = arena;
      let gone = 0;
      for (let i = 0; i < TILE_CELLS; i++) {
        if (keep[i] === 1) continue;
        const old = was ? was[i] : 0;
        const now = f32[at + i];
        const next = old + keep[i] * (now - old);
        gone += now - next;
        f32[at + i] = next;
      }
      if (book && pigment !== undefined) ledger.removed[pigment] += gone * cellArea;
    };
    const { pigments = [], planes = [], skin = [] } = before ?? {};
    if (planes.length > 0 || tile.volume) {
      tile.wet();
      for (const pigment of pigments) tile.massPlane(pigment);
      if (skin.length > 0) tile.skinned();
      if (planes.length > pigments.length + 2) tile.curing();
      // stiffness and drying belong to the paint that is there
      one(tile.body, planes[pigments.length + 1]);
      one(tile.cure, planes[pigments.length + 2]);
      one(tile.volume, planes[pigments.length]);
      one(tile.skinVolume, skin[pigments.length]);
      tile.pigments.forEach((pigment, k) => {
        const there = pigments.indexOf(pigment);
        one(tile.mass[k], planes[there], pigment);
        if (tile.skinVolume) one(tile.skin[k], there < 0 ? undefined : skin[there]);
      });
    }
    const { wash } = tile;
    if (!wash) return;
    const old = before?.wash;
    for (const coat of COATS) {
      for (const pigment of [...new Set([...wash.pigments, ...(old?.pigments ?? [])])]) {
        const was = old?.coats[coat][old.pigments.indexOf(pigment)];
        const k = wash.pigments.indexOf(pigment);
        if (was || wash.coats[coat][k]) one(wash.plane(coat, pigment), was, pigment);
      }
    }
  }
}
