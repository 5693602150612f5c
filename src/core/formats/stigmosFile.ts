import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate';
import { z } from 'zod';
import { encodeTile } from '@/core/film/tileCodec';
import { journalSchema, type Command, type Journal } from '@/core/journal/commands';
import { digest } from '@/core/journal/digest';
import { PainterError } from '@/core/journal/errors';
import { encodeStudioState, studioStateSchema, type StudioState } from '@/core/journal/snapshot';
import type { Studio } from '@/core/journal/studio';

/**
 * The own file of a painting, `.stigmos`: a zip archive with `manifest.json`, the whole `journal.json`, the state
 * (`state.json` and one file a tile) and the photos. The journal alone would do; the state saves painting it again.
 */
export interface PhotoFile {
  readonly name: string;
  readonly type: string;
  readonly bytes: Uint8Array;
}

export interface StigmosFile {
  readonly title: string;
  readonly journal: Journal;
  readonly state: StudioState;
  readonly tiles: readonly { layer: string; index: number; bytes: Uint8Array }[];
  readonly photos: readonly PhotoFile[];
  readonly digest: string;
  /** What is set out on the bench for it. */
  readonly palette?: FilePalette;
  /** A small PNG of the picture, for lists. */
  readonly thumbnail?: Uint8Array;
}

/** Tubes at hand for a painting, and the rules set for it. */
export const paletteSchema = z.strictObject({
  name: z.string().max(80),
  tubes: z.array(z.string().max(40)).min(1).max(100),
  note: z.string().max(2000),
  rules: z.strictObject({
    onlyTheseTubes: z.boolean(),
    sampleCanvas: z.boolean(),
    samplePhoto: z.boolean(),
    mostTubes: z.number().int().min(1).max(4),
  }),
  parts: z.record(z.string().max(40), z.number().nonnegative().max(1e6)).optional(),
});
export type FilePalette = z.infer<typeof paletteSchema>;

const LIMITS = { file: 1 * 2 ** 30, unpacked: 3 * 2 ** 30, names: 60_000 };

const manifestSchema = z.strictObject({
  format: z.literal('stigmos-painting'),
  version: z.literal(1),
  title: z.string().max(200),
  digest: z.string().regex(/^[0-9a-f]{64}$/),
  tiles: z.array(
    z.strictObject({ layer: z.string().max(40), index: z.number().int().min(0), file: z.string().max(80) }),
  ),
  photos: z
    .array(z.strictObject({ name: z.string().max(300), type: z.string().max(60), file: z.string().max(80) }))
    .max(200),
  palette: paletteSchema.optional(),
});

/** Writes a painting as a file. */
export function encodeStigmosFile(
  studio: Studio,
  entries: readonly Command[],
  title: string,
  photos: readonly PhotoFile[],
  thumbnail?: Uint8Array,
  palette?: FilePalette,
): Uint8Array<ArrayBuffer> {
  const { painting } = studio;
  const journal: Journal = {
    format: 'stigmos-journal',
    version: 1,
    painting: studio.begun as Journal['painting'],
    entries: [...entries],
  };
  const content: Zippable = {};
  const tiles: z.infer<typeof manifestSchema>['tiles'] = [];
  for (const layer of studio.allLayers) {
    layer.forEachTile((tile, index) => {
      if (tile.bare) return;
      const file = `tiles/${layer.id}-${index}.bin`;
      content[file] = [encodeTile(layer.capture(index, painting.arena)!), { level: 1 }];
      tiles.push({ layer: layer.id, index, file });
    });
  }
  const listed = photos.map((photo, i) => {
    const file = `photos/${i + 1}`;
    content[file] = [photo.bytes, { level: 0 }];
    return { name: photo.name, type: photo.type, file };
  });
  const manifest: z.infer<typeof manifestSchema> = {
    format: 'stigmos-painting',
    version: 1,
    title,
    digest: digest(studio),
    tiles,
    photos: listed,
    ...(palette ? { palette } : {}),
  };
  const json = (data: unknown) => strToU8(JSON.stringify(data));
  return zipSync(
    {
      'manifest.json': json(manifest),
      'journal.json': json(journal),
      'state.json': json(encodeStudioState(studio)),
      ...content,
      ...(thumbnail ? { 'thumbnail.png': thumbnail } : {}),
    },
    { level: 4 },
  );
}

/**
 * Reads a painting's file.
 * @throws PainterError with a sentence when it is none, is damaged, or unpacks to more than is reasonable.
 */
export function decodeStigmosFile(bytes: Uint8Array): StigmosFile {
  if (bytes.length > LIMITS.file) throw new PainterError('This file is too large to be opened here (over 1 GB).');
  let unpacked = 0;
  let names = 0;
  let parts: Record<string, Uint8Array>;
  try {
    parts = unzipSync(bytes, {
      filter(entry) {
        unpacked += entry.originalSize;
        if (++names > LIMITS.names || unpacked > LIMITS.unpacked) {
          throw new PainterError('This file unpacks to more than a painting can be.');
        }
        return true;
      },
    });
  } catch (error) {
    if (error instanceof PainterError) throw error;
    throw new PainterError('This is no Stigmos painting, or the file is damaged.');
  }
  const damaged = (what: string) => new PainterError(`This painting cannot be opened: its ${what} is damaged.`);
  const read = <T>(name: string, schema: z.ZodType<T>, what: string): T => {
    const part = parts[name];
    if (!part) throw new PainterError(`This is no Stigmos painting: its ${what} is missing.`);
    let data: unknown;
    try {
      data = JSON.parse(strFromU8(part));
    } catch {
      throw damaged(what);
    }
    const checked = schema.safeParse(data);
    if (!checked.success) throw damaged(what);
    return checked.data;
  };
  const manifest = read('manifest.json', manifestSchema, 'manifest');
  const journal = read('journal.json', journalSchema, 'journal') as Journal;
  const state = read('state.json', studioStateSchema, 'state');
  const part = (file: string, what: string) => {
    const found = parts[file];
    if (!found) throw damaged(what);
    return found;
  };
  return {
    title: manifest.title,
    journal,
    state,
    digest: manifest.digest,
    thumbnail: parts['thumbnail.png'],
    palette: manifest.palette,
    tiles: manifest.tiles.map((t) => ({ layer: t.layer, index: t.index, bytes: part(t.file, 'paint') })),
    photos: manifest.photos.map((p) => ({ name: p.name, type: p.type, bytes: part(p.file, 'photo') })),
  };
}
