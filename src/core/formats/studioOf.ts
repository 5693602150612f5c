import { decodeTile } from '@/core/film/packing/tileCodec';
import { effectiveCommands } from '@/core/journal/history';
import { restoreStudioState } from '@/core/journal/snapshot';
import { Studio } from '@/core/journal/studio';
import type { StigmosFile } from './stigmosFile';

/** The studio of a painting that was read from its file: as it was left, with nothing that can be taken back. */
export function studioOf({ journal, state, tiles, missing }: StigmosFile): Studio {
  const studio = new Studio(journal.painting);
  restoreStudioState(studio, state);
  const { arena } = studio.painting;
  for (const { layer, index, bytes } of tiles) {
    studio.layer(layer)!.restore(index, decodeTile(bytes), arena, () => studio.painting.newBasin());
  }
  studio.timeline.adopt(effectiveCommands(journal.entries), missing === 0);
  return studio;
}
