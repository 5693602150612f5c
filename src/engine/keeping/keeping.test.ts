import 'fake-indexeddb/auto';
import localforage from 'localforage';
import { describe, expect, it } from 'vitest';
import type { Command } from '@/core/commands/commands';
import { commandSchema } from '@/core/commands/commands';
import { digest } from '@/core/journal/digest';
import { Studio } from '@/core/journal/studio';
import { field, line, loaded, studioFor } from '@/measure/bench';
import type { WritingNews } from './journalStore';
import { Keeping, type Opening } from './keeping';
import {
  amendPainting,
  erasePainting,
  keysIn,
  listPaintings,
  readJournal,
  readSnapshots,
  tileKeys,
  writeFace,
  writePainting,
  writeTile,
} from './shelf';
import type { PaintingRecord } from './paintingRecord';
import { thinned } from './snapshots';

let made = 0;

async function onTheRack(): Promise<PaintingRecord> {
  const id = `painting-${++made}`;
  const record: PaintingRecord = { id, title: id, createdAt: made, spec: studioFor(40, 30).spec, photos: [] };
  await writePainting(record);
  return record;
}

const commands = (...inputs: object[]): Command[] => inputs.map((c) => commandSchema.parse(c));
const STROKES = commands(
  ...field([2, 2, 30, 20], { PY35: 1 }, 10),
  ...loaded('flat', 8, { PB29: 1 }),
  line(4, 10, 36, 12),
);
const QUIET: WritingNews = { kept() {}, refused() {} };

async function open(record: PaintingRecord, news = QUIET): Promise<Opening> {
  const opening = await Keeping.open(record, news);
  for (const command of opening.rest) opening.keeping.redo(opening.studio, command);
  return opening;
}

async function paintAndKeep(record: PaintingRecord, list: readonly Command[]) {
  const { studio, keeping } = await open(record);
  for (const command of list) {
    studio.apply(command);
    keeping.append(command);
  }
  await keeping.stored();
  return { studio, keeping };
}

async function snapshot({ studio, keeping }: { studio: Studio; keeping: Keeping }): Promise<void> {
  keeping.beginSnapshot(studio);
  while (!(await keeping.continueSnapshot())) continue;
}

const newest = async (record: PaintingRecord) => (await readSnapshots(record.id))[0].manifest;

describe('keeping a painting', () => {
  it('reopens it from its journal alone', async () => {
    const record = await onTheRack();
    const { studio } = await paintAndKeep(record, STROKES);
    const again = await open(record);
    expect(digest(again.studio)).toBe(digest(studio));
    expect((await readJournal(record.id)).entries).toEqual(STROKES);
    expect(again.told).toBe('');
  });

  it('reopens it from a snapshot and the strokes since', async () => {
    const record = await onTheRack();
    const first = await paintAndKeep(record, STROKES);
    await snapshot(first);
    expect((await newest(record)).entries).toBe(STROKES.length);
    const more = commands({ do: 'dry' }, line(10, 4, 12, 26), { do: 'undo' }, { do: 'redo' });
    const second = await paintAndKeep(record, more);
    const third = await open(record);
    expect(third.rest).toHaveLength(2);
    expect(digest(third.studio)).toBe(digest(second.studio));
    // and can be taken back farther than the snapshot
    for (let i = 0; i < 3; i++) third.studio.apply({ do: 'undo' });
    for (let i = 0; i < 3; i++) second.studio.apply({ do: 'undo' });
    expect(digest(third.studio)).toBe(digest(second.studio));
  });

  it('uses a snapshot that is ahead of the journal, and says that steps are missing', async () => {
    const record = await onTheRack();
    const first = await paintAndKeep(record, STROKES);
    await snapshot(first);
    const journals = localforage.createInstance({ name: 'stigmos-journals', storeName: 'journals' });
    for (const key of await journals.keys()) if (key.startsWith(`${record.id}/`)) await journals.removeItem(key);
    const again = await open(record);
    expect(digest(again.studio)).toBe(digest(first.studio));
    expect(again.told).toMatch(new RegExp(`^${STROKES.length} steps are missing`));
    // it goes on from there, and comes back
    const next = await paintAndKeep(record, commands(line(10, 4, 12, 26)));
    const third = await open(record);
    expect(digest(third.studio)).toBe(digest(next.studio));
    expect(third.studio.timeline.canUndo).toBe(true);
    third.studio.apply({ do: 'undo' });
    expect(digest(third.studio)).toBe(digest(first.studio));
    expect(third.studio.timeline.canUndo).toBe(false);
    expect(() => third.studio.apply({ do: 'undo' })).toThrow(/cannot be taken back/);
  });

  it('opens what a version before has stored with a hole, and loses nothing but the hole', async () => {
    const record = await onTheRack();
    const journals = localforage.createInstance({ name: 'stigmos-journals', storeName: 'journals' });
    const snapshots = localforage.createInstance({ name: 'stigmos-snapshots', storeName: 'snapshots' });
    const acts = [
      ...STROKES,
      ...Array.from({ length: 30 }, (_, i) => commands(line(4, 3 + i * 0.7, 30, 6 + i * 0.6))[0]),
    ];
    const studio = new Studio(record.spec);
    for (const act of acts) studio.apply(act);
    for (let block = 0; block * 20 < acts.length; block++) {
      const part = acts.slice(block * 20, block * 20 + 20);
      await journals.setItem(`${record.id}/${block}`, block === 1 ? part.slice(0, 18) : part);
    }
    const holed = await open(record);
    expect(holed.keeping.missing).toBe(2);
    expect(holed.told).toMatch(/^2 steps are missing/);
    expect(holed.studio.state.strokes).toBe(studio.state.strokes - 2);
    // with the snapshot of that version everything is there
    const full = { studio, keeping: holed.keeping };
    await snapshot(full);
    const [{ key, manifest }] = await readSnapshots(record.id);
    await snapshots.removeItem(key);
    await snapshots.setItem(record.id, { entries: acts.length, state: manifest.state, tiles: manifest.tiles });
    expect(digest((await open(record)).studio)).toBe(digest(studio));
  });

  it('writes only tiles that changed, and clears away those nobody needs', async () => {
    const record = await onTheRack();
    const both = await paintAndKeep(record, STROKES);
    await snapshot(both);
    const before = await newest(record);
    const keys = new Set(before.tiles.map((t) => t.key));
    for (let i = 0; i < 3; i++) {
      const [touch] = commands({ do: 'stroke', samples: [[0, 4, 4, 0.8]] });
      both.studio.apply(touch);
      both.keeping.append(touch);
      await snapshot(both);
    }
    const after = await newest(record);
    const shared = after.tiles.filter((t) => keys.has(t.key)).length;
    expect(shared).toBeGreaterThan(0);
    expect(shared).toBeLessThan(after.tiles.length);
    expect(digest((await open(record)).studio)).toBe(digest(both.studio));
    // nothing is stored that no snapshot lists
    const listed = new Set((await readSnapshots(record.id)).flatMap(({ manifest }) => keysIn(manifest)));
    expect(new Set(await tileKeys(record.id))).toEqual(listed);
  });

  it('keeps the slab with the painting', async () => {
    const record = await onTheRack();
    const both = await paintAndKeep(
      record,
      commands({ do: 'slab.squeeze', mixture: { PY43: 1 }, at: [40, 30] }, ...loaded('flat', 8, { PB29: 1 }), {
        do: 'stroke',
        on: 'slab',
        samples: [
          [0, 30, 28, 0.6],
          [200, 52, 31, 0.6],
        ],
      }),
    );
    await snapshot(both);
    expect((await newest(record)).tiles.some((t) => t.layer === 'slab')).toBe(true);
    const again = await open(record);
    expect(digest(again.studio)).toBe(digest(both.studio));
    again.studio.apply({ do: 'undo' });
    both.studio.apply({ do: 'undo' });
    expect(digest(again.studio)).toBe(digest(both.studio));
  });

  it('falls back on an older snapshot, or the journal, when one is damaged', async () => {
    const record = await onTheRack();
    const both = await paintAndKeep(record, STROKES);
    await snapshot(both);
    const manifest = await newest(record);
    await writeTile(manifest.tiles[0].key, Uint8Array.of(1, 2, 3));
    expect(digest((await open(record)).studio)).toBe(digest(both.studio));
  });

  it('goes back past a reopening from the snapshot that is nearest', async () => {
    const record = await onTheRack();
    const lines = (from: number, count: number) =>
      commands(...Array.from({ length: count }, (_, i) => line(3, 3 + (from + i) * 0.4, 36, 5 + (from + i) * 0.4)));
    const both = await paintAndKeep(record, STROKES);
    for (let part = 0; part < 5; part++) {
      for (const act of lines(part * 10, 10)) {
        both.studio.apply(act);
        both.keeping.append(act);
      }
      await snapshot(both);
    }
    const again = await open(record);
    expect(again.rest).toHaveLength(0);
    let present = again.studio;
    let far = 0;
    for (let step = 0; step < 12; step++) {
      const way = present.timeline.farWay('undo');
      if (!way) present.apply({ do: 'undo' });
      else {
        far++;
        const { studio, rest } = await again.keeping.rebuild(way.target);
        expect(rest.length).toBeLessThanOrEqual(20);
        for (const act of rest) studio.apply(act);
        studio.timeline.adoptUndone(way.undone);
        present = studio;
      }
      both.studio.apply({ do: 'undo' });
      expect(digest(present)).toBe(digest(both.studio));
    }
    expect(far).toBeLessThan(4);
    for (let step = 0; step < 12; step++) {
      present.apply({ do: 'redo' });
      both.studio.apply({ do: 'redo' });
    }
    expect(digest(present)).toBe(digest(both.studio));
  });

  it('opens quickly where much was taken back: from a snapshot before it, without what was undone', async () => {
    const record = await onTheRack();
    const both = await paintAndKeep(record, STROKES);
    await snapshot(both);
    const more = commands(line(10, 4, 12, 26), line(12, 4, 14, 26));
    for (const act of [...more, { do: 'undo' } as const, { do: 'undo' } as const, { do: 'undo' } as const]) {
      both.studio.apply(act);
      both.keeping.append(act);
      if (act === more[1]) await snapshot(both);
    }
    await both.keeping.stored();
    const again = await open(record);
    expect(again.rest).toHaveLength(STROKES.length - 1);
    expect(digest(again.studio)).toBe(digest(both.studio));
  });
});

describe('snapshots that are kept', () => {
  it('are the newest and older ones at intervals', () => {
    let all: { key: string; manifest: { entries: number } }[] = [];
    for (let entries = 10; entries <= 2000; entries += 10) {
      all = thinned([{ key: `${entries}`, manifest: { entries } }, ...all] as never) as never;
      expect(all.length).toBeLessThanOrEqual(6);
      expect(all[0].manifest.entries).toBe(entries);
      // there is always one not far before, and one farther
      if (entries > 100)
        expect(all.some(({ manifest }) => entries - manifest.entries >= 40 && entries - manifest.entries <= 120)).toBe(
          true,
        );
      if (entries > 700) expect(all.some(({ manifest }) => entries - manifest.entries >= 300)).toBe(true);
    }
  });
});

describe('a storage that refuses for a while', () => {
  it('leaves no hole, stores everything by itself when there is room, and says so', async () => {
    const record = await onTheRack();
    let refused = 0;
    let kept = 0;
    const { keeping } = await open(record, { kept: (count) => (kept = count), refused: () => refused++ });
    const many = Array.from({ length: 47 }, (_, i) => commandSchema.parse({ do: 'wait', seconds: i }));
    const { put } = IDBObjectStore.prototype;
    for (const [i, command] of many.entries()) {
      const full = i > 14 && i < 43;
      IDBObjectStore.prototype.put = full
        ? () => {
            throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
          }
        : put;
      keeping.append(command);
      await new Promise((resolve) => setTimeout(resolve, 2));
    }
    expect(refused).toBeGreaterThan(0);
    await keeping.stored();
    expect(kept).toBe(47);
    expect((await readJournal(record.id)).entries).toEqual(many);
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
    expect((await readJournal(b.id)).entries).toEqual([]);
  });
});
