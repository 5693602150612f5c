import type { Arena } from './arena';
import { Tile } from './tile';

/** `paint` takes wet paint; `drawing` takes graphite and is kept apart from the paint. */
export type LayerKind = 'paint' | 'drawing';

/** One layer of a painting: tiles only where something is. */
export class Layer {
  visible = true;
  readonly tiles: (Tile | undefined)[];

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
}
