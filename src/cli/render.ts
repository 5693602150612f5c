import { accessSync, constants, readFileSync, writeFileSync } from 'node:fs';
import { basename, dirname } from 'node:path';
import { parseArgs } from 'node:util';
import sharp from 'sharp';
import { PainterError } from '@/core/errors';
import { EXPORT_IDS, EXPORTS, isExport } from '@/core/formats/exports/exports';
import type { ExportDefinition, SentOut } from '@/core/formats/exports/definition';
import { mayBe, typedSetting } from '@/core/formats/exports/settings';
import { encodeStigmosFile } from '@/core/formats/stigmosFile';
import { openStigmosFile } from '@/core/formats/readStigmosFile';
import { studioOf } from '@/core/formats/studioOf';
import { wholeRect } from '@/core/film/tilesIn';
import { readJournal, replay } from '@/core/journal/replay';
import type { Studio } from '@/core/journal/studio';
import { Picture, type Light } from '@/core/picture/picture';
import { readJsonFile } from './journalFile';

export const RENDER_HELP = `  --as KIND            what to make; one of
${EXPORT_IDS.map((id) => `                         ${id.padEnd(12)} ${EXPORTS[id].label}`).join('\n')}
  --out FILE           where it is written
  --set NAME=VALUE     a setting of it; may be given again
  --title TEXT         title in it; the painting's, or the file's name, where left out
  --settings           lists the settings of --as, and writes nothing`;

/** A painting that was read from a file. */
interface Read {
  readonly studio: Studio;
  readonly title: string;
  readonly lamp?: Light;
  readonly paintingFile: SentOut['paintingFile'];
}

/** Bytes that every zip archive begins with. */
const ZIP = [0x50, 0x4b];

async function read(path: string): Promise<Read> {
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(path);
  } catch {
    throw new PainterError(`"${path}" cannot be read.`);
  }
  const title = basename(path).replace(/\.[^.]+$/, '');
  if (!ZIP.every((byte, i) => bytes[i] === byte)) {
    const studio = replay(readJournal(readJsonFile(path)));
    return {
      studio,
      title,
      paintingFile: async (strokesAlone) => encodeStigmosFile(studio, studio.history, title, [], { strokesAlone }),
    };
  }
  const file = await openStigmosFile(bytes);
  const studio = studioOf(file);
  return {
    studio,
    title: file.title || title,
    lamp: file.lamp,
    paintingFile: async (strokesAlone) =>
      strokesAlone === 'strokesAlone' in file
        ? Uint8Array.from(bytes)
        : encodeStigmosFile(studio, file.journal.entries, file.title, file.photos, { ...file, strokesAlone }),
  };
}

/** `stigmos render`: sends a painting out. Prints one JSON object. @throws PainterError with a sentence on bad input. */
export async function renderCommand(argv: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args: argv,
    allowPositionals: true,
    options: {
      as: { type: 'string' },
      out: { type: 'string' },
      set: { type: 'string', multiple: true },
      title: { type: 'string' },
      settings: { type: 'boolean' },
    },
  });
  const { as, out } = values;
  if (!as || !isExport(as)) {
    throw new PainterError(`${as ? `There is no "${as}"` : 'Say what to make'}: --as takes ${EXPORT_IDS.join(', ')}.`);
  }
  const definition: ExportDefinition = EXPORTS[as];
  const { settings } = definition;
  if (values.settings) {
    const said = Object.entries(settings).map(([name, setting]) => [
      name,
      { what: setting.label, mayBe: mayBe(setting), first: setting.first },
    ]);
    console.log(JSON.stringify(Object.fromEntries(said), null, 2));
    return;
  }
  if (positionals.length !== 1)
    throw new PainterError('Give one journal or painting: stigmos render FILE --as ... --out ...');
  if (!out) throw new PainterError('Say where it is written: --out FILE.');
  const given = (values.set ?? []).map((text) => {
    const at = text.indexOf('=');
    if (at < 1) throw new PainterError(`--set takes NAME=VALUE: not "${text}".`);
    const name = text.slice(0, at);
    return [name, typedSetting(settings, name, text.slice(at + 1))] as const;
  });
  const unwritable = () => new PainterError(`--out: "${out}" cannot be written.`);
  try {
    accessSync(dirname(out), constants.W_OK);
  } catch {
    throw unwritable();
  }
  const { studio, title, lamp, paintingFile } = await read(positionals[0]);
  const picture = new Picture(studio.painting);
  if (lamp) picture.light = lamp;
  picture.update(wholeRect(studio.painting));
  const made = await definition.make(
    {
      plainly: (render) => render(picture),
      ppi: studio.painting.spec.ppi,
      title: values.title ?? title,
      studio,
      paintingFile,
      step: () => {},
      async webp({ data, width, height }, quality) {
        const raw = { width, height, channels: 3 as const };
        return Uint8Array.from(
          await sharp(data, { raw })
            .webp({ quality: Math.round(quality) })
            .toBuffer(),
        );
      },
    },
    Object.fromEntries(given),
  );
  try {
    writeFileSync(out, made.bytes);
  } catch {
    throw unwritable();
  }
  const { widthMm, heightMm } = studio.painting.spec;
  console.log(
    JSON.stringify(
      { as, bytes: made.bytes.length, px: made.px, sizeMm: [widthMm, heightMm], says: made.says ?? [] },
      null,
      2,
    ),
  );
}
