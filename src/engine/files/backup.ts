import { BlobWriter, Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';
import { Archive } from '@/core/formats/archive';
import { Keeping } from '@/engine/keeping/keeping';
import { paintingFile } from './paintingFile';
import { amendPainting, listPaintings, readFace } from '@/engine/keeping/shelf';

/** Limits of an archive of paintings: they lie in it unpacked. */
const LIMITS = { entries: 2000, unpacked: 8 * 2 ** 30, small: 2 ** 20, ratio: 2 };
const MOST_FILE = 2 ** 30;
const OWN = /\.stigmos$/;

/**
 * All paintings on the rack as their own files in one zip archive.
 * @param tell says how many are done
 */
export async function packAll(tell: (done: number, total: number) => void): Promise<Blob> {
  const paintings = (await listPaintings()).filter((p) => !p.removedAt);
  const zip = new ZipWriter(new BlobWriter('application/zip'), { level: 0, useWebWorkers: false });
  const names = new Set<string>();
  for (const [i, record] of paintings.entries()) {
    tell(i, paintings.length);
    const { studio, keeping, rest } = await Keeping.open(record, { kept() {}, refused() {} });
    for (const command of rest) keeping.redo(studio, command);
    const { thumbnail } = (await readFace(record.id)) ?? {};
    const bytes = await paintingFile(studio, keeping, record.title, record, thumbnail);
    await zip.add(nameFor(record.title, names), new Uint8ArrayReader(bytes));
  }
  tell(paintings.length, paintings.length);
  const archive = await zip.close();
  for (const { id } of paintings) await amendPainting(id, { sentOutAt: Date.now() });
  return archive;
}

/** A name that no other file in the archive has. */
function nameFor(title: string, taken: Set<string>): string {
  const plain = title.replace(/[^\p{L}\p{N} ,.-]/gu, '').trim() || 'Untitled';
  let name = `${plain}.stigmos`;
  for (let n = 2; taken.has(name); n++) name = `${plain} (${n}).stigmos`;
  taken.add(name);
  return name;
}

/** The files of paintings in an archive, one after the other; none when it is a painting itself. @throws ArchiveError */
export async function* filesIn(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  const archive = await Archive.open(bytes, LIMITS);
  for (const name of archive.names) {
    if (!OWN.test(name)) continue;
    const file = await archive.read(name, MOST_FILE);
    if (file) yield file;
  }
}
