import { z } from '@/core/schema';
import { BLEND_MODES } from '@/core/colour/blendModes';
import { OWN_ID } from '@/core/colour/ownPaints';
import { isTube } from '@/core/colour/pigments';

/** What commands have in common: numbers, places, mixtures. */

export const unit = z.number().min(0).max(1);
export const finite = z.number().min(-1e6).max(1e6);

/** A tube there is, or the id of an own paint: whether the painting has it is seen when it is used. */
const isTubeId = (id: string) => isTube(id) || OWN_ID.test(id);
export const tubeId = z.string().refine(isTubeId, 'there is no such tube');

export const partsSchema = z.record(z.string(), z.number().nonnegative().max(1e6)).superRefine((parts, context) => {
  for (const id of Object.keys(parts)) {
    if (!isTubeId(id)) context.addIssue({ code: 'custom', message: `there is no tube "${id}"` });
  }
});

export const mixtureSchema = partsSchema
  .superRefine((parts, context) => {
    if (!Object.values(parts).some((part) => part > 0)) {
      context.addIssue({ code: 'custom', message: 'a mixture needs a part of at least one tube' });
    }
  })
  .describe('Parts by mass of tube paint, keyed by pigment id');

export const outlineSchema = z
  .array(z.tuple([finite, finite]))
  .min(3)
  .max(20_000)
  .describe('Corners, mm; the last is joined to the first');

/** A place on the painting, mm. */
export const place = z.tuple([z.number().min(-1e4).max(1e4), z.number().min(-1e4).max(1e4)]);

export const layerId = z.string().min(1).max(40);
export const layerName = z.string().trim().min(1).max(60);
export const blendMode = z.enum(BLEND_MODES).describe('Blend mode of the W3C compositing standard');

/** Bytes in text. @param most length of the text */
export const packed = (what: string, most: number) => z.string().max(most).describe(`${what}; zlib, base64`);
