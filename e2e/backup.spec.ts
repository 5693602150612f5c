import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { unzipSync } from 'fflate';
import { opened, penStroke, prepare, sendOut, straight, test, atRest } from './easel';

test('all paintings are sent out as one archive and read back', async ({ page }) => {
  test.skip(process.env.MEASURE !== 'all', 'packs and unpacks a whole demo: among the long measurements');
  test.setTimeout(300_000);
  const digests: string[] = [];
  for (const title of ['Posts', 'Dinghy']) {
    await prepare(page, title);
    await page.getByRole('button', { name: 'Load Ivory Black' }).click();
    for (let i = 0; i < 3; i++) await penStroke(page, straight(150, 100 + i * 60 + title.length, 500, 100 + i * 60));
    await atRest(page);
    digests.push(opened((await sendOut(page, /Painting file/)).bytes).digest);
  }
  await penStroke(page, straight(150, 300, 500, 320));
  await atRest(page);
  digests[1] = '';
  await page.goto('/');
  await expect(page.getByText('just now, painted on since')).toBeVisible();
  await expect(page.getByText('no file of it was sent out')).toBeVisible({ timeout: 90_000 }); // the demo
  const [download] = await Promise.all([
    page.waitForEvent('download', { timeout: 120_000 }),
    page.getByRole('button', { name: 'Send out all' }).click(),
  ]);
  await expect(page.getByText('no file of it was sent out')).toHaveCount(0);
  const archive = readFileSync(await download.path());
  const files = unzipSync(archive);
  expect(Object.keys(files).sort()).toEqual(['Dinghy.stigmos', 'Low tide, study 1.stigmos', 'Posts.stigmos']);
  expect(opened(files['Posts.stigmos']).digest).toBe(digests[0]);
  expect(opened(files['Dinghy.stigmos']).journal.entries.filter((e) => e.do === 'stroke')).toHaveLength(4);
  await expect(page.getByRole('link', { name: /^Open / })).toHaveCount(3);
  await page
    .getByLabel('Open a painting file')
    .setInputFiles({ name: 'all.zip', mimeType: 'application/zip', buffer: archive });
  await expect(page.getByRole('link', { name: /^Open / })).toHaveCount(6, { timeout: 120_000 });
});
