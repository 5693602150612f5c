import { z } from '@/core/schema';
import { loadCommand, toolCommand } from '@/core/tools/toolCommands';
import { unit } from '@/core/schemaParts';
import { noChange } from '@/core/commands/change';
import { defineCommand } from '@/core/commands/definition';

/** Takes a tool in hand. What is done to tools is no step of its own: it is put back with the step that it served. */
export const takeTool = defineCommand({
  schema: toolCommand,
  undoable: false,
  ofHand: true,
  apply({ tools }, command) {
    tools.take(command);
    return noChange();
  },
});

export const loadTool = defineCommand({
  schema: loadCommand,
  undoable: false,
  ofHand: true,
  tubes: ({ mixture, edge }) => [...Object.keys(mixture), ...Object.keys(edge?.mixture ?? {})],
  apply({ tools }, command) {
    tools.load(command);
    return noChange();
  },
});

export const wipe = defineCommand({
  schema: z.strictObject({ do: z.literal('wipe').describe('Wipes the brush on a rag: it stays a little dirty') }),
  undoable: false,
  ofHand: true,
  apply({ tools }) {
    tools.clean(false);
    return noChange();
  },
});

export const rinse = defineCommand({
  schema: z.strictObject({
    do: z.literal('rinse').describe('Rinses the brush clean, and leaves it damp with solvent by a share'),
    damp: unit.optional(),
  }),
  undoable: false,
  ofHand: true,
  apply({ tools }, { damp }) {
    tools.clean(true, damp);
    return noChange();
  },
});
