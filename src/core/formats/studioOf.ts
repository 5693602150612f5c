import { decodeTile } from '@/core/film/packing/tileCodec';
import { effectiveCommands } from '@/core/journal/history';
import { restoreStudioState } from '@/core/journal/snapshot';
import { Studio } from '@/core/journal/studio';
import { replay } from '@/core/journal/replay';
import type { StigmosFile, StrokesFile } from './stigmosFile';

/**
 * The studio of a painting that was read from its file: as it was left, with nothing that can be taken back. One of
 * strokes alone is painted again.
 * @throws PainterError naming the entry that cannot be done
 */
export function studioOf(file: StigmosFile | StrokesFile): Studio {
  if ('strokesAlone' in file) return replay(file.journal);
  const { journal, state, tiles, missing } = file;
  const studio = new Studio(journal.painting);
  restoreStudioState(studio, state);
  const { arena } = studio.painting;
  for (const { layer, index, bytes } of tiles) {
    studio.layer(layer)!.restore(index, decodeTile(bytes), arena, () => studio.painting.newBasin());
  }
  studio.timeline.adopt(effectiveCommands(journal.entries), missing === 0);
  return studio;
}
