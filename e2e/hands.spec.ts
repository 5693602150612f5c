import { expect, type Page } from '@playwright/test';
import { atRest, distance, patch, penStroke, prepare, straight, test } from './easel';

/** Acts that a painter does every few seconds: each is one act, for mouse and keys, and for touch alone (docs/hands.md). */

/** What the bench tells of the hand. */
const hand = (page: Page) => page.getByLabel('In hand');
const chip = (page: Page) => page.getByRole('button', { name: /^On: / });
const strokes = (page: Page) => page.getByRole('button', { name: 'Undo', exact: true });
/** Number at the end of a dial. */
const dial = async (page: Page, name: string) =>
  Number(await hand(page).getByRole('slider', { name }).getAttribute('aria-valuenow'));

/** Counts what the hand does: presses of keys, clicks, drags and touches. */
class Acts {
  readonly done: string[] = [];
  /** One act, and what must have come of it. */
  async one(what: string, act: () => Promise<void>, then: () => Promise<void>): Promise<void> {
    await act();
    await then();
    this.done.push(what);
  }
}

async function withPhoto(page: Page): Promise<void> {
  await prepare(page, 'Hands');
  await page.getByLabel('Photo files for the board').setInputFiles('public/demo/estuary.jpg');
  await expect(page.getByTestId('photo')).toBeVisible();
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await penStroke(page, straight(200, 150, 520, 150, 0.8));
  await atRest(page);
}

test('with mouse and keys each is one act', async ({ page }) => {
  await withPhoto(page);
  const acts = new Acts();
  const box = (await page.getByTestId('canvas').boundingBox())!;
  const at = (x: number, y: number) => page.mouse.move(box.x + x, box.y + y);
  const ground = await patch(page, 360, 320);

  await acts.one(
    'lay a tube',
    () => page.getByRole('button', { name: 'Load Naphthol Scarlet' }).click(),
    () => expect(page.getByTestId('carried')).toContainText('Scarlet'),
  );
  await acts.one(
    'another tool, loaded with the same colour',
    () => page.keyboard.press('3'),
    async () => {
      await expect(hand(page).getByRole('heading', { name: 'Round' })).toBeVisible();
      await expect(page.getByTestId('carried')).toContainText('Scarlet');
    },
  );
  await acts.one(
    'the tool before',
    () => page.keyboard.press('3'),
    () => expect(hand(page).getByRole('heading', { name: 'Round' })).toHaveCount(0),
  );
  await acts.one(
    'sample',
    async () => {
      await page.keyboard.down('s');
      await at(360, 150);
      await page.mouse.click(box.x + 360, box.y + 150);
      await page.keyboard.up('s');
    },
    () => expect(page.getByTestId('mixture')).toContainText('Ultramarine'),
  );
  await acts.one(
    'the colour before',
    () => page.getByRole('button', { name: 'The colour before' }).click(),
    () => expect(page.getByTestId('mixture')).toContainText('Scarlet'),
  );
  await acts.one(
    'a mixture kept in a pot',
    () => page.keyboard.press('m'),
    () => expect(page.getByRole('button', { name: /^Take pot 1: .*Scarlet/ })).toBeVisible(),
  );
  await page.getByRole('button', { name: 'Load Yellow Ochre' }).click();
  await acts.one(
    'a mixture taken from a pot',
    () => page.getByRole('button', { name: /^Take pot 1/ }).click(),
    () => expect(page.getByTestId('carried')).toContainText('Scarlet'),
  );
  const size = await dial(page, 'Size');
  await acts.one(
    'size',
    async () => {
      await at(300, 400);
      await page.keyboard.down('z');
      await at(310, 400);
      await at(420, 400);
      await expect(page.getByRole('status').filter({ hasText: /mm, \d+ px/ })).toBeVisible();
      await page.keyboard.up('z');
    },
    async () => expect(await dial(page, 'Size')).toBeGreaterThan(size),
  );
  await acts.one(
    'strength',
    () => page.keyboard.press('Shift+Digit5'),
    () => expect.poll(() => dial(page, 'Strength')).toBeCloseTo(0.5, 1),
  );
  await page.keyboard.press('Shift+Digit0');
  await acts.one(
    'blend with this tip',
    async () => {
      await page.keyboard.down('x');
      await expect(page.getByRole('button', { name: 'Blend', exact: true })).toHaveAttribute('aria-pressed', 'true');
      await penStroke(page, straight(200, 330, 520, 330, 0.8));
      await page.keyboard.up('x');
      await atRest(page);
    },
    // a tool that blends gives the bare ground nothing to speak of
    async () => expect(distance(await patch(page, 360, 330), ground)).toBeLessThan(30),
  );
  await penStroke(page, straight(200, 250, 520, 250, 0.8));
  await atRest(page);
  expect(distance(await patch(page, 360, 250), ground)).toBeGreaterThan(40);
  await page.keyboard.press('4');
  await acts.one(
    'undo, and the hand stays',
    () => page.keyboard.press('Control+z'),
    async () => {
      await expect.poll(async () => distance(await patch(page, 360, 250), ground)).toBeLessThan(12);
      await expect(hand(page).getByRole('heading', { name: 'Soft blender' })).toBeVisible();
    },
  );
  await acts.one(
    'new layer below',
    () => page.keyboard.press('Shift+n'),
    () => expect(chip(page)).toHaveAccessibleName(/^On: Paint 2/),
  );
  await acts.one(
    'next layer',
    () => page.keyboard.press('PageUp'),
    () => expect(chip(page)).toHaveAccessibleName(/^On: Paint,/),
  );
  await acts.one(
    'hide the sketch',
    () => page.keyboard.press('Shift+s'),
    async () => {
      await chip(page).click();
      await expect(page.getByRole('button', { name: 'Show the sketch' })).toBeVisible();
    },
  );
  expect(acts.done).toHaveLength(14);
});

test.describe('with touch alone', () => {
  test.use({ hasTouch: true });

  test('each is one act, the other hand on the ledge', async ({ page }) => {
    await withPhoto(page);
    const acts = new Acts();
    const box = (await page.getByTestId('canvas').boundingBox())!;
    const session = await page.context().newCDPSession(page);
    const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', points: [number, number][]) =>
      session.send('Input.dispatchTouchEvent', { type, touchPoints: points.map(([x, y], id) => ({ x, y, id })) });
    const on = async (name: string): Promise<[number, number]> => {
      const b = (await page.getByRole('button', { name, exact: true }).boundingBox())!;
      return [b.x + b.width / 2, b.y + b.height / 2];
    };
    /** One finger holds a button of the ledge while another draws over the canvas. */
    const holding = async (name: string, way: readonly (readonly [number, number])[]) => {
      const still = await on(name);
      await touch('touchStart', [still]);
      await expect(page.getByRole('button', { name, exact: true })).toHaveAttribute('aria-pressed', 'true');
      const places = way.map(([x, y]): [number, number] => [box.x + x, box.y + y]);
      await touch('touchStart', [still, places[0]]);
      for (const place of places.slice(1)) await touch('touchMove', [still, place]);
      await touch('touchEnd', [still]);
      await page.waitForFunction(() => true);
      await touch('touchEnd', []);
    };
    await acts.one(
      'lay a tube',
      () => page.getByRole('button', { name: 'Load Naphthol Scarlet' }).tap(),
      () => expect(page.getByTestId('carried')).toContainText('Scarlet'),
    );
    await acts.one(
      'a mixture kept in a pot',
      () => page.getByRole('button', { name: 'Keep the mixture in pot 1', exact: true }).tap(),
      () => expect(page.getByRole('button', { name: /^Take pot 1: .*Scarlet/ })).toBeVisible(),
    );
    await page.getByRole('button', { name: 'Load Ultramarine Blue' }).tap();
    await acts.one(
      'a mixture taken from a pot',
      () => page.getByRole('button', { name: /^Take pot 1/ }).tap(),
      () => expect(page.getByTestId('carried')).toContainText('Scarlet'),
    );
    await acts.one(
      'another tool',
      () => page.getByRole('button', { name: 'Take the Round' }).tap(),
      () => expect(hand(page).getByRole('heading', { name: 'Round' })).toBeVisible(),
    );
    await acts.one(
      'sample',
      () => holding('Sample', [[360, 150]]),
      () => expect(page.getByTestId('mixture')).toContainText('Ultramarine'),
    );
    await acts.one(
      'undo',
      () => strokes(page).tap(),
      () => expect(strokes(page)).toBeDisabled(),
    );
    await acts.one(
      'layers around',
      () => chip(page).tap(),
      () => expect(page.getByRole('button', { name: 'New below' })).toBeVisible(),
    );
    await page.getByRole('button', { name: 'New below' }).tap();
    await expect(chip(page)).toHaveAccessibleName(/^On: Paint 2/);
    await session.detach();
    expect(acts.done).toHaveLength(7);
  });
});

test('no name on the bench or the ledge is cut off, in a usual and in a small window', async ({ page }) => {
  await prepare(page, 'Words');
  for (const [width, height] of [
    [1280, 800],
    [1024, 768],
  ]) {
    await page.setViewportSize({ width, height });
    await atRest(page);
    const cut = await page.evaluate(() => {
      const words = [
        ...document.querySelectorAll('footer *, section[aria-label="Ledge"] *, nav[aria-label="Drawers"] *'),
      ];
      return words
        .filter(
          (e) => e.childElementCount === 0 && (e.textContent ?? '').trim() !== '' && !e.closest('.visually-hidden'),
        )
        .filter((e) => e.scrollWidth > e.clientWidth + 1 && getComputedStyle(e).display !== 'inline')
        .map((e) => e.textContent);
    });
    expect(cut, `${width} x ${height}`).toEqual([]);
  }
});
