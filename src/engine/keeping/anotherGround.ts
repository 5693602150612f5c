import { COMMANDS } from '@/core/commands/commands';
import { PainterError } from '@/core/errors';
import type { PaintingSpec } from '@/core/film/painting';
import { whileHeld } from '@/engine/hand/holding';
import { hangBeside } from './hangBeside';
import { readJournal, readPainting, readSnapshots, removeSnapshot, writeFace, writePainting } from './shelf';

/**
 * How many steps of a painting would be painted again on another ground; 0 where nothing has been painted yet.
 * @throws PainterError when its journal has gaps
 */
export async function stepsToPaint(id: string): Promise<number> {
  const { entries, missing } = await readJournal(id);
  if (missing > 0) throw new PainterError('A part of its journal is missing: it cannot be painted again.');
  return entries.some((entry) => entry && COMMANDS.isUndoable(entry)) ? entries.length : 0;
}

/**
 * Puts a painting on another ground. Where nothing has been painted on it, its ground is changed; else a second one is
 * hung beside it, which is painted again from the journal when it is opened, and the first stays as it is.
 * @param next id that the second one would have
 * @returns id of the painting that has the ground
 * @throws PainterError as stepsToPaint
 */
export async function putOnGround(id: string, spec: PaintingSpec, next: string): Promise<string> {
  const record = await readPainting(id);
  if (!record) throw new PainterError('This painting is not on the rack of this browser.');
  const paints = [...(record.spec.paints ?? []), ...(spec.paints ?? [])];
  const own = paints.filter((paint, i) => paints.findIndex((other) => other.id === paint.id) === i);
  const ground: PaintingSpec = { ...spec, seed: record.spec.seed, ...(own.length > 0 ? { paints: own } : {}) };
  if ((await stepsToPaint(id)) === 0) {
    await whileHeld(id, async () => {
      // what is kept of the bare ground is of the old one
      for (const { key } of await readSnapshots(id)) await removeSnapshot(key);
      await writeFace(id, { changedAt: Date.now() });
      await writePainting({ ...record, spec: ground });
    });
    return id;
  }
  const { entries } = await readJournal(id);
  const title = `${record.title}, on another ground`;
  await hangBeside(
    { ...record, spec: ground },
    entries.flatMap((entry) => entry ?? []),
    title,
    next,
  );
  return next;
}
