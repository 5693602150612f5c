import { expect } from '@playwright/test';
import { atRest, differing, penStroke, ready, straight, test } from './easel';

test('a wash on paper flows, is held, kept as it is, dried and taken back', async ({ page }) => {
  await page.goto('/prepare');
  await page.getByLabel('Title').fill('Wash');
  await page.getByText('Cold-pressed', { exact: true }).click();
  await expect(page.getByLabel('Weight of the paper')).toBeVisible();
  await page.getByRole('button', { name: 'Set it on the easel' }).click();
  await page.waitForURL(/easel/);
  await ready(page);

  // the jar is set out with water, its first brush is in hand, and another is loaded with a wash
  const hand = page.getByLabel('In hand');
  await expect(hand.getByRole('heading', { name: 'Wash round' })).toBeVisible();
  // the longest word for it stays on its line
  const wet = hand.getByRole('slider', { name: 'How wet' });
  await wet.focus();
  await page.keyboard.press('Home');
  const word = hand.getByText('nearly dry');
  await expect(word).toBeVisible();
  expect((await word.boundingBox())!.height).toBeLessThan(25);
  await page.getByRole('button', { name: 'Take the Mop' }).click();
  await expect(hand.getByRole('heading', { name: 'Mop' })).toBeVisible();
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await expect(hand.getByTestId('carried')).toContainText('Ultramarine');
  const box = (await page.getByTestId('canvas').boundingBox())!;
  /** What is told of the paper under the pointer comes to be this. */
  const over = (x: number, y: number, says: string | RegExp) =>
    expect(async () => {
      await page.mouse.move(box.x + x - 3, box.y + y);
      await page.mouse.move(box.x + x, box.y + y);
      await expect(page.getByTestId('wet-case')).toHaveText(says, { timeout: 500 });
    }).toPass();
  await over(480, 200, 'wet on dry');

  await penStroke(page, straight(300, 200, 660, 200, 0.9));
  await page.keyboard.press('h');
  const hold = page.getByRole('button', { name: 'Hold' });
  await expect(hold).toHaveAttribute('aria-pressed', 'true');
  await over(480, 200, 'wet on wet');
  await expect.poll(() => differing(page, [300, 180, 360, 40], [240, 235, 225])).toBeGreaterThan(2000);

  // held, it stays wet through closing and opening
  await atRest(page);
  await page.reload();
  await ready(page);
  await expect(hold).toHaveAttribute('aria-pressed', 'true');
  await over(480, 200, 'wet on wet');

  // dried, and wet again when that is taken back; mist wets bare paper
  await page.getByRole('button', { name: 'Hair dryer' }).click();
  await over(480, 200, /on dry/);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await over(480, 200, 'wet on wet');
  await page.getByRole('button', { name: 'Mist' }).click();
  await over(480, 420, 'wet on damp');
});
