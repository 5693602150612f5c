import type { Arena } from './arena';
import type { Basin } from './basin';
import { Copies } from './copies';
import { captureTile, restoreTile, Tile, type TileImage } from './tile';

/** `paint` takes wet paint; `drawing` takes sticks and ink and is kept apart from the paint. */
export type LayerKind = 'paint' | 'drawing';

/** One layer of a painting: tiles only where something is. */
export class Layer {
  visible = true;
  /** Share of its effect that is seen; its paint stays as it is. */
  opacity = 1;
  readonly tiles: (Tile | undefined)[];
  /** Its water, while there is some. */
  basin: Basin | undefined;

  constructor(
    readonly id: string,
    public name: string,
    readonly kind: LayerKind,
    tileCount: number,
  ) {
    this.tiles = new Array<Tile | undefined>(tileCount);
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
  restore(index: number, image: TileImage | undefined, arena: Arena, bands: number, fill: () => Basin): void {
    if (image) restoreTile(arena, this.ensureTile(index, arena), image);
    else {
      this.tiles[index]?.dispose(bands);
      this.tiles[index] = undefined;
    }
    if (image?.water) this.basin ??= fill();
    this.basin?.restore(index, image?.water);
  }
}
