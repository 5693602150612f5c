import type { OwnPaint } from '@/core/colour/ownPaints';
import type { TubeSet } from '@/core/colour/tubeSets';
import { ownPaintSchema } from '@/core/journal/journalSchema';
import { z } from '@/core/schema';
import { mixtureSchema } from '@/core/schemaParts';
import { each, kept } from '@/engine/keeping/kept';

/** What a painter keeps of colour beside the paintings: own sets of tubes, own paints, pots and sets of them. */

const tubeSetSchema = z.object({
  id: z.string(),
  name: z.string(),
  note: z.string().catch(''),
  tubes: z.array(z.string()),
});

export const ownSets = kept<readonly TubeSet[]>({
  store: 'colour',
  key: 'sets',
  version: 1,
  schema: each(tubeSetSchema),
});
export const ownPaints = kept<readonly OwnPaint[]>({
  store: 'colour',
  key: 'paints',
  version: 1,
  schema: each(ownPaintSchema),
});

const potSchema = z.object({ name: z.string().max(60).catch(''), mixture: mixtureSchema });

/** The pots that stand on the bench, place by place, how many rows of them, and the sets that are put away. */
export const ownPots = kept({
  store: 'colour',
  key: 'pots',
  version: 1,
  schema: z.object({
    pots: z.array(potSchema.nullable().catch(null)).catch([]),
    rows: z.number().int().min(1).max(2).catch(1),
    sets: each(z.object({ id: z.string(), name: z.string(), pots: each(potSchema) })),
  }),
});
