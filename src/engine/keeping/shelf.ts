import type { Command } from '@/core/commands/commands';
import type { StudioState } from '@/core/journal/snapshot';
import { assembleJournal, type JournalRecord, type StoredJournal } from './journalStore';
import type { LoggedRecord } from '@/engine/hand/handLog';
import { PainterError } from '@/core/errors';
import { readRecord, type PaintingRecord } from './paintingRecord';
import { openStore } from './store';

/**
 * What the browser keeps of all paintings. Shared by the rack (which lists them) and the worker (which writes them);
 * every painting's things begin with its id.
 */
/** How a painting looks from afar: written by the worker alone, as the record is by the page alone. */
export interface PaintingFace {
  readonly changedAt: number;
  /** PNG of the picture, small. */
  readonly thumbnail?: Uint8Array<ArrayBuffer>;
}

/** A complete state: where in the journal it is, and where its tiles lie. */
export interface SnapshotManifest {
  /** How many entries lead to it. */
  readonly entries: number;
  /** Checksum of the journal up to there, where it is known. */
  readonly sum?: string;
  readonly state: StudioState;
  readonly tiles: readonly { layer: string; index: number; key: string }[];
  /** The last steps before it, the latest last. Only the newest state has them. */
  readonly past?: readonly StoredMoment[];
}

/** What is kept of a step, so that it can be taken back after reopening: where its state and its tiles lie. */
export interface StoredMoment {
  readonly key: string;
  /** How many commands of the history lead to it. */
  readonly timeline: number;
  /** The tiles that the step has changed, as they were before it; without a key those that were not there. */
  readonly tiles: readonly { layer: string; index: number; key?: string }[];
}

/** Keys of everything that a state has among the tiles. */
export const keysIn = ({ tiles, past = [] }: SnapshotManifest): string[] => [
  ...tiles.map(({ key }) => key),
  ...past.flatMap((moment) => [moment.key, ...moment.tiles.flatMap(({ key }) => key ?? [])]),
];

const paintings = openStore('paintings');
const faces = openStore('faces');
const journals = openStore('journals');
const snapshots = openStore('snapshots');
const tiles = openStore('tiles');
const photos = openStore('photos');
const hands = openStore('hands');

/** All paintings with their faces, the one changed last first. */
export async function listPaintings(): Promise<(PaintingRecord & PaintingFace)[]> {
  const seen = new Map<string, PaintingFace>();
  await faces.iterate<PaintingFace, void>((face, id) => {
    seen.set(id, face);
  });
  const found: (PaintingRecord & PaintingFace)[] = [];
  await paintings.iterate<unknown, void>((stored) => {
    const record = readRecord(stored);
    if (record) found.push({ ...record, changedAt: record.createdAt, ...seen.get(record.id) });
  });
  return found.sort((a, b) => b.changedAt - a.changedAt);
}

export const readFace = (id: string): Promise<PaintingFace | null> => faces.getItem<PaintingFace>(id);
export const writeFace = (id: string, face: PaintingFace): Promise<unknown> => faces.setItem(id, face);

/**
 * The record of a painting, null where there is none.
 * @throws PainterError when what is there cannot be read as one
 */
export async function readPainting(id: string): Promise<PaintingRecord | null> {
  const stored = await paintings.getItem<unknown>(id);
  if (stored === null) return null;
  const record = readRecord(stored);
  if (!record)
    throw new PainterError('What this browser has kept of this painting is damaged: it could not be opened.');
  return record;
}
export const writePainting = (record: PaintingRecord): Promise<unknown> => paintings.setItem(record.id, record);

let amending: Promise<unknown> = Promise.resolve();
/**
 * Writes what changes in a painting's record and leaves the rest: one change after another, in whatever tab, so that
 * none is lost.
 */
export function amendPainting(
  id: string,
  changes: Partial<PaintingRecord> | ((record: PaintingRecord) => Partial<PaintingRecord>),
): Promise<void> {
  const amend = async () => {
    const record = await readPainting(id);
    if (record) await writePainting({ ...record, ...(typeof changes === 'function' ? changes(record) : changes) });
  };
  const alone = async () => {
    if (typeof navigator === 'undefined' || !navigator.locks) return amend();
    await navigator.locks.request(`stigmos-record-${id}`, amend);
  };
  const done = amending.catch(() => {}).then(alone);
  amending = done;
  return done;
}

/** Keys of a store that belong to a painting, without its id. */
async function keysOf(part: LocalForage, id: string): Promise<string[]> {
  const start = `${id}/`;
  return (await part.keys()).filter((key) => key.startsWith(start)).map((key) => key.slice(start.length));
}

const RECORD = /^r\d+$/;
const BLOCK = /^\d+$/;

/** Everything of a painting's journal that is stored, those of versions before included. */
export async function readJournal(id: string): Promise<StoredJournal> {
  const keys = await keysOf(journals, id);
  const read = <T>(kind: RegExp) =>
    Promise.all(
      keys.filter((k) => kind.test(k)).map(async (k) => [k, await journals.getItem<T>(`${id}/${k}`)] as const),
    );
  const records = await read<JournalRecord>(RECORD);
  const blocks = await read<Command[]>(BLOCK);
  return assembleJournal(
    records.flatMap(([, record]) => record ?? []),
    new Map(blocks.map(([key, block]) => [Number(key), block ?? []])),
  );
}

export const writeJournalRecord = (id: string, record: JournalRecord): Promise<unknown> =>
  journals.setItem(`${id}/r${String(record.first).padStart(8, '0')}`, record);

/** Snapshots of a painting, the newest first. */
export async function readSnapshots(id: string): Promise<StoredSnapshot[]> {
  const keys = (await keysOf(snapshots, id)).map((key) => `${id}/${key}`);
  // a version before kept one, under the id alone
  const all = await Promise.all(
    [id, ...keys].map(async (key) => ({ key, manifest: await snapshots.getItem<SnapshotManifest>(key) })),
  );
  return all
    .filter((one): one is StoredSnapshot => one.manifest !== null)
    .sort((a, b) => b.manifest.entries - a.manifest.entries);
}

export interface StoredSnapshot {
  readonly key: string;
  readonly manifest: SnapshotManifest;
}

export const writeSnapshot = (key: string, manifest: SnapshotManifest): Promise<unknown> =>
  snapshots.setItem(key, manifest);
export const removeSnapshot = (key: string): Promise<void> => snapshots.removeItem(key);

/** What a hand has said lately (see handLog.ts): records with their keys, in the order in which it was said. */
export async function readHand(id: string): Promise<{ key: string; record: LoggedRecord }[]> {
  const keys = (await keysOf(hands, id)).filter((key) => key !== SESSION).sort();
  const all = await Promise.all(
    keys.map(async (key) => ({ key: `${id}/${key}`, record: await hands.getItem<LoggedRecord>(`${id}/${key}`) })),
  );
  return all.flatMap(({ key, record }) => (record ? [{ key, record }] : []));
}
export const writeHand = (key: string, record: LoggedRecord): Promise<unknown> => hands.setItem(key, record);
export const removeHand = (key: string): Promise<void> => hands.removeItem(key);

const SESSION = 'session';
/** Counts the sessions at a painting's easel, this one included. */
export async function nextSession(id: string): Promise<number> {
  const next = ((await hands.getItem<number>(`${id}/${SESSION}`)) ?? 0) + 1;
  // where there is no room for the count, nothing that is counted by it finds room either
  await hands.setItem(`${id}/${SESSION}`, next).catch(() => {});
  return next;
}

export const readTile = (key: string): Promise<Uint8Array | null> => tiles.getItem<Uint8Array>(key);
export const writeTile = (key: string, bytes: Uint8Array): Promise<unknown> => tiles.setItem(key, bytes);
export const removeTile = (key: string): Promise<void> => tiles.removeItem(key);

export const readPhoto = (painting: string, photo: string): Promise<Blob | null> =>
  photos.getItem<Blob>(`${painting}/${photo}`);
export const writePhoto = (painting: string, photo: string, blob: Blob): Promise<unknown> =>
  photos.setItem(`${painting}/${photo}`, blob);
export const removePhoto = (painting: string, photo: string): Promise<void> =>
  photos.removeItem(`${painting}/${photo}`);

/** Removes a painting for good. */
export async function erasePainting(id: string): Promise<void> {
  await paintings.removeItem(id);
  await removeContents(id);
}

/** Removes what belongs to a painting beside its record. */
export async function removeContents(id: string): Promise<void> {
  await faces.removeItem(id);
  await snapshots.removeItem(id);
  for (const part of [snapshots, journals, hands, tiles, photos]) {
    for (const key of await keysOf(part, id)) await part.removeItem(`${id}/${key}`);
  }
}

/** Ids of paintings of which something is stored, whether or not they stand on the rack. */
export async function storedIds(): Promise<Set<string>> {
  const ids = new Set<string>();
  for (const part of [faces, snapshots, journals, hands, tiles, photos]) {
    for (const key of await part.keys()) ids.add(key.split('/')[0]);
  }
  return ids;
}

/** Keys of all stored tiles of a painting. */
export const tileKeys = async (id: string): Promise<string[]> => (await keysOf(tiles, id)).map((key) => `${id}/${key}`);

const probes = openStore('probe');
/** Bytes of what is stored to see whether anything can be. */
const PROBE_BYTES = 100_000;

/** Whether the storage takes anything now: tried, for what browsers say of their room can be wrong. */
export async function canStore(): Promise<boolean> {
  try {
    await probes.setItem('probe', new Uint8Array(PROBE_BYTES));
    await probes.removeItem('probe');
    return true;
  } catch {
    return false;
  }
}

/** Whether an error says that the browser's storage is full. */
export const isStorageFull = (error: unknown): boolean =>
  error instanceof Error && (error.name === 'QuotaExceededError' || /quota|disk|full/i.test(error.message));
