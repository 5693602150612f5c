import { z } from '@/core/schema';
import { unit } from '@/core/schemaParts';
import type { Light } from '@/core/picture/picture';

/** Light and finish as they are kept with a painting. */
export const lampSchema: z.ZodType<Light> = z.strictObject({
  azimuth: z.number().min(0).max(360),
  elevation: z.number().min(0).max(90),
  room: unit,
  finish: unit,
  warmth: z.number().min(-1).max(1),
});
