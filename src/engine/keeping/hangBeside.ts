import type { Command } from '@/core/commands/commands';
import { whileHeld } from '@/engine/hand/holding';
import { recordsOf } from './journalStore';
import type { PaintingRecord } from './paintingRecord';
import { readPhoto, removeContents, writeJournalRecord, writePainting, writePhoto } from './shelf';

/** Signs that a title may have. */
const MOST_TITLE = 120;

/**
 * Hangs a painting beside another, with the same photos, lamp and palette: it is painted from its journal when it is
 * opened. The other one stays as it is.
 * @param like the record of the other, with what is to be otherwise
 * @param next id that it gets
 */
export async function hangBeside(
  like: PaintingRecord,
  entries: readonly Command[],
  title: string,
  next: string,
): Promise<void> {
  await whileHeld(next, async () => {
    try {
      for (const part of recordsOf(entries)) await writeJournalRecord(next, part);
      for (const { id: photo } of like.photos) {
        const blob = await readPhoto(like.id, photo);
        if (blob) await writePhoto(next, photo, blob);
      }
      const { sentOutAt: _, spentMs: __, ...rest } = like;
      await writePainting({ ...rest, id: next, title: title.slice(0, MOST_TITLE), createdAt: Date.now() });
    } catch (error) {
      await removeContents(next).catch(() => {});
      throw error;
    }
  });
}
