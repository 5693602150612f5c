import 'fake-indexeddb/auto';
import { expect, it } from 'vitest';
import { readStigmosFile } from '@/core/formats/readStigmosFile';
import { commandSchema } from '@/core/commands/commands';
import { digest } from '@/core/journal/digest';
import { line, loaded, studioFor } from '@/measure/bench';
import { filesIn, packAll } from './backup';
import { Keeping } from '@/engine/keeping/keeping';
import { listPaintings, writePainting } from '@/engine/keeping/shelf';

it('all paintings go into one archive and come out of it as they were', async () => {
  const digests: string[] = [];
  for (const [i, title] of ['Posts', 'Posts', 'Dinghy / green'].entries()) {
    const record = { id: `p${i}`, title, createdAt: i, spec: studioFor(20, 15, { ppi: 80 }).spec, photos: [] };
    await writePainting(record);
    const { studio, keeping } = await Keeping.open(record, { kept() {}, refused() {} });
    for (const act of [...loaded('flat', 5, { PB29: 1 }), line(2, 4 + i, 18, 6)]) {
      const command = commandSchema.parse(act);
      studio.apply(command);
      keeping.append(command);
    }
    await keeping.stored();
    digests.push(digest(studio));
  }
  const told: number[] = [];
  const archive = await packAll((done) => told.push(done));
  expect(told).toEqual([0, 1, 2, 3]);
  const titles: string[] = [];
  const found: string[] = [];
  for await (const bytes of filesIn(new Uint8Array(await archive.arrayBuffer()))) {
    const file = await readStigmosFile(bytes);
    titles.push(file.title);
    found.push(file.digest);
  }
  expect(titles.sort()).toEqual(['Dinghy / green', 'Posts', 'Posts']);
  expect(found.sort()).toEqual(digests.sort());
  expect((await listPaintings()).every(({ sentOutAt }) => sentOutAt! > 0)).toBe(true);
});
