import { expect } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { atRest, distance, opened, patch, prepare, ready, still, test } from './easel';

test.use({ hasTouch: true });

test('two fingers move and zoom the view, one paints', async ({ page }) => {
  await prepare(page, 'Fingers');
  await page.getByRole('button', { name: 'Load Naphthol Scarlet' }).click();
  const canvas = page.getByTestId('canvas');
  const box = (await canvas.boundingBox())!;
  const before = Number(await canvas.getAttribute('data-zoom'));
  const ground = await patch(page, 480, 300);
  const session = await page.context().newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', points: [number, number][]) =>
    session.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: points.map(([x, y], id) => ({ x: box.x + x, y: box.y + y, id })),
    });
  // both are down at once, however slowly the machine follows
  await Promise.all([
    touch('touchStart', [[400, 300]]),
    touch('touchStart', [
      [400, 300],
      [560, 300],
    ]),
  ]);
  for (let i = 1; i <= 8; i++)
    await touch('touchMove', [
      [400 - i * 10, 300],
      [560 + i * 10, 300],
    ]);
  await touch('touchEnd', []);
  await expect.poll(async () => Number(await canvas.getAttribute('data-zoom'))).toBeGreaterThan(1.7 * before);
  expect(distance(await patch(page, 480, 300), ground)).toBeLessThan(12);

  await touch('touchStart', [[300, 200]]);
  for (let i = 1; i <= 20; i++) await touch('touchMove', [[300 + i * 12, 200]]);
  await touch('touchEnd', []);
  await expect.poll(async () => distance(await patch(page, 400, 200), ground)).toBeGreaterThan(40);
});

test('a tap right after a quick stroke is heard', async ({ page }) => {
  await prepare(page, 'Taps');
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).tap();
  const box = (await page.getByTestId('canvas').boundingBox())!;
  const session = await page.context().newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', x = 0, y = 0) =>
    session.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: type === 'touchEnd' ? [] : [{ x: box.x + x, y: box.y + y, id: 0 }],
    });
  for (let k = 0; k < 6; k++) {
    await touch('touchStart', 250, 140 + 30 * k);
    for (let i = 1; i <= 20; i++) await touch('touchMove', 250 + i * 14, 140 + 30 * k);
    await touch('touchEnd');
    await page.getByRole('button', { name: 'Undo', exact: true }).tap();
    await expect(page.getByRole('button', { name: 'Redo', exact: true })).toBeEnabled();
  }
  await session.detach();
});

test('from a new painting to its file by touch alone', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'New painting' }).first().tap();
  await page.getByRole('button', { name: 'Oil on toned linen' }).tap();
  await page.getByRole('button', { name: 'Set it on the easel' }).tap();
  await page.waitForURL(/\/easel/);
  await ready(page);
  // a newcomer is told what comes next
  await expect(page.getByText('Load a tube, then paint.')).toBeVisible();
  const box = (await page.getByTestId('canvas').boundingBox())!;
  const ground = await patch(page, 400, 200);
  const session = await page.context().newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', x = 0, y = 0) =>
    session.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: type === 'touchEnd' ? [] : [{ x: box.x + x, y: box.y + y, id: 0 }],
    });
  const draw = async (y: number) => {
    await touch('touchStart', 250, y);
    for (let i = 1; i <= 20; i++) await touch('touchMove', 250 + i * 14, y);
    await touch('touchEnd');
  };
  // a brush without paint says so where it touches
  // it is said for a moment only: looked for at every frame, from before the stroke
  const words = 'There is no paint on it: load a tube.';
  const said = page.waitForFunction((text) => document.body.innerText.includes(text), words, { timeout: 40_000 });
  await draw(320);
  await said;
  await atRest(page);
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).tap();
  await draw(200);
  await atRest(page);
  expect(distance(await patch(page, 400, 200), ground)).toBeGreaterThan(40);
  await expect(page.getByText('Load a tube, then paint.')).toHaveCount(0);
  const above = page.getByRole('button', { name: 'New above' });
  await page.getByRole('button', { name: /^On: / }).tap();
  await above.tap();
  await page.getByRole('button', { name: /^Make it lighter/ }).tap();
  await draw(260);
  await atRest(page);
  await page.getByRole('button', { name: 'Undo', exact: true }).tap();
  await page.getByRole('button', { name: 'Redo', exact: true }).tap();
  await page.getByRole('button', { name: 'Send out' }).tap();
  await page.getByRole('button', { name: 'To keep' }).tap();
  await page.getByRole('radio', { name: /Painting file/ }).waitFor();
  await still(page);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the file' }).tap(),
  ]);
  const { journal } = opened(new Uint8Array(readFileSync(await download.path())));
  expect(journal.entries.filter(({ do: what }) => what === 'stroke')).toHaveLength(3);
  await session.detach();
});
