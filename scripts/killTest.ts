/**
 * Kills the browser at random moments while somebody paints, opens it again, and looks whether everything is there.
 *   npx tsx scripts/killTest.ts [ROUNDS] [--seed N]      (`npm run test:kill`: 50 rounds)
 * Each round paints in oil, in water and on layers, takes back and does again, with a simulated pen; then the browser
 * gets SIGKILL. After that every stroke that had been lifted must be in the journal, and the journal must lead to the
 * digest of what was opened. Needs the built app and Chromium.
 */
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, readlinkSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type BrowserContext, type CDPSession, type Page } from '@playwright/test';
import { readStigmosFile } from '@/core/formats/readStigmosFile';
import { digest } from '@/core/journal/digest';
import { replay } from '@/core/journal/replay';
import { randomFrom, type Randomness } from '@/measure/randomActs';

const ARGS = [
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];
/** Time for which a stroke that has been lifted may still be on its way to the storage, ms. */
const ON_ITS_WAY_MS = 100;

const numbers = process.argv.slice(2).filter((a) => /^\d+$/.test(a));
const rounds = Number(numbers[0] ?? 50);
const seedAt = process.argv.indexOf('--seed');
const random = randomFrom(seedAt > 0 ? Number(process.argv[seedAt + 1]) : Date.now());
let profile = '';

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => resolve(port));
    });
  });

/** Processes that have the profile open: the browser and what it started. */
function browserProcesses(): number[] {
  return readdirSync('/proc').flatMap((name) => {
    if (!/^\d+$/.test(name)) return [];
    try {
      const line = readFileSync(`/proc/${name}/cmdline`, 'utf8');
      if (!line.includes('chrom')) return [];
      return line.includes(profile) || readlinkSync(`/proc/${name}/cwd`).includes(profile) ? [Number(name)] : [];
    } catch {
      return [];
    }
  });
}

/** Waits until nothing of the browser runs any more. One that was killed has not unlocked its profile. */
async function gone(): Promise<void> {
  while (browserProcesses().length > 0) await new Promise((resolve) => setTimeout(resolve, 50));
  for (const name of readdirSync(profile))
    if (name.startsWith('Singleton')) rmSync(join(profile, name), { force: true });
}

function killAll(): void {
  for (const pid of browserProcesses()) {
    try {
      process.kill(pid, 'SIGKILL');
    } catch {
      // it had ended by itself
    }
  }
}

/** No browser and no profile any more. */
async function cleared(): Promise<void> {
  killAll();
  await gone();
  rmSync(profile, { recursive: true, force: true });
}

async function start(): Promise<BrowserContext> {
  return chromium.launchPersistentContext(profile, {
    executablePath: process.env.CHROMIUM || '/usr/bin/chromium',
    chromiumSandbox: false,
    args: ARGS,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
  });
}

/** Tells what the page says of strokes to the engine, and what the engine refuses. */
const LISTEN = `
  window.Worker = class extends Worker {
    constructor(...how) {
      super(...how);
      this.addEventListener('message', ({ data }) => data?.say === 'refused' && console.debug('refused: ' + data.why));
    }
    postMessage(message, ...rest) {
      super.postMessage(message, ...rest);
      if (message?.say === 'stroke-end') console.debug('lifted');
    }
  };
`;

class Hand {
  /** When the page was told of each stroke that was lifted, ms; and what was refused. */
  readonly lifted: number[] = [];
  readonly refused: string[] = [];
  private box!: { x: number; y: number; width: number; height: number };

  private constructor(
    private readonly page: Page,
    private readonly session: CDPSession,
  ) {}

  static async at(page: Page): Promise<Hand> {
    const hand = new Hand(page, await page.context().newCDPSession(page));
    hand.box = (await page.getByTestId('canvas').boundingBox())!;
    page.on('console', (message) => {
      if (message.text() === 'lifted') hand.lifted.push(Date.now());
      if (message.text().startsWith('refused')) hand.refused.push(message.text());
    });
    return hand;
  }

  /** A quick stroke somewhere in the middle of the canvas. */
  async stroke(): Promise<void> {
    const at = () => ({
      x: this.box.x + this.box.width * (0.3 + 0.4 * random.next()),
      y: this.box.y + this.box.height * (0.3 + 0.4 * random.next()),
    });
    const [from, to] = [at(), at()];
    const send = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', s: number) =>
      this.session.send('Input.dispatchMouseEvent', {
        type,
        x: from.x + (to.x - from.x) * s,
        y: from.y + (to.y - from.y) * s,
        button: 'left',
        buttons: type === 'mouseReleased' ? 0 : 1,
        clickCount: 1,
        pointerType: 'pen',
        force: type === 'mouseReleased' ? 0 : 0.4 + 0.5 * random.next(),
      });
    await send('mousePressed', 0);
    const moves = [];
    for (let i = 1; i <= 8; i++) moves.push(send('mouseMoved', i / 8));
    await Promise.all(moves);
    await send('mouseReleased', 1);
  }

  press(key: string): Promise<void> {
    return this.page.keyboard.press(key);
  }
}

/** Waits until the painting is there as a whole. @throws with what the page says when it does not come */
const ready = async (page: Page) => {
  try {
    await page.getByLabel('In hand').getByRole('slider').first().waitFor({ timeout: 120_000 });
    await page.getByText(/^kept/).waitFor({ timeout: 60_000 });
  } catch {
    const said = (await page.locator('body').innerText()).replace(/\s+/g, ' ');
    throw new Error(`the painting does not come: ${said.slice(0, 1500)}`);
  }
};

async function paintUntil(hand: Hand, page: Page, stop: () => boolean, pick: Randomness): Promise<void> {
  while (!stop()) {
    const dice = pick.next();
    if (dice < 0.66) await hand.stroke();
    else if (dice < 0.76) await hand.press(pick.pick(['[', ']']));
    else if (dice < 0.84) await hand.press(pick.pick(['1', '2', '3', '4']));
    else if (dice < 0.9) await hand.press('r');
    else if (dice < 0.96) await hand.press(pick.pick(['Control+z', 'Control+Shift+z']));
    else await page.getByRole('button', { name: 'Hair dryer' }).click({ timeout: 2000 });
  }
}

/** Sends the painting out as a file. */
async function sendOut(page: Page): Promise<Buffer> {
  await page.getByRole('button', { name: 'Send out' }).click();
  const panel = page.getByRole('dialog', { name: 'Send out' });
  await panel.getByRole('button', { name: 'To keep' }).click();
  await panel.getByRole('radio', { name: /Painting file/ }).check();
  // it waits for every stroke that is not worked off yet
  const download = page.waitForEvent('download', { timeout: 120_000 });
  await panel.getByRole('button', { name: 'Save the file' }).click();
  return readFileSync(await (await download).path());
}

/** Times that a round may begin anew because the browser does not come up; nothing has been painted by then. */
const BEGINNINGS = 3;

/** A browser with an empty painting on its easel. */
async function emptyPainting(address: string, surface: string, number: number): Promise<[BrowserContext, Page]> {
  for (let beginning = 1; ; beginning++) {
    profile = mkdtempSync(join(tmpdir(), 'stigmos-kill-'));
    try {
      const context = await start();
      const page = context.pages()[0];
      await page.addInitScript(LISTEN);
      await page.goto(`${address}/prepare`);
      await page.getByLabel('Title').fill(`Round ${number}`);
      await page.getByText(surface, { exact: true }).first().click();
      await page.getByRole('button', { name: 'Set it on the easel' }).click();
      await page.waitForURL(/easel/);
      await ready(page);
      return [context, page];
    } catch (error) {
      await cleared();
      if (beginning === BEGINNINGS) throw error;
      console.log(`round ${number} begins anew: ${error instanceof Error ? error.message : String(error)}`);
    }
  }
}

async function round(address: string, surface: string, number: number): Promise<string> {
  let [context, page] = await emptyPainting(address, surface, number);
  const url = page.url();
  const hand = await Hand.at(page);
  await hand.press('r');
  let dead = false;
  const painting = paintUntil(hand, page, () => dead, random).catch(() => {});
  await new Promise((resolve) => setTimeout(resolve, 1500 + 5000 * random.next()));
  dead = true;
  const killed = Date.now();
  killAll();
  await painting;
  await context.close().catch(() => {});
  await gone();
  // a stroke that was refused is in no journal
  const certain = hand.lifted.filter((at) => at < killed - ON_ITS_WAY_MS).length - hand.refused.length;

  context = await start();
  page = context.pages()[0];
  await page.goto(url);
  await ready(page);
  const file = await readStigmosFile(await sendOut(page));
  await context.close();
  const strokes = file.journal.entries.filter((entry) => entry.do === 'stroke').length;
  if (strokes < certain)
    throw new Error(`of ${certain} strokes only ${strokes} are there (${hand.refused.join('; ')})`);
  if (digest(replay(file.journal)) !== file.digest) throw new Error('the journal does not lead to the painting');
  return `${strokes} strokes there, ${certain} had been lifted for sure, ${hand.lifted.length} in all`;
}

const port = await freePort();
const server = spawn(process.execPath, ['scripts/serve.mjs', String(port)], { stdio: 'ignore' });
const address = `http://127.0.0.1:${port}`;
for (let i = 0; i < 200; i++) {
  if (
    await fetch(address).then(
      (r) => r.ok,
      () => false,
    )
  )
    break;
  await new Promise((resolve) => setTimeout(resolve, 100));
}
let failed = 0;
try {
  for (let i = 1; i <= rounds; i++) {
    const surface = random.pick(['Fine linen', 'Cold-pressed', 'Coarse linen']);
    try {
      console.log(`round ${i}, ${surface}: ${await round(address, surface, i)}`);
    } catch (error) {
      failed++;
      console.log(`round ${i}, ${surface}: FAILED: ${error instanceof Error ? error.message : String(error)}`);
    } finally {
      await cleared();
    }
  }
} finally {
  server.kill();
}
console.log(`${rounds - failed} of ${rounds} rounds held`);
process.exitCode = failed > 0 ? 1 : 0;
