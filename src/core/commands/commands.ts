import { paste } from '@/core/commands/families/pasting';
import { z } from '@/core/schema';
import { canvas } from '@/core/commands/families/canvas';
import { CommandSet } from './commandSet';
import type { CommandDefinition, CommandSchema } from './definition';
import { blowDust, bring, fixDust, recolour } from '@/core/commands/families/dust';
import { base, fill } from '@/core/commands/families/fill';
import { copyAll, duplicate, merge, picture } from '@/core/commands/families/joining';
import {
  addLayer,
  chooseLayer,
  colourOverValues,
  moveLayer,
  prepareSheet,
  removeLayer,
  setLayer,
  softenAll,
} from '@/core/commands/families/layers';
import { mask } from '@/core/commands/families/mask';
import { retube } from '@/core/commands/families/retube';
import { select } from '@/core/commands/families/selecting';
import { silhouette } from '@/core/commands/families/silhouette';
import { scrape, squeezeTube, takeFromSlab } from '@/core/commands/families/slab';
import { dry, leave, mist, tilt, wait } from '@/core/commands/families/time';
import { redo, stroke, undo } from '@/core/commands/families/timeline';
import { tone } from '@/core/commands/families/tone';
import { loadTool, rinse, takeTool, wipe } from '@/core/commands/families/tools';
import { stamp, transform } from '@/core/commands/families/transforming';

/** Everything that can happen to a painting, as the documentation lists it. */
const ALL = [
  takeTool,
  loadTool,
  wipe,
  rinse,
  stroke,
  squeezeTube,
  takeFromSlab,
  scrape,
  retube,
  wait,
  leave,
  silhouette,
  dry,
  fixDust,
  blowDust,
  tilt,
  mist,
  tone,
  undo,
  redo,
  addLayer,
  chooseLayer,
  setLayer,
  recolour,
  bring,
  picture,
  moveLayer,
  removeLayer,
  duplicate,
  merge,
  copyAll,
  mask,
  softenAll,
  base,
  colourOverValues,
  prepareSheet,
  select,
  transform,
  canvas,
  fill,
  stamp,
  paste,
] as const;

export const COMMANDS = new CommandSet(ALL as readonly CommandDefinition[]);

type Schemas<D> = { [K in keyof D]: D[K] extends CommandDefinition<infer S extends CommandSchema> ? S : never };

export const commandSchema = z.discriminatedUnion(
  'do',
  ALL.map(({ schema }) => schema) as unknown as Schemas<typeof ALL>,
);

export type Command = z.infer<typeof commandSchema>;
/** A command as it may be written, with defaults left out. */
export type CommandInput = z.input<typeof commandSchema>;
