import { deflateSync } from 'fflate';
import { openStigmosFile, FileDamaged, type Unpainted } from '@/core/formats/readStigmosFile';
import type { StigmosFile, StrokesFile } from '@/core/formats/stigmosFile';
import { PainterError } from '@/core/errors';
import { whileHeld } from '@/engine/hand/holding';
import { recordsOf, RunningSum } from '@/engine/keeping/journalStore';
import {
  isStorageFull,
  readPainting,
  removeContents,
  writeFace,
  writeJournalRecord,
  writePainting,
  writePhoto,
  writeSnapshot,
  writeTile,
} from '@/engine/keeping/shelf';

/** Tiles that are written side by side. */
const TILES_AT_ONCE = 24;

/**
 * Puts the painting of a file on the rack: everything or nothing. Its record is written last, and what was written
 * before is removed when that cannot be done; what a killed browser leaves behind is swept later (see sweeping.ts).
 * @param again takes what is left of a damaged file: where its paint is lost, it is painted again from its strokes
 * @throws PainterError with a sentence when the file is no painting, is damaged, or there is no room for it; FileDamaged
 */
export async function takeIn(bytes: Uint8Array, id: string, again = false): Promise<void> {
  let file: StigmosFile | StrokesFile | Unpainted;
  try {
    file = await openStigmosFile(bytes);
  } catch (error) {
    if (!again || !(error instanceof FileDamaged)) throw error;
    file = error.file;
  }
  await whileHeld(id, async () => {
    if (await readPainting(id)) return;
    try {
      await store(file, id);
    } catch (error) {
      await removeContents(id).catch(() => {});
      if (isStorageFull(error)) throw new PainterError('This browser has no room left for this painting.');
      throw error;
    }
  });
}

async function store(file: StigmosFile | StrokesFile | Unpainted, id: string): Promise<void> {
  const { journal, photos, missing, title, palette, lamp, thumbnail } = file;
  const { entries } = journal;
  for (const record of recordsOf(entries)) await writeJournalRecord(id, record);
  if ('state' in file) {
    const stored = file.tiles.map(({ layer, index }) => ({ layer, index, key: `${id}/${layer}-${index}-0` }));
    // many at a time and not packed: somebody is waiting
    for (let i = 0; i < stored.length; i += TILES_AT_ONCE) {
      const some = stored.slice(i, i + TILES_AT_ONCE);
      await Promise.all(some.map(({ key }, k) => writeTile(key, deflateSync(file.tiles[i + k].bytes, { level: 0 }))));
    }
    const sum = new RunningSum();
    entries.forEach((entry) => sum.add(entry));
    // a state that is ahead of its journal by what the journal lacks
    const at = { entries: entries.length + missing, ...(missing === 0 && { sum: sum.value }) };
    await writeSnapshot(`${id}/0`, { ...at, state: file.state, tiles: stored });
  }
  const listed = [];
  for (const [i, photo] of photos.entries()) {
    const key = `photo-${i + 1}`;
    await writePhoto(id, key, new Blob([photo.bytes as BlobPart], { type: photo.type }));
    listed.push({ id: key, name: photo.name });
  }
  const now = Date.now();
  await writeFace(id, { changedAt: now, thumbnail: thumbnail && new Uint8Array(thumbnail) });
  await writePainting({ id, title, createdAt: now, spec: journal.painting, photos: listed, palette, lamp });
}
