import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { decode } from 'fast-png';
import { strFromU8, unzipSync } from 'fflate';
import { distance, patch, penStroke, ready, sendOut, straight, test, atRest } from './easel';

test('an oil study from a photo, painted end to end', async ({ page }) => {
  const problems: string[] = [];
  page.on('pageerror', (error) => problems.push(error.message));
  page.on('console', (message) => message.type() === 'error' && problems.push(message.text()));

  // prepare: a photo, a tone
  await page.goto('/prepare');
  await page.getByLabel('Title').fill('First study');
  await page.getByLabel('Photo files').setInputFiles('public/demo/estuary.jpg');
  await expect(page.getByRole('img', { name: 'estuary.jpg' })).toBeVisible();
  await page.getByRole('button', { name: 'Warm grey' }).click();
  await page.getByRole('button', { name: 'Set it on the easel' }).click();
  await page.waitForURL(/\/easel/);
  await ready(page);
  expect(await page.evaluate(() => crossOriginIsolated)).toBe(true);
  await expect(page.getByTestId('photo')).toBeVisible();
  const ground = await patch(page, 300, 200);

  // a tube loads the brush; the pen paints with it
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await expect(page.getByTestId('carried')).toHaveText('Ultramarine');
  await penStroke(page, straight(150, 200, 620, 205, 0.6));
  await expect.poll(async () => distance(await patch(page, 300, 203), ground)).toBeGreaterThan(60);
  const blue = await patch(page, 300, 203);
  expect(blue[2]).toBeGreaterThan(blue[0] + 15);

  // a mixture by parts, wet into wet: yellow across wet blue gives green
  await page.getByRole('button', { name: 'Load Lemon Yellow (Hansa Light)' }).click();
  await page.getByRole('button', { name: 'Add Titanium White to the mixture' }).click();
  await page.getByRole('button', { name: 'Load the brush' }).click();
  await expect(page.getByTestId('carried')).toHaveText(/^1 (Lemon Yellow|White), 1 (Lemon Yellow|White)$/);
  await penStroke(page, straight(300, 80, 302, 340, 0.6));
  await expect.poll(async () => distance(await patch(page, 301, 110), ground)).toBeGreaterThan(60);
  const green = await patch(page, 301, 234, 4);
  expect(green[1]).toBeGreaterThan(green[0]);
  expect(green[1]).toBeGreaterThan(green[2]);

  // sampling gives the mixture, and a click takes it
  await page.getByTestId('canvas').focus();
  const box = (await page.getByTestId('canvas').boundingBox())!;
  await page.keyboard.down('s');
  await page.mouse.move(box.x + 200, box.y + 200);
  await page.mouse.move(box.x + 202, box.y + 201);
  await expect(page.getByRole('status').filter({ hasText: 'Ultramarine' })).toContainText('from Paint, wet');
  await page.mouse.down();
  await page.mouse.up();
  await page.keyboard.up('s');
  await expect(page.getByTestId('carried')).toHaveText('Ultramarine');

  // undo and redo
  const yellow = await patch(page, 301, 110);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => distance(await patch(page, 301, 110), ground)).toBeLessThan(8);
  await page.keyboard.press('Control+Shift+Z');
  await expect.poll(async () => distance(await patch(page, 301, 110), yellow)).toBeLessThan(3);

  // the hair dryer: dry paint does not mix
  await page.getByRole('button', { name: 'Hair dryer' }).click();
  await page.getByRole('button', { name: 'Layers' }).click();
  await expect(page.getByRole('button', { name: 'Paint on Paint' })).toContainText('dry');
  await page.getByRole('button', { name: 'Layers' }).click();
  await page.getByRole('button', { name: 'Load Naphthol Scarlet' }).click();
  await penStroke(page, straight(240, 200, 420, 202, 0.6));
  await expect(page.getByTestId('carried')).toHaveText('Scarlet');

  // closing the tab and coming back: the same painting
  await atRest(page);
  await page.getByRole('button', { name: 'Fit' }).click();
  await atRest(page);
  const before = [await patch(page, 300, 203), await patch(page, 301, 110), await patch(page, 400, 203)];
  await page.reload();
  await ready(page);
  for (const [i, [x, y]] of [
    [300, 203],
    [301, 110],
    [400, 203],
  ].entries()) {
    await expect.poll(async () => distance(await patch(page, x, y), before[i])).toBeLessThan(2);
  }
  await penStroke(page, straight(150, 420, 500, 430, 0.7));
  await atRest(page);

  // the file holds a journal that paints the same bytes on the command line
  const file = await sendOut(page, /Painting file/);
  expect(file.name).toBe('first-study.stigmos');
  const parts = unzipSync(new Uint8Array(file.bytes));
  const manifest = JSON.parse(strFromU8(parts['manifest.json'])) as { digest: string; photos: unknown[] };
  expect(manifest.photos).toHaveLength(1);
  const journal = join(mkdtempSync(join(tmpdir(), 'stigmos-')), 'journal.json');
  writeFileSync(journal, parts['journal.json']);
  const replayed = JSON.parse(execFileSync('./stigmos', ['replay', journal]).toString()) as { digest: string };
  expect(replayed.digest).toBe(manifest.digest);

  // the picture, at its own size and resolution
  const png = await sendOut(page, /PNG picture/, 'The web');
  const picture = decode(png.bytes);
  expect([picture.width, picture.height]).toEqual([1772, 1181]);
  expect(picture.resolution).toEqual({ x: 5906, y: 5906, unit: 1 });
  expect(png.bytes.includes(Buffer.from('sRGB'))).toBe(true);
  const codes = new Set<number>();
  for (let i = 0; i < picture.data.length; i += picture.channels * 997) codes.add(picture.data[i]);
  expect(codes.size).toBeGreaterThan(20);

  // the rack shows it
  await page.getByRole('link', { name: 'To the rack' }).click();
  await expect(page.getByRole('link', { name: 'Open First study' })).toBeVisible();
  expect(problems).toEqual([]);
});

test('the demo painting is there for a new painter, and a first stroke lands on it', async ({ page }) => {
  await page.goto('/easel?painting=low-tide');
  await ready(page);
  await expect(page.getByTestId('photo')).toBeVisible();
  await atRest(page);
  const before = await patch(page, 480, 120, 10);
  const box = (await page.getByTestId('canvas').boundingBox())!;
  await page.getByRole('button', { name: 'Load Naphthol Scarlet' }).click();
  await page.mouse.move(box.x + 380, box.y + 120);
  await page.mouse.down();
  for (let i = 0; i <= 40; i++) await page.mouse.move(box.x + 380 + i * 5, box.y + 120);
  await page.mouse.up();
  await expect.poll(async () => distance(await patch(page, 480, 120, 10), before)).toBeGreaterThan(30);
});
