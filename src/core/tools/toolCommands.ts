import { z } from '@/core/schema';
import { TOOL_IDS } from './tools';
import { mixtureSchema, partsSchema, unit } from '@/core/schemaParts';

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

export type ToolCommand = z.output<typeof toolCommand>;
export type LoadCommand = z.output<typeof loadCommand>;
