import type { Tile } from '@/core/film/tile';
import { encodeStudioState, restoreStudioState, studioStateSchema } from '@/core/journal/snapshot';
import type { Studio } from '@/core/journal/studio';
import { KeptPast, pieceOf, type Piece } from './keptPast';
import { unpackedTile } from './packing';
import {
  keysIn,
  readTile,
  removeSnapshot,
  removeTile,
  writeSnapshot,
  writeTile,
  type SnapshotManifest,
  type StoredSnapshot,
} from './shelf';

/** Where each tile of a state is stored, by layer and index; and which tile at which version that was. */
export type SavedTiles = Map<string, { version: number; tile: Tile; key: string }>;

/** Older snapshots are kept at intervals of so many entries, so many of each. */
const KEPT = [
  { every: 40, count: 3 },
  { every: 320, count: 2 },
] as const;

/**
 * Snapshots of a painting: complete states, so that reopening and going far back do not have to paint everything again.
 * Tiles are written one at a time in the background, and only those that have changed; then comes the manifest, and only
 * then does a snapshot count. What lay under the last steps follows, for the newest one. Older ones are kept at growing intervals and share the tiles that did not change.
 */
export class Snapshots {
  private saved: SavedTiles = new Map();
  private readonly past = new KeptPast();
  private pending: Pending | undefined;
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
    const tiles: Piece[] = [];
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
          tiles.push(pieceOf(key, layer.capture(index, painting.arena)!));
        }
        listed.push({ layer: layer.id, index, key: key! });
        now.set(name, { version: tile.version, tile, key: key! });
      });
    }
    this.saved = now;
    const manifest = { entries, ...(sum && { sum }), state: encodeStudioState(studio), tiles: listed };
    this.pending = { pieces: tiles, written: [], manifest, past: this.past.list(studio, this.id, serial) };
  }

  /**
   * Writes the next tiles, or the manifest once everything before it is stored.
   * @param many how many tiles are written at once
   * @param hurried whether much has been painted since it was begun: then the steps before it are left out, for the next
   *   snapshot is more urgent
   * @param before resolves when the journal is stored up to the snapshot
   * @returns whether the snapshot is complete
   */
  async next(before: () => Promise<unknown>, many = 1, hurried = false): Promise<boolean> {
    const { pending } = this;
    if (!pending) return true;
    if (hurried && !pending.past) return this.leavePast(pending);
    try {
      const pieces = pending.pieces.splice(0, many);
      if (pieces.length > 0) {
        pending.written.push(...pieces.map(({ key }) => key));
        await Promise.all(pieces.map(({ key, bytes }) => writeTile(key, bytes())));
        return false;
      }
      if (await this.complete(pending, before)) return false;
    } catch (error) {
      if (this.pending === pending) this.pending = undefined;
      this.past.forget();
      if (pending.past) this.saved = new Map();
      for (const key of pending.written) await removeTile(key).catch(() => {});
      throw error;
    }
    if (this.pending === pending) this.pending = undefined;
    await this.keepOnly(thinned(this.stored));
    return true;
  }

  /**
   * Writes the manifest: first that of the state, then, once they are stored, with the steps before it.
   * @returns whether steps are to be written yet
   */
  private async complete(pending: Pending, before: () => Promise<unknown>): Promise<boolean> {
    const { manifest, past } = pending;
    if (!past) {
      await writeSnapshot(pending.key!, manifest);
      this.stored = this.stored.map((one) => (one.key === pending.key ? { ...one, manifest } : one));
      return false;
    }
    await before();
    const key = `${this.id}/${String(manifest.entries).padStart(8, '0')}-${(this.serial++).toString(36)}`;
    await writeSnapshot(key, manifest);
    this.stored = [{ key, manifest }, ...this.stored];
    if (this.pending !== pending || past.past.length === 0) return false;
    const { past: steps, pieces } = past;
    this.pending = { key, pieces, written: [], manifest: { ...manifest, past: steps } };
    return true;
  }

  /** Gives up writing the steps before a snapshot, which is there without them. */
  private async leavePast(pending: Pending): Promise<boolean> {
    this.pending = undefined;
    this.past.forget();
    for (const key of pending.written) await removeTile(key);
    await this.keepOnly(thinned(this.stored));
    return true;
  }

  /** Puts what lay under the steps before the newest snapshot back into the studio that was opened from it. */
  putBackPast(studio: Studio, manifest: SnapshotManifest): AsyncGenerator<undefined, void, undefined> {
    return this.past.putBack(studio, manifest);
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
    // only the newest needs the steps before it
    const older = kept.filter(({ manifest }, n) => n > 0 && manifest.past);
    this.stored = kept.map((one, n) => (n > 0 ? withoutPast(one) : one));
    const needed = new Set(this.stored.flatMap(({ manifest }) => keysIn(manifest)));
    for (const { key } of this.saved.values()) needed.add(key);
    const { pending } = this;
    if (pending) keysIn({ ...pending.manifest, past: pending.past?.past }).forEach((key) => needed.add(key));
    for (const { key } of gone) await removeSnapshot(key);
    for (const one of older) await writeSnapshot(one.key, withoutPast(one).manifest);
    for (const { manifest } of [...gone, ...older]) {
      for (const key of keysIn(manifest)) if (!needed.has(key)) await removeTile(key);
    }
  }
}

/** A snapshot that is being written. */
interface Pending {
  /** What is to be written before the manifest. */
  readonly pieces: Piece[];
  readonly written: string[];
  readonly manifest: SnapshotManifest;
  /** The steps before it, which follow. */
  readonly past?: ReturnType<KeptPast['list']>;
  /** Where the manifest is stored without the steps that are written now. */
  readonly key?: string;
}

const withoutPast = ({ key, manifest: { past: _, ...manifest } }: StoredSnapshot): StoredSnapshot => ({
  key,
  manifest,
});

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
      into.restore(index, unpackedTile(packed), arena, () => studio.painting.newBasin());
      const tile = into.tiles[index]!;
      saved.set(`${layer}:${index}`, { version: tile.version, tile, key });
    }),
  );
  return saved;
}
