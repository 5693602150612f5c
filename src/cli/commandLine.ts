import { parseArgs } from 'node:util';
import { PainterError } from '@/core/errors';
import { journalJsonSchema } from '@/core/journal/replay';
import { measureCommand, MEASURE_HELP } from './measure';
import { renderCommand, RENDER_HELP } from './render';
import { replayCommand, REPLAY_HELP } from './replay';

const HELP = `stigmos: the studio on the command line

  stigmos replay FILE [options]   paints a journal and tells what came out, as one JSON object
  stigmos render FILE [options]   sends a painting or a journal out as a file of another kind
  stigmos measure [options]       paints what paint is expected to do, and measures it
  stigmos schema                  prints the JSON Schema of journals

replay:
${REPLAY_HELP}
render:
${RENDER_HELP}
measure:
${MEASURE_HELP}`;

/** Runs the command line. @returns the exit code: 0 done, 1 something measured was out of bounds, 2 something is wrong with what was asked. */
export async function runCommandLine(argv: string[]): Promise<number> {
  const [command, ...rest] = argv;
  if (!command || command === '--help' || command === 'help') {
    console.log(HELP);
    return command ? 0 : 2;
  }
  try {
    if (command === 'replay') {
      await replayCommand(rest);
      return 0;
    }
    if (command === 'render') {
      await renderCommand(rest);
      return 0;
    }
    if (command === 'measure') return measureCommand(rest) ? 0 : 1;
    if (command === 'schema') {
      parseArgs({ args: rest, options: {} });
      console.log(JSON.stringify(journalJsonSchema(), null, 2));
      return 0;
    }
    throw new PainterError(`There is no command "${command}": try "stigmos --help".`);
  } catch (error) {
    // parseArgs throws TypeErrors with a code
    if (error instanceof PainterError || (error instanceof TypeError && 'code' in error)) {
      console.error(error.message.split('\n')[0]);
      return 2;
    }
    throw error;
  }
}
