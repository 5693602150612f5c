import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { expect, type Page } from '@playwright/test';
import { atRest, penStroke, prepare, straight, test } from './easel';

/** The moment as it is shown: the words under it, and the picture. */
async function arrived(page: Page): Promise<void> {
  await page.waitForFunction(() => document.querySelector('canvas[data-arriving="false"]') !== null);
}

const strokeSaid = async (page: Page): Promise<number> =>
  Number(/stroke (\d+) of/.exec((await page.getByTestId('caption').textContent()) ?? '')?.[1]);

/** Whether a general tool that checks films is there. */
const hasProbe = (): boolean => {
  try {
    execFileSync('ffprobe', ['-version'], { stdio: 'ignore' });
    return true;
  } catch {
    return false;
  }
};

test('a painting is played, wound, said in own words, filmed and taken from a moment on', async ({ page }) => {
  await prepare(page, 'Played');
  await page.getByRole('button', { name: 'Load Ivory Black' }).click();
  for (let i = 0; i < 6; i++) await penStroke(page, straight(250, 200 + i * 30, 500, 210 + i * 30));
  await atRest(page);
  await page.getByRole('button', { name: 'Send out' }).click();
  await page.getByRole('button', { name: /How it was made/ }).click();
  const panel = page.getByRole('dialog', { name: 'How it was made' });
  await expect(panel.getByTestId('caption')).toContainText('stroke 1 of 6');

  // played to its end
  await panel.getByRole('combobox', { name: 'How long it lasts' }).click();
  await page.getByText('in 20 seconds').click();
  await panel.getByRole('slider', { name: 'Moment' }).focus();
  await page.keyboard.press('End');
  await expect.poll(() => strokeSaid(page)).toBe(6);
  await arrived(page);
  await expect(panel.getByText('all of it is at hand')).toBeVisible();
  await panel.getByRole('button', { name: 'A stroke back' }).click();
  await panel.getByRole('button', { name: 'A stroke back' }).click();
  await expect.poll(() => strokeSaid(page)).toBe(5);
  await panel.getByRole('button', { name: 'Play', exact: true }).click();
  await expect.poll(() => strokeSaid(page)).toBe(6);

  // own words are kept
  const words = panel.getByRole('textbox', { name: 'Words for stage 1' });
  await words.fill('Laying in the water');
  await words.press('Enter');
  await expect(panel.getByTestId('caption')).toContainText('Laying in the water');
  await panel.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'Journal' }).click();
  await page.getByRole('button', { name: 'How it was made' }).click();
  await expect(panel.getByTestId('caption')).toContainText('Laying in the water');

  // a film, given up and made
  await panel.getByRole('spinbutton', { name: /Length of the film/ }).fill('30');
  await panel.getByRole('button', { name: 'Make the film' }).click();
  await panel.getByRole('button', { name: 'Give it up' }).click();
  await expect(panel.getByRole('button', { name: 'Make the film' })).toBeVisible();
  await panel.getByRole('spinbutton', { name: /Length of the film/ }).fill('6');
  const coming = page.waitForEvent('download');
  await panel.getByRole('button', { name: 'Make the film' }).click();
  const film = await (await coming).path();
  await expect(panel.getByText(/6 s, 150 pictures/)).toBeVisible();
  if (hasProbe()) {
    const fields = ['-show_entries', 'stream=width,height,nb_read_frames:format=duration', '-of', 'json'];
    const { streams, format } = JSON.parse(
      execFileSync('ffprobe', ['-v', 'error', '-count_frames', ...fields, film], { encoding: 'utf8' }),
    ) as { streams: { width: number; height: number; nb_read_frames: string }[]; format: { duration: string } };
    expect(streams).toMatchObject([{ width: 1280, height: 720, nb_read_frames: '150' }]);
    expect(Number(format.duration)).toBeCloseTo(6, 1);
  }

  // its stages as pictures
  const zip = page.waitForEvent('download');
  await panel.getByRole('button', { name: 'Pictures (ZIP)' }).click();
  const files = unzipSync(readFileSync(await (await zip).path()));
  expect(Object.keys(files)).toEqual(['01-laying-in-the-water.png']);

  // and a painting of its own from the third stroke on
  await panel.getByRole('slider', { name: 'Moment' }).focus();
  await page.keyboard.press('Home');
  await expect.poll(() => strokeSaid(page)).toBe(1);
  for (let i = 0; i < 3; i++) await panel.getByRole('button', { name: 'A stroke on' }).click();
  await expect.poll(() => strokeSaid(page)).toBe(4);
  await panel.getByRole('button', { name: 'Take it from here' }).click();
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('Played, from stroke 3');
  await atRest(page);
  // the drawer of before is still open
  await expect(page.locator('dt', { hasText: 'Strokes' }).locator('+ dd')).toHaveText('3');
});

test('onlookers see the painting grow in a window of their own', async ({ page }) => {
  await prepare(page, 'Looked at');
  await page.getByRole('button', { name: 'Load Ivory Black' }).click();
  await page.getByRole('button', { name: 'Journal' }).click();
  const opening = page.waitForEvent('popup');
  await page.getByRole('button', { name: 'Live view' }).click();
  const onlooker = await opening;
  const canvas = onlooker.getByLabel('Looked at, as it grows');
  await expect(onlooker.getByText('0 strokes')).toBeVisible();
  const seen = () => canvas.evaluate((of: HTMLCanvasElement) => of.toDataURL());
  await expect.poll(async () => (await seen()).length).toBeGreaterThan(5000);
  const before = await seen();
  await penStroke(page, straight(200, 200, 400, 260));
  await expect(onlooker.getByText('1 stroke')).toBeVisible();
  await expect.poll(seen).not.toBe(before);
  await page.getByRole('button', { name: 'Close the live view' }).click();
  await expect.poll(() => onlooker.isClosed()).toBe(true);
});
