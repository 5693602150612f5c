import 'fake-indexeddb/auto';
import { describe, expect, it } from 'vitest';
import { digest } from '@/core/journal/digest';
import type { Command } from '@/core/journal/commands';
import { commandSchema } from '@/core/journal/commands';
import { field, line, loaded, studioFor } from '@/measure/bench';
import { Keeping } from './keeping';
import {
  amendPainting,
  erasePainting,
  listPaintings,
  readEntries,
  readSnapshot,
  writeBlock,
  writeFace,
  writePainting,
  writeTile,
  type PaintingRecord,
} from './shelf';

let made = 0;

async function onTheRack(): Promise<PaintingRecord> {
  const id = `painting-${++made}`;
  const record: PaintingRecord = {
    id,
    title: id,
    createdAt: made,
    spec: studioFor(40, 30).spec,
    photos: [],
  };
  await writeBlock(id, 0, []);
  await writePainting(record);
  return record;
}

const commands = (...inputs: object[]): Command[] => inputs.map((c) => commandSchema.parse(c));
const STROKES = commands(
  ...field([2, 2, 30, 20], { PY35: 1 }, 10),
  ...loaded('flat', 8, { PB29: 1 }),
  line(4, 10, 36, 12),
);

async function paintAndKeep(record: PaintingRecord, list: readonly Command[]) {
  const { studio, keeping } = await Keeping.open(record);
  for (const command of list) {
    studio.apply(command);
    await keeping.append(command);
  }
  return { studio, keeping };
}

async function snapshot(keeping: Keeping): Promise<void> {
  keeping.beginSnapshot();
  while (!(await keeping.continueSnapshot())) continue;
}

describe('keeping a painting', () => {
  it('reopens it from its journal alone', async () => {
    const record = await onTheRack();
    const { studio } = await paintAndKeep(record, STROKES);
    const again = await Keeping.open(record);
    expect(digest(again.studio)).toBe(digest(studio));
    expect(await readEntries(record.id)).toEqual(STROKES);
  });

  it('reopens it from a snapshot and the strokes since', async () => {
    const record = await onTheRack();
    const first = await paintAndKeep(record, STROKES);
    await snapshot(first.keeping);
    expect((await readSnapshot(record.id))?.entries).toBe(STROKES.length);
    const more = commands({ do: 'dry' }, line(10, 4, 12, 26), { do: 'undo' }, { do: 'redo' });
    const second = await paintAndKeep(record, more);
    const third = await Keeping.open(record);
    expect(digest(third.studio)).toBe(digest(second.studio));
    // and can be taken back farther than the snapshot
    for (let i = 0; i < 3; i++) third.studio.apply({ do: 'undo' });
    for (let i = 0; i < 3; i++) second.studio.apply({ do: 'undo' });
    expect(digest(third.studio)).toBe(digest(second.studio));
  });

  it('writes only tiles that changed, and clears away those nobody needs', async () => {
    const record = await onTheRack();
    const { studio, keeping } = await paintAndKeep(record, STROKES);
    await snapshot(keeping);
    const before = (await readSnapshot(record.id))!;
    const [touch] = commands({ do: 'stroke', samples: [[0, 4, 4, 0.8]] });
    studio.apply(touch);
    await keeping.append(touch);
    await snapshot(keeping);
    const after = (await readSnapshot(record.id))!;
    const keys = new Set(before.tiles.map((t) => t.key));
    const kept = after.tiles.filter((t) => keys.has(t.key)).length;
    expect(kept).toBeGreaterThan(0);
    expect(kept).toBeLessThan(after.tiles.length);
    expect(digest((await Keeping.open(record)).studio)).toBe(digest(studio));
  });

  it('keeps the slab with the painting', async () => {
    const record = await onTheRack();
    const { studio, keeping } = await paintAndKeep(
      record,
      commands(
        { do: 'slab.squeeze', mixture: { PY43: 1 }, at: [40, 30] },
        ...loaded('flat', 8, { PB29: 1 }),
        { do: 'stroke', on: 'slab', samples: [[0, 30, 28, 0.6], [200, 52, 31, 0.6]] }, // prettier-ignore
      ),
    );
    await snapshot(keeping);
    expect((await readSnapshot(record.id))!.tiles.some((t) => t.layer === 'slab')).toBe(true);
    const again = await Keeping.open(record);
    expect(digest(again.studio)).toBe(digest(studio));
    again.studio.apply({ do: 'undo' });
    studio.apply({ do: 'undo' });
    expect(digest(again.studio)).toBe(digest(studio));
  });

  it('falls back on the journal when a snapshot is damaged', async () => {
    const record = await onTheRack();
    const { studio, keeping } = await paintAndKeep(record, STROKES);
    await snapshot(keeping);
    const manifest = (await readSnapshot(record.id))!;
    await writeTile(manifest.tiles[0].key, Uint8Array.of(1, 2, 3));
    expect(digest((await Keeping.open(record)).studio)).toBe(digest(studio));
  });

  it('keeps long journals in blocks', async () => {
    const record = await onTheRack();
    const many = Array.from({ length: 53 }, (_, i) => commandSchema.parse({ do: 'wait', seconds: i }));
    await paintAndKeep(record, many);
    expect(await readEntries(record.id)).toEqual(many);
  });
});

describe('a storage that refuses for a while', () => {
  it('leaves no hole in the journal, even where a block ended meanwhile', async () => {
    const record = await onTheRack();
    const { keeping } = await Keeping.open(record);
    const many = Array.from({ length: 47 }, (_, i) => commandSchema.parse({ do: 'wait', seconds: i }));
    const { put } = IDBObjectStore.prototype;
    let refused = 0;
    for (const [i, command] of many.entries()) {
      const full = i > 14 && i < 43;
      IDBObjectStore.prototype.put = full
        ? () => {
            throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
          }
        : put;
      await keeping.append(command).catch(() => refused++);
    }
    expect(refused).toBe(28);
    expect(await readEntries(record.id)).toEqual(many);
  });
});

describe('the shelf', () => {
  it('lists the newest first, amends, and erases everything of a painting', async () => {
    const a = await onTheRack();
    const b = await onTheRack();
    await amendPainting(a.id, { title: 'Renamed' });
    await writeFace(a.id, { changedAt: 1e9 });
    expect((await listPaintings())[0].title).toBe('Renamed');
    await amendPainting('nobody', { title: 'x' });
    await paintAndKeep(b, STROKES.slice(0, 3));
    await erasePainting(b.id);
    expect((await listPaintings()).some((p) => p.id === b.id)).toBe(false);
    expect(await readEntries(b.id)).toEqual([]);
  });
});
