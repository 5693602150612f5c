import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { decode } from 'fast-png';
import { describe, expect, it, vi } from 'vitest';
import { runCommandLine } from './commandLine';

const dir = mkdtempSync(join(tmpdir(), 'stigmos-cli-'));
const journal = (entries: unknown[]) => {
  const file = join(dir, `${Math.floor(Math.random() * 1e9)}.json`);
  const painting = { widthMm: 40, heightMm: 30, ppi: 100, tone: { mixture: { PY43: 1 } } };
  writeFileSync(file, JSON.stringify({ format: 'stigmos-journal', version: 1, painting, entries }));
  return file;
};
/** Runs the command line in this process. */
async function run(...args: string[]) {
  const out: string[] = [];
  const errors: string[] = [];
  const log = vi.spyOn(console, 'log').mockImplementation((text: string) => void out.push(text));
  const error = vi.spyOn(console, 'error').mockImplementation((text: string) => void errors.push(text));
  try {
    return { status: await runCommandLine(args), stdout: out.join('\n'), stderr: errors.join('\n') };
  } finally {
    log.mockRestore();
    error.mockRestore();
  }
}
const ENTRIES = [
  { do: 'tool', tool: 'flat', sizeMm: 10 },
  { do: 'load', mixture: { PB29: 1, PW6: 1 } },
  {
    do: 'stroke',
    samples: [
      [0, 4, 15, 0.6],
      [300, 36, 15, 0.6],
    ],
  },
];

describe('stigmos replay', () => {
  it('tells what came out, and writes picture and planes', () => {
    const picture = join(dir, 'out.png');
    const planes = join(dir, 'planes');
    const out = JSON.parse(
      execFileSync(
        './stigmos',
        [
          'replay',
          journal(ENTRIES),
          '--picture',
          picture,
          '--planes',
          planes,
          '--probe',
          '12,15',
          '--probe',
          '20,2',
          '--region',
          '8,12,10,6',
        ],
        { encoding: 'utf8' },
      ),
    );
    expect(out.digest).toMatch(/^[0-9a-f]{64}$/);
    expect(out.sizePx).toEqual([157, 118]);
    expect(out.probes[0]).toMatchObject({ xMm: 12, yMm: 15, wetness: 1, waterUm: 0, layer: 'L2' });
    expect(out.probes[0].mixture.PB29).toBeCloseTo(0.5, 3);
    expect(out.probes[1]).toMatchObject({ thicknessUm: 0, wetness: 0, layer: 'ground', mixture: { PY43: 1 } });
    expect(out.regions[0].coverage).toBeGreaterThan(0.9);
    expect(out.regions[0].thicknessUm.mean).toBeGreaterThan(30);
    const { loaded, film, tool } = out.mass.PB29;
    expect((film + tool) / loaded).toBeCloseTo(1, 4);
    const png = decode(readFileSync(picture));
    expect([png.width, png.height]).toEqual([157, 118]);
    for (const name of ['albedo.png', 'thickness.png', 'mass-PB29.png', 'planes.json']) {
      expect(existsSync(join(planes, name))).toBe(true);
    }
  });

  it('paints at another resolution', async () => {
    const { stdout } = await run('replay', journal(ENTRIES), '--scale', '0.5');
    expect(JSON.parse(stdout).sizePx).toEqual([79, 59]);
  });

  it.each([
    [[journal([{ do: 'rinse' }, { do: 'sing' }])], /Entry 2/],
    [[journal([{ do: 'undo' }])], /Entry 1: There is nothing to take back/],
    [[join(dir, 'nowhere.json')], /cannot be read/],
    [[journal([]), '--probe', '3'], /--probe takes 2 numbers/],
    [[journal([]), '--probe', '300,1'], /outside the painting/],
    [[journal([]), '--region', '1,2,x,4'], /--region takes 4 numbers/],
    [[journal([]), '--scale', '-1'], /--scale/],
    [[journal([]), '--colour'], /--colour/],
    [[], /Give one journal/],
  ])('says in one sentence what is wrong (%#)', async (args, message) => {
    const { status, stderr, stdout } = await run('replay', ...args);
    expect(status).toBe(2);
    expect(stdout).toBe('');
    expect(stderr).toMatch(message);
    expect(stderr.split('\n')).toHaveLength(1);
  });

  it('does not take what is no JSON', async () => {
    const file = join(dir, 'text.json');
    writeFileSync(file, 'dear painter');
    const { status, stderr } = await run('replay', file);
    expect(status).toBe(2);
    expect(stderr).toContain('is not JSON');
    writeFileSync(file, '{\n  "format": "stigmos-journal",\n  "version": 1,,\n}');
    expect((await run('replay', file)).stderr).toMatch(/is not JSON: .* at line 3, column 16\.$/m);
  });

  it('reads a file with a byte-order mark, from wherever it is called, by a reader that stops early', () => {
    const file = journal(ENTRIES);
    writeFileSync(file, '\uFEFF' + readFileSync(file, 'utf8'));
    const stigmos = join(process.cwd(), 'stigmos');
    const out = spawnSync('bash', ['-c', `set -o pipefail; "${stigmos}" replay "${file}" | head -1`], {
      encoding: 'utf8',
      cwd: tmpdir(),
    });
    expect([out.status, out.stdout, out.stderr]).toEqual([0, '{\n', '']);
  });

  it.each([
    ['--picture', '/proc/nowhere/out.png'],
    ['--planes', '/proc/nowhere'],
  ])('%s to where nothing can be written is told', async (option, place) => {
    const { status, stderr, stdout } = await run('replay', journal(ENTRIES), option, place);
    expect([status, stdout]).toEqual([2, '']);
    expect(stderr).toMatch(new RegExp(`^${option}: "${place}" cannot be written \\(E[A-Z]+\\)\\.$`, 'm'));
  });

  it.each([
    [{ do: 'tool', tool: 'flatt' }, /Entry 1 \(tool\) is not right: there is no "flatt"; did you mean "flat"\?$/m],
    [{ do: 'strok', samples: [] }, /there is no such command in "do"; did you mean "stroke"\?$/m],
    [{ do: 'tool', tool: 'xyzzyxyzzy' }, /there is no "xyzzyxyzzy"\.$/m],
  ])('names what was perhaps meant (%#)', async (entry, why) => {
    const { status, stderr } = await run('replay', journal([entry]));
    expect(status).toBe(2);
    expect(stderr).toMatch(why);
    expect(stderr.length).toBeLessThan(140);
  });

  it('warns of what is probably not meant, and paints it', async () => {
    const odd = [
      {
        do: 'stroke',
        samples: [
          [0, 5, 5, 0.6],
          [90, 20, 5, 1.4],
          [40, 30, 5, 0.6],
        ],
      },
      { do: 'load', mixture: { PB29: 1 } },
      {
        do: 'stroke',
        samples: [
          [0, 5, 5, 0.6],
          [90, 999_999, -999_999, 0.6],
          [190, 5, 9, 0.6],
        ],
      },
    ];
    const { status, stdout, stderr } = await run('replay', journal(odd));
    expect(status).toBe(0);
    expect(JSON.parse(stdout).seconds.paint).toBeLessThan(20);
    expect(stderr.trim().split('\n')).toEqual([
      'stigmos: Entry 1: a stroke with flat, which has not been loaded.',
      'stigmos: Entry 1: a pressure of 1.4 counts as 1.',
      'stigmos: Entry 1: time runs back at reading 3.',
      'stigmos: Entry 3: a reading at 999999, -999999 mm is taken as one nearer to the painting.',
    ]);
  });

  it('knows its help and its schema', async () => {
    expect((await run('--help')).stdout).toContain('stigmos replay FILE');
    expect((await run('sing')).status).toBe(2);
    expect(JSON.parse((await run('schema')).stdout).properties.format.const).toBe('stigmos-journal');
  });
});

describe('stigmos measure', () => {
  it('says what held, as text and as JSON', async () => {
    const text = await run('measure', '--only', 'sealing', '--surface', 'panel', '--ppi', '100');
    expect(text.status).toBe(0);
    expect(text.stdout).toMatch(/holds {2}panel +100 ppi {2}largest Delta E 2000: [\d.]+ \(<= 0\.5\)/);
    const json = JSON.parse(
      (await run('measure', '--only', 'sealing', '--surface', 'panel', '--ppi', '100', '--json')).stdout,
    );
    expect(json).toEqual([
      expect.objectContaining({ behaviour: 'sealing', surface: 'panel', ppi: 100, seed: 2, most: 0.5, holds: true }),
    ]);
  });

  it.each([
    [['--only', 'flying'], /There is no behaviour "flying"; there are runs-out,/],
    [['--surface', 'ice'], /There is no support "ice"/],
    [['--ppi', '7'], /--ppi takes a number from 30 to 1200/],
  ])('refuses %j in a sentence', async (args, sentence) => {
    const out = await run('measure', ...args);
    expect(out.status).toBe(2);
    expect(out.stderr).toMatch(sentence);
  });
});
