import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { studioFor } from '@/measure/bench';
import { NO_RULES } from '@/core/commands/houseRules';
import { readRecord, type PaintingRecord } from './paintingRecord';
import { listPaintings, readPainting, writePainting } from './shelf';
import { openStore } from './store';

const { spec } = studioFor(30, 20, { ppi: 90 });
const record: PaintingRecord = { id: 'one', title: 'Low tide', createdAt: 5, spec, photos: [{ id: 'p', name: 'Bay' }] };

describe('a record', () => {
  beforeEach(() => openStore('paintings').clear());

  it('comes back as it was written', async () => {
    const rules = { ...NO_RULES, mostTubes: 3 };
    const full: PaintingRecord = {
      ...record,
      palette: { name: 'Earth four', tubes: ['PY43', 'PW6'], note: 'warm', rules, parts: { PY43: 2 } },
      board: { hangings: [] },
      drawing: 7,
      clock: 0,
      sentOutAt: 9,
      removedAt: 11,
    };
    await writePainting(full);
    expect(await readPainting('one')).toEqual(full);
  });

  it('of a version before is read by what it has', () => {
    const { title: _, photos: __, ...less } = record;
    expect(
      readRecord({ ...less, palette: { name: 'Primaries', tubes: ['PW6'], rules: { sampleCanvas: false } } }),
    ).toEqual({
      ...less,
      title: 'Untitled',
      photos: [],
      palette: { name: 'Primaries', tubes: ['PW6'], note: '', rules: { ...NO_RULES, sampleCanvas: false } },
    });
  });

  it.each([
    ['palette', { name: 7 }],
    ['clock', -1],
    ['sentOutAt', 'yesterday'],
  ])('whose %s is damaged loses that alone', (part, damaged) => {
    expect(readRecord({ ...record, [part]: damaged })).toEqual(record);
  });

  it.each([[null], [undefined], ['one'], [{ ...record, spec: { ...spec, ppi: -3 } }], [{ ...record, id: '' }]])(
    'that is none stands in nobody’s way: %j',
    async (stored) => {
      await openStore('paintings').setItem('broken', stored);
      await writePainting(record);
      expect((await listPaintings()).map(({ id }) => id)).toEqual(['one']);
      if (stored === null || stored === undefined) expect(await readPainting('broken')).toBeNull();
      else await expect(readPainting('broken')).rejects.toThrow('damaged');
    },
  );
});
