import { houseRulesSchema, NO_RULES, type HouseRules } from '@/core/commands/houseRules';
import type { PaintingSpec } from '@/core/film/painting';
import { paintingSchema } from '@/core/journal/journalSchema';
import type { OwnWords } from '@/core/journal/playing/captions';
import { z } from '@/core/schema';
import { lampSchema } from '@/core/formats/lamp';
import type { Light } from '@/core/picture/picture';

export interface PhotoNote {
  readonly id: string;
  readonly name: string;
}

/** Tubes at hand for a painting, and the rules that a painter sets for it. */
export interface Palette {
  /** Name of the set that the tubes came from. */
  readonly name: string;
  readonly tubes: readonly string[];
  /** Plan of the colour. */
  readonly note: string;
  readonly rules: HouseRules;
  /** Parts of the mixture that is set out. */
  readonly parts?: Readonly<Record<string, number>>;
}

/** What the rack shows of a painting. */
export interface PaintingRecord {
  readonly id: string;
  readonly title: string;
  readonly createdAt: number;
  readonly spec: PaintingSpec;
  readonly photos: readonly PhotoNote[];
  /** What is set out for it on the bench. */
  readonly palette?: Palette;
  /** How its photos hang on the board; read with care likewise. */
  readonly board?: unknown;
  /** What has been sighted and set up for drawing it; read with care, for it may be of another version. */
  readonly drawing?: unknown;
  /** What was noted while looking at it: places, pairs of spots; read with care likewise. */
  readonly looking?: unknown;
  /** How it is lit, and its finish. */
  readonly lamp?: Light;
  /** A painter's own words for stages of how it was made, by the number of the first stroke of each. */
  readonly captions?: OwnWords;
  /** Light studies drawn for it; read with care likewise. */
  readonly light?: unknown;
  /** How fast the clock of its wet paper goes, 0 = held; 1 where nothing is said. */
  readonly clock?: number;
  /** How long it has been painted on, ms: while it stood open to be painted on. */
  readonly spentMs?: number;
  /** When it was last sent out as a file. */
  readonly sentOutAt?: number;
  /** Set when it was taken off the rack and can still be hung back. */
  readonly removedAt?: number;
}

const palette = z.object({
  name: z.string(),
  tubes: z.array(z.string()),
  note: z.string().catch(''),
  rules: houseRulesSchema.catch(NO_RULES),
  parts: z.record(z.string(), z.number()).optional().catch(undefined),
});

/** Signs that a painter's words for a stage may have. */
export const MOST_WORDS = 120;

const moment = z.number().optional().catch(undefined);

/** What cannot be read of a record is left out; only without its ground there is no painting. */
const recordSchema: z.ZodType<PaintingRecord> = z.object({
  id: z.string().min(1),
  title: z.string().catch('Untitled'),
  createdAt: z.number().catch(0),
  spec: paintingSchema,
  photos: z.array(z.object({ id: z.string(), name: z.string() })).catch([]),
  palette: palette.optional().catch(undefined),
  board: z.unknown().optional(),
  drawing: z.unknown().optional(),
  looking: z.unknown().optional(),
  lamp: lampSchema.optional().catch(undefined),
  captions: z.record(z.string(), z.string().max(MOST_WORDS)).optional().catch(undefined),
  light: z.unknown().optional(),
  clock: z.number().min(0).optional().catch(undefined),
  spentMs: z.number().min(0).optional().catch(undefined),
  sentOutAt: moment,
  removedAt: moment,
});

/** A record as it was stored, by whatever version; null for what cannot be read as one. */
export function readRecord(stored: unknown): PaintingRecord | null {
  const read = recordSchema.safeParse(stored);
  if (!read.success) return null;
  // a record that says nothing of something has no such field
  const said = Object.entries(read.data).filter(([, value]) => value !== undefined);
  return Object.fromEntries(said) as unknown as PaintingRecord;
}
