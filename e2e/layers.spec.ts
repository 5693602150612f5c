import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { decode, encode } from 'fast-png';
import { strFromU8, unzipSync, zlibSync } from 'fflate';
import {
  differing,
  distance,
  patch,
  patchAtRest,
  penStroke,
  pixel,
  prepare,
  ready,
  sendOut,
  straight,
  test,
  atRest,
} from './easel';

const drawer = (page: Page) => page.getByRole('region', { name: 'Layers' });
const strata = (page: Page) => drawer(page).getByRole('button', { name: /^Paint on / });
const names = async (page: Page) =>
  (await strata(page).evaluateAll((list) => list.map((e) => e.querySelector('span')!.textContent!.slice(9)))).join(
    ', ',
  );

/** Adds a layer by the menu. */
async function add(page: Page, label: string): Promise<void> {
  const choice = page.getByRole('menuitem', { name: label, exact: true });
  await drawer(page).getByRole('button', { name: 'Add a layer' }).click();
  await expect(choice).toBeVisible();
  // a menu that is still opening may miss a click, and one that was heard may close late
  await expect(async () => {
    if (await choice.isVisible()) await choice.click({ timeout: 2000 });
    await expect(choice).toBeHidden({ timeout: 2000 });
  }).toPass();
}

/** Pulls the mouse over the canvas, CSS pixels from its corner. */
async function pull(page: Page, from: [number, number], to: [number, number], key?: string): Promise<void> {
  const box = (await page.getByTestId('canvas').boundingBox())!;
  await page.mouse.move(box.x + from[0], box.y + from[1]);
  if (key) await page.keyboard.down(key);
  await page.mouse.down();
  await page.mouse.move(box.x + (from[0] + to[0]) / 2, box.y + (from[1] + to[1]) / 2, { steps: 3 });
  await page.mouse.move(box.x + to[0], box.y + to[1], { steps: 3 });
  await page.mouse.up();
  if (key) await page.keyboard.up(key);
}

const noise = (width: number, height: number, seed: number): Uint8Array => {
  let a = seed;
  const next = () => {
    a = (Math.imul(a, 1664525) + 1013904223) >>> 0;
    return a >>> 24;
  };
  return Uint8Array.from({ length: width * height * 4 }, (_, i) => (i % 4 === 3 ? 255 : next()));
};

test('blend modes are those of the standard: what the browser itself composes, to one code', async ({ page }) => {
  // every mode in a strip of its own, at two opacities, over the same noise
  const modes = [
    'normal',
    'multiply',
    'screen',
    'overlay',
    'darken',
    'lighten',
    'color-dodge',
    'color-burn',
    'hard-light',
    'soft-light',
    'difference',
    'exclusion',
    'hue',
    'saturation',
    'color',
    'luminosity',
  ];
  const strips = modes.flatMap((blend) => [1, 0.6].map((opacity) => ({ blend, opacity })));
  const [width, high] = [160, 8];
  const height = high * strips.length;
  const [base, source] = [3, 8].map((seed) => noise(width, height, seed));
  const picture = (bytes: Uint8Array, rest = {}) => ({
    do: 'layer.picture',
    widthPx: width,
    heightPx: height,
    rgba: Buffer.from(zlibSync(bytes)).toString('base64'),
    ...rest,
  });
  const strip = (k: number) => source.map((v, i) => (Math.floor(i / (4 * width * high)) === k ? v : 0));
  const mm = (px: number) => (px * 25.4) / 150;
  const journal = {
    format: 'stigmos-journal',
    version: 1,
    painting: { widthMm: mm(width), heightMm: mm(height), ppi: 150, surface: { kind: 'smooth', scale: 1, depth: 1 } },
    entries: [picture(base), ...strips.map((look, k) => picture(strip(k), look))],
  };
  const folder = mkdtempSync(join(tmpdir(), 'stigmos-'));
  const file = join(folder, 'strips.json');
  writeFileSync(file, JSON.stringify(journal));
  execFileSync('./stigmos', ['replay', file, '--unlit', '--picture', join(folder, 'strips.png')]);
  const mine = decode(readFileSync(join(folder, 'strips.png')));
  expect([mine.width, mine.height]).toEqual([width, height]);

  await page.goto('/');
  // the browser rounds on its way: in bytes, or in half floats where it can; a mode agrees where one of the two does
  const composed = (colorType: 'unorm8' | 'float16') =>
    page.evaluate(
      ([low, high, w, h, rows, looks, type]) => {
        const canvas = (bytes: readonly number[]) => {
          const own = new OffscreenCanvas(w, h);
          own.getContext('2d')!.putImageData(new ImageData(Uint8ClampedArray.from(bytes), w, h), 0, 0);
          return own;
        };
        const context = new OffscreenCanvas(w, h).getContext('2d', {
          colorType: type,
        } as CanvasRenderingContext2DSettings)!;
        context.drawImage(canvas(low), 0, 0);
        const over = canvas(high);
        looks.forEach(({ blend, opacity }, k) => {
          context.globalAlpha = opacity;
          context.globalCompositeOperation = (blend === 'normal' ? 'source-over' : blend) as GlobalCompositeOperation;
          context.drawImage(over, 0, k * rows, w, rows, 0, k * rows, w, rows);
        });
        return [...context.getImageData(0, 0, w, h).data];
      },
      [[...base], [...source], width, height, high, strips, colorType] as const,
    );
  const both = [await composed('unorm8'), await composed('float16')];
  const worst = strips.map(({ blend, opacity }, k) => {
    const far = both.map((theirs) => {
      let most = 0;
      for (let i = k * high * width; i < (k + 1) * high * width; i++) {
        for (let c = 0; c < 3; c++)
          most = Math.max(most, Math.abs(mine.data[i * mine.channels + c] - theirs[4 * i + c]));
      }
      return most;
    });
    return { blend, opacity, far: Math.min(...far) };
  });
  expect(worst.filter(({ far }) => far > 1)).toEqual([]);
});

test('layers are added, ordered, hidden, locked, masked, copied, merged and undone', async ({ page }) => {
  await prepare(page, 'In layers');
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await penStroke(page, straight(180, 300, 520, 300));
  const blue = await patch(page, 350, 300);
  const bare = await patch(page, 350, 150);
  await page.getByRole('button', { name: 'Layers' }).click();
  await expect(page.getByText('on: Paint, wet', { exact: true })).toBeVisible();

  // a layer above, named, with paint of its own
  await add(page, 'Paint');
  await expect(page.getByText('on: Paint 2, bare')).toBeVisible();
  await strata(page).first().dblclick();
  await page.getByLabel('Name of the layer').fill('Glaze');
  await page.keyboard.press('Enter');
  await expect.poll(() => names(page)).toBe('Glaze, Paint, Sketch');
  await page
    .getByRole('button', { name: 'Load Scarlet' })
    .or(page.getByRole('button', { name: /^Load .*[Ss]carlet/ }))
    .first()
    .click();
  await penStroke(page, straight(350, 180, 350, 420));
  await expect.poll(async () => distance(await patch(page, 350, 300), blue)).toBeGreaterThan(60);
  const red = await patch(page, 350, 300);

  // dragged below the other
  const [top, low] = await Promise.all([strata(page).nth(0).boundingBox(), strata(page).nth(1).boundingBox()]);
  await page.mouse.move(top!.x + 40, top!.y + top!.height / 2);
  await page.mouse.down();
  await page.mouse.move(top!.x + 40, top!.y + top!.height / 2 + 12, { steps: 3 });
  await page.mouse.move(low!.x + 40, low!.y + low!.height * 0.8, { steps: 6 });
  await page.mouse.up();
  await expect.poll(() => names(page)).toBe('Paint, Glaze, Sketch');
  // blue over red is darker than either
  await expect.poll(async () => distance(await patch(page, 350, 300), red)).toBeGreaterThan(25);
  await page.keyboard.press('Control+z');
  await expect.poll(() => names(page)).toBe('Glaze, Paint, Sketch');

  // hidden and locked: it says so in place, and nothing is painted
  const before = await patch(page, 250, 200);
  await drawer(page).getByRole('button', { name: 'Hide Glaze' }).click();
  await penStroke(page, straight(180, 200, 520, 200));
  await expect(
    page.getByText('“Glaze” is hidden').or(page.getByText('"Glaze" is hidden: show it before painting on it.')),
  ).toBeVisible();
  await drawer(page).getByRole('button', { name: 'Show Glaze' }).click();
  await drawer(page).getByRole('checkbox', { name: 'Locked' }).click();
  await expect(page.getByText('on: Glaze, wet, locked')).toBeVisible();
  await penStroke(page, straight(180, 200, 520, 200));
  await expect(page.getByText('"Glaze" is locked: unlock it before painting on it.')).toBeVisible();
  expect(distance(await patch(page, 250, 200), before)).toBeLessThan(4);
  await drawer(page).getByRole('checkbox', { name: 'Locked' }).click();

  // the picture without it, as long as the key is held
  await page.getByTestId('canvas').focus();
  const with2 = await patch(page, 350, 220);
  await page.keyboard.down('b');
  await expect.poll(async () => distance(await patch(page, 350, 220), bare)).toBeLessThan(25);
  await page.keyboard.up('b');
  await expect.poll(async () => distance(await patch(page, 350, 220), with2)).toBeLessThan(4);

  // a mask that is painted black with the pen
  await drawer(page).getByRole('button', { name: 'Add a mask' }).click();
  await page.getByRole('menuitem', { name: /All shown/ }).click();
  await expect(page.getByText('on: mask of Glaze', { exact: true })).toBeVisible();
  await penStroke(page, straight(330, 390, 370, 390, 0.9));
  await penStroke(page, straight(370, 390, 330, 390, 0.9));
  await expect.poll(async () => distance(await patch(page, 350, 390), bare)).toBeLessThan(40);
  await drawer(page).getByRole('button', { name: 'Paint the mask' }).click();
  await expect(page.getByText('on: Glaze, wet', { exact: true })).toBeVisible();

  // copied, merged down, removed; undone again
  await drawer(page).getByRole('button', { name: 'Duplicate' }).click();
  await expect.poll(() => names(page)).toBe('Glaze copy, Glaze, Paint, Sketch');
  await drawer(page).getByRole('button', { name: 'Merge down' }).click();
  await expect.poll(() => names(page)).toBe('Glaze, Paint, Sketch');
  await drawer(page).getByRole('button', { name: 'Remove Glaze' }).click();
  await expect.poll(() => names(page)).toBe('Paint, Sketch');
  await expect.poll(async () => distance(await patch(page, 350, 220), bare)).toBeLessThan(25);
  await page.keyboard.press('Control+z');
  await expect.poll(() => names(page)).toBe('Glaze, Paint, Sketch');
  await expect.poll(async () => distance(await patch(page, 350, 220), with2)).toBeLessThan(30);

  // all of it is there again, and the file tells it all
  await atRest(page);
  await page.reload();
  await ready(page);
  await page.getByRole('button', { name: 'Layers' }).click();
  await expect.poll(() => names(page)).toBe('Glaze, Paint, Sketch');
  const { bytes } = await sendOut(page, /file|Stigmos/i);
  const parts = unzipSync(bytes);
  const journal = join(mkdtempSync(join(tmpdir(), 'stigmos-')), 'journal.json');
  writeFileSync(journal, parts['journal.json']);
  const replayed = JSON.parse(execFileSync('./stigmos', ['replay', journal]).toString()) as { digest: string };
  expect(replayed.digest).toBe((JSON.parse(strFromU8(parts['manifest.json'])) as { digest: string }).digest);
});

test('an adjustment follows the hand, can be changed later, and is masked', async ({ page }) => {
  await prepare(page, 'Levels');
  await page.getByRole('button', { name: 'Layers' }).click();
  const bare = await patch(page, 350, 300);
  await add(page, 'Levels');
  await expect(drawer(page).getByRole('img', { name: 'Histogram' }).locator('path')).toBeVisible();
  // with a photo on the board its values stand over those of the canvas
  await page.getByLabel('Photo files').setInputFiles('public/demo/still-life.jpg');
  const ofPhoto = drawer(page).locator('path[data-of=photo]');
  await expect(ofPhoto).toBeVisible();
  const outline = (await ofPhoto.getAttribute('d'))!;
  expect(new Set(outline.match(/ [\d.]+/g)).size).toBeGreaterThan(40);
  await drawer(page).getByText('red', { exact: true }).click();
  await expect(ofPhoto).not.toHaveAttribute('d', outline);
  await drawer(page).getByText('all', { exact: true }).click();
  await drawer(page)
    .getByRole('checkbox', { name: /chosen photo/ })
    .click();
  await expect(ofPhoto).toBeHidden();
  const middle = drawer(page).getByRole('slider', { name: 'Middle' });
  const track = (await middle.boundingBox())!;
  // while the slider is held the picture is already another one
  await page.mouse.move(track.x + track.width / 2, track.y + track.height / 2);
  await page.mouse.down();
  await page.mouse.move(track.x - 70, track.y + track.height / 2, { steps: 6 });
  await expect.poll(async () => bare[1] - (await patch(page, 350, 300))[1]).toBeGreaterThan(30);
  await page.mouse.up();
  await expect(middle).not.toHaveAttribute('aria-valuenow', '0');
  const held = (await middle.getAttribute('aria-valuenow'))!;
  await drawer(page).getByRole('button', { name: 'As it was' }).click();
  await expect.poll(async () => distance(await patch(page, 350, 300), bare)).toBeLessThan(4);
  await page.keyboard.press('Control+z');
  await expect(middle).toHaveAttribute('aria-valuenow', held);
  await expect.poll(async () => bare[1] - (await patch(page, 350, 300))[1]).toBeGreaterThan(30);
  const dark = await patchAtRest(page, 350, 300);
  // a curve is pulled down in the middle
  await add(page, 'Curves');
  const curve = (await drawer(page).getByRole('img', { name: 'Curve', exact: true }).boundingBox())!;
  await page.mouse.move(curve.x + curve.width * 0.4, curve.y + curve.height * 0.6);
  await page.mouse.down();
  await page.mouse.move(curve.x + curve.width * 0.4, curve.y + curve.height * 0.2, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await patch(page, 350, 300))[1] - dark[1]).toBeGreaterThan(30);
  const light = await patchAtRest(page, 350, 300);
  await drawer(page).getByRole('button', { name: 'Add a mask' }).click();
  await page.getByRole('menuitem', { name: /All hidden/ }).click();
  await expect.poll(async () => distance(await patch(page, 350, 300), dark)).toBeLessThan(4);
  await drawer(page).getByText('white', { exact: true }).click();
  await expect(drawer(page).getByRole('radio', { name: 'white' })).toBeChecked();
  await penStroke(page, straight(300, 300, 400, 300, 0.9));
  await penStroke(page, straight(400, 300, 300, 300, 0.9));
  await expect.poll(async () => distance(await patch(page, 350, 300, 3), light)).toBeLessThan(25);
  expect(distance(await patch(page, 350, 150), dark)).toBeLessThan(8);
});

test('a part is selected, painted within, moved by its handles, filled and repeated; the canvas is cut', async ({
  page,
}) => {
  await prepare(page, 'Pieces');
  await page.getByRole('button', { name: 'Pieces' }).click();
  const pieces = page.getByRole('region', { name: 'Pieces' });
  const bare = await patch(page, 350, 300);
  await pieces.getByRole('button', { name: 'Rectangle' }).click();
  await pull(page, [250, 220], [400, 360]);
  await expect(page.getByTestId('selection')).toHaveAttribute('d', /M.+Z/);
  await pieces.getByRole('button', { name: 'Rectangle' }).click();
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await penStroke(page, straight(120, 290, 560, 290, 0.8));
  await penStroke(page, straight(120, 310, 560, 310, 0.8));
  await expect.poll(async () => distance(await patch(page, 320, 300), bare)).toBeGreaterThan(60);
  for (const x of [200, 460]) expect(distance(await patch(page, x, 300), bare)).toBeLessThan(12);

  // moved to the right by the middle; undone; scaled by a corner
  await pieces.getByLabel('What is done').click();
  await page.locator('.ant-select-dropdown').getByTitle('Move', { exact: true }).click();
  await expect(page.getByTestId('pieces').locator('circle').first()).toBeVisible();
  await pull(page, [320, 300], [480, 300]);
  await pieces.getByRole('button', { name: 'Lay it down' }).click();
  await expect.poll(async () => distance(await patch(page, 480, 300), bare)).toBeGreaterThan(60);
  await expect.poll(async () => distance(await patch(page, 300, 300), bare)).toBeLessThan(12);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => distance(await patch(page, 320, 300), bare)).toBeGreaterThan(60);
  const blueness = () => differing(page, [100, 100, 520, 420], bare, 50);
  const small = await blueness();
  await pieces.getByRole('button', { name: 'Size and turn' }).click();
  const grips = page.getByTestId('pieces').locator('circle');
  await expect(grips).toHaveCount(9);
  const corner = (await grips.nth(2).boundingBox())!;
  const view = (await page.getByTestId('canvas').boundingBox())!;
  const at: [number, number] = [corner.x + corner.width / 2 - view.x, corner.y + corner.height / 2 - view.y];
  await pull(page, at, [at[0] + 75, at[1] + 40]);
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await blueness()) / small).toBeGreaterThan(1.6);
  // bent by its mesh
  await pieces.getByRole('button', { name: 'Bend' }).click();
  await expect(grips).toHaveCount(16);
  const point = (await grips.nth(5).boundingBox())!;
  await pull(page, [point.x + 5 - view.x, point.y + 5 - view.y], [point.x + 30 - view.x, point.y + 40 - view.y]);
  await pieces.getByRole('button', { name: 'Lay it down' }).click();
  await expect(grips).toHaveCount(0);

  // an area is filled with the mixture, a piece repeated
  await pieces.getByLabel('What is done').click();
  await page.locator('.ant-select-dropdown').getByTitle('Select', { exact: true }).click();
  await pieces.getByRole('button', { name: 'Ellipse' }).click();
  await pull(page, [150, 120], [220, 180]);
  await pieces.getByLabel('What is done').click();
  await page.locator('.ant-select-dropdown').getByTitle('Fill', { exact: true }).click();
  await page.mouse.click(view.x + 185, view.y + 150);
  await expect.poll(async () => distance(await patch(page, 185, 150), bare)).toBeGreaterThan(60);
  await pieces.getByLabel('What is done').click();
  await page.locator('.ant-select-dropdown').getByTitle('Repeat', { exact: true }).click();
  await page.mouse.click(view.x + 560, view.y + 150);
  await expect.poll(async () => distance(await patch(page, 560, 150), bare)).toBeGreaterThan(60);
  await page.keyboard.press('Control+d');
  await expect(page.getByTestId('selection')).toHaveAttribute('d', '');

  // the canvas is cut at the left, and whole again
  await pieces.getByLabel('What is done').click();
  await page.locator('.ant-select-dropdown').getByTitle('Canvas', { exact: true }).click();
  // a side is pulled, then typed
  const side = (await page.getByTestId('rim').locator('path').last().boundingBox())!;
  await page.mouse.move(side.x + side.width / 2, side.y + side.height / 2);
  await page.mouse.down();
  await page.mouse.move(side.x + side.width / 2 + 60, side.y + side.height / 2, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => Number(await pieces.getByLabel('Left, mm').inputValue())).toBeLessThan(-5);
  await pieces.getByLabel('Left, mm').fill('-100');
  await pieces.getByRole('button', { name: 'Cut or extend the canvas' }).click();
  await expect(pieces.getByText('200 × 200 mm becomes')).toBeVisible();
  await pieces.getByRole('button', { name: 'Turn right' }).click();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(pieces.getByText('300 × 200 mm becomes')).toBeVisible();
  // fitted into the view anew, with all that was on it
  await expect.poll(blueness).toBeGreaterThan(0.5 * small);
  await atRest(page);
  await page.reload();
  await ready(page);
  expect((await pixel(page, 0.5, 0.5))[3]).toBe(255);
});

test('a photographed ground lies under the paint; what is no picture is refused in place', async ({ page }) => {
  await prepare(page, 'On stone');
  await page.getByRole('button', { name: 'Load Ivory Black' }).click();
  await page.getByRole('button', { name: 'Layers' }).click();
  const bare = await patch(page, 300, 200);
  await penStroke(page, straight(200, 300, 420, 300, 0.9));
  await expect.poll(async () => distance(await patch(page, 300, 300, 3), bare)).toBeGreaterThan(60);
  const paint = await patch(page, 300, 300, 3);
  await add(page, 'Picture or texture …');
  await drawer(page).getByText('Ground', { exact: true }).click();
  const file = drawer(page).getByLabel('A picture to bring in');
  await file.setInputFiles({ name: 'note.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  await expect(drawer(page).getByRole('alert')).toContainText('note.png');
  const [width, height] = [240, 180];
  const red = Uint8Array.from({ length: width * height * 4 }, (_, i) => [150, 60, 40, 255][i % 4]);
  await file.setInputFiles({
    name: 'Red wall.png',
    mimeType: 'image/png',
    buffer: Buffer.from(encode({ width, height, data: red, channels: 4 })),
  });
  await expect.poll(async () => distance(await patch(page, 300, 200), bare)).toBeGreaterThan(60);
  expect(await names(page)).toMatch(/Red wall$/);
  const [r, g] = await patch(page, 300, 200);
  expect(r - g).toBeGreaterThan(50);
  // the paint above it is still the paint
  expect(distance(await patch(page, 300, 300, 3), paint)).toBeLessThan(40);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => distance(await patch(page, 300, 200), bare)).toBeLessThan(6);
});

test('several layers are moved and mirrored together, and laid back', async ({ page }) => {
  await prepare(page, 'Together');
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await page.getByRole('button', { name: 'Layers' }).click();
  const bare = await patch(page, 300, 120);
  const there = async (x: number, y: number) => distance(await patch(page, x, y, 4), bare) > 60;
  await penStroke(page, straight(150, 200, 230, 200, 0.8));
  await add(page, 'Paint');
  await penStroke(page, straight(370, 300, 450, 300, 0.8));
  await expect.poll(() => there(410, 300)).toBe(true);
  await page.getByRole('button', { name: 'Pieces' }).click();
  const pieces = page.getByRole('region', { name: 'Pieces' });
  await pieces.getByLabel('What is done').click();
  await page.locator('.ant-select-dropdown').getByTitle('Move', { exact: true }).click();
  await pieces.getByLabel('Layers that go along').click();
  await page.locator('.ant-select-dropdown').getByTitle('Paint', { exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('pieces').locator('circle')).toHaveCount(9);
  await pull(page, [300, 250], [300, 330]);
  // both are off their places while they hang
  await expect.poll(() => there(190, 200)).toBe(false);
  await pieces.getByRole('button', { name: 'Lay it down' }).click();
  await expect
    .poll(async () => [await there(190, 280), await there(410, 380), await there(410, 300)])
    .toEqual([true, true, false]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => [await there(190, 200), await there(410, 300)]).toEqual([true, true]);
  // mirrored about the middle of both
  await pieces.getByRole('button', { name: 'Size and turn' }).click();
  await pieces.getByLabel('Layers that go along').click();
  await page.locator('.ant-select-dropdown').getByTitle('Paint', { exact: true }).click();
  await page.keyboard.press('Escape');
  await pieces.getByRole('button', { name: 'Mirror', exact: true }).click();
  await expect
    .poll(async () => [await there(410, 200), await there(190, 300), await there(190, 200)])
    .toEqual([true, true, false]);
});
