import localforage from 'localforage';
import type { Command } from '@/core/journal/commands';
import type { StudioState } from '@/core/journal/snapshot';
import type { PaintingSpec } from '@/core/film/painting';

/**
 * What the browser keeps of all paintings. Shared by the rack (which lists them) and the worker (which writes them);
 * every painting's things begin with its id.
 */
export interface PhotoNote {
  readonly id: string;
  readonly name: string;
}

/** Tubes at hand for a painting, and the rules that a painter sets for it. */
export interface Palette {
  /** Name of the set that the tubes came from. */
  readonly name: string;
  readonly tubes: readonly string[];
  /** Plan of the colour. */
  readonly note: string;
  readonly rules: HouseRules;
  /** Parts of the mixture that is set out. */
  readonly parts?: Readonly<Record<string, number>>;
}

export interface HouseRules {
  /** Only the tubes of the set may be used. */
  readonly onlyTheseTubes: boolean;
  readonly sampleCanvas: boolean;
  readonly samplePhoto: boolean;
  /** Most tubes in a recipe, 2 to 4. */
  readonly mostTubes: number;
}

export const NO_RULES: HouseRules = { onlyTheseTubes: false, sampleCanvas: true, samplePhoto: true, mostTubes: 4 };

/** What the rack shows of a painting. */
export interface PaintingRecord {
  readonly id: string;
  readonly title: string;
  readonly createdAt: number;
  readonly spec: PaintingSpec;
  readonly photos: readonly PhotoNote[];
  /** What is set out for it on the bench. */
  readonly palette?: Palette;
  /** How its photos hang on the board; read with care likewise. */
  readonly board?: unknown;
  /** What has been sighted and set up for drawing it; read with care, for it may be of another version. */
  readonly drawing?: unknown;
  /** How fast the clock of its wet paper goes, 0 = held; 1 where nothing is said. */
  readonly clock?: number;
  /** Set when it was taken off the rack and can still be hung back. */
  readonly removedAt?: number;
}

/** How a painting looks from afar: written by the worker alone, as the record is by the page alone. */
export interface PaintingFace {
  readonly changedAt: number;
  /** PNG of the picture, small. */
  readonly thumbnail?: Uint8Array<ArrayBuffer>;
}

/** A complete state: where in the journal it is, and where its tiles lie. */
export interface SnapshotManifest {
  readonly entries: number;
  readonly state: StudioState;
  readonly tiles: readonly { layer: string; index: number; key: string }[];
}

/** A database for each store: adding one to a database that page and worker both have open would make them wait. */
const store = (name: string) => localforage.createInstance({ name: `stigmos-${name}`, storeName: name });

const paintings = store('paintings');
const faces = store('faces');
const journals = store('journals');
const snapshots = store('snapshots');
const tiles = store('tiles');
const photos = store('photos');

/** Journal entries in one stored block: few enough that adding one is quick, enough that reading is. */
export const BLOCK_ENTRIES = 20;

/** All paintings with their faces, the one changed last first. */
export async function listPaintings(): Promise<(PaintingRecord & PaintingFace)[]> {
  const seen = new Map<string, PaintingFace>();
  await faces.iterate<PaintingFace, void>((face, id) => {
    seen.set(id, face);
  });
  const found: (PaintingRecord & PaintingFace)[] = [];
  await paintings.iterate<PaintingRecord, void>((record) => {
    found.push({ ...record, changedAt: record.createdAt, ...seen.get(record.id) });
  });
  return found.sort((a, b) => b.changedAt - a.changedAt);
}

export const readFace = (id: string): Promise<PaintingFace | null> => faces.getItem<PaintingFace>(id);
export const writeFace = (id: string, face: PaintingFace): Promise<unknown> => faces.setItem(id, face);

export const readPainting = (id: string): Promise<PaintingRecord | null> => paintings.getItem<PaintingRecord>(id);
export const writePainting = (record: PaintingRecord): Promise<unknown> => paintings.setItem(record.id, record);

let amending: Promise<unknown> = Promise.resolve();
/** Writes what changes in a painting's record and leaves the rest: one change after another, so that none is lost. */
export function amendPainting(
  id: string,
  changes: Partial<PaintingRecord> | ((record: PaintingRecord) => Partial<PaintingRecord>),
): Promise<void> {
  const amend = async () => {
    const record = await readPainting(id);
    if (record) await writePainting({ ...record, ...(typeof changes === 'function' ? changes(record) : changes) });
  };
  const done = amending.catch(() => {}).then(amend);
  amending = done;
  return done;
}

export async function readEntries(id: string): Promise<Command[]> {
  const entries: Command[] = [];
  for (let block = 0; ; block++) {
    const part = await journals.getItem<Command[]>(`${id}/${block}`);
    if (!part) return entries;
    entries.push(...part);
    if (part.length < BLOCK_ENTRIES) return entries;
  }
}

export const writeBlock = (id: string, block: number, entries: readonly Command[]): Promise<unknown> =>
  journals.setItem(`${id}/${block}`, entries);

export const readSnapshot = (id: string): Promise<SnapshotManifest | null> => snapshots.getItem<SnapshotManifest>(id);
export const writeSnapshot = (id: string, manifest: SnapshotManifest): Promise<unknown> =>
  snapshots.setItem(id, manifest);

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
  await faces.removeItem(id);
  await snapshots.removeItem(id);
  for (const part of [journals, tiles, photos]) {
    for (const key of await part.keys()) if (key.startsWith(`${id}/`)) await part.removeItem(key);
  }
}

/** Whether an error says that the browser's storage is full. */
export const isStorageFull = (error: unknown): boolean =>
  error instanceof Error && (error.name === 'QuotaExceededError' || /quota|disk|full/i.test(error.message));
