import { ifFree } from '@/engine/hand/holding';
import {
  keysIn,
  listPaintings,
  readSnapshots,
  readTile,
  removeContents,
  removeTile,
  storedIds,
  tileKeys,
} from './shelf';

/**
 * Removes what is stored and belongs to no painting: what an interrupted import or snapshot has left. A painting that
 * some tab has open, or is just bringing in, is left alone.
 * @returns bytes of tiles that were removed
 */
export async function sweep(): Promise<number> {
  const painted = new Set((await listPaintings()).map(({ id }) => id));
  let bytes = 0;
  const remove = async (key: string) => {
    bytes += (await readTile(key))?.byteLength ?? 0;
    await removeTile(key);
  };
  for (const id of await storedIds()) {
    await ifFree(id, async () => {
      const listed = new Set<string>();
      if (painted.has(id)) {
        for (const { manifest } of await readSnapshots(id)) for (const key of keysIn(manifest)) listed.add(key);
      }
      for (const key of await tileKeys(id)) if (!listed.has(key)) await remove(key);
      if (!painted.has(id)) await removeContents(id);
    });
  }
  return bytes;
}
