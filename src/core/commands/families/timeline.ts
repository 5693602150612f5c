import { z } from '@/core/schema';
import { finite } from '@/core/schemaParts';
import { defineCommand } from '@/core/commands/definition';

const sample = z
  .array(finite)
  .min(4)
  .max(7)
  .describe('[t ms, x mm, y mm, pressure 0..1, tiltX deg, tiltY deg, twist deg]; the last three may be left out');

/** Most readings of a stroke. */
export const MOST_SAMPLES = 200_000;

export const stroke = defineCommand({
  schema: z.strictObject({
    do: z.literal('stroke').describe('Moves the tool over the painting'),
    samples: z.array(sample).min(1).max(MOST_SAMPLES),
    on: z.literal('slab').optional().describe('On the slab beside the painting, in mm from its corner'),
    pace: z.number().min(0.01).max(4).optional().describe('How fast wet paper goes by the times of the samples; 1'),
  }),
  undoable: true,
  opensItself: true,
  apply: ({ timeline }, command) => timeline.stroke(command),
});
export type StrokeCommand = z.output<typeof stroke.schema>;

const hand = z
  .literal('stays')
  .optional()
  .describe('Tools that were taken, set, loaded and cleaned since are left so; else they are as they were then');

export const undo = defineCommand({
  schema: z.strictObject({ do: z.literal('undo').describe('Takes back the last change to the painting'), hand }),
  undoable: false,
  opensItself: true,
  apply: ({ timeline }, command) => timeline.undo(command.hand === 'stays'),
});

export const redo = defineCommand({
  schema: z.strictObject({ do: z.literal('redo').describe('Does again what was taken back'), hand }),
  undoable: false,
  opensItself: true,
  apply: ({ timeline }, command) => timeline.redo(command.hand === 'stays'),
});
