import { expect } from '@playwright/test';
import { encode } from 'fast-png';
import { differing, penStroke, ready, straight, test, atRest } from './easel';

/** Colour of bare sand-coloured paper on the screen, about. */
const PAPER = [208, 190, 168];

test('pastel on laid paper: sticks from the box, rubbed, fixed; a drawing that fades and takes another colour', async ({
  page,
}) => {
  await page.goto('/prepare');
  await page.getByLabel('Title').fill('Sticks');
  await page.getByText('Laid paper', { exact: true }).click();
  await page.getByRole('button', { name: 'Set it on the easel' }).click();
  await page.waitForURL(/easel/);
  await ready(page);

  // the jar is set out with sticks, the box has shades and tints of the tubes
  await page.getByRole('button', { name: 'Take the Soft pastel' }).click();
  const hand = page.getByLabel('In hand');
  await expect(hand.getByRole('heading', { name: 'Soft pastel' })).toBeVisible();
  await page.getByRole('button', { name: 'Sticks', exact: true }).click();
  const box = page.getByRole('region', { name: 'Box of sticks' });
  expect(await box.getByRole('button', { name: /^Take a stick of/ }).count()).toBeGreaterThan(80);
  await box.getByRole('button', { name: 'Take a stick of Ultramarine', exact: true }).click();
  await box.getByRole('button', { name: 'Close the box' }).click();
  await expect(hand.getByTestId('carried')).toContainText('Ultramarine');

  // one light pass is a tint, heavier ones close it
  const area = [320, 180, 300, 40];
  const light = straight(300, 200, 640, 200, 0.3);
  await penStroke(page, light);
  await expect.poll(() => differing(page, area, PAPER)).toBeGreaterThan(300);
  const full = () => differing(page, area, PAPER, 150);
  const once = await full();
  for (let k = 0; k < 3; k++) await penStroke(page, straight(300, 200, 640, 200, 1));
  await expect.poll(full).toBeGreaterThan(1.5 * once + 500);

  // a finger draws it down over bare paper; fixed, it cannot
  const below = [400, 240, 60, 30];
  expect(await differing(page, below, PAPER)).toBe(0);
  await page.getByRole('button', { name: 'Take the Finger' }).click();
  await penStroke(page, straight(430, 195, 430, 275, 0.8));
  await expect.poll(() => differing(page, below, PAPER, 40)).toBeGreaterThan(40);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => differing(page, below, PAPER, 40)).toBe(0);
  await page.getByRole('button', { name: 'Fix', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Fix', exact: true })).toHaveCount(0);
  await penStroke(page, straight(430, 195, 430, 275, 0.8));
  await atRest(page);
  expect(await differing(page, below, PAPER, 40)).toBe(0);

  // on the sketch: charcoal, faded away and brought back, then all lines red
  await page.getByRole('button', { name: 'Layers' }).click();
  await page.getByRole('button', { name: 'Paint on Sketch' }).click();
  await page.getByRole('button', { name: 'Take the Pressed charcoal' }).click();
  await penStroke(page, straight(320, 400, 620, 400, 0.9));
  const drawn = [330, 390, 280, 20];
  await expect.poll(() => differing(page, drawn, PAPER)).toBeGreaterThan(300);
  const seen = page.getByLabel('How much of Sketch is seen');
  await seen.focus();
  await page.keyboard.press('Home');
  await expect.poll(() => differing(page, drawn, PAPER)).toBe(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => differing(page, drawn, PAPER)).toBeGreaterThan(300);
  // as many as there are: every second pixel each way
  const all = (drawn[2] / 2) * (drawn[3] / 2);
  expect(await differing(page, drawn, [40, 40, 42], 40)).toBeLessThan(0.95 * all);
  await page.getByRole('button', { name: 'Load Naphthol Scarlet' }).click();
  await page.getByRole('button', { name: 'Recolour with the mixture' }).click();
  await expect.poll(() => differing(page, drawn, [40, 40, 42], 40)).toBeGreaterThan(0.99 * all);

  // a scan on grey paper comes in as lines alone; what is no picture ends in a sentence
  const data = new Uint8Array(90 * 60).fill(200);
  for (let x = 10; x < 80; x++) for (let y = 28; y < 32; y++) data[y * 90 + x] = 30;
  const scan = Buffer.from(encode({ width: 90, height: 60, data, channels: 1 }));
  const picker = page.getByLabel('A drawing to bring in');
  await picker.setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  await expect(page.getByText(/cannot be read as a picture/)).toBeVisible();
  await picker.setInputFiles({ name: 'Scan.png', mimeType: 'image/png', buffer: scan });
  await expect(page.getByRole('button', { name: 'Paint on Scan' })).toBeVisible();
  await expect.poll(() => differing(page, [400, 432, 100, 50], PAPER)).toBe(0);
});
