import type { Change } from '@/core/commands/change';
import type { Layer } from '@/core/film/layer';
import type { TileImage } from '@/core/film/tile';
import { imageBytes, type Moment } from '@/core/journal/moment';
import type { Studio } from '@/core/journal/studio';

/** A state of a painting, whole: what its tiles were, in the stack that it had. */
interface Kept {
  /** How many commands of the history led to it. */
  readonly at: number;
  /** What it had cost to come to it from the empty ground, in whatever the player counts. */
  readonly cost: number;
  readonly moment: Moment;
}

/** Images of tiles of a layer, with the version of the tile that they are of. */
type Images = Map<number, { readonly version: number; readonly image: TileImage }>;

/**
 * Whole states of a painting along its history, so that any of its moments is near one of them. A tile that has not
 * changed from one state to the next is kept once. When they take more room than there is, the one goes without which
 * the longest way between two of them stays shortest.
 */
export class KeptMoments {
  private all: Kept[] = [];
  /** Of tiles as they are in the studio, or were when they were kept last. */
  private readonly images = new Map<Layer, Images>();

  /** @param studio the one that is wound back and forth, @param mostBytes that tiles may take */
  constructor(
    private readonly studio: Studio,
    private readonly mostBytes: number,
  ) {}

  /** How far along the history there are kept states; 0 where there are none. */
  get reach(): { readonly at: number; readonly cost: number } {
    return this.all.at(-1) ?? { at: 0, cost: 0 };
  }

  /** Keeps the state as it is. */
  keep(at: number, cost: number): void {
    const { state } = this.studio;
    const moment = state.moment(at);
    for (const layer of this.studio.allLayers) moment.tiles.set(layer, this.tilesOf(layer));
    this.all = [...this.all.filter((kept) => kept.at < at), { at, cost, moment }];
    while (this.all.length > 2 && this.bytes > this.mostBytes) this.dropOne();
  }

  private tilesOf(layer: Layer): Map<number, TileImage> {
    const { arena } = this.studio.painting;
    const before = this.images.get(layer);
    const now: Images = new Map();
    layer.forEachTile((tile, index) => {
      const known = before?.get(index);
      // water moves without the tile being told
      const same = known && known.version === tile.version && !layer.basin;
      now.set(index, same ? known : { version: tile.version, image: layer.capture(index, arena)! });
    });
    this.images.set(layer, now);
    return new Map([...now].map(([index, { image }]) => [index, image]));
  }

  /** The last state that is kept at or before a place in the history. */
  nearest(at: number): number | undefined {
    return this.all.findLast((kept) => kept.at <= at)?.at;
  }

  /** Brings the studio to a state that is kept. No stroke may be in the air. @returns what changed, and its cost */
  goTo(at: number): { readonly change: Change; readonly cost: number } {
    const { moment, cost } = this.all.find((kept) => kept.at === at)!;
    const { studio } = this;
    const canvas = moment.structure.painting !== studio.painting;
    const tiles: Moment['tiles'] = new Map();
    for (const layer of new Set([...studio.allLayers, ...moment.tiles.keys()])) {
      const images = moment.tiles.get(layer);
      // what lies on the canvas that goes is given back with it
      if (images || !canvas) tiles.set(layer, this.differing(layer, images, canvas));
    }
    const change = studio.state.goTo({ ...moment, tiles });
    for (const [layer, put] of tiles) {
      const known: Images = this.images.get(layer) ?? new Map();
      for (const [index, image] of put) {
        const tile = layer.tiles[index];
        if (tile && image) known.set(index, { version: tile.version, image });
        else known.delete(index);
      }
      this.images.set(layer, known);
    }
    return { change, cost };
  }

  /** Tiles of a layer that are not as they are to be. @param all whether to take all of them */
  private differing(
    layer: Layer,
    images: ReadonlyMap<number, TileImage | undefined> | undefined,
    all: boolean,
  ): Map<number, TileImage | undefined> {
    const put = new Map<number, TileImage | undefined>();
    layer.forEachTile((_, index) => put.set(index, undefined));
    for (const [index, image] of images ?? []) {
      const there = this.images.get(layer)?.get(index);
      const same = there?.image === image && there?.version === layer.tiles[index]?.version && !layer.basin;
      if (same && !all) put.delete(index);
      else put.set(index, image);
    }
    return put;
  }

  /** Bytes of the planes of all tiles that are kept, each counted once; dry paint and pixels are shared and not counted. */
  get bytes(): number {
    const seen = new Set<TileImage>();
    let bytes = 0;
    for (const { moment } of this.all) {
      for (const tiles of moment.tiles.values()) {
        for (const image of tiles.values()) {
          if (!image || seen.has(image)) continue;
          seen.add(image);
          bytes += imageBytes(image);
        }
      }
    }
    return bytes;
  }

  private dropOne(): void {
    const { all } = this;
    let least = 1;
    for (let i = 1; i < all.length - 1; i++) {
      if (all[i + 1].cost - all[i - 1].cost < all[least + 1].cost - all[least - 1].cost) least = i;
    }
    this.all = all.filter((_, i) => i !== least);
  }
}
