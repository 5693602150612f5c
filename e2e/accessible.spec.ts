import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { patch, prepare, ready, distance, test, still } from './easel';

/** What a checker of accessibility finds wrong on a page, in words. */
async function problems(page: Page, part?: string): Promise<string[]> {
  const builder = new AxeBuilder({ page });
  const { violations } = await (part ? builder.include(part) : builder).analyze();
  return violations.flatMap(({ id, nodes }) =>
    nodes.map(({ target, failureSummary = '' }) => `${id}: ${target.join(' ')}: ${failureSummary.split('\n')[1]}`),
  );
}

test('every screen can be used without seeing or pointing at it', async ({ page }) => {
  test.setTimeout(300_000);
  await page.goto('/');
  await expect(page.getByRole('link', { name: 'Open Low tide, study 1' })).toBeVisible({ timeout: 90_000 });
  await expect(page.getByText('Hanging a painting')).toHaveCount(0);
  expect.soft(await problems(page), 'the rack').toEqual([]);
  await page.goto('/prepare');
  await expect(page.getByRole('button', { name: 'Set it on the easel' })).toBeVisible();
  expect.soft(await problems(page), 'prepare').toEqual([]);
  await prepare(page, 'Seen by touch');
  expect.soft(await problems(page), 'the easel').toEqual([]);
  const panels = {
    t: '[aria-label="Roll"]',
    u: '[aria-label="Tube rack"]',
    c: '[aria-label="Leaf"]',
    'Shift+P': '[aria-label="All pots"]',
    'Shift+M': '.ant-drawer',
    'Shift+W': '.ant-drawer',
  };
  for (const [key, panel] of Object.entries(panels)) {
    await page.keyboard.press(key);
    await still(page);
    expect.soft(await problems(page, panel), `the panel of ${key}`).toEqual([]);
    await page.keyboard.press(key);
  }
  const spine = page.getByRole('navigation', { name: 'Drawers' }).getByRole('button');
  for (let i = 0; i < (await spine.count()); i++) {
    await spine.nth(i).click();
    await still(page);
    expect.soft(await problems(page, 'section[class*="drawer"]'), `drawer ${i + 1}`).toEqual([]);
  }
  await page.goto(page.url().replace('/easel', '/desk'));
  await expect(page.getByRole('heading', { name: 'Mixing desk' })).toBeVisible();
  await still(page);
  expect.soft(await problems(page), 'the desk').toEqual([]);
  await page.goto('/settings');
  await expect(page.getByRole('heading', { name: 'Settings' })).toBeVisible();
  expect.soft(await problems(page), 'the settings').toEqual([]);
  for (const [path, name] of [
    ['/shop', 'The print shop'],
    ['/gallery', 'The gallery'],
  ]) {
    await page.goto(path);
    await expect(page.getByRole('heading', { name })).toBeVisible();
    // what other tests have sent may stand here
    await expect(
      page.getByText(/Nothing was sent here yet|The wall is empty/).or(page.getByRole('listitem').first()),
    ).toBeVisible();
    expect.soft(await problems(page), path).toEqual([]);
  }
});

test('a stroke is painted by keyboard, and Tab leaves the canvas', async ({ page }) => {
  await prepare(page, 'Keys');
  await page.getByRole('button', { name: 'Load Ivory Black' }).click();
  const canvas = page.getByTestId('canvas');
  const before = await patch(page, 500, 290);
  await canvas.focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Enter');
  for (let i = 0; i < 20; i++) await page.keyboard.press(i % 2 ? 'ArrowRight' : 'ArrowDown');
  await page.keyboard.press('Enter');
  const box = (await canvas.boundingBox())!;
  const [x, y] = [Math.round(box.width / 2) + 60, Math.round(box.height / 2) - 72 + 60];
  await expect.poll(async () => distance(await patch(page, x, y), before)).toBeGreaterThan(60);
  await page.keyboard.press('Tab');
  await expect(canvas).not.toBeFocused();
  await page.keyboard.press('Shift+Tab');
  await expect(canvas).toBeFocused();
  await page.keyboard.press('o');
  await expect(page.getByLabel('In hand')).toBeHidden();
  await page.keyboard.press('o');
  await expect(page.getByLabel('In hand')).toBeVisible();
  await ready(page);
});
