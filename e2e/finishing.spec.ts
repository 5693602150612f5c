import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { decode } from 'fast-png';
import { atRest, distance, patchAtRest, penStroke, prepare, straight, test } from './easel';

test('it is seen as it will be in years, and as it is again', async ({ page }) => {
  await prepare(page, 'In years');
  await page.getByRole('button', { name: 'Load Titanium White' }).click();
  await penStroke(page, straight(250, 200, 500, 210, 0.8));
  await penStroke(page, straight(250, 230, 500, 240, 0.8));
  await atRest(page);
  await page.getByRole('button', { name: 'Years' }).click();
  const drawer = page.getByRole('region', { name: 'Years' });
  await expect(drawer.getByText(/In the mean Delta E/)).toBeVisible();
  await drawer.getByText('As it is', { exact: true }).click();
  await atRest(page);
  const now = await patchAtRest(page, 330, 225);
  await drawer.getByText('In 50 years').click();
  await drawer.getByRole('slider', { name: 'Years' }).focus();
  await page.keyboard.press('End');
  await drawer.getByRole('combobox', { name: 'Where it hangs' }).click();
  await page.getByText('A dark store').click();
  await expect.poll(async () => distance(await patchAtRest(page, 330, 225), now)).toBeGreaterThan(1.5);
  // who closes the drawer sees it as it is, and the painting has not changed
  await page.getByRole('button', { name: 'Years' }).click();
  await page.getByRole('button', { name: 'Years' }).click();
  await drawer.getByText('As it is', { exact: true }).click();
  await expect.poll(async () => distance(await patchAtRest(page, 330, 225), now)).toBeLessThan(0.01);
});

test('a signature is drawn once, kept, laid on the canvas and painted', async ({ page }) => {
  await prepare(page, 'Signed');
  await page.getByRole('button', { name: 'Signature' }).click();
  const drawer = page.getByRole('region', { name: 'Signature' });
  const pad = drawer.getByRole('img', { name: 'Pad to sign on' });
  const box = (await pad.boundingBox())!;
  for (const from of [20, 90]) {
    await page.mouse.move(box.x + from, box.y + 30);
    await page.mouse.down();
    await page.mouse.move(box.x + from + 40, box.y + 70, { steps: 8 });
    await page.mouse.up();
  }
  await page.reload();
  await page.getByRole('button', { name: 'Signature' }).click();
  await drawer.getByText('The year').click();
  await drawer.getByRole('button', { name: 'Lay it on the canvas' }).click();
  const shown = page.getByTestId('signature');
  const paths = shown.locator('g');
  // two strokes, and four figures of which a four or a five has two
  await expect.poll(() => paths.count()).toBeGreaterThanOrEqual(6);
  const before = await paths.first().boundingBox();
  const middle = (await shown.boundingBox())!;
  await page.mouse.move(middle.x + middle.width / 2, middle.y + middle.height / 2);
  await page.mouse.down();
  await page.mouse.move(middle.x + middle.width / 2 - 100, middle.y + middle.height / 2 - 60, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await paths.first().boundingBox())!.x - before!.x).toBeCloseTo(-100, -1);
  const count = await paths.count();
  await drawer.getByRole('button', { name: 'Paint it' }).click();
  await atRest(page);
  await page.getByRole('button', { name: 'Journal' }).click();
  await expect(page.locator('dt', { hasText: 'Strokes' }).locator('+ dd')).toHaveText(`${count}`);
});

test('it is painted again for print, and goes out as strokes alone', async ({ page }) => {
  await prepare(page, 'Again');
  await penStroke(page, straight(250, 200, 500, 260));
  await atRest(page);
  await page.getByRole('button', { name: 'Send out' }).click();
  const panel = page.getByRole('dialog', { name: 'Send out' });
  await panel.getByRole('button', { name: /^Print/ }).click();
  const again = panel.getByRole('region', { name: 'Painted again for print' });
  await expect(again.getByText(/it has 100 ppi/)).toBeVisible();
  await again.getByRole('button', { name: 'Paint it again' }).click();
  await expect(again.getByLabel('200 ppi', { exact: true })).toBeVisible();
  const coming = page.waitForEvent('download');
  await again.getByRole('button', { name: /^Save it/ }).click();
  const { width, height } = decode(readFileSync(await (await coming).path()));
  const told = (await again.getByText(/px, about/).textContent()) ?? '';
  expect(told).toContain(`${width} × ${height} px`);

  await panel.getByRole('button', { name: /^To keep/ }).click();
  await panel.getByRole('radio', { name: /Painting file/ }).check();
  await panel.getByRole('combobox', { name: 'Its paint' }).click();
  await page.getByText(/Strokes alone/).click();
  const file = page.waitForEvent('download');
  await panel.getByRole('button', { name: 'Save the file' }).click();
  const path = await (await file).path();
  expect(readFileSync(path).length).toBeLessThan(200_000);
  await expect(panel.getByText(/painted again, stroke by stroke/)).toBeVisible();
  // what is chosen is remembered, and the next painting goes out whole again
  await panel.getByRole('combobox', { name: 'Its paint' }).click();
  await page.getByText(/All of it/).click();
  await panel.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('link', { name: 'To the rack' }).click();
  await page.getByLabel('Open a painting file').setInputFiles({
    name: 'again.stigmos',
    mimeType: 'application/zip',
    buffer: readFileSync(path),
  });
  await page.waitForURL(/\/easel/);
  await atRest(page);
  await page.getByRole('button', { name: 'Journal' }).click();
  await expect(page.locator('dt', { hasText: 'Strokes' }).locator('+ dd')).toHaveText('1');
});
