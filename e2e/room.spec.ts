import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { distance, patch, penStroke, pixel, prepare, ready, straight, test, atRest } from './easel';

test('looking: zoom, pan, turn, mirror, fit and values', async ({ page }) => {
  await prepare(page, 'Looking');
  await page.getByRole('button', { name: 'Load Naphthol Scarlet' }).click();
  await penStroke(page, straight(150, 150, 400, 152, 0.7));
  await expect
    .poll(async () => (await patch(page, 200, 151))[0] - (await patch(page, 200, 151))[1])
    .toBeGreaterThan(60);
  const canvas = page.getByTestId('canvas');
  const box = (await canvas.boundingBox())!;
  await canvas.focus();

  // mirrored, the mark is on the other side
  await page.keyboard.press('l');
  await expect
    .poll(async () => (await patch(page, box.width - 200, 151))[0] - (await patch(page, box.width - 200, 151))[1])
    .toBeGreaterThan(60);
  await page.keyboard.press('l');

  // values: no colour anywhere
  await page.keyboard.press('v');
  await expect
    .poll(async () => {
      const p = await pixel(page, 200 / box.width, 151 / box.height);
      return Math.abs(p[0] - p[1]) + Math.abs(p[1] - p[2]);
    })
    .toBe(0);
  // the plain picture while a key is held
  const colour = async () => {
    const p = await pixel(page, 200 / box.width, 151 / box.height);
    return Math.abs(p[0] - p[1]) + Math.abs(p[1] - p[2]);
  };
  await page.keyboard.down('Shift');
  await page.keyboard.down('i');
  await expect.poll(colour).toBeGreaterThan(20);
  await page.keyboard.up('i');
  await page.keyboard.up('Shift');
  await expect.poll(colour).toBe(0);
  await page.keyboard.press('v');

  // the wheel zooms under the pointer: what is there stays there
  const zoom = async () => Number(await canvas.getAttribute('data-zoom'));
  const fit = await zoom();
  await page.mouse.move(box.x + 200, box.y + 151);
  await page.mouse.wheel(0, -700);
  await expect.poll(zoom).toBeGreaterThan(2 * fit);
  await expect
    .poll(async () => (await patch(page, 200, 151, 3))[0] - (await patch(page, 200, 151, 3))[1])
    .toBeGreaterThan(60);

  // space drags the view
  await page.keyboard.down('Space');
  await page.mouse.move(box.x + 200, box.y + 151);
  await page.mouse.down();
  await page.mouse.move(box.x + 400, box.y + 351, { steps: 5 });
  await page.mouse.up();
  await page.keyboard.up('Space');
  await expect
    .poll(async () => (await patch(page, 400, 351, 3))[0] - (await patch(page, 400, 351, 3))[1])
    .toBeGreaterThan(60);
  await page.keyboard.press('f');
  await expect.poll(zoom).toBeCloseTo(fit, 3);
});

test('pressure and the tools in the jar change the mark', async ({ page }) => {
  await prepare(page, 'Marks');
  await page.getByTestId('canvas').focus();
  await page.keyboard.press('3');
  await expect(page.getByRole('button', { name: 'Take the Round' })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'Load Burnt Umber' }).click();
  const ground = await patch(page, 700, 500);
  await penStroke(page, straight(150, 150, 500, 150, 0.12));
  await page.keyboard.press('r');
  await penStroke(page, straight(150, 300, 500, 300, 0.95));
  const width = async (y: number) => {
    let n = 0;
    for (let dy = -16; dy <= 16; dy++) if (distance(await patch(page, 300, y + dy, 1), ground) > 40) n++;
    return n;
  };
  await expect.poll(() => width(300)).toBeGreaterThan(4);
  expect(await width(300)).toBeGreaterThan(await width(150));

  // rub out the heavy stroke
  await page.keyboard.press('6');
  await penStroke(page, straight(300, 270, 300, 330, 1));
  await expect.poll(async () => distance(await patch(page, 300, 300, 2), ground)).toBeLessThan(12);

  // a pencil line lands on the sketch
  await page.keyboard.press('5');
  await page.keyboard.press(']');
  await penStroke(page, straight(150, 450, 600, 450, 0.9));
  await expect.poll(async () => distance(await patch(page, 400, 450, 1), ground)).toBeGreaterThan(15);
  // the same key again goes back to the tool before
  await page.keyboard.press('5');
  await expect(page.getByRole('button', { name: 'Take the Rub-out' })).toHaveAttribute('aria-pressed', 'true');
});

test('layers: a new one is painted on, hidden and shown, and refusals are said in place', async ({ page }) => {
  await prepare(page, 'Layers');
  await page.getByRole('button', { name: 'Layers' }).click();
  await page.getByRole('button', { name: 'Add a layer' }).click();
  await page.getByRole('menuitem', { name: 'Paint', exact: true }).click();
  await expect(page.getByText('on: Paint 2, bare')).toBeVisible();
  const ground = await patch(page, 300, 200);
  await page.getByRole('button', { name: 'Load Ivory Black' }).click();
  await penStroke(page, straight(150, 200, 500, 200, 0.7));
  await expect.poll(async () => distance(await patch(page, 300, 200), ground)).toBeGreaterThan(60);
  await page.getByRole('button', { name: 'Hide Paint 2' }).click();
  await expect.poll(async () => distance(await patch(page, 300, 200), ground)).toBeLessThan(8);
  await penStroke(page, straight(150, 300, 500, 300, 0.7));
  await expect(page.getByRole('alert').filter({ hasText: '"Paint 2" is hidden' })).toBeVisible();
  await page.getByRole('button', { name: 'Show Paint 2' }).click();
  await expect.poll(async () => distance(await patch(page, 300, 200), ground)).toBeGreaterThan(60);
  expect(distance(await patch(page, 300, 300), ground)).toBeLessThan(8);
});

test('a tab closed in the middle of a stroke loses only that stroke', async ({ page, context }) => {
  await prepare(page, 'Closed');
  const url = page.url();
  await page.getByRole('button', { name: 'Load Ivory Black' }).click();
  const ground = await patch(page, 300, 300);
  await penStroke(page, straight(150, 150, 500, 150, 0.7));
  await atRest(page);
  const box = (await page.getByTestId('canvas').boundingBox())!;
  await page.mouse.move(box.x + 150, box.y + 300);
  await page.mouse.down();
  await page.mouse.move(box.x + 500, box.y + 300, { steps: 20 });
  await expect.poll(async () => distance(await patch(page, 200, 300), ground)).toBeGreaterThan(25);
  await page.close();
  const again = await context.newPage();
  await again.goto(url);
  await ready(again);
  await expect.poll(async () => distance(await patch(again, 300, 150), ground)).toBeGreaterThan(40);
  expect(distance(await patch(again, 200, 300), ground)).toBeLessThan(8);
});

test('the lamp lights the relief from where it stands', async ({ page }) => {
  await prepare(page, 'Lamp');
  await page.getByRole('button', { name: 'Load Titanium White' }).click();
  await page.getByRole('button', { name: 'Lamp' }).click();
  await expect(page.getByRole('heading', { name: 'Lamp' })).toBeVisible();
  await atRest(page);
  await penStroke(page, straight(200, 250, 500, 250, 0.7));
  await atRest(page);
  await page.getByRole('button', { name: 'Flat', exact: true }).click();
  const read = () =>
    page.evaluate(() => {
      const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=canvas] canvas')!;
      const { data } = canvas.getContext('2d')!.getImageData(260, 242, 100, 16);
      const v = [...data].filter((_, i) => i % 4 === 1);
      const m = v.reduce((a, b) => a + b, 0) / v.length;
      return v.reduce((a, b) => a + (b - m) ** 2, 0) / v.length;
    });
  await atRest(page);
  const flat = await read();
  await page.getByRole('region', { name: 'Lamp' }).getByRole('button', { name: 'Raking' }).click();
  await expect.poll(read).toBeGreaterThan(1.3 * flat);
});

test.describe('bad input is said in place, and nothing is lost', () => {
  const broken = { name: 'broken.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no picture at all') };

  /** The beginning of a PNG that says it has 200 megapixels. */
  function enormous(): { name: string; mimeType: string; buffer: Buffer } {
    const buffer = Buffer.alloc(2000);
    Buffer.from('89504e470d0a1a0a0000000d49484452', 'hex').copy(buffer);
    buffer.writeUInt32BE(20000, 16);
    buffer.writeUInt32BE(10000, 20);
    return { name: 'enormous.png', mimeType: 'image/png', buffer };
  }

  test('photos', async ({ page }) => {
    await page.goto('/prepare');
    await page.getByLabel('Photo files').setInputFiles(broken);
    await expect(page.getByRole('alert').filter({ hasText: 'broken.jpg' })).toContainText(
      'cannot be read as a picture',
    );
    await page.getByLabel('Photo files').setInputFiles(enormous());
    await expect(page.getByRole('alert').filter({ hasText: 'enormous.png' })).toContainText(
      'has 200 megapixels; up to 80',
    );
    await page.getByRole('button', { name: 'Set it on the easel' }).click();
    await page.waitForURL(/\/easel/);
    await ready(page);
    await page.getByLabel('Photo files for the board').setInputFiles(broken);
    await expect(page.getByRole('alert').filter({ hasText: 'broken.jpg' })).toBeVisible();
    await page.getByLabel('Photo files for the board').setInputFiles('public/demo/estuary.jpg');
    await expect(page.getByTestId('photo')).toBeVisible();
  });

  test('painting files', async ({ page }) => {
    await page.goto('/');
    await expect(page.getByRole('link', { name: 'Open Low tide, study 1' })).toBeVisible({ timeout: 90_000 });
    const open = (name: string, buffer: Buffer) =>
      page.getByLabel('Open a painting file').setInputFiles({ name, mimeType: 'application/zip', buffer });
    await open('letter.stigmos', Buffer.from('dear painter'));
    await expect(page.getByRole('alert').filter({ hasText: 'letter.stigmos' })).toContainText(
      'no Stigmos painting, or the file is damaged',
    );
    const demo = readFileSync('public/demo/low-tide.stigmos');
    await open('half.stigmos', demo.subarray(0, demo.length >> 1));
    await expect(page.getByRole('alert').filter({ hasText: 'half.stigmos' })).toContainText(
      /is damaged: its paint is lost\. It can be painted again/,
    );
    await expect(page.getByRole('link', { name: /^Open / })).toHaveCount(1);
    await open('low-tide.stigmos', demo);
    await page.waitForURL(/\/easel/, { timeout: 90_000 });
    await ready(page);
    await page.goto('/');
    await expect(page.getByRole('link', { name: /^Open / })).toHaveCount(2);
    // taken off and hung back
    await page
      .getByRole('button', { name: /off the rack/ })
      .first()
      .click();
    await expect(page.getByRole('link', { name: /^Open / })).toHaveCount(1);
    await page.getByRole('button', { name: 'Hang it back' }).click();
    await expect(page.getByRole('link', { name: /^Open / })).toHaveCount(2);
  });

  test('paintings that are not there', async ({ page }) => {
    await page.goto('/easel?painting=nowhere');
    await expect(page.getByRole('alert').filter({ hasText: 'not on the rack of this browser' })).toBeVisible();
    await page.getByRole('button', { name: 'To the rack' }).click();
    await expect(page.getByRole('heading', { name: 'The rack' })).toBeVisible();
  });

  test('a full storage: painting goes on, and the file is offered', async ({ page }) => {
    await prepare(page, 'Full');
    // the storage refuses from now on
    for (const worker of page.workers()) {
      await worker.evaluate(() => {
        IDBObjectStore.prototype.put = () => {
          throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
        };
      });
    }
    await page.getByRole('button', { name: 'Load Ivory Black' }).click();
    const ground = await patch(page, 300, 200);
    await penStroke(page, straight(150, 200, 500, 200, 0.7));
    await expect(page.getByRole('alert').filter({ hasText: 'no room left' })).toBeVisible();
    await expect.poll(async () => distance(await patch(page, 300, 200), ground)).toBeGreaterThan(60);
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save as a file' }).click(),
    ]);
    expect(download.suggestedFilename()).toBe('full.stigmos');
  });
});
