/**
 * A long session, as JSON: does memory stay level and does the engine stay as quick as it was?
 *   npx tsx --expose-gc bench/soak.ts [STROKES] [browser]     (5000 in Node; 1000 in Chromium, which needs the built app)
 * In Node a painting is worked on through the engine's host, in oil, acrylic, watercolour, ink, pastel and graphite in
 * turn, on a small sheet, so that the undo steps are full soon. Its layer goes for a fresh one after every 500 strokes,
 * because dried paint is kept coat by coat, and a painting that only grows would hide a leak; so each 500 are the same
 * work, and figures are taken at their ends. What is stored lies in the same memory there and is told apart.
 */
import { OPEN_EYES } from '@/core/picture/aids/definition';
import 'fake-indexeddb/auto';
import { spawn } from 'node:child_process';
import { chromium, type Page } from '@playwright/test';
import { EngineHost } from '@/engine/host';
import type { FromWorker, ToWorker } from '@/engine/protocol';
import { writePainting } from '@/engine/keeping/shelf';
import type { Command } from '@/core/commands/commands';
import { studioFor } from '@/measure/bench';
import { percentile, round } from './measure';

const strokes = Number(process.argv.find((a) => /^\d+$/.test(a)) ?? 0);
const inBrowser = process.argv.includes('browser');
/** Strokes until the undo steps are full, after which memory should stay level; in the browser, until all is warm. */
const FULL = 2500;
const WARM = 200;
const GROUP = 100;
/** Strokes on one layer. */
const LAYER = 500;

/** Least squares slope of y over x. */
function slope(points: readonly (readonly [number, number])[]): number {
  const mx = points.reduce((s, [x]) => s + x, 0) / points.length;
  const my = points.reduce((s, [, y]) => s + y, 0) / points.length;
  return points.reduce((s, [x, y]) => s + (x - mx) * (y - my), 0) / points.reduce((s, [x]) => s + (x - mx) ** 2, 0);
}

const MEDIA = [
  { tool: 'flat', load: true },
  { tool: 'filbert', load: true },
  { tool: 'wash-round', load: true },
  { tool: 'ink-fast', load: true },
  { tool: 'pastel-soft', load: true },
  { tool: 'graphite', load: false },
] as const;

async function atTheHost(count: number): Promise<object> {
  const { spec } = studioFor(60, 40, { ppi: 50, surface: { kind: 'paper-cold' } });
  const id = 'soak';
  await writePainting({ id, title: id, createdAt: 0, spec, photos: [] });
  const refused: string[] = [];
  let question = 0;
  const answers = new Map<number, () => void>();
  const host = new EngineHost((message: FromWorker) => {
    if (message.say === 'answer') answers.get(message.id)?.();
    if (message.say === 'pixels') host.receive({ say: 'shown' });
    if (message.say === 'refused' || message.say === 'failed') refused.push(message.why);
  });
  const say = (message: ToWorker) => host.receive(message);
  const settled = () =>
    new Promise<void>((resolve) => {
      answers.set(++question, resolve);
      say({ say: 'ask', id: question, question: { of: 'kept' } });
    });
  let no = 0;
  const said = () => ({ session: 1, no: ++no });
  const command = (c: Command) => say({ say: 'command', command: c, said: said() });
  say({ say: 'open', painting: id, session: 1 });
  say({
    say: 'view',
    serial: 1,
    view: { width: 600, height: 450, centreX: 60, centreY: 45, zoom: 1, turn: 0, mirror: false },
    aid: 'none',
    how: OPEN_EYES,
  });
  await settled();
  const memory: [number, number][] = [];
  const stored: [number, number][] = [];
  const cpu: number[] = [];
  let layer = 'L2';
  for (let done = 0; done < count; done += LAYER) {
    const start = process.cpuUsage();
    for (let k = 0; k < LAYER; k++) {
      if (k % 10 === 0) {
        const { tool, load } = MEDIA[(k / 10) % MEDIA.length];
        command({ do: 'tool', tool });
        command({ do: 'dry' });
        if (load) command({ do: 'load', mixture: { PB29: 0.5, PW6: 0.5 }, amount: 1 });
      }
      say({ say: 'stroke-begin' });
      const y = 2 + (k % 20) * 1.8;
      const samples = Array.from({ length: 24 }, (_, i) => [
        i * 16,
        3 + i * 2,
        y + Math.sin(i + k),
        0.4 + 0.3 * Math.sin(i / 3),
        0,
        0,
        0,
      ]);
      say({ say: 'stroke-samples', samples, newest: 0 });
      say({ say: 'stroke-end', said: said() });
      if (k % 10 === 9) command({ do: 'undo' });
      if (k % 10 === 9) await settled();
    }
    const { user, system } = process.cpuUsage(start);
    cpu.push((user + system) / 1000 / LAYER);
    globalThis.gc?.();
    const inStore = await storedBytes();
    const { heapUsed, external } = process.memoryUsage();
    memory.push([done + LAYER, heapUsed + external - inStore]);
    stored.push([done + LAYER, inStore]);
    process.stderr.write(
      `${done + LAYER} strokes, ${round(cpu.at(-1)!)} ms each, ${round(memory.at(-1)![1] / 1e6)} MB and ${round(inStore / 1e6)} MB stored\n`,
    );
    command({ do: 'layer.add', kind: 'paint' });
    command({ do: 'layer.remove', layer });
    layer = `L${done / LAYER + 3}`;
  }
  const last = <T>(list: readonly T[]) => list[list.length - 1];
  const full = ([at]: readonly [number, number]) => at >= Math.min(FULL, count / 2);
  return {
    strokes: count,
    refused: [...new Set(refused)],
    bytesPerStroke: { memory: round(slope(memory.filter(full))), stored: round(slope(stored.filter(full))) },
    megabytes: {
      memory: memory.map(([, bytes]) => round(bytes / 1e6)),
      stored: stored.map(([, bytes]) => round(bytes / 1e6)),
    },
    cpuMsPerStroke: { each: cpu.map(round), ratio: round(last(cpu) / cpu[Math.min(cpu.length - 1, FULL / LAYER - 1)]) },
  };
}

/** Bytes of everything that lies in the storage of this process. */
async function storedBytes(): Promise<number> {
  const answer = <T>(request: IDBRequest<T>) =>
    new Promise<T>((resolve, reject) => {
      request.onsuccess = () => resolve(request.result);
      request.onerror = () => reject(request.error ?? new Error('no answer'));
    });
  let bytes = 0;
  for (const { name } of await indexedDB.databases()) {
    const database = await answer(indexedDB.open(name!));
    for (const store of database.objectStoreNames)
      for (const value of await answer(database.transaction(store).objectStore(store).getAll())) bytes += sizeOf(value);
    database.close();
  }
  return bytes;
}

function sizeOf(value: unknown): number {
  if (value instanceof ArrayBuffer || ArrayBuffer.isView(value)) return value.byteLength;
  if (typeof value === 'string') return 2 * value.length;
  if (typeof value !== 'object' || value === null) return 8;
  return Object.values(value).reduce((sum: number, inner) => sum + 16 + sizeOf(inner), 0);
}

async function inTheBrowser(count: number): Promise<object> {
  const port = 4390;
  const server = spawn(process.execPath, ['scripts/serve.mjs', String(port)], { stdio: 'ignore' });
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM || '/usr/bin/chromium',
    chromiumSandbox: false,
    args: ['--disable-gpu', '--js-flags=--expose-gc'],
  });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    for (let i = 0; i < 100; i++) {
      if (
        await page.goto(`http://127.0.0.1:${port}/prepare`).then(
          () => true,
          () => false,
        )
      )
        break;
      await page.waitForTimeout(200);
    }
    await page.getByRole('button', { name: 'Set it on the easel' }).click();
    await page.waitForURL(/easel/);
    await page.getByText(/^kept/).waitFor();
    await page.keyboard.press('r');
    const latencies: number[][] = [];
    const memory: [number, number][] = [];
    await page.evaluate(() => {
      const w = window as unknown as { latencies: number[] };
      window.addEventListener('stigmos-frame', (e) => w.latencies?.push((e as CustomEvent<number>).detail));
    });
    for (let done = 0; done < count; done += GROUP) {
      await page.evaluate(() => ((window as unknown as { latencies: number[] }).latencies = []));
      await paint(page, GROUP);
      latencies.push(await page.evaluate(() => (window as unknown as { latencies: number[] }).latencies));
      const bytes = await page.evaluate(async () => {
        const measured = await (
          performance as unknown as { measureUserAgentSpecificMemory(): Promise<{ bytes: number }> }
        ).measureUserAgentSpecificMemory();
        return measured.bytes;
      });
      memory.push([done, bytes]);
      process.stderr.write(`${done + GROUP} strokes, ${round(percentile(latencies.at(-1)!, 0.5))} ms\n`);
    }
    const level = memory.filter(([at]) => at >= WARM);
    const p50 = latencies.map((l) => round(percentile(l, 0.5)));
    const p95 = latencies.map((l) => round(percentile(l, 0.95)));
    return {
      strokes: count,
      bytesPerStroke: round(slope(level)),
      memoryMb: { first: round(level[0][1] / 1e6), last: round(level.at(-1)![1] / 1e6) },
      penToPictureMs: { p50, p95, lastToFirst: round(p50.at(-1)! / p50[0]) },
    };
  } finally {
    await browser.close();
    server.kill();
  }
}

/** Strokes as a quick hand makes them: three a second. */
async function paint(page: Page, count: number): Promise<void> {
  const box = (await page.getByTestId('canvas').boundingBox())!;
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
  for (let k = 0; k < count; k++) {
    const [x, y] = [box.x + 0.3 * box.width, box.y + (0.2 + 0.6 * ((k % 20) / 20)) * box.height];
    await send('mousePressed', x, y, 0.5);
    for (let i = 1; i <= 16; i++) {
      await send('mouseMoved', x + i * 0.025 * box.width, y + 8 * Math.sin(i), 0.5);
      await page.waitForTimeout(8);
    }
    await send('mouseReleased', x, y, 0);
    await page.waitForTimeout(60);
    if (k % 10 === 9) await page.keyboard.press('Control+z');
    if (k % 10 === 0) await page.keyboard.press('r');
  }
  await session.detach();
}

const report = inBrowser ? await inTheBrowser(strokes || 1000) : await atTheHost(strokes || 5000);
console.log(JSON.stringify(report, null, 2));
process.exit(0);
