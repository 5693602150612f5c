import { expect } from '@playwright/test';
import { penStroke, prepare, ready, straight, test, atRest } from './easel';

test.use({ serviceWorkers: 'allow' });

test('after the first visit the app works without a network, and keeps what is painted', async ({ page, context }) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'The rack' })).toBeVisible();
  await page.evaluate(async () => (await navigator.serviceWorker.ready).active?.state);
  await expect
    .poll(() => page.evaluate(async () => (await (await caches.open((await caches.keys())[0])).keys()).length))
    .toBeGreaterThan(20);
  // no painting's data is kept there
  const keys = await page.evaluate(async () =>
    (await (await caches.open((await caches.keys())[0])).keys()).map((r) => new URL(r.url).pathname),
  );
  expect(keys.filter((path) => /demo|api|stigmos$/.test(path))).toEqual([]);

  await context.setOffline(true);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'The rack' })).toBeVisible();
  await prepare(page, 'Without a network');
  await page.getByRole('button', { name: 'Load Ivory Black' }).click();
  await penStroke(page, straight(150, 200, 500, 200));
  await atRest(page);
  await page.reload();
  await ready(page);
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('Without a network');
  await context.setOffline(false);
});
