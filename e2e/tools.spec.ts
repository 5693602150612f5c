import { expect } from '@playwright/test';
import { differing, distance, patch, penStroke, prepare, ready, straight, test } from './easel';

test('the roll shows every tool, and the jar keeps what is set out', async ({ page }) => {
  await prepare(page, 'Tools');
  await page.getByTestId('canvas').focus();
  await page.keyboard.press('t');
  const roll = page.getByLabel('Roll', { exact: true });
  await expect(roll.getByRole('button', { name: /^Take the / })).toHaveCount(47);
  // every mark is a picture that the engine painted
  for (const mark of await roll.locator('img').all()) {
    expect(await mark.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(208);
  }
  await page.getByLabel('Search the roll').fill('lost');
  await expect(roll.getByRole('button', { name: /^Take the / })).toHaveCount(8);
  await page.getByLabel('Search the roll').fill('no such mark');
  await expect(roll).toContainText('No tool in the roll makes such a mark.');
  await page.getByLabel('Search the roll').fill('');

  // drawn into the jar with the hand, and put there by its menu
  const jar = page.getByLabel('Jar', { exact: true });
  await roll.getByRole('button', { name: /^Take the Fan/ }).scrollIntoViewIfNeeded();
  const from = (await roll.getByRole('button', { name: /^Take the Fan/ }).boundingBox())!;
  const to = (await jar.getByRole('button', { name: 'Take the Flat' }).boundingBox())!;
  await page.mouse.move(from.x + 20, from.y + 15);
  await page.mouse.down();
  await page.mouse.move(from.x + 60, from.y + 40, { steps: 4 });
  await page.mouse.move(to.x + 30, to.y + 18, { steps: 10 });
  await page.mouse.up();
  await expect(jar.getByRole('button', { name: 'Take the Fan' })).toBeVisible();
  await roll.getByRole('button', { name: /^Take the Knife/ }).hover();
  await roll.getByRole('button', { name: 'Put the Knife into the jar' }).click();
  await page.getByRole('menuitem', { name: 'Place 2 of the jar' }).click();
  await expect(jar.getByRole('button', { name: 'Take the Knife' })).toBeVisible();
  await page.getByRole('button', { name: 'Roll up' }).click();
  await expect(roll).toHaveCount(0);

  // the digits take what stands there now; another stage has another jar; all of it is kept
  await page.getByTestId('canvas').focus();
  await page.keyboard.press('2');
  await expect(page.getByLabel('In hand').getByRole('heading', { name: 'Knife' })).toBeVisible();
  await page.getByRole('button', { name: /^Set out for Work up/ }).click();
  await page.getByRole('menuitem', { name: 'Lay in' }).click();
  await expect(jar.getByRole('button', { name: 'Take the House brush' })).toBeVisible();
  await page.reload();
  await ready(page);
  await expect(jar.getByRole('button', { name: 'Take the House brush' })).toBeVisible();
  await page.getByRole('button', { name: /^Set out for Lay in/ }).click();
  await page.getByRole('menuitem', { name: 'Work up' }).click();
  await expect(jar.getByRole('button', { name: 'Take the Fan' })).toBeVisible();
});

test('two colours are loaded side by side', async ({ page }) => {
  await prepare(page, 'Two colours');
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await page.getByRole('button', { name: 'Load with a second colour' }).click();
  await page.getByRole('menuitem', { name: 'Half of it' }).hover();
  await page.getByRole('menuitem', { name: /Lemon Yellow/ }).click();
  await expect(page.getByTestId('carried')).toHaveText(/Lemon Yellow.*Ultramarine|Ultramarine.*Lemon Yellow/);
  await penStroke(page, straight(200, 200, 420, 200, 0.5));
  // one side of the stroke is blue, the other yellow
  const bluer = async (dy: number) => {
    const [r, , b] = await patch(page, 300, 200 + dy, 2);
    return b - r;
  };
  await expect.poll(async () => Math.abs((await bluer(-8)) - (await bluer(8)))).toBeGreaterThan(60);
});

test('the knife lays slabs, lines and touches, and its side is changed by a key', async ({ page }) => {
  await prepare(page, 'Knife');
  const ground = await patch(page, 300, 150, 3);
  await page.getByRole('button', { name: 'Roll', exact: true }).click();
  await page.getByRole('button', { name: /^Take the Knife/ }).click();
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await expect(page.getByTestId('carried')).toHaveText('Ultramarine');
  await expect(page.getByLabel('In hand').getByRole('heading', { name: 'Knife' })).toBeVisible();
  await penStroke(page, straight(220, 150, 420, 150, 0.45));
  await expect.poll(async () => distance(await patch(page, 300, 150, 3), ground)).toBeGreaterThan(80);
  // a slab is as wide as the blade; the edge draws a line
  const width = (x: number, y: number) => differing(page, [x, y - 40, 2, 80], ground);
  const slab = await width(300, 150);
  await page.getByTestId('canvas').focus();
  await page.keyboard.press('k');
  await expect(page.getByText('Edge', { exact: true }).locator('..')).toHaveClass(/selected/);
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await penStroke(page, straight(220, 260, 420, 260, 0.45));
  await expect.poll(() => width(300, 260)).toBeGreaterThan(0);
  expect(await width(300, 260)).toBeLessThan(slab / 2);
});

test('pressure, tilt and dabs: what the pen does is what the paint does', async ({ page }) => {
  await prepare(page, 'Hand');
  const ground = await patch(page, 300, 150, 3);
  await page.getByRole('button', { name: 'Take the Round' }).click();
  await page.getByRole('button', { name: 'Load Burnt Umber' }).click();
  await expect(page.getByTestId('carried')).toHaveText('Burnt Umber');
  const covered = (y: number) => differing(page, [200, y - 14, 240, 28], ground);
  await penStroke(page, straight(190, 100, 450, 100, 0.12));
  await penStroke(page, straight(190, 180, 450, 180, 0.9));
  await expect.poll(() => covered(180)).toBeGreaterThan(600);
  expect(await covered(100)).toBeLessThan(0.8 * (await covered(180)));
  // a drawn mark is as wide all along, dabs are not
  const unevenness = async (y: number) => {
    const widths = await Promise.all(
      Array.from({ length: 20 }, (_, i) => differing(page, [210 + i * 11, y - 24, 4, 48], ground)),
    );
    const mean = widths.reduce((p, q) => p + q, 0) / widths.length;
    return widths.reduce((p, q) => p + Math.abs(q - mean), 0) / widths.length / mean;
  };
  const drawn = await unevenness(180);
  await page.getByLabel('Drawn or dabbed').getByText('Dabs').click();
  await page.getByRole('button', { name: 'Reload' }).click();
  await penStroke(page, straight(190, 290, 450, 290, 0.9));
  await expect.poll(() => covered(290)).toBeGreaterThan(200);
  expect(await unevenness(290)).toBeGreaterThan(1.3 * drawn);
});

test('acrylic skins by the clock: it is seen wet, left to dry, and wet again when that is taken back', async ({
  page,
}) => {
  await prepare(page, 'Drying');
  await page.getByRole('button', { name: 'Take the Flat' }).click();
  await page.getByRole('button', { name: 'How the paint is made up' }).click();
  await page.getByText('Acrylic', { exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'How the paint is made up' })).toContainText('Acrylic');
  await page.getByRole('button', { name: 'Load Titanium White' }).click();
  await penStroke(page, straight(200, 200, 450, 202, 0.5));
  await expect(page.getByLabel('In hand')).toContainText('on: Paint, wet');
  const colourful = async () => {
    const [r, g, b] = await patch(page, 300, 201, 4);
    return Math.max(r, g, b) - Math.min(r, g, b);
  };
  await page.getByRole('button', { name: 'Wet', exact: true }).click();
  await expect.poll(colourful).toBeGreaterThan(6);
  await page.getByRole('button', { name: 'Leave it to dry' }).click();
  await page.getByRole('menuitem', { name: 'Overnight' }).click();
  await expect.poll(colourful).toBeLessThan(3);
  await expect(page.getByLabel('In hand')).toContainText('on: Paint, dry');
  // a menu that is closing still has the keys
  await expect(page.getByRole('menuitem', { name: 'Overnight' })).toBeHidden();
  await page.getByTestId('canvas').focus();
  await page.keyboard.press('Control+z');
  await expect.poll(colourful).toBeGreaterThan(6);
  await page.getByRole('button', { name: 'Wet', exact: true }).click();

  // raking light shows relief, and leaves what is sampled alone
  await page.getByRole('button', { name: 'Raking', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Raking', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'Lamp' }).click();
  await expect(page.getByRole('slider', { name: 'Finish, from matte to varnished' })).toBeVisible();
});

test('a spray that is held still goes on, and a tone is laid over everything', async ({ page }) => {
  await prepare(page, 'Tone');
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  const bare = await patch(page, 400, 250);
  const canvas = (await page.getByTestId('canvas').boundingBox())!;
  await page.keyboard.press('t');
  await page.getByLabel('Roll', { exact: true }).getByRole('button', { name: 'Take the Spray' }).click();
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  // a little at a time, so that it is seen to grow
  const strength = page.getByLabel('In hand').getByRole('slider', { name: 'Strength' });
  await strength.press('Home');
  for (let i = 0; i < 2; i++) await strength.press('ArrowRight');
  await page.getByLabel('In hand').getByRole('slider', { name: 'Distance' }).press('End');
  await page.mouse.move(canvas.x + 400, canvas.y + 250);
  await page.mouse.down();
  // no event comes while the hand holds still
  await expect.poll(async () => distance(await patch(page, 400, 250), bare)).toBeGreaterThan(10);
  const soon = distance(await patch(page, 400, 250), bare);
  await expect.poll(async () => distance(await patch(page, 400, 250), bare)).toBeGreaterThan(soon + 10);
  await page.mouse.up();
  const aside = distance(await patch(page, 140, 420), bare);
  expect(aside).toBeLessThan(12);

  await page.getByRole('button', { name: 'Work up', exact: false }).first().waitFor();
  await page.getByLabel('Jar', { exact: true }).getByRole('button', { name: 'Take the Flat' }).click();
  await page.getByRole('button', { name: 'Load Burnt Umber' }).click();
  await page.getByRole('button', { name: 'Pieces' }).click();
  await page.getByLabel('What is done').click();
  await page.locator('.ant-select-dropdown').getByTitle('Fill', { exact: true }).click();
  await page.getByRole('button', { name: 'Lay the tone' }).click();
  await expect.poll(async () => distance(await patch(page, 140, 420), bare)).toBeGreaterThan(30);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => distance(await patch(page, 140, 420), bare)).toBeLessThan(12);
});
