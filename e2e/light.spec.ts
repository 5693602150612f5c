import { expect, type Page } from '@playwright/test';
import { atRest, prepare, test } from './easel';

const open = (page: Page) =>
  page.getByRole('navigation', { name: 'Drawers' }).getByRole('button', { name: 'Light study' }).click();

/** Sum of the picture of a board: another picture has another. */
const pictureOf = (page: Page) =>
  page
    .getByTestId('light-board')
    .locator('canvas')
    .evaluate((canvas: HTMLCanvasElement) =>
      canvas
        .getContext('2d')!
        .getImageData(0, 0, canvas.width, canvas.height)
        .data.reduce((sum, v, i) => (sum + v * (1 + (i % 977))) % 2147483647, 0),
    );

test('a board in plan: lamps and walls are drawn and pulled, light follows, and shade layers are laid', async ({
  page,
}) => {
  await prepare(page, 'Light');
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await open(page);
  const drawer = page.getByRole('region', { name: 'Light study' }).first();
  await drawer.getByRole('button', { name: 'Lamp' }).click();
  const board = (await page.getByTestId('light-board').boundingBox())!;
  const at = (x: number, y: number) => [board.x + board.width * x, board.y + board.height * y] as const;
  const pull = async (from: readonly [number, number], to: readonly [number, number]) => {
    await page.mouse.move(...from);
    await page.mouse.down();
    await page.mouse.move((from[0] + to[0]) / 2, (from[1] + to[1]) / 2);
    await page.mouse.move(...to);
    await page.mouse.up();
  };
  await pull(at(0.3, 0.4), at(0.34, 0.4));
  await expect(drawer.getByRole('region', { name: 'Lamp' })).toBeVisible();
  await drawer.getByRole('button', { name: 'Round' }).click();
  await pull(at(0.5, 0.5), at(0.56, 0.5));
  await expect(drawer.getByRole('button', { name: 'Lay as shade layers' })).toBeEnabled();
  await page.waitForTimeout(1500);
  const before = await pictureOf(page);
  // the lamp is pulled elsewhere: its shadow goes along
  await pull(at(0.3, 0.4), at(0.3, 0.55));
  await expect.poll(() => pictureOf(page)).not.toBe(before);
  // from a place in the open the lamp is seen
  await drawer.getByRole('button', { name: 'Sight' }).click();
  await page.mouse.click(...at(0.4, 0.42));
  await expect(page.getByTestId('light-board').locator('path[class*=cone]')).toHaveCount(1);
  await drawer.getByText('Over', { exact: true }).click();
  await expect(drawer.getByRole('button', { name: 'Lay as shade layers' })).toBeEnabled();
  await page.waitForTimeout(1500);
  await drawer.getByRole('button', { name: 'Lay as shade layers' }).click();
  await atRest(page);
  await page.getByRole('navigation', { name: 'Drawers' }).getByRole('button', { name: 'Layers' }).click();
  await expect(page.getByRole('button', { name: /Paint on Shade 1/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /Paint on Shade 3/ })).toBeVisible();
  // the hand paints again
  await expect(page.getByTestId('light-board')).toHaveCount(0);
});

test('the board is kept with the painting, and stays as a guide', async ({ page }) => {
  await prepare(page, 'Light kept');
  await open(page);
  const drawer = page.getByRole('region', { name: 'Light study' }).first();
  await drawer.getByRole('button', { name: 'A room with a window' }).click();
  await drawer.getByRole('switch', { name: 'Stays' }).click();
  await page.waitForTimeout(1500);
  await page.reload();
  await page.getByLabel('In hand').getByRole('heading').waitFor();
  await expect(page.getByTestId('light-board').locator('svg g').first()).toBeAttached();
  // painted through it: it lets the hand by
  const box = (await page.getByTestId('canvas').boundingBox())!;
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await page.mouse.move(box.x + box.width * 0.4, box.y + box.height * 0.5);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.6, box.y + box.height * 0.5, { steps: 6 });
  await page.mouse.up();
  await atRest(page);
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeEnabled();
});

test('in perspective an upright casts its shadow; what is taller than the lamp says so', async ({ page }) => {
  await prepare(page, 'Shadow');
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await open(page);
  const drawer = page.getByRole('region', { name: 'Light study' }).first();
  await drawer.getByText('Perspective', { exact: true }).click();
  await drawer.getByRole('button', { name: 'Upright' }).click();
  await atRest(page);
  const lamp = (await page.getByTestId('light-perspective').locator('circle[class*=bulb]').boundingBox())!;
  const [lx, ly] = [lamp.x + lamp.width / 2, lamp.y + lamp.height / 2];
  const upright = async (x: number, foot: number, top: number) => {
    await page.mouse.move(x, foot);
    await page.mouse.down();
    await page.mouse.move(x + 3, (foot + top) / 2);
    await page.mouse.move(x + 2, top);
    await page.mouse.up();
  };
  const canvas = (await page.getByTestId('canvas').boundingBox())!;
  const low = canvas.y + canvas.height * 0.7;
  await upright(lx + 130, low, low - 60);
  await upright(lx + 180, low, low - 60);
  await expect(drawer.getByText('Thing 1, 2 uprights')).toBeVisible();
  await expect(page.getByTestId('light-perspective').locator('path[class*=cast]')).toHaveCount(1);
  await drawer.getByRole('button', { name: 'Another thing' }).click();
  await upright(lx + 60, low, ly - 40);
  await expect(drawer.getByText(/no shadow, taller than the light/)).toBeVisible();
  await drawer.getByRole('button', { name: 'Lay as a shade layer' }).click();
  await atRest(page);
  await page.getByRole('navigation', { name: 'Drawers' }).getByRole('button', { name: 'Layers' }).click();
  await expect(page.getByRole('button', { name: /Paint on Shade 1/ })).toBeVisible();
});
