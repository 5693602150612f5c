import { expect } from '@playwright/test';
import { encode } from 'fast-png';
import { atRest, penStroke, prepare, ready, straight, test } from './easel';

/** A photo in three bands, light above. */
function bands(): Buffer {
  const [width, height] = [200, 150];
  const data = new Uint8Array(width * height * 4);
  for (let i = 0; i < width * height; i++) {
    const y = Math.floor(i / width);
    data.set(y < 50 ? [214, 208, 196, 255] : y < 100 ? [128, 112, 92, 255] : [52, 44, 40, 255], 4 * i);
  }
  return Buffer.from(encode({ width, height, data, channels: 4 }));
}

test('the study desk measures canvas and photo, says where they differ, and what mends it', async ({ page }) => {
  await prepare(page, 'Study');
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await penStroke(page, straight(150, 120, 500, 120, 0.9));
  await atRest(page);
  // without a photo the canvas is measured by itself
  await page.getByRole('button', { name: 'Study', exact: true }).click();
  const desk = page.getByRole('dialog', { name: 'Study desk' });
  await expect(desk.getByText('Hang a photo on the board')).toBeVisible();
  await expect(desk.getByRole('region', { name: 'Canvas, measured' })).toContainText(/% dark, \d+ % light/);
  await desk.getByRole('button', { name: 'Close' }).click();
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page
      .getByRole('button', { name: /Hang up a photo/ })
      .first()
      .click(),
  ]);
  await chooser.setFiles({ name: 'Bands.png', mimeType: 'image/png', buffer: bands() });
  await expect(page.getByTestId('photo')).toBeVisible();
  await page.getByTestId('canvas').focus();
  await page.keyboard.press('Shift+W');
  const says = desk.getByRole('region', { name: 'Photo, measured' });
  await expect(says).toContainText(/3\d % at [78]\.\d/);
  await expect(desk.getByText(/not in register/)).toBeVisible();
  // what is dark on the photo and toned on the canvas comes first, and its recipe goes onto the brush
  const first = desk.getByRole('region', { name: 'Differences' }).getByRole('button').first();
  await expect(first).toContainText(/lower .*too light|upper .*too dark/);
  await first.click();
  await expect(desk.getByText(/The photo there: /)).toBeVisible();
  await desk.getByLabel('Looked at through').click();
  await page.getByTitle('Edges', { exact: true }).click();
  await expect(desk.getByText(/which edges are found/)).toBeVisible();
  await expect(says).toContainText(/\d+ % found/);
  // mass by mass of the photo, and a look that is pinned
  await desk.getByText('By masses').click();
  const list = desk.getByRole('region', { name: 'Differences' });
  await expect(list.getByRole('button').first()).toContainText(/^(darks|halftones|lights) \(3\d %\): /);
  await desk.getByRole('button', { name: 'Pin this look' }).click();
  await expect(desk.getByRole('region', { name: 'Pinned looks' })).toContainText(/Edges, a part|Edges/);
  await desk.getByText('By areas').click();
  await expect(list.getByRole('button').first()).toContainText(/upper|lower|left|right|middle/);
  // a part is pulled out and looked at alone, and the whole again
  await desk.getByText('Side by side').click();
  const picture = (await desk.getByTestId('cropped').boundingBox())!;
  await page.mouse.move(picture.x + 20, picture.y + 20);
  await page.mouse.down();
  await page.mouse.move(picture.x + 80, picture.y + 60);
  await page.mouse.move(picture.x + 120, picture.y + 90);
  await page.mouse.up();
  await expect(desk.getByRole('button', { name: 'The whole' })).toBeVisible();
  // the part is of the light band alone
  await expect(says).toContainText(/One family of value|One value/);
  await desk.getByRole('button', { name: 'The whole' }).click();
  await expect(says).toContainText(/% dark, \d+ % light/);
  await first.click();
  await desk.getByText('With a divider').click();
  await desk.getByLabel('Divider between canvas and photo').fill('0.25');
  await desk.getByRole('button', { name: 'Show on the canvas' }).click();
  await expect(desk).toBeHidden();
  expect(Number(await page.getByTestId('canvas').getAttribute('data-zoom'))).toBeGreaterThan(0.8);
});

test('where it pulls is measured and marked, pairs are followed, and both are there after a reload', async ({
  page,
}) => {
  await prepare(page, 'Focus');
  await page
    .getByRole('button', { name: 'Load Lemon Yellow' })
    .or(page.getByRole('button', { name: /^Load .*Lemon/ }))
    .first()
    .click();
  await penStroke(page, straight(300, 150, 340, 150, 0.9));
  await atRest(page);
  // two spots are compared, and one of them is painted over
  const box = (await page.getByTestId('canvas').boundingBox())!;
  await page.keyboard.down('d');
  await page.mouse.click(box.x + 200, box.y + 300);
  await page.mouse.click(box.x + 480, box.y + 300);
  await page.keyboard.up('d');
  await page.getByRole('navigation', { name: 'Drawers' }).getByRole('button', { name: 'Compare' }).click();
  await expect(page.getByTestId('pair')).toHaveCount(1);
  await expect(page.getByTestId('followed')).toHaveCount(0);
  await page.getByRole('navigation', { name: 'Drawers' }).getByRole('button', { name: 'Compare' }).click();
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await penStroke(page, straight(440, 300, 520, 300, 0.9));
  await atRest(page);
  await page.getByRole('navigation', { name: 'Drawers' }).getByRole('button', { name: 'Compare' }).click();
  await expect(page.getByTestId('followed')).toContainText(/^Was 0\.\d values apart, now [1-9]\.\d; .* darker/);
  await page.getByRole('navigation', { name: 'Drawers' }).getByRole('button', { name: 'Compare' }).click();
  await page.getByRole('button', { name: 'Study', exact: true }).click();
  const desk = page.getByRole('dialog', { name: 'Study desk' });
  await desk.getByText('Pull', { exact: true }).click();
  const says = desk.getByRole('region', { name: 'Where it pulls' });
  await expect(says.getByRole('button', { name: 'Mark place 1' })).toBeVisible();
  await desk.getByTestId('marked').click({ position: { x: 10, y: 10 } });
  await expect(says).toContainText(/A, upper left: \d % of the pull/);
  await expect(says).toContainText(/pulls more than A/);
  // divisions, own lines and where lines lead lie over it
  const over = desk.getByTestId('lines-over');
  await says.getByLabel('Divisions').click();
  await page.getByTitle('Thirds', { exact: true }).click();
  await expect(over.locator('line')).toHaveCount(4);
  await says.getByLabel('Divisions').click();
  await page.getByTitle('Own lines', { exact: true }).click();
  const lines = (await over.boundingBox())!;
  await page.mouse.move(lines.x + 30, lines.y + 30);
  await page.mouse.down();
  await page.mouse.move(lines.x + 150, lines.y + 90);
  await page.mouse.up();
  await expect(over.locator('line')).toHaveCount(1);
  await says.getByLabel('Where lines lead').check();
  await expect(says).toContainText(/from .* to |No direction is strong/);
  await page.reload();
  await expect(page.getByRole('button', { name: 'Study', exact: true })).toBeVisible();
  await ready(page);
  await page.getByRole('button', { name: 'Study', exact: true }).click();
  await desk.getByText('Pull', { exact: true }).click();
  await expect(says).toContainText(/A, upper left/);
  await desk.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('navigation', { name: 'Drawers' }).getByRole('button', { name: 'Compare' }).click();
  await expect(page.getByTestId('followed')).toContainText(/darker/);
});
