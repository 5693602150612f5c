import type { z } from '@/core/schema';
import type { Change } from './change';
import type { Workplace } from './workplace';

/** A command as data: an object whose `do` names it. */
export type CommandSchema = z.ZodObject<{ readonly do: z.ZodLiteral<string> }>;

/** Everything that the house knows of a command. */
export interface CommandDefinition<S extends CommandSchema = CommandSchema> {
  /** Its fields, checked wherever it comes over a border; what it does is the description of `do`. */
  readonly schema: S;
  /** Whether it changes the painting, and so is what undo takes back. */
  readonly undoable: boolean;
  /** It is done to the tools alone: an undo that leaves the hand alone leaves it done. */
  readonly ofHand?: true;
  /** It goes along the history itself: no step is opened for it. */
  readonly opensItself?: true;
  /** It adds a layer to those there are. */
  readonly addsLayer?: true;
  /** Ids of the tubes that it uses; those of its `mixture` where left out. */
  tubes?(command: z.output<S>): readonly string[];
  /**
   * Does it. Tiles are kept before they are changed.
   * @throws PainterError when it cannot be done; what was begun is then put back
   */
  apply(workplace: Workplace, command: z.output<S>): Change;
}

/** Defines a command; `commands.ts` brings it into the set of all. */
export const defineCommand = <S extends CommandSchema>(definition: CommandDefinition<S>): CommandDefinition<S> =>
  definition;
