import type { Arena } from './arena';
import type { Basin } from './basin';
import { Copies } from '@/core/film/packing/copies';
import { PLAIN_LOOK, type LayerKind, type LayerLook } from './layerLook';
import { captureTile, restoreTile, Tile, type TileImage } from './tile';

export type { LayerKind };

/** One layer of a painting: tiles only where something is. */
export class Layer {
  look: LayerLook;
  readonly tiles: (Tile | undefined)[];
  /** Its water, while there is some. */
  basin: Basin | undefined;

  constructor(
    readonly id: string,
    name: string,
    readonly kind: LayerKind,
    tileCount: number,
  ) {
    this.look = { ...PLAIN_LOOK, name };
    this.tiles = new Array<Tile | undefined>(tileCount);
  }

  get name(): string {
    return this.look.name;
  }
  get visible(): boolean {
    return this.look.visible;
  }
  get opacity(): number {
    return this.look.opacity;
  }

  /** The tile at an index, made when it is missing. */
  ensureTile(index: number, arena: Arena): Tile {
    return (this.tiles[index] ??= new Tile(arena));
  }

  /** Calls back for every tile that exists, in order. */
  forEachTile(visit: (tile: Tile, index: number) => void): void {
    this.tiles.forEach((tile, index) => {
      if (tile) visit(tile, index);
    });
  }

  /** A copy of a tile with the water on it; undefined when there is no tile. */
  capture(index: number, arena: Arena): TileImage | undefined {
    const tile = this.tiles[index];
    if (!tile) return undefined;
    const copies = new Copies(arena, tile.words + (this.basin?.words(index) ?? 0));
    const image = captureTile(arena, tile, copies);
    const water = this.basin?.capture(index, copies);
    return water ? { ...image, water } : image;
  }

  /**
   * Puts a copy back, or removes the tile.
   * @param fill makes the water of this layer when it has none
   */
  restore(index: number, image: TileImage | undefined, arena: Arena, fill: () => Basin): void {
    if (image) restoreTile(arena, this.ensureTile(index, arena), image);
    else {
      this.tiles[index]?.dispose();
      this.tiles[index] = undefined;
    }
    if (image?.water) this.basin ??= fill();
    this.basin?.restore(index, image?.water);
  }
}
