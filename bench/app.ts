/**
 * From pen to picture in Chromium, as JSON: brushes of 60 and 200 px on 2400 x 1800, drawn at 1500 px/s of the
 * painting; in oil, and in watercolour on a region of 512 x 512 that is wet and flows.
 *   npm run bench:app [-- oil|water|board|layers|aids]     (CHROMIUM=/path/to/chromium; the app must have been built: ./check does it)
 */
import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { readFileSync } from 'node:fs';
import { chromium, type Page } from '@playwright/test';
import jpeg from 'jpeg-js';
import { AID_IDS, AIDS } from '@/core/picture/aids/aids';
import { readStigmosFile } from '@/core/formats/readStigmosFile';
import { STEP_SECONDS } from '@/core/flow/washRates';
import { copyTime, percentile, round } from './measure';
import { layeredSheet, SHEET_PX } from './layeredSheet';
import { WET_PX, wetSheetFile } from './wetPaper';

const freePort = () =>
  new Promise<number>((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => resolve(port));
    });
  });

const port = await freePort();
const server = spawn(process.execPath, ['scripts/serve.mjs', String(port)], { stdio: 'ignore' });
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM || '/usr/bin/chromium',
  chromiumSandbox: false,
  args: [
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});

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

interface Drawn {
  readonly latencies: number[];
  readonly sent: number;
  readonly arrived: number;
}

/**
 * Six strokes below each other.
 * @param area in which they are drawn, CSS pixels of the canvas @param passes how often each goes to and fro
 */
async function strokes(
  page: Page,
  zoomIn: boolean,
  area = { left: 200, top: 120, width: 560, rows: 60 },
  passes = 1,
): Promise<Drawn> {
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
    session.send('Input.dispatchMouseEvent', {
      type,
      x,
      y,
      button: 'left',
      buttons: type === 'mouseReleased' ? 0 : 1,
      clickCount: 1,
      pointerType: 'pen',
      force,
    });
  let sent = 0;
  for (let k = 0; k < 6; k++) {
    await page.keyboard.press('r');
    const x = box.x + area.left;
    const y = box.y + area.top + k * area.rows;
    await send('mousePressed', x, y, 0.6);
    // readings every 8 ms at 1500 px/s of the painting
    const speed = 1500 * zoom;
    const start = performance.now();
    for (let t = 0; t < ((passes * area.width) / speed) * 1000;) {
      const now = performance.now() - start;
      if (now < t) {
        await new Promise((resolve) => setTimeout(resolve, 1));
        continue;
      }
      const way = (speed * t) / 1000 / area.width;
      const across = way % 2 < 1 ? way % 1 : 1 - (way % 1);
      void send(
        'mouseMoved',
        x + across * area.width,
        y + (way / passes) * (passes - 1) * 0.2 * area.rows + 6 * Math.sin(t / 90),
        0.6,
      );
      sent++;
      t += 8;
    }
    await send('mouseReleased', x, y, 0);
    await page.waitForTimeout(400);
  }
  return page.evaluate((n) => {
    const w = window as unknown as { latencies: number[]; events: number };
    return { latencies: w.latencies, sent: n, arrived: w.events };
  }, sent);
}

const latency = ({ latencies, sent, arrived }: Drawn) => {
  const p95 = percentile(latencies, 0.95);
  return {
    frames: latencies.length,
    penToPictureMs: { p50: round(percentile(latencies, 0.5)), p95: round(p95), max: round(Math.max(...latencies)) },
    p95ToCopy16MiB: round(p95 / copyTime()),
    readings: { sent, arrived },
  };
};

/** Oil brushes of two sizes, the canvas in view as a whole and close by. */
async function oil(page: Page): Promise<Record<string, unknown>> {
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
    report[name] = latency(await strokes(page, zoomIn));
  }
  return report;
}

/** A brush of 60 px in a wet region of 512 x 512 px, and how many steps a second its water made meanwhile. */
async function wetRegion(page: Page): Promise<Record<string, unknown>> {
  const { bytes, wetTiles } = wetSheetFile();
  await page.goto(`http://127.0.0.1:${port}/`);
  await page
    .getByLabel('Open a painting file')
    .setInputFiles({ name: 'wet.stigmos', mimeType: 'application/zip', buffer: Buffer.from(bytes) });
  await page.waitForURL(/easel/);
  await page.getByLabel('In hand').getByRole('slider').first().waitFor();
  await page.getByRole('button', { name: 'Roll', exact: true }).click();
  await page
    .locator('section[aria-label="Roll"]')
    .getByRole('button', { name: /^Take the Wash round/ })
    .click();
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  // three steps of the key from 7 mm are 10.65 mm, 63 px
  for (let i = 0; i < 3; i++) await page.keyboard.press(']');
  await page.waitForTimeout(3000);
  const report: Record<string, unknown> = {};
  for (const zoomIn of [false, true]) {
    const before = (await journal(page)).length;
    const box = (await page.getByTestId('canvas').boundingBox())!;
    if (zoomIn) {
      await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
      for (let i = 0; i < 5; i++) await page.mouse.wheel(0, -160);
      await page.waitForTimeout(1500);
    }
    const side = Math.min(
      0.9 * WET_PX * Number(await page.getByTestId('canvas').getAttribute('data-zoom')),
      0.8 * box.height,
    );
    const area = {
      left: (box.width - side) / 2,
      top: (box.height - side) / 2 + side / 12,
      width: side,
      rows: side / 6,
    };
    const drawn = await strokes(page, false, area, 5);
    const entries = (await journal(page)).slice(before);
    const painted = entries.filter((entry) => entry.do === 'stroke');
    const steps = painted.map((entry) => (entry.do === 'stroke' ? (entry.pace ?? 1) : 1) / STEP_SECONDS);
    report[zoomIn ? 'zoomed in' : 'whole canvas in view'] = {
      strokes: painted.length,
      stepsPerSecondInStrokes: { least: round(Math.min(...steps)), most: round(Math.max(...steps)) },
      ...latency(drawn),
    };
  }
  return { wetTiles, ...report };
}

/** What has been done to the painting on the easel, from its file. */
async function journal(page: Page) {
  await page.getByRole('button', { name: 'Send out' }).click();
  const panel = page.getByRole('dialog', { name: 'Send out' });
  await panel.getByRole('button', { name: 'To keep' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    panel.getByRole('button', { name: 'Save the file' }).click(),
  ]);
  await panel.getByRole('button', { name: 'Close' }).click();
  return (await readStigmosFile(readFileSync(await download.path()))).journal.entries;
}

/** Twenty photos of 12 and 40 megapixels on the board: frames while it is moved and zoomed, and the memory it says. */
async function board(page: Page): Promise<Record<string, unknown>> {
  await prepare(page);
  const photo = (width: number, height: number) => {
    const data = Buffer.alloc(width * height * 4);
    for (let i = 0; i < width * height; i++)
      data.writeUInt32LE((0xff000000 | (((i % width) >> 4) * 521 + (Math.floor(i / width) >> 4) * 131)) >>> 0, i * 4);
    return jpeg.encode({ width, height, data }, 60).data;
  };
  const files = (
    [
      [4000, 3000],
      [7300, 5480],
    ] as const
  ).map(([w, h]) => photo(w, h));
  const picker = page.getByLabel('Photo files for the board');
  const started = performance.now();
  for (let k = 0; k < 20; k++) {
    await picker.setInputFiles({ name: `Photo ${k + 1}.jpg`, mimeType: 'image/jpeg', buffer: files[k % 2] });
    await page.getByRole('img', { name: `Photo Photo ${k + 1}.jpg` }).waitFor({ timeout: 120_000 });
  }
  const hungSeconds = (performance.now() - started) / 1000;
  await page.getByText('All', { exact: true }).click();
  await page.getByRole('button', { name: 'Wide' }).click();
  await page.waitForTimeout(2500);
  const memory = await page.getByText(/^\d+ MB$/).textContent();
  const wall = (await page.getByTestId('wall').boundingBox())!;
  const [x, y] = [wall.x + wall.width / 2, wall.y + 12];
  await page.mouse.move(x, y);
  const frames = await page.evaluate(async () => {
    const wallElement = document.querySelector<HTMLElement>('[data-testid=wall]')!;
    const times: number[] = [];
    const { left, top, width, height } = wallElement.getBoundingClientRect();
    let last = performance.now();
    for (let i = 0; i < 150; i++) {
      wallElement.dispatchEvent(
        new WheelEvent('wheel', {
          deltaY: i % 50 < 25 ? -40 : 40,
          clientX: left + width * (0.3 + (0.4 * (i % 30)) / 30),
          clientY: top + height / 2,
          bubbles: true,
          cancelable: true,
        }),
      );
      await new Promise((done) => requestAnimationFrame(done));
      const now = performance.now();
      times.push(now - last);
      last = now;
    }
    return times.slice(10);
  });
  const p95 = percentile(frames, 0.95);
  return {
    photos: 20,
    hungSeconds: round(hungSeconds),
    memory,
    frameMs: { p50: round(percentile(frames, 0.5)), p95: round(p95), max: round(Math.max(...frames)) },
    framesPerSecond: round(1000 / percentile(frames, 0.5)),
    p95ToCopy16MiB: round(p95 / copyTime()),
  };
}

/** The same strokes on a sheet of 2550 x 3300 with one paint layer, and with twelve layers of which the figure's is painted. */
async function layers(page: Page): Promise<Record<string, unknown>> {
  const told: string[] = ['', ''];
  const drawn = [0, 1].map((): Drawn => ({ latencies: [], sent: 0, arrived: 0 }));
  const names: string[] = [];
  // one, many, many, one: what the machine does beside this then weighs on both alike
  for (const many of [false, true, true, false]) {
    const k = Number(many);
    const sheet = layeredSheet(many);
    await page.goto(`http://127.0.0.1:${port}/`);
    await page
      .getByLabel('Open a painting file')
      .setInputFiles({ name: 'sheet.stigmos', mimeType: 'application/zip', buffer: Buffer.from(sheet.bytes) });
    await page.waitForURL(/easel/, { timeout: 120_000 });
    await page.getByLabel('In hand').getByRole('slider').first().waitFor({ timeout: 120_000 });
    await page.waitForTimeout(12_000);
    await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
    const first = await strokes(page, true, { left: 200, top: 160, width: 400, rows: 50 });
    const second = await strokes(page, false, { left: 200, top: 185, width: 400, rows: 50 });
    await page.getByRole('button', { name: 'Layers' }).click();
    told[k] = (await page.getByText(/MB in memory|GB of about/).textContent()) ?? '';
    names[k] = `${sheet.layers} layers`;
    drawn[k] = {
      latencies: [...drawn[k].latencies, ...first.latencies, ...second.latencies],
      sent: drawn[k].sent + first.sent + second.sent,
      arrived: drawn[k].arrived + first.arrived + second.arrived,
    };
  }
  const ratio = (share: number) => round(percentile(drawn[1].latencies, share) / percentile(drawn[0].latencies, share));
  return {
    ...Object.fromEntries(names.map((name, k) => [name, { memory: told[k], ...latency(drawn[k]) }])),
    twelveToOne: { p50: ratio(0.5), p95: ratio(0.95) },
  };
}

/** A brush of 60 px under each looking aid, against the plain picture before and after. */
async function aids(page: Page): Promise<Record<string, unknown>> {
  await prepare(page);
  await page.getByRole('button', { name: 'Load Ultramarine Blue' }).click();
  await page.keyboard.press('[');
  const press = async (name: string) => {
    const glass = page.getByRole('button', { name: 'Looking', exact: true });
    if ((await glass.getAttribute('aria-expanded')) !== 'true') await glass.click();
    // the small pictures are drawn anew while it opens: no click waits for one that stands still
    const small = page.getByRole('button', { name, exact: true }).last();
    await small.waitFor();
    await small.dispatchEvent('click');
    await glass.click();
    await page.waitForTimeout(1500);
  };
  const plain = (await strokes(page, false)).latencies;
  const through: Record<string, number[]> = {};
  for (const id of AID_IDS) {
    await press(AIDS[id].name);
    through[AIDS[id].name] = (await strokes(page, false)).latencies;
    await press(AIDS[id].name);
  }
  await page.keyboard.press('i');
  through['Squint of 3 mm'] = (await strokes(page, false)).latencies;
  await page.keyboard.press('i');
  await page.keyboard.press('l');
  through.Mirrored = (await strokes(page, false)).latencies;
  await page.keyboard.press('l');
  plain.push(...(await strokes(page, false)).latencies);
  const ratio = (of: number[], share: number) => round(percentile(of, share) / percentile(plain, share));
  return {
    plainMs: { p50: round(percentile(plain, 0.5)), p95: round(percentile(plain, 0.95)) },
    ratioToPlain: Object.fromEntries(
      Object.entries(through).map(([name, of]) => [name, { p50: ratio(of, 0.5), p95: ratio(of, 0.95) }]),
    ),
  };
}

/** What can be measured, each by its name. */
const MEASURES: Record<string, (page: Page) => Promise<Record<string, unknown>>> = {
  oil,
  water: async (page) => ({ [`63 px on ${WET_PX} x ${WET_PX} of wet paper`]: await wetRegion(page) }),
  board: async (page) => ({ 'board of 20 photos': await board(page) }),
  layers: async (page) => ({ [`61 px on ${SHEET_PX.join(' x ')}`]: await layers(page) }),
  aids: async (page) => ({ '61 px under looking aids': await aids(page) }),
};

try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const report: Record<string, unknown> = {};
  const only = process.argv[2];
  for (const name of only ? [only] : ['oil', 'water']) {
    const measure = MEASURES[name];
    if (!measure) throw new Error(`There is no ${name} to be measured: ${Object.keys(MEASURES).join(', ')}.`);
    Object.assign(report, await measure(page));
  }
  console.log(JSON.stringify({ paintingPx: [2400, 1800], ...report }, null, 2));
} finally {
  await browser.close();
  server.kill();
}
