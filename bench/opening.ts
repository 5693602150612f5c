/**
 * Opening a painting of many strokes again, and taking the last ones back, in Chromium, as JSON.
 *   npx tsx bench/opening.ts [STROKES [at-once]]     (1340; the app must have been built: ./check does it)
 * The strokes are painted in the browser first, as fast as it takes them: faster than any hand. Then it is waited until
 * the engine has worked them off; with `at-once` the page is reloaded as soon as they are kept, while it is far behind.
 */
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { quickStrokes } from '../e2e/easel';
import { median, round } from './measure';

const count = Number(process.argv[2] ?? 1340);
const atOnce = process.argv[3] === 'at-once';
const PORT = 4391;
const UNDONE = 20;

/** Notes what the engine says, and when; how many strokes the painting has, and whether a frame shows anything but ground. */
const LISTEN = `
  window.told = [];
  const painted = ({ data }) => {
    const bytes = new Uint8Array(data.buffer ?? data);
    for (let i = 4; i + 2 < bytes.length; i += 4 * 7) {
      if (Math.abs(bytes[i] - bytes[0]) + Math.abs(bytes[i + 1] - bytes[1]) + Math.abs(bytes[i + 2] - bytes[2]) > 90) return true;
    }
    return false;
  };
  window.Worker = class extends Worker {
    constructor(...how) {
      super(...how);
      this.addEventListener('message', ({ data }) => {
        if (!data?.say) return;
        window.told.push({
          say: data.say,
          at: performance.now(),
          total: data.total,
          strokes: data.bench?.strokes,
          painted: data.say === 'pixels' && !window.seen && (window.seen = painted(data)),
        });
      });
    }
  };
`;

interface Told {
  readonly say: string;
  readonly at: number;
  readonly total?: number;
  readonly strokes?: number;
  readonly painted?: boolean;
}
/** When something of this kind was told first, ms since the page was asked for. */
const when = async (page: Page, what: Partial<Told>, after = 0): Promise<number> => {
  const find = ([wanted, from]: readonly [[string, unknown][], number]) =>
    (window as unknown as { told: Told[] }).told.find(
      (told) => told.at > from && wanted.every(([key, value]) => told[key as keyof Told] === value),
    )?.at;
  return (await (
    await page.waitForFunction(find, [Object.entries(what), after] as const, { timeout: 600_000 })
  ).jsonValue()) as number;
};

const profile = mkdtempSync(join(tmpdir(), 'stigmos-opening-'));
const server = spawn(process.execPath, ['scripts/serve.mjs', String(PORT)], { stdio: 'ignore' });
const context = await chromium.launchPersistentContext(profile, {
  executablePath: process.env.CHROMIUM || '/usr/bin/chromium',
  chromiumSandbox: false,
  args: ['--disable-gpu'],
  viewport: { width: 1280, height: 800 },
});
try {
  const page = context.pages()[0];
  await page.addInitScript(LISTEN);
  for (let i = 0; i < 100; i++) {
    if (
      await page.goto(`http://127.0.0.1:${PORT}/prepare`).then(
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
  for (let done = 0; done < count; done += 100) await quickStrokes(page, Math.min(100, count - done), ['[', ']', 'r']);
  await page.getByText(/^kept/).waitFor({ timeout: 600_000 });
  if (!atOnce) await when(page, { strokes: count });
  if (!atOnce) await page.waitForTimeout(5000); // a quiet moment, as before a painter goes
  await page.reload();
  const first = await when(page, { say: 'pixels' });
  const seen = await when(page, { painted: true });
  const whole = await when(page, { strokes: count });
  const painted = await page.evaluate(() =>
    Math.max(0, ...(window as unknown as { told: Told[] }).told.map(({ total }) => total ?? 0)),
  );
  const takeBack = async (left: number) => {
    const start = await page.evaluate(() => performance.now());
    await page.keyboard.press('Control+z');
    return (await when(page, { strokes: left }, start)) - start;
  };
  const atOnceMs = await takeBack(count - 1);
  await page.waitForTimeout(5000);
  await page.reload();
  await when(page, { strokes: count - 1 });
  await page.waitForTimeout(10_000); // as one looks at it
  const undo: number[] = [];
  for (let i = 2; i <= UNDONE + 1; i++) undo.push(await takeBack(count - i));
  console.log(
    JSON.stringify(
      {
        strokes: count,
        paintedAgainOnOpening: painted,
        firstFrameMs: round(first),
        firstPaintSeenMs: round(seen),
        everythingMs: round(whole),
        undoAtOnceMs: round(atOnceMs),
        undoMs: { median: round(median(undo)), most: round(Math.max(...undo)), each: undo.map((ms) => Math.round(ms)) },
      },
      null,
      2,
    ),
  );
} finally {
  await context.close();
  server.kill();
  rmSync(profile, { recursive: true, force: true });
}
process.exit(0);
