import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test as plain, type Download, type Locator, type Page } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';

/** What the browser tests do again and again at the easel. */

/**
 * Tests at the easel: after each that has left a painting there, its journal, painted again on the command line's way,
 * must give the bytes of the browser.
 */
export const test = plain.extend<{ sameBytes: void }>({
  sameBytes: [
    async ({ page }, use, info) => {
      const errors: string[] = [];
      page.on('pageerror', (error) => errors.push(error.message));
      await use();
      if (info.status !== info.expectedStatus && !page.isClosed()) {
        const said = await page.getByRole('alert').or(page.getByRole('status')).allInnerTexts();
        process.stderr.write(`The page says: ${JSON.stringify({ said, errors })}\n`);
      }
      if (info.status !== 'passed' || page.isClosed() || !/\/easel/.test(page.url())) return;
      // the demo's hundreds of strokes were painted by the command line in the first place
      if (/painting=low-tide/.test(page.url())) return;
      const button = page.getByRole('button', { name: 'Send out' });
      if (!(await button.isVisible()) || (await page.getByText('Another tab paints on this').isVisible())) return;
      await page.keyboard.press('Escape');
      const { bytes } = await sendOut(page, /Painting file/);
      const { journal, digest } = opened(bytes);
      const file = join(mkdtempSync(join(tmpdir(), 'stigmos-')), 'journal.json');
      writeFileSync(file, JSON.stringify(journal));
      const told = JSON.parse(
        execFileSync('./stigmos', ['replay', file], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] }),
      );
      expect(told.digest, 'the journal leads to what is in the browser').toBe(digest);
    },
    { auto: true, timeout: 120_000 },
  ],
});

export interface Reading {
  x: number;
  y: number;
  force: number;
  tiltX?: number;
  tiltY?: number;
}

/** Makes a painting through the Prepare screen, of coarser cells than the usual 150 ppi, and waits until it stands on the easel. */
export async function prepare(page: Page, title: string): Promise<void> {
  await page.goto('/prepare');
  await page.getByLabel('Title').fill(title);
  await page.getByLabel('Resolution').fill('100');
  await page.getByRole('button', { name: 'Set it on the easel' }).click();
  await page.waitForURL(/\/easel/);
  await ready(page);
}

/** Waits until the painting is on the easel and drawn. */
export async function ready(page: Page): Promise<void> {
  await expect(page.getByLabel('In hand').getByRole('slider').first()).toBeVisible({ timeout: 120_000 });
  // the picture is coloured from the middle outwards
  const places = [0.25, 0.5, 0.75].flatMap((u) => [0.1, 0.5, 0.9].map((v) => [u, v] as const));
  await expect
    .poll(async () => Math.min(...(await Promise.all(places.map(([u, v]) => pixel(page, u, v)))).map((p) => p[3])))
    .toBe(255);
}

/** A stroke of a simulated pen over the canvas, in CSS pixels from the canvas's corner. */
export async function penStroke(page: Page, readings: Reading[]): Promise<void> {
  const box = (await page.getByTestId('canvas').boundingBox())!;
  const session = await page.context().newCDPSession(page);
  const send = (type: string, r: Reading, buttons: number) =>
    session.send('Input.dispatchMouseEvent', {
      type: type as 'mouseMoved',
      x: box.x + r.x,
      y: box.y + r.y,
      button: 'left',
      buttons,
      clickCount: 1,
      pointerType: 'pen',
      force: r.force,
      tiltX: r.tiltX ?? 0,
      tiltY: r.tiltY ?? 0,
    });
  await send('mousePressed', readings[0], 1);
  for (const r of readings.slice(1)) await send('mouseMoved', r, 1);
  await send('mouseReleased', { ...readings[readings.length - 1], force: 0 }, 0);
  await session.detach();
}

/** The journal of a painting's file, and the digest of its state. */
export function opened(bytes: Uint8Array): { journal: { entries: { do: string }[] }; digest: string } {
  const parts = unzipSync(bytes);
  const { digest } = JSON.parse(strFromU8(parts['manifest.json']));
  return { journal: JSON.parse(strFromU8(parts['journal.json'])), digest };
}

/** Strokes as fast as a hand can make them, with keys between some of them; nothing waits for anything. */
export async function quickStrokes(page: Page, count: number, keys: readonly string[]): Promise<void> {
  const box = (await page.getByTestId('canvas').boundingBox())!;
  const session = await page.context().newCDPSession(page);
  for (let i = 0; i < count; i++) {
    const y = box.y + 60 + ((i * 7) % (box.height - 120));
    const send = (type: string, x: number) =>
      session.send('Input.dispatchMouseEvent', {
        type: type as 'mouseMoved',
        x: box.x + 200 + x,
        y,
        button: 'left',
        buttons: type === 'mouseReleased' ? 0 : 1,
        clickCount: 1,
        pointerType: 'pen',
        force: type === 'mouseReleased' ? 0 : 0.6,
      });
    const moves = [send('mousePressed', 0)];
    for (let k = 1; k <= 4; k++) moves.push(send('mouseMoved', k * 25));
    moves.push(send('mouseReleased', 100));
    await Promise.all(moves);
    if (i % 3 === 0) await page.keyboard.press(keys[(i / 3) % keys.length]);
  }
  await session.detach();
}

/** Readings along a straight line. */
export const straight = (x0: number, y0: number, x1: number, y1: number, force = 0.6, count = 30): Reading[] =>
  Array.from({ length: count + 1 }, (_, i) => ({
    x: x0 + ((x1 - x0) * i) / count,
    y: y0 + ((y1 - y0) * i) / count,
    force,
  }));

/** RGBA of the drawn canvas at a share of its width and height. */
export function pixel(page: Page, u: number, v: number): Promise<number[]> {
  return page.evaluate(
    ([s, t]) => {
      const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=canvas] canvas')!;
      const data = canvas
        .getContext('2d')!
        .getImageData(Math.floor(canvas.width * s), Math.floor(canvas.height * t), 1, 1).data;
      return [...data];
    },
    [u, v] as const,
  );
}

/** How many of every second pixel of a rectangle of the drawn canvas differ from a colour; read in one go. */
export function differing(page: Page, [x, y, w, h]: number[], from: number[], by = 60): Promise<number> {
  return page.evaluate(
    ([px, py, pw, ph, r, g, b, least]) => {
      const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=canvas] canvas')!;
      const { data } = canvas.getContext('2d')!.getImageData(px, py, pw, ph);
      let count = 0;
      for (let row = 0; row < ph; row += 2) {
        for (let column = 0; column < pw; column += 2) {
          const i = 4 * (row * pw + column);
          if (Math.hypot(data[i] - r, data[i + 1] - g, data[i + 2] - b) > least) count++;
        }
      }
      return count;
    },
    [x, y, w, h, from[0], from[1], from[2], by],
  );
}

/** Mean RGB of a square of the drawn canvas around CSS pixels from its corner. */
export function patch(page: Page, x: number, y: number, half = 6): Promise<number[]> {
  return page.evaluate(
    ([px, py, h]) => {
      const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=canvas] canvas')!;
      const { data } = canvas.getContext('2d')!.getImageData(px - h, py - h, 2 * h, 2 * h);
      const sum = [0, 0, 0];
      for (let i = 0; i < data.length; i++) if (i % 4 < 3) sum[i % 4] += data[i];
      return sum.map((v) => v / (data.length / 4));
    },
    [x, y, half] as const,
  );
}

/** The same once it changes no more: a picture that follows a slider comes a moment after it. */
export async function patchAtRest(page: Page, x: number, y: number): Promise<number[]> {
  let last = await patch(page, x, y);
  await expect
    .poll(
      async () => {
        const before = last;
        last = await patch(page, x, y);
        return distance(last, before);
      },
      { intervals: [1000] },
    )
    .toBe(0);
  return last;
}

export const distance = (a: number[], b: number[]): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** Waits until everything done at the easel so far is painted, shown and kept. */
export async function atRest(page: Page): Promise<void> {
  await page.evaluate(() => window.stigmos!.atRest());
}

/** Waits until nothing slides or fades any more. */
export async function still(page: Page): Promise<void> {
  await page.waitForFunction(() =>
    document
      .getAnimations()
      .every(({ playState, effect }) => playState !== 'running' || effect?.getComputedTiming().endTime === Infinity),
  );
}

/** Sends the painting out and returns the bytes. @param purpose what it is for: there the kind of file is offered */
export async function sendOut(page: Page, kind: RegExp, purpose = 'To keep'): Promise<{ name: string; bytes: Buffer }> {
  await page.getByRole('button', { name: 'Send out' }).click();
  const panel = page.getByRole('dialog', { name: 'Send out' });
  await panel.getByRole('button', { name: purpose }).click();
  await panel.getByRole('radio', { name: kind }).check();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    panel.getByRole('button', { name: 'Save the file' }).click(),
  ]);
  const bytes = readFileSync(await (download as Download).path());
  await panel.getByRole('button', { name: 'Close' }).click();
  await expect(panel).toBeHidden();
  return { name: (download as Download).suggestedFilename(), bytes };
}

/** Draws something from the bench to a place on the slab, given as shares of its width and height. */
export async function drawToSlab(page: Page, from: Locator, u: number, v: number): Promise<void> {
  const start = (await from.boundingBox())!;
  const slab = (await page.getByTestId('slab').boundingBox())!;
  const [x, y] = [start.x + start.width / 2, start.y + start.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 8, y - 8, { steps: 3 });
  await page.mouse.move(slab.x + slab.width * u, slab.y + slab.height * v, { steps: 6 });
  // on a loaded machine the page may be late to see where the pointer is
  await expect(async () => {
    await page.mouse.move(slab.x + slab.width * u + 1, slab.y + slab.height * v);
    await page.mouse.move(slab.x + slab.width * u, slab.y + slab.height * v);
    await expect(page.locator('[data-over=true]', { has: page.getByTestId('slab') })).toBeVisible({ timeout: 500 });
  }).toPass({ timeout: 10_000 });
  await page.mouse.up();
}

/** Draws the tool in hand over the slab through places, with a simulated pen. */
export async function strokeOnSlab(page: Page, places: readonly (readonly [number, number])[], force = 0.6) {
  const slab = (await page.getByTestId('slab').boundingBox())!;
  const session = await page.context().newCDPSession(page);
  const send = (type: string, [u, v]: readonly [number, number], buttons: number) =>
    session.send('Input.dispatchMouseEvent', {
      type: type as 'mouseMoved',
      x: slab.x + slab.width * u,
      y: slab.y + slab.height * v,
      button: 'left',
      buttons,
      clickCount: 1,
      pointerType: 'pen',
      force: buttons ? force : 0,
    });
  await send('mousePressed', places[0], 1);
  for (let k = 1; k < places.length; k++) {
    for (let i = 1; i <= 10; i++) {
      const at = (c: 0 | 1) => places[k - 1][c] + ((places[k][c] - places[k - 1][c]) * i) / 10;
      await send('mouseMoved', [at(0), at(1)], 1);
    }
  }
  await send('mouseReleased', places[places.length - 1], 0);
  await session.detach();
}

/** RGB of the slab at a share of its width and height. */
export function slabPixel(page: Page, u: number, v: number): Promise<number[]> {
  return page.evaluate(
    ([s, t]) => {
      const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=slab]')!;
      const [x, y] = [Math.floor(canvas.width * s), Math.floor(canvas.height * t)];
      return [...canvas.getContext('2d')!.getImageData(x, y, 1, 1).data].slice(0, 3);
    },
    [u, v] as const,
  );
}

/** Moves the pointer over something while a key is held; the caller lets it go. */
export async function holdOver(page: Page, key: string, target: Locator, u: number, v: number): Promise<void> {
  const box = (await target.boundingBox())!;
  await page.keyboard.down(key);
  await page.mouse.move(box.x + box.width * u - 2, box.y + box.height * v - 2);
  await page.mouse.move(box.x + box.width * u, box.y + box.height * v);
}
