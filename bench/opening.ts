/**
 * Opening a painting of many strokes again, and taking the last ones back, in Chromium, as JSON.
 *   npx tsx bench/opening.ts [STROKES]     (1340; the app must have been built: ./check does it)
 * The strokes are painted in the browser first, as fast as it takes them.
 */
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { quickStrokes } from '../e2e/easel';
import { median, round } from './measure';

const count = Number(process.argv[2] ?? 1340);
const PORT = 4391;
const UNDONE = 20;

/** Counts what the engine says of the tools after each thing that it has done, and when the picture was there. */
const LISTEN = `
  window.told = [];
  window.Worker = class extends Worker {
    constructor(...how) {
      super(...how);
      this.addEventListener('message', ({ data }) => {
        if (data?.say) window.told.push([data.say, performance.now(), data.whole, data.total]);
      });
    }
  };
`;

interface Told {
  readonly told: [string, number, boolean?, number?][];
}
const said = (page: Page, what: string, after = 0) =>
  page.waitForFunction(
    ([w, a]) => (window as unknown as Told).told.find(([say, at]) => say === w && at > (a as number))?.[1],
    [what, after] as const,
    { timeout: 300_000 },
  );

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
    if (await page.goto(`http://127.0.0.1:${PORT}/prepare`).then(() => true, () => false)) break; // prettier-ignore
    await page.waitForTimeout(200);
  }
  await page.getByRole('button', { name: 'Set it on the easel' }).click();
  await page.waitForURL(/easel/);
  await page.getByText(/^kept/).waitFor();
  await page.keyboard.press('r');
  for (let done = 0; done < count; done += 100) await quickStrokes(page, Math.min(100, count - done), ['[', ']', 'r']);
  await page.getByText(/^kept/).waitFor({ timeout: 600_000 });
  await page.reload();
  const first = (await (await said(page, 'pixels')).jsonValue()) as number;
  await page.getByText(/^kept/).waitFor({ timeout: 300_000 });
  const painted = await page.evaluate(() => Math.max(0, ...(window as unknown as Told).told.filter(([say]) => say === 'progress').map(([, , , total]) => total ?? 0))); // prettier-ignore
  const whole = (await (await said(page, 'bench', first)).jsonValue().catch(() => NaN)) as number;
  const undo: number[] = [];
  for (let i = 0; i < UNDONE; i++) {
    const start = await page.evaluate(() => performance.now());
    await page.keyboard.press('Control+z');
    undo.push(((await (await said(page, 'bench', start)).jsonValue()) as number) - start);
  }
  console.log(
    JSON.stringify(
      {
        strokes: count,
        paintedAgainOnOpening: painted,
        firstPictureMs: round(first),
        everythingMs: round(whole),
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
