import 'fake-indexeddb/auto';
import { strToU8, unzipSync, zipSync } from 'fflate';
import localforage from 'localforage';
import { describe, expect, it } from 'vitest';
import { encodeStigmosFile } from '@/core/formats/stigmosFile';
import { commandSchema } from '@/core/commands/commands';
import { digest } from '@/core/journal/digest';
import { line, loaded, paint, studioFor } from '@/measure/bench';
import { takeIn } from './intake';
import { Keeping } from '@/engine/keeping/keeping';
import { listPaintings, readPainting, storedIds, tileKeys, writeTile } from '@/engine/keeping/shelf';
import { sweep } from '@/engine/keeping/sweeping';

const QUIET = { kept() {}, refused() {} };

function sheet() {
  const studio = studioFor(24, 18, { ppi: 90 });
  paint(
    studio,
    ...loaded('flat', 8, { PB29: 1 }),
    line(4, 8, 20, 10),
    { do: 'canvas', rightMm: 60 },
    line(40, 8, 70, 10),
  );
  return { studio, bytes: encodeStigmosFile(studio, studio.history, 'Pier', []) };
}

async function opened(id: string) {
  const opening = await Keeping.open((await readPainting(id))!, QUIET);
  for (const command of opening.rest) opening.keeping.redo(opening.studio, command);
  return opening;
}

describe('taking a file in', () => {
  it('opens a painting with an extended canvas from its own file', async () => {
    const { studio, bytes } = sheet();
    await takeIn(bytes, 'taken');
    const { studio: again, rest, told } = await opened('taken');
    expect([rest, told]).toEqual([[], '']);
    expect(digest(again)).toBe(digest(studio));
    expect(again.timeline.canUndo).toBe(true);
    again.apply(commandSchema.parse(line(3, 3, 9, 9)));
  });

  it('paints one again whose paint is damaged, when that is wanted', async () => {
    const { studio, bytes } = sheet();
    const damaged = zipSync({ ...unzipSync(bytes), 'state.json': strToU8('{}') });
    await expect(takeIn(damaged, 'damaged')).rejects.toThrow('It can be painted again from its 2 strokes.');
    expect(await readPainting('damaged')).toBeNull();
    await takeIn(damaged, 'damaged', true);
    expect(digest((await opened('damaged')).studio)).toBe(digest(studio));
  });

  it('leaves nothing behind when there is no room', async () => {
    const { bytes } = sheet();
    const { put } = IDBObjectStore.prototype;
    let writes = 0;
    IDBObjectStore.prototype.put = function (...args) {
      if (++writes > 4) throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
      return put.apply(this, args);
    };
    await expect(takeIn(bytes, 'no-room')).rejects.toThrow('This browser has no room left for this painting.');
    IDBObjectStore.prototype.put = put;
    expect(await readPainting('no-room')).toBeNull();
    expect([...(await storedIds())]).not.toContain('no-room');
  });
});

describe('sweeping', () => {
  it('clears away what belongs to nothing, and nothing else', async () => {
    await takeIn(sheet().bytes, 'stays');
    const before = (await tileKeys('stays')).sort();
    await writeTile('stays/L2-0-left', new Uint8Array(1000));
    await writeTile('gone/L2-0-0', new Uint8Array(500));
    const journals = localforage.createInstance({ name: 'stigmos-journals', storeName: 'journals' });
    await journals.setItem('gone/r00000000', { first: 0, entries: [], sum: '' });
    expect(await sweep()).toBe(1500);
    expect(await sweep()).toBe(0);
    expect((await tileKeys('stays')).sort()).toEqual(before);
    expect([...(await storedIds())]).not.toContain('gone');
    expect((await listPaintings()).some((p) => p.id === 'stays')).toBe(true);
    expect((await opened('stays')).told).toBe('');
  });
});
