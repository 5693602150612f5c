/**
 * From pen to picture in Chromium, as JSON: brushes of 60 and 200 px on 2400 x 1800, drawn at 1500 px/s of the painting.
 *   npm run bench:app        (CHROMIUM=/path/to/chromium; the app must have been built: ./start or ./check does it)
 */
import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { chromium, type Page } from '@playwright/test';
import { copyTime, percentile, round } from './measure';

const freePort = () =>
  new Promise<number>((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => resolve(port));
    });
  });

const port = await freePort();
const server = spawn(process.execPath, ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', String(port)], { stdio: 'ignore' }); // prettier-ignore
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM || '/usr/bin/chromium',
  chromiumSandbox: false,
  args: ['--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
}); // prettier-ignore

/** Waits for the server, then prepares a painting of 2400 x 1800 and fits it into the view. */
async function prepare(page: Page): Promise<void> {
  for (let i = 0; ; i++) {
    try {
      await page.goto(`http://127.0.0.1:${port}/prepare`);
      break;
    } catch (error) {
      if (i > 50) throw error;
      await page.waitForTimeout(200);
    }
  }
  await page.getByLabel('Width').fill('406.4');
  await page.getByLabel('Height').fill('304.8');
  await page.getByRole('button', { name: 'Set it on the easel' }).click();
  await page.waitForURL(/easel/);
  await page.getByLabel('In hand').getByRole('slider').first().waitFor();
  await page.waitForTimeout(6000);
}

async function strokes(page: Page, zoomIn: boolean): Promise<{ latencies: number[]; sent: number; arrived: number }> {
  const box = (await page.getByTestId('canvas').boundingBox())!;
  if (zoomIn) {
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    for (let i = 0; i < 5; i++) await page.mouse.wheel(0, -160);
    await page.waitForTimeout(1500);
  }
  await page.evaluate(() => {
    const w = window as unknown as { latencies: number[]; events: number; listening?: boolean };
    w.latencies = [];
    w.events = 0;
    if (w.listening) return;
    w.listening = true;
    window.addEventListener('stigmos-frame', (e) => w.latencies.push((e as CustomEvent<number>).detail));
    document.querySelector('[data-testid=canvas]')!.addEventListener('pointerrawupdate', (e) => {
      w.events += Math.max(1, (e as PointerEvent).getCoalescedEvents().length);
    });
  });
  const zoom = Number(await page.getByTestId('canvas').getAttribute('data-zoom'));
  const session = await page.context().newCDPSession(page);
  const send = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', x: number, y: number, force: number) =>
    session.send('Input.dispatchMouseEvent', { type, x, y, button: 'left', buttons: type === 'mouseReleased' ? 0 : 1, clickCount: 1, pointerType: 'pen', force }); // prettier-ignore
  let sent = 0;
  for (let k = 0; k < 6; k++) {
    await page.keyboard.press('r');
    const y = box.y + 120 + k * 60;
    await send('mousePressed', box.x + 200, y, 0.6);
    // readings every 8 ms at 1500 px/s of the painting
    const speed = 1500 * zoom;
    const start = performance.now();
    for (let t = 0; t < (560 / speed) * 1000;) {
      const now = performance.now() - start;
      if (now < t) {
        await new Promise((resolve) => setTimeout(resolve, 1));
        continue;
      }
      void send('mouseMoved', box.x + 200 + (speed * t) / 1000, y + 6 * Math.sin(t / 90), 0.6);
      sent++;
      t += 8;
    }
    await send('mouseReleased', box.x + 760, y, 0);
    await page.waitForTimeout(400);
  }
  return page.evaluate((n) => {
    const w = window as unknown as { latencies: number[]; events: number };
    return { latencies: w.latencies, sent: n, arrived: w.events };
  }, sent);
}

try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await prepare(page);
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  // 60 px at 150 ppi are 10.16 mm
  for (let i = 0; i < 1; i++) await page.keyboard.press('[');
  const report: Record<string, unknown> = {};
  for (const [name, zoomIn, larger] of [
    ['61 px, whole canvas in view', false, 0],
    // eight steps of the key are 31.8 mm, 188 px
    ['188 px, whole canvas in view', false, 8],
    ['61 px, zoomed in', true, -8],
  ] as const) {
    for (let i = 0; i < Math.abs(larger); i++) await page.keyboard.press(larger > 0 ? ']' : '[');
    await page.waitForTimeout(500);
    const { latencies, sent, arrived } = await strokes(page, zoomIn);
    const p95 = percentile(latencies, 0.95);
    report[name] = {
      frames: latencies.length,
      penToPictureMs: { p50: round(percentile(latencies, 0.5)), p95: round(p95), max: round(Math.max(...latencies)) },
      p95ToCopy16MiB: round(p95 / copyTime()),
      readings: { sent, arrived },
    };
  }
  console.log(JSON.stringify({ paintingPx: [2400, 1800], ...report }, null, 2));
} finally {
  await browser.close();
  server.kill();
}
