import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { strFromU8, strToU8 } from 'fflate';
import type { z } from '@/core/schema';
import { knowPaint } from '@/core/colour/ownPaints';
import { gridOf } from '@/core/film/painting';
import { SELECTION } from '@/core/film/painting';
import { SLAB, slabSpec } from '@/core/film/slab';
import { checkTile } from '@/core/film/packing/tileBounds';
import { decodeTile, undatedTile } from '@/core/film/packing/tileCodec';
import { journalSchema, type Journal } from '@/core/journal/journalSchema';
import { PainterError } from '@/core/errors';
import { effectiveCommands } from '@/core/journal/history';
import { needSize } from '@/core/commands/memoryBudget';
import { studioStateSchema, type StudioState } from '@/core/journal/snapshot';
import { Archive, ArchiveError } from './archive';
import { leftOf } from './leftOf';
import { manifestSchema, STROKES_ALONE, type StigmosFile, type StrokesFile } from './stigmosFile';

const MB = 2 ** 20;
const LIMITS = { entries: 60_000, unpacked: 3 * 2 ** 30, small: 64 * MB, ratio: 300 };
/** Largest file, and largest parts of it, bytes. */
const MOST = { file: 2 ** 30, manifest: 16 * MB, journal: 512 * MB, state: 128 * MB, tile: 64 * MB, photo: 256 * MB };

/** What is looked for in a file that was cut off, and how large it may be. */
const MOST_LEFT: Readonly<Record<string, number>> = {
  'manifest.json': MOST.manifest,
  'journal.json': MOST.journal,
  'thumbnail.png': MOST.photo,
};
const PHOTO = /^photos\/\d{1,3}$/;

/** What can be had from a file whose paint is damaged: everything but the paint. */
export type Unpainted = Omit<StigmosFile, 'state' | 'tiles' | 'digest'>;

/** A part of a file is damaged, or is not what its journal says: says what is lost, and has what is left. */
export class FileDamaged extends PainterError {
  /** Whether its paint is lost, too: it can be painted again from so many strokes. */
  readonly strokes: number | undefined;

  /** @param file what is left, @param lost what is not, as parts of a sentence */
  constructor(
    readonly file: StigmosFile | StrokesFile | Unpainted,
    lost: readonly string[],
  ) {
    const painted = 'state' in file || 'strokesAlone' in file;
    const strokes = strokesOf(file.journal);
    const again = strokes === 1 ? 'its one stroke' : `its ${strokes} strokes`;
    const said = `This file is damaged: ${listed(lost)} ${lost.length === 1 ? 'is' : 'are'} lost.`;
    super(`${said} It can be ${painted ? 'opened without' : `painted again from ${again}`}.`);
    this.strokes = painted ? undefined : strokes;
  }
}

const listed = (parts: readonly string[]): string =>
  parts.length > 1 ? `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}` : (parts[0] ?? 'a part of it');

/** Strokes that a journal leads to. */
const strokesOf = ({ entries }: Journal): number => effectiveCommands(entries).filter((c) => c.do === 'stroke').length;

/**
 * Reads a painting's file with its paint.
 * @throws PainterError as `openStigmosFile`, and where it has strokes alone
 */
export async function readStigmosFile(bytes: Uint8Array): Promise<StigmosFile> {
  const file = await openStigmosFile(bytes);
  if ('strokesAlone' in file) throw new PainterError('This file has strokes alone: it is to be painted again.');
  return file;
}

/** What a later version says of itself is not known here but for its number. */
function needKnownVersion(manifest: Uint8Array): void {
  let version: unknown;
  try {
    version = (JSON.parse(strFromU8(manifest)) as { version?: unknown } | null)?.version;
  } catch {
    return; // what it is said of is damaged
  }
  if (typeof version === 'number' && version > STROKES_ALONE) {
    throw new PainterError(`This painting is of version ${version}; this program reads up to ${STROKES_ALONE}.`);
  }
}

/**
 * Reads a painting's file and checks all of it: sizes before anything is unpacked, checksums, digests, schemas, bounds.
 * @throws PainterError with a sentence when it is none, is damaged, or unpacks to more than is reasonable; FileDamaged
 *   when its journal is sound and something else is not
 */
export async function openStigmosFile(bytes: Uint8Array): Promise<StigmosFile | StrokesFile> {
  if (bytes.length > MOST.file) throw new PainterError('This file is too large to be opened here (over 1 GB).');
  const archive = await opened(bytes);
  const damaged = (what: string) => `This painting cannot be opened: its ${what} is damaged.`;
  const part = async (name: string, most: number, what: string) => {
    const found = await told(archive.read(name, most), () => damaged(what));
    if (!found) throw new PainterError(`This is no Stigmos painting: its ${what} is missing.`);
    return found;
  };
  const packedManifest = await part('manifest.json', MOST.manifest, 'manifest');
  needKnownVersion(packedManifest);
  const manifest = parsed(packedManifest, manifestSchema, damaged('manifest'));
  const packedJournal = await part('journal.json', MOST.journal, 'journal');
  const journal: Journal = parsed(packedJournal, journalSchema, damaged('journal'));
  if (manifest.journal && bytesToHex(sha256(packedJournal)) !== manifest.journal) {
    throw new PainterError(damaged('journal'));
  }
  try {
    journal.painting.paints?.forEach(knowPaint);
  } catch {
    throw new PainterError(damaged('list of own paints'));
  }
  const photos = [];
  const lost: string[] = [];
  for (const { name, type, file } of manifest.photos) {
    const photo = await told(archive.read(file, MOST.photo), () => '').catch((error: unknown) => {
      if (error instanceof PainterError && error.message) throw error;
    });
    if (photo) photos.push({ name, type, bytes: photo });
    else lost.push(`the photo “${name}”`);
  }
  const { title, palette, lamp, missing = 0 } = manifest;
  const thumbnail = await archive.read('thumbnail.png', MOST.photo).catch(() => undefined);
  const unpainted: Unpainted = { title, journal, photos, palette, lamp, missing, thumbnail };
  if (manifest.version === STROKES_ALONE) {
    return whole({ ...unpainted, digest: manifest.digest, strokesAlone: true }, lost);
  }
  let file: StigmosFile;
  try {
    const packedState = await archive.read('state.json', MOST.state);
    if (!packedState) throw new RangeError('There is no state.');
    const tiles = [];
    for (const { layer, index, file } of manifest.tiles) {
      const tile = await archive.read(file, MOST.tile);
      if (!tile) throw new RangeError('A tile is missing.');
      tiles.push({ layer, index, bytes: tile });
    }
    if (digestOf(packedState, tiles) !== manifest.digest) throw new RangeError('It is not what was written.');
    const state = studioStateSchema.parse(JSON.parse(strFromU8(packedState)));
    if (missing === 0 && state.strokes !== strokesOf(journal)) throw new RangeError('Journal and paint do not fit.');
    checkTiles(journal, state, tiles);
    file = { ...unpainted, state, tiles, digest: manifest.digest };
  } catch (error) {
    if (error instanceof ArchiveError && error.fault === 'too much') throw tooMuch();
    throw new FileDamaged(unpainted, ['its paint', ...lost]);
  }
  return whole(file, lost);
}

/** @throws FileDamaged where something is lost */
function whole<T extends StigmosFile | StrokesFile>(file: T, lost: readonly string[]): T {
  if (lost.length > 0) throw new FileDamaged(file, lost);
  return file;
}

/** The archive of a file; of one that was cut off, which has no list of its entries any more, those that came before. */
async function opened(bytes: Uint8Array): Promise<Pick<Archive, 'read'>> {
  try {
    return await Archive.open(bytes, LIMITS);
  } catch (error) {
    if (error instanceof ArchiveError && error.fault === 'too much') throw tooMuch();
    const left = leftOf(bytes, (name) => MOST_LEFT[name] ?? (PHOTO.test(name) ? MOST.photo : 0));
    if (!left.has('journal.json')) throw new PainterError('This is no Stigmos painting, or the file is damaged.');
    return { read: async (name) => left.get(name) };
  }
}

/** The digest of a state as a file has it: that of journal/digest.ts, from what is written instead of from a studio. */
function digestOf(state: Uint8Array, tiles: readonly { layer: string; index: number; bytes: Uint8Array }[]): string {
  const hash = sha256.create().update(state);
  for (const { layer, index, bytes } of tiles) hash.update(strToU8(`${layer}:${index}`)).update(undatedTile(bytes));
  return bytesToHex(hash.digest());
}

/** @throws when a tile lies where there is no room for it, or holds what no paint can be */
function checkTiles({ painting }: Journal, { canvas, layers }: StudioState, tiles: StigmosFile['tiles']): void {
  const spec = { ...painting, ...canvas };
  needSize(spec);
  const count = (grid: { tilesX: number; tilesY: number }) => grid.tilesX * grid.tilesY;
  const room = new Map([...layers.map(({ id }) => id), SELECTION].map((id) => [id, count(gridOf(spec))]));
  room.set(SLAB, count(gridOf(slabSpec(painting))));
  const taken = new Set<string>();
  for (const { layer, index, bytes } of tiles) {
    const name = `${layer}:${index}`;
    if (index >= (room.get(layer) ?? 0) || taken.has(name)) throw new RangeError('A tile has no place.');
    taken.add(name);
    checkTile(decodeTile(bytes));
  }
}

const tooMuch = () => new PainterError('This file unpacks to more than a painting can be.');

/** Says in a sentence what is wrong with an archive. */
async function told<T>(work: Promise<T>, why: () => string): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (error instanceof ArchiveError) throw error.fault === 'too much' ? tooMuch() : new PainterError(why());
    throw error;
  }
}

function parsed<T>(bytes: Uint8Array, schema: z.ZodType<T>, why: string): T {
  try {
    return schema.parse(JSON.parse(strFromU8(bytes)));
  } catch {
    throw new PainterError(why);
  }
}
