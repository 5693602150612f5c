import { expect } from '@playwright/test';
import { atRest, distance, patch, prepare, test } from './easel';

test('shapes are drawn with the tool in hand, square and round with Shift, and become outlines', async ({ page }) => {
  await prepare(page, 'Shapes');
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await page.keyboard.press('3');
  await page.getByRole('navigation', { name: 'Drawers' }).getByRole('button', { name: 'Shapes' }).click();
  const drawer = page.getByRole('region', { name: 'Shapes' });
  await drawer.getByRole('button', { name: 'Rectangle' }).click();
  await atRest(page);
  const box = (await page.getByTestId('canvas').boundingBox())!;
  const [left, top] = [Math.round(box.width / 2) - 160, Math.round(box.height / 2) - 110];
  const ground = await patch(page, left + 55, top, 3);
  const far = (await patch(page, left + 330, top + 90, 3)).map((v) => v);
  await page.mouse.move(box.x + left, box.y + top);
  await page.mouse.down();
  await page.mouse.move(box.x + left + 70, box.y + top + 40);
  await page.keyboard.down('Shift');
  await page.mouse.move(box.x + left + 110, box.y + top + 60);
  await page.mouse.up();
  await page.keyboard.up('Shift');
  await atRest(page);
  // its four sides are painted, as far down as across; inside and beside it nothing is
  for (const [x, y] of [
    [55, 0],
    [55, 110],
    [0, 55],
    [110, 55],
  ]) {
    expect(distance(await patch(page, left + x, top + y, 3), ground), `${x} ${y}`).toBeGreaterThan(40);
  }
  expect(distance(await patch(page, left + 55, top + 55, 3), ground)).toBeLessThan(14);
  expect(distance(await patch(page, left + 330, top + 90, 3), far)).toBeLessThan(14);
  // a click is no shape
  await page.mouse.click(box.x + left + 300, box.y + top + 20);
  await atRest(page);
  await expect(page.getByRole('button', { name: 'Redo', exact: true })).toBeDisabled();

  // an ellipse as a selection: what is painted across it stays inside
  await drawer.getByRole('button', { name: 'Ellipse' }).click();
  await drawer.getByLabel('What the shape becomes').click();
  await page.getByTitle('a selection').click();
  await page.mouse.move(box.x + left + 220, box.y + top);
  await page.mouse.down();
  await page.mouse.move(box.x + left + 340, box.y + top + 120);
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'End: in the selection' })).toBeVisible();
  await drawer.getByRole('button', { name: 'Line' }).click();
  await page.mouse.move(box.x + left + 200, box.y + top + 60);
  await page.mouse.down();
  await page.mouse.move(box.x + left + 360, box.y + top + 60);
  await page.mouse.up();
  await atRest(page);
  await expect.poll(async () => distance(await patch(page, left + 280, top + 60, 3), ground)).toBeGreaterThan(40);
  expect(distance(await patch(page, left + 206, top + 60, 3), ground)).toBeLessThan(14);
  // Escape gives the hand back
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('shape')).toHaveCount(0);
});

test('house rules are set before painting, said on the ledge, and kept', async ({ page }) => {
  await page.goto('/prepare');
  await page.getByLabel('Title').fill('Rules');
  await page.getByLabel('Resolution').fill('100');
  await page.getByRole('button', { name: /^House rules/ }).click();
  await page.getByRole('checkbox', { name: 'Nothing is taken back' }).check();
  await page.getByRole('checkbox', { name: 'Tubes in the whole painting, at most' }).check();
  await page.getByRole('spinbutton', { name: 'Tubes in the whole painting, at most' }).fill('1');
  await page.getByRole('checkbox', { name: 'Time to paint' }).check();
  await page.getByLabel('Title').click();
  await page.getByRole('button', { name: 'Set it on the easel' }).click();
  await page.waitForURL(/\/easel/);
  const rule = page.getByRole('button', { name: /^Change: rule: .*at most 1 tube/ });
  await expect(rule).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('0 of 60 min')).toBeVisible();
  const refused = page.getByRole('alert').filter({ hasText: 'By your house rules' });
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await page.getByRole('button', { name: 'Load Naphthol Scarlet' }).click();
  await expect(refused).toContainText('no more than 1 tube');
  const box = (await page.getByTestId('canvas').boundingBox())!;
  await page.mouse.move(box.x + 300, box.y + 200);
  await page.mouse.down();
  await page.mouse.move(box.x + 420, box.y + 200, { steps: 8 });
  await page.mouse.up();
  await atRest(page);
  await page.keyboard.press('Control+z');
  await expect(refused).toContainText('nothing is taken back');
  // and on the ledge it is changed
  await rule.click();
  await page.getByRole('checkbox', { name: 'Nothing is taken back' }).uncheck();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Redo', exact: true })).toBeEnabled();
});
