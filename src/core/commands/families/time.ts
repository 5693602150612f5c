import { z } from '@/core/schema';
import { mist as sprayMist } from '@/core/flow/mist';
import { unit } from '@/core/schemaParts';
import { noChange } from '@/core/commands/change';
import { wholeRect } from '@/core/film/tilesIn';
import { defineCommand } from '@/core/commands/definition';
import { layerForPaint } from '@/core/commands/target';

export const wait = defineCommand({
  schema: z.strictObject({
    do: z
      .literal('wait')
      .describe(
        'Lets time pass: acrylic dries by the clock; oil stays open for an hour, then dries by thickness and pigment',
      ),
    seconds: z.number().min(0).max(1e9),
  }),
  undoable: false,
  apply: ({ time }, { seconds }) => time.pass(seconds),
});

export const leave = defineCommand({
  schema: z.strictObject({
    do: z.literal('leave').describe('Leaves the painting to dry for hours: as wait does, and undo takes it back'),
    hours: z.number().min(0).max(1e6),
  }),
  undoable: true,
  apply: ({ time }, { hours }) => time.pass(hours * 3600),
});

export const dry = defineCommand({
  schema: z.strictObject({ do: z.literal('dry').describe('Dries everything now') }),
  undoable: true,
  apply: ({ time }) => time.dry(),
});

export const tilt = defineCommand({
  schema: z.strictObject({
    do: z.literal('tilt').describe('Tilts the board, degrees: the right and the lower side down; water runs'),
    x: z.number().min(-45).max(45).default(0),
    y: z.number().min(-45).max(45).default(0),
  }),
  undoable: true,
  apply({ painting }, { x, y }) {
    painting.flow.tilt = [x, y];
    return noChange();
  },
});

export const mist = defineCommand({
  schema: z.strictObject({
    do: z.literal('mist').describe('Sprays clear water over the layer: wet paper stays wet, dry paper gets damp'),
    amount: unit.default(0.5),
  }),
  undoable: true,
  apply({ painting, tools, keep }, { amount }) {
    sprayMist(painting, layerForPaint(painting, tools), amount, keep);
    return { ...noChange(), rect: wholeRect(painting) };
  },
});
