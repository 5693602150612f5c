import { deflateSync } from 'fflate';
import { decodeStigmosFile } from '@/core/formats/stigmosFile';
import { decodeTile } from '@/core/film/tileCodec';
import { gridOf } from '@/core/film/painting';
import { SLAB, slabSpec } from '@/core/film/slab';
import { PainterError } from '@/core/journal/errors';
import {
  BLOCK_ENTRIES,
  isStorageFull,
  readPainting,
  writeBlock,
  writeFace,
  writePainting,
  writePhoto,
  writeSnapshot,
  writeTile,
} from '@/engine/shelf';
import { decodePhoto } from '../photos';

/** The painting that hangs there at first, and the series that can be hung beside it. */
export const DEMO_ID = 'low-tide';
export const DEMO_SERIES = [
  'layered',
  'alla-prima',
  'glazed',
  'knife',
  'ink-and-wash',
  'wet-sky',
  'mussel',
  'heron',
  'charcoal',
] as const;

/** Tiles that are written side by side. */
const TILES_AT_ONCE = 24;

export const newId = (): string => crypto.randomUUID();

/**
 * Puts the painting of a file on the rack. Nothing is listed until everything is stored.
 * @returns its id
 * @throws PainterError with a sentence when the file is no painting, is damaged, or there is no room for it.
 */
export async function hangFile(bytes: Uint8Array, id: string = newId()): Promise<string> {
  const file = decodeStigmosFile(bytes);
  const spec = file.journal.painting;
  const tiles = (grid: { tilesX: number; tilesY: number }) => grid.tilesX * grid.tilesY;
  const room = { painting: tiles(gridOf(spec)), slab: tiles(gridOf(slabSpec(spec))) };
  const damaged = new PainterError('This painting cannot be opened: its paint is damaged.');
  const layers = new Set(file.state.layers.map((l) => l.id));
  try {
    for (const tile of file.tiles) {
      const onSlab = tile.layer === SLAB;
      if (!onSlab && !layers.has(tile.layer)) throw damaged;
      if (tile.index >= (onSlab ? room.slab : room.painting)) throw damaged;
      decodeTile(tile.bytes);
    }
  } catch {
    throw damaged;
  }
  try {
    const stored = file.tiles.map(({ layer, index }) => ({ layer, index, key: `${id}/${layer}-${index}-0` }));
    // many at a time and not packed: somebody is waiting
    for (let i = 0; i < stored.length; i += TILES_AT_ONCE) {
      const some = stored.slice(i, i + TILES_AT_ONCE);
      await Promise.all(some.map(({ key }, k) => writeTile(key, deflateSync(file.tiles[i + k].bytes, { level: 0 }))));
    }
    const { entries } = file.journal;
    for (let block = 0; block * BLOCK_ENTRIES <= entries.length; block++) {
      await writeBlock(id, block, entries.slice(block * BLOCK_ENTRIES, (block + 1) * BLOCK_ENTRIES));
    }
    await writeSnapshot(id, { entries: entries.length, state: file.state, tiles: stored });
    const photos = [];
    for (const [i, photo] of file.photos.entries()) {
      const blob = new Blob([photo.bytes as BlobPart], { type: photo.type });
      await decodePhoto(blob, photo.name);
      await writePhoto(id, `photo-${i + 1}`, blob);
      photos.push({ id: `photo-${i + 1}`, name: photo.name });
    }
    const now = Date.now();
    await writeFace(id, { changedAt: now, thumbnail: file.thumbnail && new Uint8Array(file.thumbnail) });
    await writePainting({ id, title: file.title, createdAt: now, spec, photos, palette: file.palette });
  } catch (error) {
    if (isStorageFull(error)) throw new PainterError('This browser has no room left for this painting.');
    throw error;
  }
  return id;
}

/** Hangs a demo painting on the rack, unless it is there already. */
export async function hangDemo(id: string = DEMO_ID): Promise<void> {
  if (await readPainting(id)) return;
  const answer = await fetch(`/demo/${id}.stigmos`);
  if (!answer.ok) throw new PainterError('The demo painting is missing from this installation.');
  await hangFile(new Uint8Array(await answer.arrayBuffer()), id);
}
