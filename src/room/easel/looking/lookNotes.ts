'use client';
import { z } from '@/core/schema';
import { amendPainting } from '@/engine/keeping/shelf';
import type { PaintingRecord } from '@/engine/keeping/paintingRecord';

const share = z.number().min(0).max(1);
const triple = z.tuple([z.number(), z.number(), z.number()]);
const spot = z.object({
  on: z.enum(['canvas', 'photo']),
  x: z.number(),
  y: z.number(),
  photo: z.string().optional(),
  radiusMm: z.number().optional(),
  layer: z.string().optional(),
  lab: triple,
});
const crop = z.object({ x: share, y: share, width: share, height: share });
const pinned = z.object({
  id: z.number(),
  /** When, ms since epoch. */
  at: z.number(),
  aid: z.string(),
  laid: z.string(),
  crop: crop.optional(),
  /** What was measured then, line by line. */
  says: z.array(z.string()),
});
/** A look that was pinned: what was looked at, and what it said then. */
export type Pinned = z.infer<typeof pinned>;

const noted = z.object({
  /** Places that should hold the eye, by rank: shares of width and height. */
  marks: z.array(z.object({ x: share, y: share })).catch([]),
  /** Spots that were compared. */
  pairs: z.array(z.object({ id: z.number(), first: spot, second: spot })).catch([]),
  looks: z.array(pinned).catch([]),
  /** Lines of the painter's own over the picture, shares of width and height. */
  lines: z.array(z.tuple([share, share, share, share])).catch([]),
});

/** What a painter has noted while looking: kept with the painting, and no part of its journal. */
export type Noted = z.infer<typeof noted>;
const NOTHING: Noted = { marks: [], pairs: [], looks: [], lines: [] };

let painting = '';
let now = NOTHING;

/** Reads what was noted about a painting; what cannot be read is left out. */
export function openNotes(record: PaintingRecord): Noted {
  painting = record.id;
  now = noted.catch(NOTHING).parse(record.looking ?? NOTHING);
  return now;
}

/** Keeps what is noted. */
export function note(changes: Partial<Noted>): void {
  now = { ...now, ...changes };
  if (painting) void amendPainting(painting, { looking: now }).catch(() => {});
}
