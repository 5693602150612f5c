import { expect } from '@playwright/test';
import jpeg from 'jpeg-js';
import { prepare, test } from './easel';

const PHOTOS = ['estuary', 'still-life', 'heron'].map((name) => `public/demo/${name}.jpg`);

test('photos hang freely on the board, which widens, folds, pops out, and becomes one arrangement', async ({
  page,
}) => {
  await prepare(page, 'Board');
  const picker = page.getByLabel('Photo files for the board');
  await picker.setInputFiles(PHOTOS);
  await expect(page.getByRole('button', { name: '3', exact: true })).toBeVisible();
  await picker.setInputFiles({ name: 'note.txt', mimeType: 'text/plain', buffer: Buffer.from('no photo') });
  await expect(page.getByText('“note.txt” cannot be read as a picture')).toBeVisible();

  // all of them, hung side by side; wide, they are larger
  await page.getByText('All', { exact: true }).click();
  const wall = page.getByTestId('wall');
  await expect(wall).toBeVisible();
  const narrow = (await wall.boundingBox())!.width;
  await page.getByRole('button', { name: 'Wide' }).click();
  await expect.poll(async () => (await wall.boundingBox())!.width).toBeGreaterThan(2 * narrow);
  /** How many of the wall's pixels show photos, and the mean colour of those. */
  const seen = () =>
    wall.evaluate((canvas: HTMLCanvasElement) => {
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
      const sum = [0, 0, 0];
      let count = 0;
      for (let i = 0; i < data.length; i += 16) {
        if (data[i + 3] < 255) continue;
        count++;
        for (let c = 0; c < 3; c++) sum[c] += data[i + c];
      }
      return { count, chroma: Math.max(...sum) / count - Math.min(...sum) / count };
    });
  await expect.poll(async () => (await seen()).count).toBeGreaterThan(5000);
  const before = await seen();

  // one is pulled away, made grey, and cropped
  const box = (await wall.boundingBox())!;
  const press = async (fx: number, fy: number, tx: number, ty: number) => {
    await page.mouse.move(box.x + fx, box.y + fy);
    await page.mouse.down();
    await page.mouse.move(box.x + (fx + tx) / 2, box.y + (fy + ty) / 2);
    await page.mouse.move(box.x + tx, box.y + ty);
    await page.mouse.up();
  };
  await press(box.width * 0.18, box.height / 2, box.width * 0.18, box.height / 2 + 60);
  await page.getByRole('button', { name: 'Grey', exact: true }).click();
  await expect.poll(async () => (await seen()).chroma).toBeLessThan(before.chroma - 1);
  const whole = (await seen()).count;
  await page.getByRole('button', { name: 'Crop' }).click();
  for (let k = 0; k < 4; k++) {
    if (k > 0) await page.getByRole('button', { name: 'Crop' }).click();
    await page.getByRole('menuitem', { name: 'Crop below' }).click();
  }
  await expect.poll(async () => (await seen()).count).not.toBe(whole);

  // as it hangs it becomes one picture, which is looked at from then on
  await page.getByRole('button', { name: 'Arrange' }).click();
  await expect(page.getByRole('img', { name: 'Photo Arrangement 1.jpg' })).toBeVisible();
  await expect(page.getByRole('button', { name: '4', exact: true })).toBeVisible();

  // a window of its own, and back
  const [popup] = await Promise.all([
    page.waitForEvent('popup'),
    page.getByRole('button', { name: 'Pop out' }).click(),
  ]);
  await expect(popup.getByTestId('photo')).toBeVisible();
  await popup.getByText('All', { exact: true }).click();
  await expect(popup.getByTestId('wall')).toBeVisible();
  await page.getByRole('button', { name: 'Board back' }).click();
  await expect(page.getByTestId('wall')).toBeVisible();

  // folded away, and kept so with the painting
  await page.getByRole('button', { name: 'Fold', exact: true }).click();
  await expect(page.getByTestId('wall')).toHaveCount(0);
  await page.reload();
  await expect(page.getByLabel('In hand').getByRole('slider').first()).toBeVisible({ timeout: 120_000 });
  await page.getByRole('button', { name: 'Board', exact: true }).click();
  await expect(page.getByTestId('wall')).toBeVisible();
  await expect(page.getByRole('img', { name: 'Motif board with 4 photos' })).toBeVisible();
});

/** A JPEG of 4000 x 2000 that was taken with the camera turned: upright it is red and yellow above, black and green below. */
function turnedPhoto(): Buffer {
  const [width, height] = [4000, 2000];
  const data = Buffer.alloc(width * height * 4);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++)
      data.set([x < width / 2 ? 255 : 0, y < height / 2 ? 255 : 0, 0, 255], (y * width + x) * 4);
  }
  const plain = Buffer.from(jpeg.encode({ width, height, data }, 80).data);
  // one entry of TIFF in an APP1 segment: orientation (0x0112) is 6, turned clockwise by a quarter
  const tiff = [0x4d, 0x4d, 0, 0x2a, 0, 0, 0, 8, 0, 1, 0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, 6, 0, 0, 0, 0, 0, 0];
  const exif = Buffer.concat([Buffer.from('Exif\0\0', 'latin1'), Buffer.from(tiff)]);
  const app1 = Buffer.from([0xff, 0xe1, (exif.length + 2) >> 8, (exif.length + 2) & 255]);
  return Buffer.concat([plain.subarray(0, 2), app1, exif, plain.subarray(2)]);
}

test('a photo that was taken turned hangs upright, and stays so when one goes very near', async ({ page }) => {
  await prepare(page, 'Turned');
  await page
    .getByLabel('Photo files for the board')
    .setInputFiles({ name: 'Turned.jpg', mimeType: 'image/jpeg', buffer: turnedPhoto() });
  const photo = page.getByTestId('photo');
  await expect(photo).toBeVisible();
  /** Colour at shares of the photo's view. */
  const at = (u: number, v: number) =>
    photo.evaluate(
      (canvas: HTMLCanvasElement, [x, y]) =>
        [
          ...canvas
            .getContext('2d')!
            .getImageData(canvas.width * x, canvas.height * y, 1, 1)
            .data.slice(0, 3),
        ]
          .map((c) => (c > 128 ? 1 : 0))
          .join(''),
      [u, v],
    );
  const quarters = async () => [await at(0.35, 0.35), await at(0.65, 0.35), await at(0.35, 0.65), await at(0.65, 0.65)];
  await expect.poll(quarters).toEqual(['100', '110', '000', '010']);
  const box = (await photo.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  for (let k = 0; k < 14; k++) await page.mouse.wheel(0, -160);
  await page.waitForTimeout(2500);
  expect(await quarters()).toEqual(['100', '110', '000', '010']);
});
