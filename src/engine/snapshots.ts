import { deflateSync, inflateSync } from 'fflate';
import type { Tile, TileImage } from '@/core/film/tile';
import { decodeTile, encodeTile } from '@/core/film/tileCodec';
import { encodeStudioState, restoreStudioState, studioStateSchema } from '@/core/journal/snapshot';
import type { Studio } from '@/core/journal/studio';
import {
  readTile,
  removeSnapshot,
  removeTile,
  writeSnapshot,
  writeTile,
  type SnapshotManifest,
  type StoredSnapshot,
} from './shelf';

/** A tile as it was when a snapshot was begun, waiting to be written. */
interface PendingTile {
  readonly key: string;
  readonly image: TileImage;
}

/** Where each tile of a state is stored, by layer and index; and which tile at which version that was. */
export type SavedTiles = Map<string, { version: number; tile: Tile; key: string }>;

/** Older snapshots are kept at intervals of so many entries, so many of each. */
const KEPT = [
  { every: 40, count: 3 },
  { every: 320, count: 2 },
] as const;

/**
 * Snapshots of a painting: complete states, so that reopening and going far back do not have to paint everything again.
 * Tiles are written one at a time in the background, and only those that have changed; the manifest comes last, and
 * only then does a snapshot count. Older ones are kept at growing intervals and share the tiles that did not change.
 */
export class Snapshots {
  private saved: SavedTiles = new Map();
  private pending: { tiles: PendingTile[]; written: string[]; manifest: SnapshotManifest } | undefined;
  private serial = Date.now();

  constructor(
    private readonly id: string,
    private stored: StoredSnapshot[],
  ) {}

  /** From now on the state is that of a studio in which these tiles are stored already. */
  adopt(saved: SavedTiles): void {
    this.saved = saved;
    const { pending } = this;
    this.pending = undefined;
    for (const key of pending?.written ?? []) void removeTile(key).catch(() => {});
  }

  /** Complete ones, the newest first. */
  get all(): readonly StoredSnapshot[] {
    return this.stored;
  }

  /** Entries of the newest one, or of the one that is being written. */
  get entries(): number {
    return this.pending?.manifest.entries ?? this.stored[0]?.manifest.entries ?? 0;
  }

  get inProgress(): boolean {
    return this.pending !== undefined;
  }

  /** Begins a snapshot of the present state. Costs a copy of the tiles that changed. */
  begin(studio: Studio, entries: number, sum: string | undefined): void {
    const { painting } = studio;
    const serial = (this.serial++).toString(36);
    const tiles: PendingTile[] = [];
    const listed: { layer: string; index: number; key: string }[] = [];
    const now: SavedTiles = new Map();
    for (const layer of studio.allLayers) {
      layer.forEachTile((tile, index) => {
        if (tile.bare) return;
        const name = `${layer.id}:${index}`;
        const before = this.saved.get(name);
        let key = before?.key;
        if (!before || before.tile !== tile || before.version !== tile.version) {
          key = `${this.id}/${layer.id}-${index}-${serial}`;
          tiles.push({ key, image: layer.capture(index, painting.arena)! });
        }
        listed.push({ layer: layer.id, index, key: key! });
        now.set(name, { version: tile.version, tile, key: key! });
      });
    }
    this.saved = now;
    const manifest = { entries, ...(sum && { sum }), state: encodeStudioState(studio), tiles: listed };
    this.pending = { tiles, written: [], manifest };
  }

  /**
   * Writes the next tiles, or the manifest once everything before it is stored.
   * @param many how many tiles are written at once
   * @param before resolves when the journal is stored up to the snapshot
   * @returns whether the snapshot is complete
   */
  async next(before: () => Promise<unknown>, many = 1): Promise<boolean> {
    const { pending } = this;
    if (!pending) return true;
    try {
      const tiles = pending.tiles.splice(0, many);
      if (tiles.length > 0) {
        pending.written.push(...tiles.map(({ key }) => key));
        await Promise.all(tiles.map(({ key, image }) => writeTile(key, deflateSync(encodeTile(image), { level: 1 }))));
        return false;
      }
      await before();
      const key = `${this.id}/${String(pending.manifest.entries).padStart(8, '0')}-${(this.serial++).toString(36)}`;
      await writeSnapshot(key, pending.manifest);
      this.stored = [{ key, manifest: pending.manifest }, ...this.stored];
    } catch (error) {
      if (this.pending === pending) this.pending = undefined;
      this.saved = new Map();
      for (const key of pending.written) await removeTile(key).catch(() => {});
      throw error;
    }
    if (this.pending === pending) this.pending = undefined;
    await this.keepOnly(thinned(this.stored));
    return true;
  }

  /** Removes all snapshots but the newest, to make room. @returns whether there was anything to remove */
  async makeRoom(): Promise<boolean> {
    if (this.stored.length < 2) return false;
    await this.keepOnly(this.stored.slice(0, 1));
    return true;
  }

  private async keepOnly(kept: StoredSnapshot[]): Promise<void> {
    const gone = this.stored.filter((one) => !kept.includes(one));
    this.stored = kept;
    const needed = new Set(kept.flatMap(({ manifest }) => manifest.tiles.map((t) => t.key)));
    for (const { key } of this.saved.values()) needed.add(key);
    for (const tile of this.pending?.manifest.tiles ?? []) needed.add(tile.key);
    for (const { key, manifest } of gone) {
      await removeSnapshot(key);
      for (const tile of manifest.tiles) if (!needed.has(tile.key)) await removeTile(tile.key);
    }
  }
}

/** The newest snapshot, and older ones at intervals. @param all the newest first */
export function thinned(all: readonly StoredSnapshot[]): StoredSnapshot[] {
  const kept = new Set(all.slice(0, 1));
  for (const { every, count } of KEPT) {
    const blocks = new Map<number, StoredSnapshot>();
    // the first of each block: the oldest comes last
    for (const one of all) blocks.set(Math.floor(one.manifest.entries / every), one);
    for (const one of [...blocks].sort(([a], [b]) => b - a).slice(0, count)) kept.add(one[1]);
  }
  return all.filter((one) => kept.has(one));
}

/**
 * Puts a snapshot into a fresh studio.
 * @returns where its tiles are stored
 * @throws when it is not complete or makes no sense: the studio is then of no use
 */
export async function restoreSnapshot(studio: Studio, manifest: SnapshotManifest): Promise<SavedTiles> {
  restoreStudioState(studio, studioStateSchema.parse(manifest.state));
  const saved: SavedTiles = new Map();
  const { arena } = studio.painting;
  await Promise.all(
    manifest.tiles.map(async ({ layer, index, key }) => {
      const packed = await readTile(key);
      const into = studio.layer(layer);
      if (!packed || !into || index >= into.tiles.length) throw new RangeError('The snapshot is not complete.');
      into.restore(index, decodeTile(inflateSync(packed)), arena, () => studio.painting.newBasin());
      const tile = into.tiles[index]!;
      saved.set(`${layer}:${index}`, { version: tile.version, tile, key });
    }),
  );
  return saved;
}
