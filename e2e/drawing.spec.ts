import { expect, type Page } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';
import { differing, penStroke, ready, sendOut, test } from './easel';

/** A pull of the mouse over something, CSS pixels from its corner. */
async function pull(page: Page, testId: string, from: [number, number], to: [number, number]) {
  const box = (await page.getByTestId(testId).boundingBox())!;
  await page.mouse.move(box.x + from[0], box.y + from[1]);
  await page.mouse.down();
  await page.mouse.move(box.x + (from[0] + to[0]) / 2, box.y + (from[1] + to[1]) / 2);
  await page.mouse.move(box.x + to[0], box.y + to[1]);
  await page.mouse.up();
}

test('a drawing is measured against its photo, seen through the camera lucida, and drawn along guides', async ({
  page,
}) => {
  await page.goto('/prepare');
  await page.getByLabel('Title').fill('Sighted');
  await page.getByLabel('Photo files').setInputFiles('public/demo/still-life.jpg');
  await expect(page.getByRole('img', { name: 'still-life.jpg' })).toBeVisible();
  await page.getByText('Laid paper', { exact: true }).click();
  await page.getByRole('button', { name: 'Set it on the easel' }).click();
  await page.waitForURL(/\/easel/);
  await ready(page);
  await expect(page.getByTestId('photo')).toBeVisible();

  // the frame of the photo that the canvas shows: all of its width, then half of it
  await page.getByRole('button', { name: 'Sighting' }).click();
  const drawer = page.getByRole('region', { name: 'Sighting' });
  await drawer.getByRole('button', { name: 'Set the frame' }).click();
  const frame = page.getByTestId('register').locator('polygon');
  await expect(frame).toBeVisible();
  const corners = async () =>
    (await frame.getAttribute('points'))!.split(' ').map((p) => p.split(',').map(Number) as [number, number]);
  const [a, , c] = await corners();
  expect((c[0] - a[0]) / (c[1] - a[1])).toBeCloseTo(1.5, 2);
  const middle: [number, number] = [(a[0] + c[0]) / 2, (a[1] + c[1]) / 2];
  await pull(page, 'register', [c[0], c[1]], [(c[0] + middle[0]) / 2 + 20, (c[1] + middle[1]) / 2 + 14]);
  const [a2, b2] = await corners();
  const wide = Math.hypot(b2[0] - a2[0], b2[1] - a2[1]);
  expect(wide).toBeLessThan(0.8 * (c[0] - a[0]));
  await drawer.getByRole('button', { name: 'Frame is set' }).click();

  // a length pulled on the photo is as long, at scale, on the canvas
  await drawer.getByRole('button', { name: 'Caliper' }).click();
  await pull(page, 'sights-photo', [60, 250], [160, 290]);
  const mm = (Math.hypot(100, 40) * 300) / wide;
  const onCanvas = page.getByTestId('sights-canvas').locator('text');
  await expect(onCanvas).toHaveCount(1);
  const told = Number(/([\d.]+) mm/.exec((await onCanvas.textContent())!)![1]);
  expect(Math.abs(told / mm - 1)).toBeLessThan(0.002 + 0.06 / mm);
  await expect(page.getByTestId('sights-photo').locator('text')).toHaveText(await onCanvas.innerHTML());
  // and counts as the unit of the next, which is pulled on the canvas
  await drawer.getByRole('button', { name: 'as unit' }).click();
  await pull(page, 'sights-canvas', [200, 300], [500, 300]);
  await expect(onCanvas.nth(1)).toContainText('units');

  // where a place was drawn, against where it is
  await drawer.getByRole('button', { name: 'Drift' }).click();
  const photo = (await page.getByTestId('sights-photo').boundingBox())!;
  await page.mouse.click(photo.x + 140, photo.y + 280);
  const canvas = (await page.getByTestId('sights-canvas').boundingBox())!;
  await page.mouse.click(canvas.x + 600, canvas.y + 120);
  await expect(drawer.getByText(/mm too (high|low)/)).toBeVisible();
  await drawer.getByRole('button', { name: 'Drift' }).click();

  // the photo over the canvas while G is held
  await page.getByTestId('canvas').focus();
  await page.keyboard.down('g');
  await expect(page.getByTestId('lucida')).toBeVisible();
  await page.keyboard.up('g');
  await expect(page.getByTestId('lucida')).toHaveCount(0);

  // a stroke that begins near a straightedge stays on it; one that begins away from it goes free
  await page.getByRole('button', { name: 'Guides' }).click();
  const guides = page.getByRole('region', { name: 'Guides' });
  await guides.getByRole('button', { name: 'Straightedge' }).click();
  const [p, q] = await Promise.all(
    [0, 1].map((i) => page.getByTestId('guides').locator(`[data-place="${i}"]`).boundingBox()),
  );
  const view = (await page.getByTestId('canvas').boundingBox())!;
  const [x0, y0, x1] = [p!.x + 7 - view.x, p!.y + 7 - view.y, q!.x + 7 - view.x];
  await page.getByRole('button', { name: 'Take the Hard pastel' }).click();
  const wobbly = (dy: number) =>
    Array.from({ length: 30 }, (_, i) => ({
      x: x0 + 20 + ((x1 - x0 - 40) * i) / 29,
      y: y0 + dy + 14 * Math.sin(i),
      force: 0.6,
    }));
  await penStroke(page, wobbly(4));
  await penStroke(page, wobbly(120));
  const { bytes } = await sendOut(page, /Painting file/);
  const journal = JSON.parse(strFromU8(unzipSync(bytes)['journal.json'])) as {
    entries: { do: string; samples: number[][] }[];
  };
  const strokes = journal.entries.filter((e) => e.do === 'stroke');
  expect(strokes).toHaveLength(2);
  const off = strokes.map(({ samples }) => Math.max(...samples.map(([, , y]) => Math.abs(y - 100))));
  expect(off[0]).toBeLessThan(0.1);
  expect(off[1]).toBeGreaterThan(5);

  // a silhouette with straight edges is filled with dust, and cut again
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await page.getByRole('button', { name: 'Silhouette' }).click();
  const shapes = page.getByRole('region', { name: 'Silhouette' });
  await shapes.getByRole('button', { name: 'Straight edges' }).click();
  const shape = [
    [420, 420],
    [600, 420],
    [600, 520],
    [420, 520],
  ] as const;
  for (const [x, y] of shape) await page.mouse.click(view.x + x, view.y + y);
  await page.keyboard.press('Enter');
  const inner = [440, 440, 140, 60];
  await expect.poll(() => differing(page, inner, [208, 190, 168])).toBeGreaterThan(500);
  await shapes.getByText('Cut out').click();
  await shapes.getByRole('button', { name: 'Straight edges' }).click();
  await shapes.getByRole('button', { name: 'Free outline' }).click();
  await pull(page, 'silhouette', [400, 400], [640, 400]);
  await expect.poll(() => differing(page, inner, [208, 190, 168])).toBeGreaterThan(500);
  const round = Array.from({ length: 25 }, (_, i) => [510 + 160 * Math.cos(i / 4), 470 + 90 * Math.sin(i / 4)]);
  await page.mouse.move(view.x + round[0][0], view.y + round[0][1]);
  await page.mouse.down();
  for (const [x, y] of round) await page.mouse.move(view.x + x, view.y + y);
  await page.mouse.up();
  await expect.poll(() => differing(page, inner, [208, 190, 168])).toBe(0);
  await page.keyboard.press('Escape');

  // all of it is kept with the painting
  await page.reload();
  await ready(page);
  await expect(page.getByTestId('sights-canvas').locator('text')).toHaveCount(3);
  await page.getByRole('button', { name: 'Guides' }).click();
  await expect(page.getByRole('radio', { name: 'Straightedge' })).toBeChecked();
});
