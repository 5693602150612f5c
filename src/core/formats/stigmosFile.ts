import { houseRulesSchema } from '@/core/commands/houseRules';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { strToU8 } from 'fflate';
import { PainterError } from '@/core/errors';
import { z } from '@/core/schema';
import { encodeTile } from '@/core/film/packing/tileCodec';
import type { Command } from '@/core/commands/commands';
import type { Journal } from '@/core/journal/journalSchema';
import { digest } from '@/core/journal/digest';
import { encodeStudioState, type StudioState } from '@/core/journal/snapshot';
import type { Light } from '@/core/picture/picture';
import { lampSchema } from './lamp';
import type { Studio } from '@/core/journal/studio';
import type { Step } from './step';
import { zipped, type Entry } from './zipped';

/**
 * The own file of a painting, `.stigmos`: a zip archive with `manifest.json`, the whole `journal.json`, the state
 * (`state.json` and one file a tile) and the photos. The journal alone would do; the state saves painting it again. A file
 * of strokes alone (version 2) leaves the state out: it is painted again when it is opened.
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
  /** Entries that its journal lacks. */
  readonly missing: number;
  /** What is set out on the bench for it. */
  readonly palette?: FilePalette;
  /** A small PNG of the picture, for lists. */
  readonly thumbnail?: Uint8Array;
  /** How it was lit, and its finish. */
  readonly lamp?: Light;
}

/** A file of strokes alone: everything but the paint. */
export interface StrokesFile extends Omit<StigmosFile, 'state' | 'tiles'> {
  readonly strokesAlone: true;
}

/** What a file has beside its paint. */
export interface BesidePaint extends Pick<StigmosFile, 'thumbnail' | 'palette' | 'lamp'> {
  /** How many entries its journal lacks. */
  readonly missing?: number;
  /** Whether the paint is left out. */
  readonly strokesAlone?: boolean;
  /** Is told how far it is. */
  readonly step?: Step;
}

/** Versions of the file that are read: with paint, and strokes alone. */
export const WITH_PAINT = 1;
export const STROKES_ALONE = 2;

/** Tubes at hand for a painting, and the rules set for it. */
export const paletteSchema = z.strictObject({
  name: z.string().max(80),
  tubes: z.array(z.string().max(40)).min(1).max(100),
  note: z.string().max(2000),
  rules: houseRulesSchema,
  parts: z.record(z.string().max(40), z.number().nonnegative().max(1e6)).optional(),
});
export type FilePalette = z.infer<typeof paletteSchema>;

const sha = z.string().regex(/^[0-9a-f]{64}$/);

/** What a file says of itself. */
export const manifestSchema = z.strictObject({
  format: z.literal('stigmos-painting'),
  version: z.union([z.literal(WITH_PAINT), z.literal(STROKES_ALONE)]),
  title: z.string().max(200),
  /** SHA-256 of the state (see journal/digest.ts), and of the bytes of `journal.json`. */
  digest: sha,
  journal: sha.optional(),
  /** Entries that the journal lacks: it does not lead to the state then. */
  missing: z.number().int().min(1).optional(),
  tiles: z.array(
    z.strictObject({ layer: z.string().max(40), index: z.number().int().min(0), file: z.string().max(80) }),
  ),
  photos: z
    .array(z.strictObject({ name: z.string().max(300), type: z.string().max(60), file: z.string().max(80) }))
    .max(200),
  palette: paletteSchema.optional(),
  lamp: lampSchema.optional(),
});

/**
 * Writes a painting as a file.
 * @param entries its journal
 */
export function encodeStigmosFile(
  studio: Studio,
  entries: readonly Command[],
  title: string,
  photos: readonly PhotoFile[],
  { thumbnail, palette, lamp, missing = 0, strokesAlone = false, step }: BesidePaint = {},
): Uint8Array<ArrayBuffer> {
  const { painting } = studio;
  if (strokesAlone && missing > 0) {
    throw new PainterError('A part of its journal is missing: its strokes alone would not give it back.');
  }
  const journal: Journal = {
    format: 'stigmos-journal',
    version: 1,
    painting: studio.begun as Journal['painting'],
    entries: [...entries],
  };
  const tiles: z.infer<typeof manifestSchema>['tiles'] = [];
  for (const layer of strokesAlone ? [] : studio.allLayers) {
    layer.forEachTile((tile, index) => {
      if (!tile.bare) tiles.push({ layer: layer.id, index, file: `tiles/${layer.id}-${index}.bin` });
    });
  }
  const listed = photos.map(({ name, type }, i) => ({ name, type, file: `photos/${i + 1}` }));
  const json = (data: unknown) => strToU8(JSON.stringify(data));
  const packedJournal = json(journal);
  const manifest: z.infer<typeof manifestSchema> = {
    format: 'stigmos-painting',
    version: strokesAlone ? STROKES_ALONE : WITH_PAINT,
    title,
    digest: digest(studio),
    journal: bytesToHex(sha256(packedJournal)),
    ...(missing > 0 && { missing }),
    tiles,
    photos: listed,
    ...(palette ? { palette } : {}),
    ...(lamp ? { lamp } : {}),
  };
  const level = strokesAlone ? 9 : 4;
  /** The journal comes early: of a file that was cut off it can be had still. Tiles are taken one at a time. */
  function* entriesOf(): Generator<Entry> {
    yield { name: 'manifest.json', bytes: json(manifest), level };
    yield { name: 'journal.json', bytes: packedJournal, level };
    if (thumbnail) yield { name: 'thumbnail.png', bytes: thumbnail, level: 0 };
    for (const [i, { file }] of listed.entries()) yield { name: file, bytes: photos[i].bytes, level: 0 };
    if (strokesAlone) return;
    yield { name: 'state.json', bytes: json(encodeStudioState(studio)), level };
    for (const { layer, index, file } of tiles) {
      const image = studio.layer(layer)!.capture(index, painting.arena)!;
      yield { name: file, bytes: encodeTile(image), level: 1 };
    }
  }
  return zipped(entriesOf(), listed.length + tiles.length + 3, step);
}
