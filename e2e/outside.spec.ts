import { expect, type Page } from '@playwright/test';
import { penStroke, prepare, straight, test } from './easel';

const panelOf = (page: Page) => page.getByRole('dialog', { name: 'Send out' });

test('a painting is proofed for a paper, sent to the print shop, confirmed and printed', async ({ page }) => {
  await prepare(page, 'For the wall');
  await penStroke(page, straight(300, 300, 500, 330));
  await page.getByRole('button', { name: 'Send out' }).click();
  const panel = panelOf(page);
  await panel.getByRole('button', { name: /^Print/ }).click();
  await panel.getByRole('radio', { name: /^Proof on the screen/ }).check();
  await expect(panel.getByRole('img', { name: 'The file as it will be' })).toBeVisible({ timeout: 60_000 });
  await expect(panel.getByText(/^Matte cotton, ink jet: /)).toBeVisible();
  await panel.getByRole('radio', { name: /^PDF/ }).check();
  const shop = panel.getByRole('region', { name: 'The print shop' });
  // on a bad day it has no time, and then breaks off half way
  const other = await page.context().newPage();
  await other.goto('/shop');
  const behave = (how: string) => other.getByRole('radiogroup').getByText(how).click();
  await behave('Busy');
  await expect(async () => {
    await shop.getByRole('button', { name: /Send it there|Try again/ }).click();
    await expect(shop.getByRole('alert')).toContainText('There is no time for you just now', { timeout: 5000 });
  }).toPass();
  await behave('Line cut half way');
  await expect(async () => {
    await shop.getByRole('button', { name: 'Try again' }).click();
    await expect(shop.getByRole('alert')).toContainText('cut off half way', { timeout: 5000 });
  }).toPass();
  await behave('Open');
  await expect(async () => {
    await shop.getByRole('button', { name: 'Try again' }).click();
    await expect(shop.getByRole('status')).toContainText(/It would cost € \d+\.\d\d/, { timeout: 5000 });
  }).toPass();
  // what was cut off and sent again is one order
  const order = other.getByRole('listitem', { name: 'For the wall' });
  await expect(order).toHaveCount(1);
  await expect(order.getByText(/mm, 100 pixels an inch, 3\.0 mm bleed/)).toBeVisible();
  const proof = order.getByRole('img', { name: 'Proof of For the wall' });
  await expect.poll(() => proof.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(300);
  await order.getByRole('button', { name: 'Confirm' }).click();
  await expect(order.locator('.ant-steps-item-process')).toHaveText(/Confirmed|Printing/);
  await expect(order.getByRole('button', { name: 'Take back' })).toHaveCount(0, { timeout: 20_000 });
  await other.close();
});

test('a web copy hangs in the gallery with its caption, and is taken down', async ({ page }) => {
  await prepare(page, 'For the gallery');
  await page.getByRole('button', { name: 'Send out' }).click();
  const panel = panelOf(page);
  await panel.getByRole('button', { name: 'The web' }).click();
  await panel.getByRole('radio', { name: 'Web copy' }).check();
  await panel.getByLabel('Caption').fill('Oil on linen, of an evening');
  await panel.getByRole('button', { name: 'Hang it there' }).click();
  await expect(panel.getByText('It hangs in the gallery.')).toBeVisible();
  await page.goto('/gallery');
  const piece = page.getByRole('listitem', { name: 'For the gallery' });
  await expect(piece.getByText('Oil on linen, of an evening')).toBeVisible();
  const picture = piece.getByRole('img');
  await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(300);
  await piece.getByRole('button', { name: 'Take down' }).click();
  await expect(piece).toHaveCount(0);
});
