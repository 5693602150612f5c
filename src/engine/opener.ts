import { isTimeUp, NO_RULES } from '@/core/commands/houseRules';
import { wholeRect } from '@/core/film/tilesIn';
import { PainterError } from '@/core/errors';
import { Autosave, notKeptSentence } from '@/engine/keeping/autosave';
import { CatchUp } from '@/engine/undo/catchUp';
import { Keeping } from '@/engine/keeping/keeping';
import { OpenPainting, type Surroundings } from './openPainting';
import { readPainting } from '@/engine/keeping/shelf';

const caughtUp = (strokes: number) =>
  strokes === 1
    ? 'A stroke that was not worked off when the browser closed has been painted now.'
    : `${strokes} strokes that were not worked off when the browser closed have been painted now.`;

/**
 * Opens a painting as it was kept: from its newest snapshot, with what came after it still to be painted again (`catchUp`).
 * @param session number of who paints on it; undefined where it is only looked at
 * @throws PainterError when it is not there
 */
export async function openPainting(
  id: string,
  session: number | undefined,
  around: Surroundings,
): Promise<OpenPainting> {
  const record = await readPainting(id);
  if (!record) throw new PainterError('This painting is not on the rack of this browser.');
  const { post, screen, inbox } = around;
  const looking = session === undefined;
  const { studio, keeping, rest, undone, unworked, told, past } = await Keeping.open(
    record,
    {
      kept: (_, said) => post({ say: 'kept', at: Date.now(), said }),
      refused: (error) => post({ say: 'not-kept', why: notKeptSentence(error) }),
    },
    session,
  );
  let open: OpenPainting | undefined = undefined;
  const now = (): OpenPainting => open!;
  const host = { studio: () => now().studio, thumbnail: () => screen.thumbnail(), post };
  const autosave = new Autosave(keeping, host, looking);
  await autosave.readFace(record.createdAt);
  open = new OpenPainting(studio, autosave, looking, around);
  open.simulation.clock.pace = record.clock ?? 1;
  const { rules = NO_RULES, tubes = [] } = record.palette ?? {};
  open.rules.set(rules, tubes, isTimeUp(rules, record.spentMs));
  if (told) post({ say: 'told', what: told });
  open.catchUp = new CatchUp(
    rest,
    (command) => {
      const change = keeping.redo(studio, command);
      if (change) now().changed(change);
    },
    (done, total) => post({ say: 'progress', of: 'opening', done, total }),
    () => {
      studio.timeline.adoptUndone(undone);
      if (!looking) {
        void now().goingBack.opened(past);
        inbox.makeGood(unworked);
        const strokes = unworked.filter(({ say }) => say === 'stroke-end').length;
        if (strokes > 0) post({ say: 'told', what: caughtUp(strokes) });
      }
      screen.colourLater(wholeRect(studio.painting));
      now().tell();
    },
  );
  screen.colourLater(wholeRect(studio.painting));
  open.tell();
  return open;
}
