/**
 * What a stroke costs, tool by tool, as JSON; given the folder of another version of this project, both by turns in one
 * run, as ratios of the one to the other.
 *   npm run bench:strokes [-- OTHER [ROUNDS]]
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';
import { resolve } from 'node:path';
import type { CommandInput } from '@/core/commands/commands';
import { median, round } from './measure';

/** A tool, its size (mm), and what it is tried on. */
const TRIED = [
  ['flat', 12, 'linen-fine'],
  ['filbert', 9, 'linen-fine'],
  ['round', 5, 'linen-fine'],
  ['house', 40, 'linen-fine'],
  ['rigger', 2, 'linen-fine'],
  ['roller', 50, 'linen-fine'],
  ['knife', 16, 'linen-fine'],
  ['scraper', 24, 'linen-fine'],
  ['rag', 18, 'linen-fine'],
  ['spray', 24, 'linen-fine'],
  ['graphite', 0.7, 'paper-cold'],
  ['charcoal', 12, 'paper-cold'],
  ['chalk', 12, 'paper-cold'],
  ['pastel-soft', 16, 'paper-cold'],
  ['pastel-hard', 10, 'paper-cold'],
  ['finger', 9, 'paper-cold'],
  ['wash-round', 7, 'paper-cold'],
  ['wash-flat', 22, 'paper-cold'],
  ['dry-brush', 12, 'paper-cold'],
  ['ink-fast', 0.7, 'paper-cold'],
] as const;
const STROKES = 6;

/** What one child does when it is told the number of a tool: the median time of a stroke of it, ms. */
async function serve(): Promise<void> {
  const { commandSchema } = await import('@/core/commands/commands');
  const { paintingSchema } = await import('@/core/journal/journalSchema');
  const { Studio } = await import('@/core/journal/studio');
  for await (const line of createInterface({ input: process.stdin })) {
    const [tool, sizeMm, kind] = TRIED[Number(line)];
    const studio = new Studio(
      paintingSchema.parse({ widthMm: 150, heightMm: 90, ppi: 150, seed: 3, surface: { kind } }),
    );
    const paint = (...commands: CommandInput[]) => commands.forEach((c) => studio.apply(commandSchema.parse(c)));
    const across = (y: number): CommandInput => ({
      do: 'stroke',
      samples: Array.from({ length: 40 }, (_, i) => [i * 10, 15 + 3 * i, y + Math.sin(i / 3), 0.6]),
    });
    if (kind === 'linen-fine')
      paint(
        { do: 'tool', tool: 'flat', sizeMm: 25 },
        { do: 'load', mixture: { PB29: 1, PW6: 2 }, amount: 2 },
        across(45),
      );
    if (tool === 'finger') paint({ do: 'tool', tool: 'charcoal', sizeMm: 20 }, across(45));
    paint({ do: 'tool', tool, sizeMm });
    const times: number[] = [];
    for (let k = 0; k <= STROKES; k++) {
      if (!['rag', 'scraper', 'finger', 'graphite', 'charcoal'].includes(tool))
        paint({ do: 'load', mixture: { PB29: 1, PW6: 3, PR188: 0.2 } });
      const start = performance.now();
      paint(across(35 + 4 * k));
      if (k > 0) times.push(performance.now() - start);
      if (kind !== 'linen-fine') paint({ do: 'dry' });
    }
    process.stdout.write(`${median(times)}\n`);
  }
}

/** A child that measures the version in a folder. */
class Version {
  private readonly child: ChildProcess;
  private readonly answers: AsyncIterator<string>;

  constructor(folder: string) {
    const here = fileURLToPath(import.meta.url);
    const tsx = fileURLToPath(new URL('../node_modules/tsx/dist/esm/index.mjs', import.meta.url));
    this.child = spawn(process.execPath, ['--import', tsx, here, '--serve'], {
      cwd: folder,
      env: { ...process.env, TSX_TSCONFIG_PATH: resolve(folder, 'tsconfig.json') },
      stdio: ['pipe', 'pipe', 'inherit'],
    });
    this.answers = createInterface({ input: this.child.stdout! })[Symbol.asyncIterator]();
  }

  async time(tool: number): Promise<number> {
    this.child.stdin!.write(`${tool}\n`);
    return Number((await this.answers.next()).value);
  }

  end(): void {
    this.child.stdin!.end();
  }
}

async function compare(other: string | undefined, rounds: number): Promise<void> {
  const versions = ['.', ...(other ? [other] : [])].map((folder) => new Version(folder));
  const out: Record<string, object> = {};
  for (let n = 0; n < TRIED.length; n++) {
    const times = versions.map((): number[] => []);
    for (let k = 0; k < rounds; k++) {
      for (let v = 0; v < versions.length; v++) times[v].push(await versions[v].time(n));
    }
    const [here, there] = times.map(median);
    out[TRIED[n][0]] = { ms: round(here), ...(other && { other: round(there), ratio: round(here / there) }) };
  }
  versions.forEach((version) => version.end());
  console.log(JSON.stringify(out, null, 2));
}

const [other, rounds] = process.argv.slice(2);
if (other === '--serve') await serve();
else await compare(other, Number(rounds ?? 5));
