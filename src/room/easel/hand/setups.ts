import type { ToolCommand } from '@/core/tools/toolCommands';
import { toolCommand } from '@/core/tools/toolCommands';
import { toolOf, type ToolId } from '@/core/tools/tools';
import { z } from '@/core/schema';
import { sharedFile } from '@/core/formats/sharedFile';

/**
 * What a painter has set of a tool: the fields of the command that sets it. The grey of a mask belongs to the mask, and
 * whether tools keep loaded is one switch for all of them.
 */
export const heldSchema = toolCommand.omit({ do: true, tool: true, grey: true, keepLoaded: true });
export type Held = z.output<typeof heldSchema>;

/** A tool as it stands in the jar: with its settings, and a name where the painter has given one. */
export interface Setup {
  readonly id: string;
  readonly tool: ToolId;
  readonly name: string;
  readonly held: Held;
}

/** A jar has six places. */
export const PLACES = 6;

const shared = z.strictObject({ tool: toolCommand.shape.tool, name: z.string().max(40).default(''), held: heldSchema });
export const setupSchema = shared.extend({ id: z.string().max(80) });

/** A tool as it is held at first; there is one such of each tool in a jar. */
export const plainSetup = (jar: string, tool: ToolId): Setup => ({ id: `${jar} ${tool}`, tool, name: '', held: {} });

/** What a set-up is called: by the painter, else as its tool is. */
export const setupName = ({ name, tool }: Setup): string => name || toolOf(tool).card.name;

/** What of a command belongs to the tool's settings. */
export function heldIn({ do: _, tool: __, grey: ___, keepLoaded: ____, ...held }: ToolCommand): Held {
  return Object.fromEntries(Object.entries(held).filter(([, value]) => value !== undefined)) as Held;
}

/** A jar as a file to share (`.jar.json`). */
export const jarFile = sharedFile({
  format: 'stigmos-jar',
  version: 1,
  called: 'a jar of tools',
  schema: z.object({
    name: z.string().max(80).default(''),
    places: z.array(shared).length(PLACES),
  }),
});
