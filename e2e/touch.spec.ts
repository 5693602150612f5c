import { expect } from '@playwright/test';
import { distance, patch, prepare, test } from './easel';

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
  await touch('touchStart', [[400, 300]]);
  await touch('touchStart', [
    [400, 300],
    [560, 300],
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
