import { deflateSync, inflateSync, strFromU8, strToU8 } from 'fflate';
import type { Layer } from '@/core/film/layer';
import type { LayerLook } from '@/core/film/layerLook';
import type { Painting } from '@/core/film/painting';
import type { TileImage } from '@/core/film/tile';
import type { Moment } from '@/core/journal/moment';
import { decodeMoment, encodeMoment, studioStateSchema, type StudioState } from '@/core/journal/snapshot';
import type { Studio } from '@/core/journal/studio';
import { packedTile, unpackedTile } from './packing';
import { readTile, type SnapshotManifest, type StoredMoment } from './shelf';

/**
 * Steps that can be taken back at once after reopening, some more than need be: those that are taken back count no more
 * at the next. Fewer where they have changed more tiles than that.
 */
const STEPS = 32;
const MOST_TILES = 500;

/** Something small that waits to be written, packed when its turn comes. */
export interface Piece {
  readonly key: string;
  readonly bytes: () => Uint8Array;
}

export const pieceOf = (key: string, image: TileImage): Piece => ({ key, bytes: () => packedTile(image) });

/**
 * What lay under the last steps of a painting, as it is stored beside its newest snapshot. A step is written once, and
 * again only where time has changed more tiles after it.
 */
export class KeptPast {
  private stored = new WeakMap<Moment, StoredMoment>();

  /**
   * The last steps of a studio, and what of them is not stored yet.
   * @param id of the painting @param serial makes keys of their own
   */
  list(studio: Studio, id: string, serial: string): { past: StoredMoment[]; pieces: Piece[] } {
    const past: StoredMoment[] = [];
    const pieces: Piece[] = [];
    let room = MOST_TILES;
    for (const moment of [...studio.timeline.pastKept(STEPS)].reverse()) {
      const count = [...moment.tiles.values()].reduce((sum, tiles) => sum + tiles.size, 0);
      if ((room -= count) < 0) break;
      let known = this.stored.get(moment);
      if (known?.tiles.length !== count) {
        const made = write(studio, moment, `${id}/past-${serial}-${moment.timeline}`);
        pieces.push(...made.pieces);
        this.stored.set(moment, (known = made.stored));
      }
      past.unshift(known);
    }
    return { past, pieces };
  }

  /** Nothing of what was listed is stored for sure. */
  forget(): void {
    this.stored = new WeakMap();
  }

  /**
   * Reads the steps before a snapshot, and puts them back into the studio that was opened from it, the latest first, as
   * far as they are there. Yields after each.
   */
  async *putBack(studio: Studio, { past = [] }: SnapshotManifest): AsyncGenerator<undefined, void, undefined> {
    const known: { layer: Layer; look: LayerLook }[] = [];
    for (const stored of [...past].reverse()) {
      const unpacked = await unpack(stored);
      // nothing is waited for from here on: what was kept meets the studio as it is now
      const stack = studio.timeline.awaitedPast;
      if (!unpacked || !stack) break;
      known.push(...stack.layers, ...studio.allLayers.map((layer) => ({ layer, look: layer.look })));
      const moment = momentFrom(stored, unpacked, stack.painting, known);
      if (!moment || !studio.timeline.putBackStep(moment)) break; // what lies before it would leave a gap
      this.stored.set(moment, stored);
      yield;
    }
    studio.timeline.awaitNoMore();
  }
}

function write(studio: Studio, moment: Moment, key: string): { stored: StoredMoment; pieces: Piece[] } {
  const tiles: { layer: string; index: number; key?: string }[] = [];
  const pieces: Piece[] = [];
  for (const [layer, images] of moment.tiles) {
    for (const [index, image] of images) {
      const at = image && `${key}-${layer.id}-${index}`;
      tiles.push({ layer: layer.id, index, ...(at && { key: at }) });
      if (at) pieces.push(pieceOf(at, image));
    }
  }
  pieces.push({ key, bytes: () => deflateSync(strToU8(JSON.stringify(encodeMoment(studio, moment))), { level: 1 }) });
  return { stored: { key, timeline: moment.timeline, tiles }, pieces };
}

interface Unpacked {
  readonly state: StudioState;
  readonly images: ReadonlyMap<string, TileImage>;
}

/** Everything that is stored of a step; undefined when something is not there, or is damaged. */
async function unpack({ key, tiles }: StoredMoment): Promise<Unpacked | undefined> {
  const keys = tiles.flatMap((tile) => tile.key ?? []);
  const [state, ...packed] = await Promise.all([key, ...keys].map(readTile));
  if (!state || packed.includes(null)) return undefined;
  try {
    return {
      state: studioStateSchema.parse(JSON.parse(strFromU8(inflateSync(state)))),
      images: new Map(keys.map((k, i) => [k, unpackedTile(packed[i]!)])),
    };
  } catch {
    return undefined; // it is painted when it is asked for
  }
}

/** A step as a moment of a studio; undefined where it has to do with something that is not there. */
function momentFrom(
  { timeline, tiles: listed }: StoredMoment,
  { state, images }: Unpacked,
  painting: Painting,
  known: Parameters<typeof decodeMoment>[1]['known'],
): Moment | undefined {
  const tiles = new Map<Layer, Map<number, TileImage | undefined>>();
  for (const { layer: id, index, key } of listed) {
    const layer = known.find((one) => one.layer.id === id)?.layer;
    if (!layer || index >= layer.tiles.length) return undefined;
    if (!tiles.has(layer)) tiles.set(layer, new Map());
    tiles.get(layer)!.set(index, key === undefined ? undefined : images.get(key));
  }
  return decodeMoment(state, { tiles, timeline, painting, known });
}
