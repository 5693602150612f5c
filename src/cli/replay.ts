import { accessSync, constants, existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { parseArgs } from 'node:util';
import { encodePng } from '@/core/formats/png';
import { encodePlanes, pictureRaster } from '@/core/formats/planes';
import { digest } from '@/core/journal/digest';
import { PainterError } from '@/core/errors';
import { readJournal, replay } from '@/core/journal/replay';
import { oddities } from '@/core/journal/oddities';
import type { Studio } from '@/core/journal/studio';
import { Picture } from '@/core/picture/picture';
import { readRegion, readSpot } from '@/core/picture/readings';
import { readJsonFile } from './journalFile';

export const REPLAY_HELP = `  --picture OUT.png    writes the picture, lit
  --unlit              ... without light and relief
  --scale S            paints the same strokes at S times the resolution
  --planes DIR         writes 16-bit planes of the state and planes.json with their units
  --probe X,Y          reads a spot, mm; may be given again
  --slab-probe X,Y     reads a spot of the slab, mm; may be given again
  --region X,Y,W,H     reads an area, mm; may be given again`;

/** `stigmos replay`: prints one JSON object. @throws PainterError with a sentence on bad input. */
export async function replayCommand(argv: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args: argv,
    allowPositionals: true,
    options: {
      picture: { type: 'string' },
      unlit: { type: 'boolean' },
      scale: { type: 'string' },
      planes: { type: 'string' },
      probe: { type: 'string', multiple: true },
      'slab-probe': { type: 'string', multiple: true },
      region: { type: 'string', multiple: true },
    },
  });
  if (positionals.length !== 1) throw new PainterError('Give one journal: stigmos replay FILE.');
  const scale = values.scale === undefined ? 1 : Number(values.scale);
  if (!(scale > 0 && scale <= 16)) throw new PainterError('--scale takes a number above 0 and up to 16.');
  const probes = (values.probe ?? []).map((text) => numbers(text, 2, '--probe'));
  const slabProbes = (values['slab-probe'] ?? []).map((text) => numbers(text, 2, '--slab-probe'));
  const regions = (values.region ?? []).map((text) => numbers(text, 4, '--region'));

  const seconds: Record<string, number> = {};
  const timed = <T>(phase: string, work: () => T): T => {
    const start = performance.now();
    const result = work();
    seconds[phase] = (performance.now() - start) / 1000;
    return result;
  };

  const journal = timed('read', () => readJournal(readJsonFile(positionals[0])));
  for (const odd of oddities(journal)) console.error(`stigmos: ${odd}`);
  // a place that cannot be written is told before anything is painted
  const { picture: pictureAt, planes: planesAt } = values;
  if (pictureAt) write('--picture', pictureAt, () => accessSync(dirname(pictureAt), constants.W_OK));
  if (planesAt) write('--planes', planesAt, () => makeFolder(planesAt));
  const studio = timed('paint', () => replay(journal, scale));
  const { painting } = studio;
  const picture = new Picture(painting);
  timed('picture', () => picture.update({ left: 0, top: 0, right: painting.width, bottom: painting.height }));

  const spot = (of: Picture, [x, y]: number[], option: string) => {
    const { mmPerPx, width, height } = of.painting;
    const [px, py] = [Math.floor(x / mmPerPx), Math.floor(y / mmPerPx)];
    if (px < 0 || py < 0 || px >= width || py >= height) {
      throw new PainterError(`${option} ${x},${y} lies outside ${of === picture ? 'the painting' : 'the slab'}.`);
    }
    return { xMm: x, yMm: y, ...readSpot(of, px, py) };
  };
  const report = timed('measure', () => ({
    probes: probes.map((at) => spot(picture, at, '--probe')),
    slabProbes:
      slabProbes.length > 0 ? readSlab(studio, (slab) => slabProbes.map((at) => spot(slab, at, '--slab-probe'))) : [],
    regions: regions.map(([x, y, w, h]) => {
      const left = Math.max(0, Math.floor(x / painting.mmPerPx));
      const top = Math.max(0, Math.floor(y / painting.mmPerPx));
      const right = Math.min(painting.width, Math.ceil((x + w) / painting.mmPerPx));
      const bottom = Math.min(painting.height, Math.ceil((y + h) / painting.mmPerPx));
      if (right <= left || bottom <= top)
        throw new PainterError(`--region ${x},${y},${w},${h} lies outside the painting.`);
      return { xMm: x, yMm: y, widthMm: w, heightMm: h, ...readRegion(picture, left, top, right, bottom) };
    }),
  }));

  if (pictureAt) {
    const png = encodePng(pictureRaster(picture, !values.unlit), painting.spec.ppi);
    write('--picture', pictureAt, () => writeFileSync(pictureAt, png));
  }
  if (planesAt) {
    const { files, units } = encodePlanes(picture);
    write('--planes', planesAt, () => {
      for (const [name, bytes] of Object.entries(files)) writeFileSync(join(planesAt, `${name}.png`), bytes);
      writeFileSync(join(planesAt, 'planes.json'), JSON.stringify(units, null, 2) + '\n');
    });
  }

  const state = timed('digest', () => digest(studio));
  console.log(
    JSON.stringify(
      {
        digest: state,
        sizePx: [painting.width, painting.height],
        seconds,
        mass: studio.massBalance(),
        probes: report.probes,
        ...(slabProbes.length > 0 ? { slabProbes: report.slabProbes } : {}),
        regions: report.regions,
      },
      null,
      2,
    ),
  );
}

/** Colours the slab and reads from it. */
function readSlab<T>({ slab }: Studio, read: (picture: Picture) => T): T {
  const picture = new Picture(slab);
  picture.update({ left: 0, top: 0, right: slab.width, bottom: slab.height });
  return read(picture);
}

/** Makes a folder and those above it. Where a file system takes none, `recursive` tries for ever. */
function makeFolder(place: string): void {
  if (existsSync(place)) return;
  makeFolder(dirname(place));
  mkdirSync(place);
}

/** Does something with a place that was named. @throws PainterError when it cannot be written there */
function write(option: string, place: string, work: () => void): void {
  try {
    work();
  } catch (error) {
    const code = error instanceof Error && 'code' in error ? ` (${String(error.code)})` : '';
    throw new PainterError(`${option}: "${place}" cannot be written${code}.`);
  }
}

function numbers(text: string, count: number, option: string): number[] {
  const parts = text.split(',').map((part) => (part.trim() === '' ? NaN : Number(part)));
  if (parts.length !== count || !parts.every(Number.isFinite)) {
    throw new PainterError(`${option} takes ${count} numbers with commas between, mm: not "${text}".`);
  }
  return parts;
}
