/**
 * Lets the engine paint the demo journals and packs journal, paint and photo into the files that the app opens:
 * public/demo/*.stigmos. Done when the app is built; nothing is drawn by any other means.
 *   npx tsx demo/bundle.ts [NAME ...]        (all when none is named; several at a time)
 */
import { spawn } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { encodeStigmosFile } from '@/core/formats/stigmosFile';
import { readJournal, replay } from '@/core/journal/replay';
import { Picture } from '@/core/picture/picture';
import { Pyramid } from '@/core/picture/pyramid';
import { thumbnailPng } from '@/core/formats/thumbnail';

interface Demo {
  readonly from: string;
  readonly title: string;
  /** What it was painted from; the estuary when none is named. */
  readonly photo?: 'still-life' | 'heron';
}

/** Photos by the names that they hang under. */
const PHOTOS = { estuary: 'Estuary.jpg', 'still-life': 'Still life.jpg', heron: 'Heron.jpg' } as const;

const DEMO: Record<string, Demo> = {
  evening: { from: 'demo/studies/evening.json', title: 'Low tide, evening' },
  layered: { from: 'demo/studies/layered.json', title: 'Low tide, in layers' },
  heron: { from: 'demo/studies/heron.json', title: 'Low tide, a heron', photo: 'heron' },
  'wet-sky': { from: 'demo/studies/wet-sky.json', title: 'Low tide, a wet sky' },
  'ink-and-wash': { from: 'demo/studies/ink-and-wash.json', title: 'Low tide, ink and wash' },
  'low-tide': { from: 'demo/low-tide.json', title: 'Low tide, study 1' },
  'alla-prima': { from: 'demo/studies/alla-prima.json', title: 'Low tide, alla prima' },
  glazed: { from: 'demo/studies/glazed.json', title: 'Low tide, glazed' },
  knife: { from: 'demo/studies/knife.json', title: 'Low tide, with the knife' },
  mussel: { from: 'demo/studies/mussel.json', title: 'Low tide, a mussel', photo: 'still-life' },
  charcoal: { from: 'demo/studies/charcoal.json', title: 'Low tide, charcoal' },
};

function paint(name: string): void {
  const { from, title, photo: scene = 'estuary' } = DEMO[name];
  const photo = {
    name: PHOTOS[scene],
    type: 'image/jpeg',
    bytes: new Uint8Array(readFileSync(`public/demo/${scene}.jpg`)),
  };
  const journal = readJournal(JSON.parse(readFileSync(from, 'utf8')));
  const studio = replay(journal);
  const picture = new Picture(studio.painting);
  const { width, height } = studio.painting;
  const pyramid = new Pyramid(picture);
  pyramid.update(picture.update({ left: 0, top: 0, right: width, bottom: height }));
  const file = encodeStigmosFile(studio, journal.entries, title, [photo], {
    thumbnail: thumbnailPng(pyramid, studio.painting),
  });
  writeFileSync(`public/demo/${name}.stigmos`, file);
  console.log(`public/demo/${name}.stigmos: ${(file.length / 2 ** 20).toFixed(1)} MB`);
}

/** Paints each in a process of its own, as many at a time as there are processors (and memory for). */
async function paintAll(waiting: string[]): Promise<void> {
  const running = new Set<ReturnType<typeof spawn>>();
  const one = async (): Promise<void> => {
    for (let name = waiting.shift(); name !== undefined; name = waiting.shift()) {
      const child = spawn(process.execPath, [...process.execArgv, fileURLToPath(import.meta.url), name], {
        stdio: 'inherit',
      });
      running.add(child);
      const code = await new Promise((resolve) => child.once('exit', resolve));
      running.delete(child);
      if (code !== 0) throw new Error(`"${name}" could not be painted.`);
    }
  };
  const stop = () => running.forEach((child) => child.kill());
  process.once('SIGTERM', () => {
    stop();
    process.exit(1);
  });
  try {
    await Promise.all(Array.from({ length: Math.min(3, availableParallelism()) }, one));
  } catch (error) {
    stop();
    throw error;
  }
}

const names = process.argv.slice(2);
const unknown = names.find((name) => !DEMO[name]);
if (unknown) throw new Error(`There is no demo painting "${unknown}".`);
if (names.length === 1) paint(names[0]);
else await paintAll(names.length > 0 ? names : Object.keys(DEMO));
