import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { imageSize } from 'image-size';
import jpeg from 'jpeg-js';
import { readSpectra } from '@/core/formats/paintMeasurement';
import { encodePng } from '@/core/formats/png';
import { FileDamaged, readStigmosFile } from '@/core/formats/readStigmosFile';
import { encodeStigmosFile } from '@/core/formats/stigmosFile';
import { textOf } from '@/core/formats/textOf';
import { decodeTubeSet, encodeTubeSet } from '@/core/formats/tubeSetFile';
import { writeCgats } from '@/core/formats/cgats';
import { writeCxf } from '@/core/formats/cxf';
import { commandSchema } from '@/core/commands/commands';
import { digest } from '@/core/journal/digest';
import { PainterError } from '@/core/errors';
import { studioOf } from '@/core/formats/studioOf';
import { readJournal, replay } from '@/core/journal/replay';
import { type Studio } from '@/core/journal/studio';
import { measurePaint } from '@/devices/spectrometer';
import { studioFor } from '@/measure/bench';
import { randomAct, randomFrom, type Randomness } from '@/measure/randomActs';
import { fittingDigests } from './fittingDigests';
import { bytesChanged, entryChanged, jsonFileChanged, textChanged, type Mutation } from './mutations';

/** Something that reads files from outside: sound ones, how they are damaged, and what may come of reading one. */
export interface Reader {
  readonly name: string;
  readonly sound: readonly Uint8Array[];
  readonly mutations: readonly Mutation[];
  /** Reads a file. @throws PainterError when it is refused; anything else is a fault, and so is a wrong result */
  read(bytes: Uint8Array): Promise<void> | void;
}

/** Cells up to which a damaged journal is painted: more may rightly take long. */
const FEW_CELLS = 120_000;
/** Acts of the journals that are damaged: each is painted again hundreds of times. */
const FEW_ACTS = 16;

function paintings(): Studio[] {
  return (['linen-fine', 'paper-cold'] as const).map((kind, seed) => {
    const studio = studioFor(16, 12, { ppi: 80, surface: { kind } });
    const random = randomFrom(seed + 5);
    for (let i = 0; i < 40; i++) {
      try {
        studio.apply(commandSchema.parse(randomAct(random, 16, 12)));
      } catch (error) {
        if (!(error instanceof PainterError)) throw error;
      }
    }
    return studio;
  });
}

/** Digests made to fit what has become of a file, as somebody would who wants to be let in. */
const forged =
  (mutation: Mutation): Mutation =>
  (bytes, random) => {
    const damaged = mutation(bytes, random);
    try {
      const parts = unzipSync(damaged);
      return zipSync({ ...parts, 'manifest.json': fittingDigests(parts) }, { level: 0 });
    } catch {
      return damaged;
    }
  };

/** All readers of files, with sound files of ours. */
export function readers(): Reader[] {
  const studios = paintings();
  const samples = measurePaint('Weed', { PG18: 2, PY43: 1 }, 10, 4);
  const pixels = { width: 9, height: 7, channels: 3 as const, data: new Uint8Array(189).map((_, i) => i) };
  return [
    {
      name: 'own file',
      sound: studios.map((s) =>
        encodeStigmosFile(s, s.history, 'Ebb', [{ name: 'a.jpg', type: 'image/jpeg', bytes: Uint8Array.of(1, 2, 3) }]),
      ),
      mutations: [bytesChanged, entryChanged, forged(entryChanged), forged(entryChanged)],
      async read(bytes) {
        const file = await readStigmosFile(bytes).catch((error: unknown) => {
          // what is offered to be painted again must at least be a journal
          if (error instanceof FileDamaged) readJournal(JSON.parse(JSON.stringify(error.file.journal)));
          throw error;
        });
        const studio = studioOf(file);
        // what was let in can be worked with: it dries, and has a digest
        studio.apply({ do: 'wait', seconds: 1 });
        digest(studio);
      },
    },
    {
      name: 'journal',
      sound: studios.map((s) =>
        strToU8(
          JSON.stringify({
            format: 'stigmos-journal',
            version: 1,
            painting: s.begun,
            entries: s.history.slice(0, FEW_ACTS),
          }),
        ),
      ),
      mutations: [jsonFileChanged, jsonFileChanged, bytesChanged],
      read(bytes) {
        let data: unknown;
        try {
          data = JSON.parse(strFromU8(bytes));
        } catch {
          throw new PainterError('This is not JSON.');
        }
        const journal = readJournal(data);
        const { widthMm, heightMm, ppi } = journal.painting;
        if (widthMm * heightMm * (ppi / 25.4) ** 2 < FEW_CELLS) replay(journal);
      },
    },
    {
      name: 'CGATS',
      sound: [strToU8(writeCgats(samples, 'Weed', new Date(0)))],
      mutations: [textChanged, textChanged, bytesChanged],
      read: (bytes) => void readSpectra(textOf(bytes)),
    },
    {
      name: 'CxF3',
      sound: [strToU8(writeCxf(samples, 'Weed', new Date(0)))],
      mutations: [textChanged, textChanged, bytesChanged],
      read: (bytes) => void readSpectra(textOf(bytes)),
    },
    {
      name: 'tubes',
      sound: [strToU8(encodeTubeSet({ name: 'Ebb', note: 'greys', tubes: ['PW6', 'PB29'], paints: [] }))],
      mutations: [jsonFileChanged, bytesChanged],
      read: (bytes) => void decodeTubeSet(textOf(bytes)),
    },
    {
      name: 'size of a picture',
      sound: [
        encodePng(pixels, 100),
        jpeg.encode({ width: 9, height: 7, data: new Uint8Array(252).fill(120) }, 80).data,
      ],
      mutations: [bytesChanged],
      read(bytes) {
        try {
          imageSize(bytes);
        } catch {
          // where it does not find a size, the browser decides (see room/photos.ts)
        }
      },
    },
  ];
}

/** What reading one damaged file has come to. */
export interface Outcome {
  readonly result: 'refused' | 'read' | 'fault';
  readonly seconds: number;
  readonly megabytes: number;
  readonly error?: unknown;
  readonly bytes: Uint8Array;
}

/** Damages a sound file of a reader and lets it read that. */
export async function readDamaged(reader: Reader, random: Randomness): Promise<Outcome> {
  let bytes = random.pick(reader.mutations)(random.pick(reader.sound), random);
  if (random.next() < 0.15) bytes = bytesChanged(bytes, random);
  const before = process.memoryUsage().rss;
  const start = performance.now();
  let result: Outcome['result'] = 'read';
  let error: unknown;
  try {
    await reader.read(bytes);
  } catch (caught) {
    error = caught;
    result = caught instanceof PainterError ? 'refused' : 'fault';
  }
  const megabytes = (process.memoryUsage().rss - before) / 2 ** 20;
  return { result, seconds: (performance.now() - start) / 1000, megabytes, error, bytes };
}
