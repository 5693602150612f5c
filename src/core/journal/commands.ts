import { z } from '@/core/schema';
import { OWN_PLACES } from '@/core/colour/pigments';
import { OWN_ID, ownPaintId } from '@/core/colour/ownPaints';
import { WAVELENGTHS } from '@/core/colour/spectrum';
import { TOOL_IDS } from '@/core/marks/tools';
import { MAX_CELLS } from './room';
import { layerCommands, pictureCommands } from './layerCommands';
import { finite, mixtureSchema, outlineSchema, partsSchema, tubeId, unit } from './parts';
import { PAPER_TINTS, SURFACE_KINDS, type PaperTint } from '@/core/surface/heightField';

const sample = z
  .array(finite)
  .min(4)
  .max(7)
  .describe('[t ms, x mm, y mm, pressure 0..1, tiltX deg, tiltY deg, twist deg]; the last three may be left out');

/** Takes a tool in hand and says how it is held. */
export const toolCommand = z.strictObject({
  do: z.literal('tool').describe('Takes a tool in hand'),
  tool: z.enum(TOOL_IDS),
  sizeMm: z.number().min(0.1).max(200).optional(),
  strength: unit.optional(),
  blend: unit.optional(),
  body: unit.optional(),
  thin: unit.optional(),
  solvent: unit.optional(),
  gel: unit.optional(),
  retarder: unit.optional(),
  vehicle: z.enum(['oil', 'acrylic']).optional(),
  hair: z.enum(['bristle', 'soft']).optional(),
  touch: z.enum(['drag', 'dab']).optional(),
  tip: z.enum(['hard', 'soft']).optional(),
  hold: z.enum(['flat', 'edge', 'tip']).optional().describe('Knife, and stick: its side, its edge, its point'),
  grade: z.number().min(-6).max(8).optional().describe('Pencil: -6 (6H) .. 0 (HB) .. 8 (8B)'),
  into: z.enum(['sketch', 'layer']).optional().describe('Stick: on the sketch, or into the paint layer in hand'),
  distanceMm: z.number().min(10).max(1000).optional(),
  water: unit.optional().describe('Watercolour: how wet the brush is when it is loaded, where load does not say'),
  grey: unit.optional().describe('On a mask: 0 black, which hides .. 1 white, which shows'),
  keepLoaded: z.boolean().optional(),
  floor: unit.optional(),
  curve: z.number().min(0.2).max(5).optional(),
});

export const loadCommand = z
  .strictObject({
    do: z.literal('load').describe('Loads the brush in hand'),
    mixture: partsSchema.describe('Parts by mass of tube paint; empty for clear water in a watercolour brush'),
    amount: z.number().min(0).max(3).default(1),
    water: unit.optional().describe('Watercolour: how wet, 0 squeezed out .. 1 dripping'),
    edge: z
      .strictObject({ mixture: mixtureSchema, share: z.number().min(0.05).max(0.95).optional() })
      .optional()
      .describe('A second colour on the right side, over half of the width or the share given'),
  })
  .superRefine(({ mixture, water }, context) => {
    if (water === undefined && !Object.values(mixture).some((part) => part > 0)) {
      context.addIssue({ code: 'custom', path: ['mixture'], message: 'a mixture needs a part of at least one tube' });
    }
  });

/** Everything that can happen to a painting. */
export const commandSchema = z.discriminatedUnion('do', [
  toolCommand,
  loadCommand,
  z.strictObject({ do: z.literal('wipe').describe('Wipes the brush on a rag: it stays a little dirty') }),
  z.strictObject({
    do: z.literal('rinse').describe('Rinses the brush clean, and leaves it damp with solvent by a share'),
    damp: unit.optional(),
  }),
  z.strictObject({
    do: z.literal('stroke').describe('Moves the tool over the painting'),
    samples: z.array(sample).min(1).max(200_000),
    on: z.literal('slab').optional().describe('On the slab beside the painting, in mm from its corner'),
    pace: z.number().min(0.01).max(4).optional().describe('How fast wet paper goes by the times of the samples; 1'),
  }),
  z.strictObject({
    do: z.literal('slab.squeeze').describe('Squeezes a bead of tube paint onto the slab'),
    mixture: mixtureSchema,
    at: z.tuple([finite, finite]).describe('Middle of the bead, mm from the corner of the slab'),
    sizeMm: z.number().min(1).max(60).default(12),
    vehicle: z.enum(['oil', 'acrylic']).default('oil'),
  }),
  z.strictObject({
    do: z
      .literal('slab.take')
      .describe('Presses the tool in hand into the paint on the slab: it takes up what it can hold'),
    at: z.tuple([finite, finite]),
  }),
  z.strictObject({ do: z.literal('slab.scrape').describe('Scrapes the slab clean') }),
  z.strictObject({
    do: z.literal('retube').describe('Replaces one tube by another in all paint on the canvas, wet and dry'),
    from: tubeId,
    to: tubeId,
    factor: z.number().min(0.001).max(1000).default(1).describe('Parts of the new tube for one part of the old'),
  }),
  z.strictObject({
    do: z
      .literal('wait')
      .describe(
        'Lets time pass: acrylic dries by the clock; oil stays open for an hour, then dries by thickness and pigment',
      ),
    seconds: z.number().min(0).max(1e9),
  }),
  z.strictObject({
    do: z.literal('leave').describe('Leaves the painting to dry for hours: as wait does, and undo takes it back'),
    hours: z.number().min(0).max(1e6),
  }),
  z.strictObject({
    do: z
      .literal('silhouette')
      .describe('Fills a closed outline with the paint, the wash or the stick in hand, or cuts it out of the layer'),
    outline: outlineSchema,
    cut: z.boolean().optional(),
    mixture: mixtureSchema.optional().describe('What it is filled with; left out when it is cut'),
    thicknessUm: z
      .number()
      .min(1)
      .max(3000)
      .optional()
      .describe('As the tool in hand would leave it, where it is left out'),
    edgeMm: z.number().min(0).max(60).default(0).describe('Width over which the edge is lost; 0 is found'),
    streaks: unit.default(0).describe('Unevenness along its long axis'),
    water: unit.optional().describe('How wet a wash fills it: as the brush in hand where left out'),
  }),
  z.strictObject({ do: z.literal('dry').describe('Dries everything now') }),
  z.strictObject({
    do: z.literal('fix').describe('Fixes the dust of sticks on the layer: nothing smears it any more'),
  }),
  z.strictObject({ do: z.literal('blow').describe('Blows off the dust that the tooth of the layer does not hold') }),
  z.strictObject({
    do: z.literal('tilt').describe('Tilts the board, degrees: the right and the lower side down; water runs'),
    x: z.number().min(-45).max(45).default(0),
    y: z.number().min(-45).max(45).default(0),
  }),
  z.strictObject({
    do: z.literal('mist').describe('Sprays clear water over the layer: wet paper stays wet, dry paper gets damp'),
    amount: unit.default(0.5),
  }),
  z.strictObject({
    do: z
      .literal('tone')
      .describe(
        'Lays an even glaze, wash or dust of a mixture over the layer or what is selected of it, by the tool in hand',
      ),
    mixture: mixtureSchema,
    strength: unit.default(0.3).describe('0 clear medium .. 1 half paint'),
  }),
  z.strictObject({ do: z.literal('undo').describe('Takes back the last change to the painting') }),
  z.strictObject({ do: z.literal('redo').describe('Does again what was taken back') }),
  ...layerCommands,
  ...pictureCommands,
]);

export type Command = z.infer<typeof commandSchema>;
/** A command as it may be written, with defaults left out. */
export type CommandInput = z.input<typeof commandSchema>;

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
