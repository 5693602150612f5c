import 'fake-indexeddb/auto';
import { beforeEach, expect, it } from 'vitest';
import { z } from '@/core/schema';
import { kept } from './kept';
import { openStore } from './store';

const shape = z.object({ stage: z.enum(['begin', 'finish']), sizes: z.array(z.number()).max(3) });
const jar = kept({
  store: 'test-kept',
  key: 'jar',
  version: 2,
  schema: shape,
  // before there were stages there was one size
  older: (value, version) => (version < 2 ? { stage: 'begin', sizes: [Number(value)] } : value),
});
const store = openStore('test-kept');
beforeEach(() => store.clear());

it('gives back what was written', async () => {
  expect(await jar.read()).toBeUndefined();
  await jar.write({ stage: 'finish', sizes: [3, 5] });
  expect(await jar.read()).toEqual({ stage: 'finish', sizes: [3, 5] });
});

it('reads what versions before have written, with and without a version', async () => {
  await store.setItem('jar', 12);
  expect(await jar.read()).toEqual({ stage: 'begin', sizes: [12] });
  await store.setItem('jar', { version: 1, value: 7 });
  expect(await jar.read()).toEqual({ stage: 'begin', sizes: [7] });
});

it.each([[null], ['nonsense'], [{ version: 2, value: { stage: 'never', sizes: [] } }], [{ stage: 'begin' }]])(
  'leaves aside what cannot be read: %j',
  async (found) => {
    await store.setItem('jar', found);
    // words become a size that is no number, which the shape refuses too
    expect(await jar.read()).toBeUndefined();
  },
);

it('says so when it could not be written', async () => {
  const unwritable = Object.assign({ stage: 'begin' as const, sizes: [] }, { self: () => 0 });
  await expect(jar.write(unwritable)).rejects.toThrow();
  expect(await jar.read()).toBeUndefined();
});
