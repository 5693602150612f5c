import { z } from '@/core/schema';
import type { CommandDefinition } from './definition';

/** A named command, as the set looks it up. */
type Named = { readonly do: string };

/** Definitions of commands by name. */
export class CommandSet {
  private readonly byName: ReadonlyMap<string, CommandDefinition>;

  /** @throws Error when two have the same name */
  constructor(readonly definitions: readonly CommandDefinition[]) {
    this.byName = new Map(definitions.map((definition) => [nameOf(definition), definition]));
    const names = definitions.map(nameOf);
    const twice = names.find((name, i) => names.indexOf(name) < i);
    if (twice) throw new Error(`Two commands are called "${twice}".`);
  }

  /** This set and more. @throws Error when one of them is there already */
  with(...more: readonly CommandDefinition[]): CommandSet {
    return new CommandSet([...this.definitions, ...more]);
  }

  get names(): readonly string[] {
    return [...this.byName.keys()];
  }

  /** @throws Error when there is none of that name */
  definitionOf({ do: name }: Named): CommandDefinition {
    const found = this.byName.get(name);
    if (!found) throw new Error(`There is no command "${name}".`);
    return found;
  }

  /** Whether a command changes the painting, and so is what undo takes back. */
  isUndoable(command: Named): boolean {
    return this.definitionOf(command).undoable;
  }

  /** Whether a command is done to the tools alone. */
  isOfHand(command: Named): boolean {
    return this.byName.get(command.do)?.ofHand === true;
  }

  /** Ids of the tubes that a command uses. */
  tubesOf(command: Named): readonly string[] {
    const { tubes } = this.definitionOf(command);
    if (tubes) return tubes(command as never);
    return 'mixture' in command && command.mixture ? Object.keys(command.mixture) : [];
  }

  /** Schema of all its commands. */
  get schema() {
    const [first, ...rest] = this.definitions.map(({ schema }) => schema);
    return z.discriminatedUnion('do', [first, ...rest]);
  }
}

export const nameOf = ({ schema }: Pick<CommandDefinition, 'schema'>): string => schema.shape.do.value;

/** What a command does, in a sentence. */
export const describe = ({ schema }: Pick<CommandDefinition, 'schema'>): string => schema.shape.do.description ?? '';
