import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { commandPage, exportPage } from '../../../scripts/docs';
import { z } from '@/core/schema';
import { digest } from '@/core/journal/digest';
import { Studio } from '@/core/journal/studio';
import { Arena } from '@/core/film/arena';
import { noChange } from './change';
import { COMMANDS, commandSchema } from './commands';
import { describe as told } from './commandSet';
import { defineCommand } from './definition';
import { retube } from '@/core/commands/families/retube';

const spec = { widthMm: 20, heightMm: 16, ppi: 60, seed: 1, surface: { kind: 'panel', scale: 1, depth: 1 } } as const;

/** A command that no part of the house knows: it leans the board and names the layer in hand after it. */
const lean = defineCommand({
  schema: z.strictObject({
    do: z.literal('lean').describe('Leans the board against the wall'),
    by: z.number().min(1).max(45),
  }),
  undoable: true,
  apply({ painting }, { by }) {
    painting.flow.tilt = [0, by];
    painting.active.look = { ...painting.active.look, name: `Leaning ${by}` };
    return { ...noChange(), layers: true };
  },
});

describe('a command', () => {
  it('is brought in by its definition alone: it is read, done, taken back and done again', () => {
    const known = COMMANDS.with(lean);
    const studio = new Studio(spec, 1e6, new Arena(), known);
    const command = known.schema.parse({ do: 'lean', by: 12 }) as never;
    expect(() => known.schema.parse({ do: 'lean', by: 99 })).toThrow();
    const before = digest(studio);
    expect(studio.apply(command).layers).toBe(true);
    expect(studio.painting.active.name).toBe('Leaning 12');
    const after = digest(studio);
    studio.apply({ do: 'undo' });
    expect(digest(studio)).toBe(before);
    studio.apply({ do: 'redo' });
    expect(digest(studio)).toBe(after);
  });

  it('that fails in the middle of its work leaves nothing behind', () => {
    const broken = defineCommand({
      ...lean,
      apply(place, command) {
        lean.apply(place, command);
        throw new TypeError('a fault');
      },
    });
    const studio = new Studio(spec, 1e6, new Arena(), COMMANDS.with(broken));
    const before = digest(studio);
    expect(() => studio.apply({ do: 'lean', by: 12 } as never)).toThrow('a fault');
    expect(digest(studio)).toBe(before);
    expect(studio.timeline.canUndo).toBe(false);
  });

  it('cannot have the name of another', () => {
    expect(() => COMMANDS.with(retube)).toThrow('Two commands are called "retube".');
  });

  it('that is not known is a fault, and not a step', () => {
    const studio = new Studio(spec);
    expect(() => studio.apply({ do: 'lean' } as never)).toThrow('There is no command "lean".');
    expect(studio.history).toEqual([]);
  });
});

describe('the set of all commands', () => {
  it('says what each does, and reads what its union reads', () => {
    for (const definition of COMMANDS.definitions) expect(told(definition)).toMatch(/^[A-Z].*[^.]$/);
    expect(COMMANDS.names).toEqual(commandSchema.options.map((option) => option.shape.do.value));
  });

  it('knows which tubes a command uses', () => {
    expect(COMMANDS.tubesOf({ do: 'load', mixture: { PB29: 1 }, edge: { mixture: { PY35: 1 } } } as never)).toEqual([
      'PB29',
      'PY35',
    ]);
    expect(COMMANDS.tubesOf({ do: 'retube', from: 'PB29', to: 'PB28' } as never)).toEqual(['PB28']);
    expect(COMMANDS.tubesOf({ do: 'tone', mixture: { PR254: 1 } } as never)).toEqual(['PR254']);
    expect(COMMANDS.tubesOf({ do: 'dry' })).toEqual([]);
  });

  it('is told on its page in the documentation as it is', async () => {
    expect(readFileSync('docs/commands.md', 'utf8')).toBe(await commandPage());
    expect(readFileSync('docs/exports.md', 'utf8')).toBe(await exportPage());
  });
});
