import { commandSchema } from '@/core/commands/commands';
import { MAX_CELLS } from '@/core/commands/memoryBudget';
import { OWN_ID, ownPaintId } from '@/core/colour/ownPaints';
import { OWN_PLACES } from '@/core/colour/pigments';
import { WAVELENGTHS } from '@/core/colour/spectrum';
import { z } from '@/core/schema';
import { mixtureSchema, unit } from '@/core/schemaParts';
import { PAPER_TINTS, SURFACE_KINDS, type PaperTint } from '@/core/surface/heightField';

const spectrum = z.array(z.number().min(0).max(1e5)).length(WAVELENGTHS.length);

/** A painter's own paint: absorption and scattering of one coat, 380 to 730 nm in steps of 10. */
export const ownPaintSchema = z
  .strictObject({ id: z.string().regex(OWN_ID), name: z.string().trim().min(1).max(80), K: spectrum, S: spectrum })
  .refine((p) => p.id === ownPaintId(p.name, p.K, p.S), 'the paint is not what its id says');

export const paintingSchema = z
  .strictObject({
    widthMm: z.number().min(5).max(5000),
    heightMm: z.number().min(5).max(5000),
    ppi: z.number().min(30).max(1200),
    seed: z
      .number()
      .int()
      .min(0)
      .max(2 ** 31 - 1)
      .default(1),
    surface: z
      .strictObject({
        kind: z.enum(SURFACE_KINDS),
        scale: z.number().min(0.25).max(4).default(1),
        depth: z.number().min(0).max(4).default(1),
        sizing: unit.optional().describe('Paper: 0 drinks like blotting paper .. 1 lets nothing in'),
        weight: z.number().min(90).max(850).optional().describe('Paper: g/m2'),
        tint: z
          .enum(Object.keys(PAPER_TINTS) as [PaperTint, ...PaperTint[]])
          .optional()
          .describe('Paper: its colour'),
        own: z
          .strictObject({
            widthPx: z.number().int().min(16).max(4096),
            heightPx: z.number().int().min(16).max(4096),
            heights: z.string().max(24_000_000).describe('Heights 0..255, row by row; zlib, base64'),
            widthMm: z.number().min(5).max(1000),
            depthUm: z.number().min(0).max(2000),
          })
          .optional()
          .describe('Kind own: a scan, made seamless'),
      })
      .refine(
        (surface) => (surface.kind === 'own') === (surface.own !== undefined),
        'a surface of your own needs its scan',
      )
      .default({ kind: 'linen-fine', scale: 1, depth: 1 }),
    tone: z.strictObject({ mixture: mixtureSchema }).optional(),
    paints: z.array(ownPaintSchema).max(OWN_PLACES).optional().describe('Own paints, derived from measurement'),
  })
  .refine(
    (p) => (p.widthMm / 25.4) * p.ppi * ((p.heightMm / 25.4) * p.ppi) <= MAX_CELLS,
    `that is more than ${MAX_CELLS / 1e6} million cells; choose a smaller size or resolution`,
  );

/** A whole journal file, version 1. */
export const journalSchema = z.strictObject({
  format: z.literal('stigmos-journal'),
  version: z.literal(1),
  painting: paintingSchema,
  entries: z.array(commandSchema).max(1_000_000),
});

export type Journal = z.infer<typeof journalSchema>;
