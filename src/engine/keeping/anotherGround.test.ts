import 'fake-indexeddb/auto';
import { describe, expect, it } from 'vitest';
import { commandSchema, type Command } from '@/core/commands/commands';
import type { PaintingSpec } from '@/core/film/painting';
import { digest } from '@/core/journal/digest';
import { Studio } from '@/core/journal/studio';
import { field, line, loaded, studioFor } from '@/measure/bench';
import { AT_FIRST, preparationOf, specOf } from '@/room/prepare/preparation';
import { putOnGround, stepsToPaint } from './anotherGround';
import { recordsOf } from './journalStore';
import { Keeping } from './keeping';
import { listPaintings, readJournal, readPainting, writeJournalRecord, writePainting } from './shelf';

let made = 0;
async function onTheRack(entries: readonly Command[]): Promise<string> {
  const id = `grounds-${++made}`;
  await writePainting({
    id,
    title: `Mooring ${made}`,
    createdAt: 1,
    spec: studioFor(30, 20).spec,
    photos: [],
    spentMs: 60_000,
  });
  for (const record of recordsOf(entries)) await writeJournalRecord(id, record);
  return id;
}
const STROKES = [...field([2, 2, 20, 12], { PY35: 1 }, 10), ...loaded('flat', 8, { PB29: 1 }), line(4, 10, 26, 12)].map(
  (command) => commandSchema.parse(command),
);
const onPaper = (spec: PaintingSpec): PaintingSpec => ({
  ...spec,
  surface: { kind: 'paper-rough', scale: 1, depth: 1 },
  tone: undefined,
});
const opening = async (id: string) => {
  const record = (await readPainting(id))!;
  const { studio, rest } = await Keeping.open(record, { kept() {}, refused() {} }, undefined);
  for (const command of rest) studio.apply(command);
  return studio;
};

describe('another ground', () => {
  it('for what has been painted is a second painting, as its journal paints it there; the first stays', async () => {
    const id = await onTheRack(STROKES);
    const before = await readPainting(id);
    expect(await stepsToPaint(id)).toBe(STROKES.length);
    const spec = onPaper(before!.spec);
    const next = await putOnGround(id, spec, `${id}-again`);
    expect(next).not.toBe(id);
    expect(await readPainting(id)).toEqual(before);
    expect((await readJournal(id)).entries).toEqual(STROKES);
    const again = (await readPainting(next))!;
    expect(again.spec.surface.kind).toBe('paper-rough');
    expect(again.spentMs).toBeUndefined();
    // the twin: a studio that never knew another ground
    const twin = new Studio({ ...spec, seed: before!.spec.seed });
    for (const command of STROKES) twin.apply(command);
    expect(await digest(await opening(next))).toBe(await digest(twin));
    expect(await digest(await opening(next))).not.toBe(await digest(await opening(id)));
  });

  it('for what nobody has painted on is its own; tools that were taken stay', async () => {
    const id = await onTheRack(loaded('flat', 8, { PB29: 1 }).map((command) => commandSchema.parse(command)));
    const before = (await readPainting(id))!;
    const count = (await listPaintings()).length;
    expect(await stepsToPaint(id)).toBe(0);
    expect(await putOnGround(id, onPaper(before.spec), 'never')).toBe(id);
    expect((await readPainting(id))!.spec.surface.kind).toBe('paper-rough');
    expect((await listPaintings()).length).toBe(count);
    expect((await opening(id)).tools.carried().level).toBeGreaterThan(0.5);
  });

  it('is not made of a journal with gaps, nor for a painting that is gone', async () => {
    const id = await onTheRack([]);
    await writeJournalRecord(id, { first: 3, entries: STROKES.slice(3, 5), sum: 'x' });
    await expect(putOnGround(id, studioFor(30, 20).spec, 'x')).rejects.toThrow(/journal is missing/);
    await expect(putOnGround('nowhere', studioFor(30, 20).spec, 'x')).rejects.toThrow(/not on the rack/);
  });

  it('is prepared from how the painting was, and unchanged gives the same ground', async () => {
    const spec = specOf({ ...AT_FIRST, kind: 'paper-cold', tint: 'sand', scale: 1.4 }, 7, []);
    expect(specOf(preparationOf({ title: 'x', spec }), 7, [])).toEqual(spec);
  });
});
