import { z } from '@/core/schema';
import { canvas } from './canvas';
import { CommandSet } from './commandSet';
import type { CommandDefinition, CommandSchema } from './definition';
import { blowDust, bring, fixDust, recolour } from './dust';
import { base, fill } from './fill';
import { copyAll, duplicate, merge, picture } from './joining';
import {
  addLayer,
  chooseLayer,
  colourOverValues,
  moveLayer,
  prepareSheet,
  removeLayer,
  setLayer,
  softenAll,
} from './layers';
import { mask } from './mask';
import { retube } from './retube';
import { select } from './selecting';
import { silhouette } from './silhouette';
import { scrape, squeezeTube, takeFromSlab } from './slab';
import { dry, leave, mist, tilt, wait } from './time';
import { redo, stroke, undo } from './timeline';
import { tone } from './tone';
import { loadTool, rinse, takeTool, wipe } from './tools';
import { stamp, transform } from './transforming';

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
