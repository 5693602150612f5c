import type { OwnPaint } from '@/core/colour/ownPaints';
import type { TubeSet } from '@/core/colour/tubeSets';
import { ownPaintSchema } from '@/core/journal/journalSchema';
import { z } from '@/core/schema';
import { each, kept } from '@/engine/keeping/kept';

/** What a painter keeps of colour beside the paintings: own sets of tubes, own paints. */

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
