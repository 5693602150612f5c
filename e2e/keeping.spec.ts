import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { opened, patch, penStroke, prepare, quickStrokes, ready, sendOut, straight, test, atRest } from './easel';

/** How often the long ones are done again: more in the long measurements than in a check. */
const TIMES = Number(process.env.TIMES ?? 1);

const strokesIn = async (page: Page): Promise<number> => {
  const { bytes } = await sendOut(page, /Painting file/);
  return opened(bytes).journal.entries.filter((entry) => entry.do === 'stroke').length;
};

test('420 quick strokes with size keys between them are there after a reload', async ({ page }) => {
  test.setTimeout(120_000 + 120_000 * TIMES);
  await prepare(page, 'Quick');
  await page.getByRole('button', { name: 'Load Ivory Black' }).click();
  for (let round = 1; round <= TIMES; round++) {
    await quickStrokes(page, 420, ['[', ']']);
    await page.reload();
    await ready(page);
    expect(await strokesIn(page)).toBe(420 * round);
    await expect(page.getByText(/are missing/)).toHaveCount(0);
  }
});

test('one tab paints on a painting and another looks, until it takes over', async ({ page, context }) => {
  await prepare(page, 'Two tabs');
  await page.getByRole('button', { name: 'Load Ivory Black' }).click();
  await penStroke(page, straight(150, 100, 500, 100));
  await atRest(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await ready(other);
  await expect(other.getByText('Another tab paints on this: here you look at it.')).toBeVisible();
  // what is done there is said to be impossible, and does nothing
  await penStroke(other, straight(150, 200, 500, 200));
  await expect(other.getByRole('alert').filter({ hasText: 'can only be looked at' })).toBeVisible();
  await penStroke(page, straight(150, 300, 500, 300));
  await atRest(page);

  await other.getByRole('button', { name: 'Paint here' }).click();
  await expect(other.getByText('Another tab paints on this')).toHaveCount(0);
  await expect(page.getByText('Another tab paints on this: here you look at it.')).toBeVisible();
  await ready(other);
  for (let i = 0; i < 5; i++) await penStroke(other, straight(150, 120 + i * 20, 500, 120 + i * 20));
  await atRest(other);
  expect(await strokesIn(other)).toBe(7);
  // a tab that goes leaves the painting to the other
  await page.getByRole('button', { name: 'Paint here' }).click();
  await expect(other.getByText('Another tab paints on this: here you look at it.')).toBeVisible();
  await ready(page);
  expect(await strokesIn(page)).toBe(7);
  await other.close();
});

test('a storage that is full for a while: it is said, and stored by itself when there is room', async ({ page }) => {
  await prepare(page, 'Tide');
  await page.getByRole('button', { name: 'Load Ivory Black' }).click();
  await atRest(page);
  const refuse = `(() => {
    const { put } = IDBObjectStore.prototype;
    self.makeRoom = () => { IDBObjectStore.prototype.put = put };
    IDBObjectStore.prototype.put = () => { throw new DOMException('The quota has been exceeded.', 'QuotaExceededError') };
  })()`;
  // the engine writes, and what writes down what the hand says
  const everywhere = (work: string) =>
    Promise.all([page.evaluate(work), ...page.workers().map((worker) => worker.evaluate(work))]);
  await everywhere(refuse);
  for (let i = 0; i < 4; i++) await penStroke(page, straight(150, 100 + i * 30, 500, 100 + i * 30));
  await expect(page.getByRole('alert').filter({ hasText: 'no room left' })).toBeVisible();
  await expect(page.getByText('4 strokes wait to be kept')).toBeVisible();
  await everywhere('self.makeRoom()');
  await expect(page.getByRole('alert').filter({ hasText: 'no room left' })).toHaveCount(0);
  await atRest(page);
  await page.reload();
  await ready(page);
  expect(await strokesIn(page)).toBe(4);
});

test('a file whose paint is damaged is painted again from its strokes', async ({ page }) => {
  await prepare(page, 'Pier');
  await page.getByRole('button', { name: 'Load Ivory Black' }).click();
  for (let i = 0; i < 3; i++) await penStroke(page, straight(150, 100 + i * 60, 500, 100 + i * 60));
  const black = await patch(page, 300, 160);
  const { bytes } = await sendOut(page, /Painting file/);
  await page.goto('/');
  const damaged = zipSync({ ...unzipSync(bytes), 'state.json': strToU8('{}') });
  await page
    .getByLabel('Open a painting file')
    .setInputFiles({ name: 'pier.stigmos', mimeType: 'application/zip', buffer: Buffer.from(damaged) });
  const told = page.getByRole('alert').filter({ hasText: 'can be painted again from its 3 strokes' });
  await expect(told).toBeVisible();
  await told.getByRole('button', { name: 'Paint it again' }).click();
  await page.waitForURL(/\/easel/);
  await ready(page);
  await expect.poll(() => patch(page, 300, 160)).toEqual(black);
});

test('what the demo is made of can be sent out and read back', async ({ page }) => {
  const demo = opened(readFileSync('public/demo/low-tide.stigmos'));
  await page.goto('/easel?painting=low-tide');
  await ready(page);
  const { bytes } = await sendOut(page, /Painting file/);
  expect(opened(bytes).digest).toBe(demo.digest);
});
