import { deflateSync, inflateSync } from 'fflate';
import type { Layer } from '@/core/film/layer';
import type { Tile, TileImage } from '@/core/film/tile';
import { decodeTile, encodeTile } from '@/core/film/tileCodec';
import type { Command } from '@/core/journal/commands';
import { effectiveCommands } from '@/core/journal/history';
import { encodeStudioState, restoreStudioState, studioStateSchema } from '@/core/journal/snapshot';
import { Studio } from '@/core/journal/studio';
import {
  BLOCK_ENTRIES,
  readEntries,
  readSnapshot,
  readTile,
  removeTile,
  writeBlock,
  writeSnapshot,
  writeTile,
  type PaintingRecord,
  type SnapshotManifest,
} from './shelf';

/** A tile as it was when a snapshot was begun, waiting to be written. */
interface PendingTile {
  readonly layer: string;
  readonly index: number;
  readonly key: string;
  readonly image: TileImage;
}

/**
 * Keeps one painting: the journal at once after every command, and now and then a snapshot of the tiles, in the
 * background and a tile at a time, so that reopening does not have to paint everything again. A snapshot counts only
 * when its manifest is written, last; until then the one before holds.
 */
export class Keeping {
  entries: Command[];
  private writing: Promise<unknown> = Promise.resolve();
  private readonly unstored = new Set<number>();
  private readonly savedTiles = new Map<string, { version: number; tile: Tile; key: string }>();
  private snapshotEntries: number;
  private pending: { tiles: PendingTile[]; manifest: SnapshotManifest; stale: string[] } | undefined;
  private serial = Date.now();

  private constructor(
    readonly id: string,
    private readonly studio: Studio,
    entries: Command[],
    snapshot: SnapshotManifest | undefined,
  ) {
    this.entries = entries;
    this.snapshotEntries = snapshot?.entries ?? 0;
    for (const { layer, index, key } of snapshot?.tiles ?? []) {
      const tile = studio.layer(layer)?.tiles[index];
      if (tile) this.savedTiles.set(`${layer}:${index}`, { version: tile.version, tile, key });
    }
  }

  /** Opens a painting: the last snapshot, then the commands since. */
  static async open(record: PaintingRecord): Promise<{ studio: Studio; keeping: Keeping }> {
    const entries = await readEntries(record.id);
    const studio = new Studio(record.spec);
    const snapshot = await readSnapshot(record.id);
    let usable = snapshot && snapshot.entries <= entries.length ? snapshot : undefined;
    if (usable) {
      try {
        await putBack(studio, usable);
        studio.adoptHistory(effectiveCommands(entries.slice(0, usable.entries)));
      } catch {
        // the journal still has everything
        usable = undefined;
        const again = new Studio(record.spec);
        for (const entry of entries) again.apply(entry);
        return { studio: again, keeping: new Keeping(record.id, again, entries, undefined) };
      }
    }
    const keeping = new Keeping(record.id, studio, entries, usable);
    for (const entry of entries.slice(usable?.entries ?? 0)) studio.apply(entry);
    return { studio, keeping };
  }

  /** Writes a command down. Resolves when it is stored; rejects when it cannot be (it is then tried again with the next). */
  append(command: Command): Promise<unknown> {
    this.entries.push(command);
    return this.writeTail(Math.floor((this.entries.length - 1) / BLOCK_ENTRIES));
  }

  /** Resolves when everything said so far is stored. */
  async settled(): Promise<void> {
    await this.writing;
  }

  /** Commands that came since the last snapshot. */
  get sinceSnapshot(): number {
    return this.entries.length - (this.pending?.manifest.entries ?? this.snapshotEntries);
  }

  /** Begins a snapshot of the present state. Costs a copy of the tiles that changed. */
  beginSnapshot(): void {
    const { painting } = this.studio;
    const serial = (this.serial++).toString(36);
    const tiles: PendingTile[] = [];
    const listed: { layer: string; index: number; key: string }[] = [];
    const alive = new Set<string>();
    for (const layer of this.studio.allLayers) {
      layer.forEachTile((tile, index) => {
        if (tile.bare) return;
        const name = `${layer.id}:${index}`;
        alive.add(name);
        const saved = this.savedTiles.get(name);
        let key = saved?.key;
        if (!saved || saved.tile !== tile || saved.version !== tile.version) {
          key = `${this.id}/${layer.id}-${index}-${serial}`;
          tiles.push({ layer: layer.id, index, key, image: layer.capture(index, painting.arena)! });
        }
        listed.push({ layer: layer.id, index, key: key! });
      });
    }
    const stale = [...this.savedTiles]
      .filter(
        ([name, saved]) =>
          !alive.has(name) || tiles.some((t) => `${t.layer}:${t.index}` === name && t.key !== saved.key),
      )
      .map(([, saved]) => saved.key);
    for (const name of this.savedTiles.keys()) if (!alive.has(name)) this.savedTiles.delete(name);
    for (const t of tiles) {
      const tile = this.studio.layer(t.layer)!.tiles[t.index]!;
      this.savedTiles.set(`${t.layer}:${t.index}`, { version: tile.version, tile, key: t.key });
    }
    this.pending = {
      tiles,
      stale,
      manifest: { entries: this.entries.length, state: encodeStudioState(this.studio), tiles: listed },
    };
  }

  get snapshotInProgress(): boolean {
    return this.pending !== undefined;
  }

  /** Writes the next tile of the snapshot, or its manifest. @returns whether the snapshot is complete. */
  async continueSnapshot(): Promise<boolean> {
    const { pending } = this;
    if (!pending) return true;
    try {
      const tile = pending.tiles.shift();
      if (tile) {
        await writeTile(tile.key, deflateSync(encodeTile(tile.image), { level: 1 }));
        return false;
      }
      // entries before the state, then the state, then what nobody needs any more
      await this.writing;
      await writeSnapshot(this.id, pending.manifest);
    } catch (error) {
      this.pending = undefined;
      this.savedTiles.clear();
      throw error;
    }
    this.snapshotEntries = pending.manifest.entries;
    this.pending = undefined;
    for (const key of pending.stale) await removeTile(key);
    return true;
  }

  /** Stores a block, and before it those that could not be stored when it was their turn. */
  private writeTail(block: number): Promise<unknown> {
    this.unstored.add(block);
    this.writing = this.writing
      .catch(() => {})
      .then(async () => {
        for (const due of [...this.unstored].sort((p, q) => p - q)) {
          await writeBlock(this.id, due, this.entries.slice(due * BLOCK_ENTRIES, (due + 1) * BLOCK_ENTRIES));
          this.unstored.delete(due);
        }
      });
    return this.writing;
  }
}

async function putBack(studio: Studio, manifest: SnapshotManifest): Promise<void> {
  restoreStudioState(studio, studioStateSchema.parse(manifest.state));
  await Promise.all(
    manifest.tiles.map(async ({ layer, index, key }) => {
      const packed = await readTile(key);
      const into: Layer | undefined = studio.layer(layer);
      if (!packed || !into) throw new RangeError('The snapshot is not complete.');
      const { arena } = studio.painting;
      into.restore(index, decodeTile(inflateSync(packed)), arena, () => studio.painting.newBasin());
    }),
  );
}
