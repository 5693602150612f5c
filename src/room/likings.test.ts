import 'fake-indexeddb/auto';
import { expect, it, vi } from 'vitest';
import { openStore } from '@/engine/keeping/store';

const fresh = async () => {
  vi.resetModules();
  return (await import('./likings')).useLikings;
};

it('what a painter likes is kept, and what is chosen while it is read holds', async () => {
  const first = await fresh();
  const reading = first.getState().read();
  first.getState().like({ leftHanded: true });
  await reading;
  first.getState().like({ dimmed: true });
  expect(first.getState()).toMatchObject({ leftHanded: true, dimmed: true, ownPaint: false });
  await vi.waitFor(async () =>
    expect(await openStore('likings').getItem('own')).toMatchObject({ value: { leftHanded: true, dimmed: true } }),
  );
  const next = await fresh();
  expect(next.getState().leftHanded).toBe(false);
  await next.getState().read();
  expect(next.getState()).toMatchObject({ leftHanded: true, dimmed: true, ownPaint: false });
});
