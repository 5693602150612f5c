import { expect } from '@playwright/test';
import { atRest, penStroke, prepare, straight, test } from './easel';

test('a core is taken by a touch, a section along a line; painting goes on afterwards', async ({ page }) => {
  await prepare(page, 'Core');
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await penStroke(page, straight(200, 200, 460, 200, 0.9));
  await page.getByRole('button', { name: 'Hair dryer' }).click();
  await page.getByRole('button', { name: 'Load Yellow Ochre' }).click();
  await penStroke(page, straight(330, 120, 330, 300, 0.9));
  await atRest(page);
  await page.getByRole('navigation', { name: 'Drawers' }).getByRole('button', { name: 'Paint list' }).click();
  const core = page.getByRole('region', { name: 'Core sample' });
  await core.getByRole('button', { name: 'Take cores' }).click();
  await atRest(page);
  const box = (await page.getByTestId('canvas').boundingBox())!;
  // the drawer has moved the canvas: the crossing is in the middle of what was painted
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.click(x, y);
  await expect(core.getByRole('img', { name: /Section/ })).toBeVisible();
  const steps = page.getByRole('button', { name: 'Undo', exact: true });
  await expect(steps).toBeEnabled();
  await page.mouse.move(x - 120, y - 60);
  await page.mouse.down();
  await page.mouse.move(x + 40, y);
  await page.mouse.move(x + 120, y + 60);
  await page.mouse.up();
  await expect(core.getByText(/mm along/)).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    core.getByRole('button', { name: 'As a picture' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('core.svg');
  // no core is a step of the painting
  await expect(page.getByRole('button', { name: 'Redo', exact: true })).toBeDisabled();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('core')).toHaveCount(0);
});
