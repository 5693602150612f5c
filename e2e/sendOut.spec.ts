import { expect } from '@playwright/test';
import { decode } from 'fast-png';
import { strFromU8, unzipSync } from 'fflate';
import { atRest, penStroke, prepare, sendOut, straight, test } from './easel';

test('asks what it is for, shows what it will be, and remembers', async ({ page }) => {
  await prepare(page, 'Sent out');
  await penStroke(page, straight(300, 300, 500, 330));
  await atRest(page);
  await page.getByRole('button', { name: 'Send out' }).click();
  const panel = page.getByRole('dialog', { name: 'Send out' });
  await panel.getByRole('button', { name: 'The web' }).click();
  await panel.getByRole('radio', { name: 'Web copy' }).check();
  await panel.getByLabel('Longest side').fill('300');
  await panel.getByLabel('Longest side').blur();
  const preview = panel.getByRole('img', { name: 'The file as it will be' });
  await expect(panel.getByText(/^300 × \d+ px$/)).toBeVisible();
  await expect.poll(() => preview.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(300);
  // what does not fit is told, and another choice makes it good
  await panel.getByLabel('Longest side').fill('8000');
  await panel.getByLabel('No more than').fill('10');
  await panel.getByLabel('No more than').blur();
  await expect(panel.getByRole('alert')).toContainText('more than 10 KB');
  await panel.getByLabel('Longest side').fill('200');
  await panel.getByLabel('Longest side').blur();
  await expect(panel.getByRole('alert')).toHaveCount(0);
  await expect(panel.getByRole('status')).toHaveText(/^\d+ KB$/);
  await page.reload();
  await page.getByRole('button', { name: 'Send out' }).click();
  await expect(panel.getByRole('button', { name: 'The web', pressed: true })).toBeVisible();
  await expect(panel.getByRole('radio', { name: 'Web copy' })).toBeChecked();
  await expect(panel.getByLabel('Longest side')).toHaveValue('200');
  await panel.getByRole('button', { name: 'Close' }).click();
  await expect(panel).toBeHidden();
  // the web's own format is made by the browser
  const { bytes, name } = await sendOut(page, /WebP/, 'The web');
  expect(name).toMatch(/\.webp$/);
  expect(bytes.subarray(8, 12).toString()).toBe('WEBP');
});

test('layers go out and come in again', async ({ page }) => {
  await prepare(page, 'Sent out');
  await penStroke(page, straight(300, 300, 500, 330));
  await atRest(page);
  const { bytes } = await sendOut(page, /OpenRaster/, 'Another program');
  expect(decode(unzipSync(bytes)['mergedimage.png']).width).toBeGreaterThan(100);
  await page.getByRole('button', { name: 'Layers', exact: true }).click();
  await page.getByRole('button', { name: 'Add a layer' }).click();
  await page.getByRole('menuitem', { name: 'Picture or texture …' }).click();
  const bring = page.getByRole('region', { name: 'Bring a picture in' });
  await bring
    .getByLabel('A picture to bring in')
    .setInputFiles({ name: 'a.ora', mimeType: 'image/openraster', buffer: bytes });
  await expect(bring.getByText('3 layers were taken over.')).toBeVisible();
  await bring
    .getByLabel('A picture to bring in')
    .setInputFiles({ name: 'b.ora', mimeType: 'image/openraster', buffer: bytes.subarray(0, 500) });
  await expect(bring.getByRole('alert')).toHaveText('This is no OpenRaster file, or it is damaged.');
});

test('the lamp stays with the painting, and goes out with it', async ({ page }) => {
  await prepare(page, 'Sent out');
  await page.getByRole('button', { name: 'Raking' }).click();
  await page.waitForTimeout(800);
  await page.reload();
  await expect(page.getByRole('button', { name: 'Raking', pressed: true })).toBeVisible();
  const { bytes } = await sendOut(page, /Painting file/);
  expect(JSON.parse(strFromU8(unzipSync(bytes)['manifest.json'])).lamp.elevation).toBeLessThan(20);
  await page.goto('/');
  await page
    .getByLabel('Open a painting file')
    .setInputFiles({ name: 'a.stigmos', mimeType: 'application/zip', buffer: bytes });
  await page.waitForURL(/easel/);
  await expect(page.getByRole('button', { name: 'Raking', pressed: true })).toBeVisible();
});
