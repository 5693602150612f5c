import { z } from 'zod';
import { commandSchema, journalSchema, paintingSchema, type Journal } from './commands';
import { PainterError } from './errors';
import { Studio } from './studio';

/** Says in one sentence what is wrong with a journal. */
function firstProblem(error: z.ZodError): string {
  const issue = error.issues[0];
  const [top, number, ...rest] = issue.path;
  const where =
    top === 'entries' && typeof number === 'number'
      ? `Entry ${number + 1}${rest.length ? ` (${rest.join('.')})` : ''}`
      : top === undefined
        ? 'The journal'
        : `"${issue.path.join('.')}"`;
  return `${where} is not right: ${describe(issue)}.`;
}

function describe(issue: z.core.$ZodIssue): string {
  if (issue.code === 'invalid_union' && issue.path.at(-1) === 'do') return 'there is no such command in "do"';
  if (issue.code === 'custom' && issue.message.startsWith('"')) return issue.message;
  return issue.message.replace(/^Invalid input: /, '').replace(/\.$/, '');
}

/**
 * Reads a journal from parsed JSON.
 * @throws PainterError with one sentence, naming the entry (counted from 1) that is wrong.
 */
export function readJournal(data: unknown): Journal {
  const read = journalSchema.safeParse(data);
  if (read.success) return read.data;
  if (typeof data !== 'object' || data === null || !('format' in data) || data.format !== 'stigmos-journal') {
    throw new PainterError('This is no Stigmos journal: "format" must be "stigmos-journal".');
  }
  if ('version' in data && typeof data.version === 'number' && data.version > 1) {
    throw new PainterError(`The journal is of version ${data.version}; this program reads version 1.`);
  }
  throw new PainterError(firstProblem(read.error));
}

/**
 * Paints a journal from its empty ground.
 * @param scale resolution as a multiple of the journal's: the same strokes on more cells.
 * @throws PainterError naming the entry that cannot be done.
 */
export function replay(journal: Journal, scale = 1): Studio {
  const painting = scale === 1 ? journal.painting : scaled(journal.painting, scale);
  const studio = new Studio(painting);
  journal.entries.forEach((command, i) => {
    try {
      studio.apply(command);
    } catch (error) {
      if (error instanceof PainterError) throw new PainterError(`Entry ${i + 1}: ${error.message}`);
      throw error;
    }
  });
  return studio;
}

function scaled(painting: Journal['painting'], scale: number): Journal['painting'] {
  const read = paintingSchema.safeParse({ ...painting, ppi: painting.ppi * scale });
  if (!read.success)
    throw new PainterError(`At scale ${scale} it cannot be painted: ${describe(read.error.issues[0])}.`);
  return read.data;
}

/** JSON Schema of the journal, for tools and people outside. */
export const journalJsonSchema = (): unknown => z.toJSONSchema(journalSchema, { io: 'input', unrepresentable: 'any' });

/** Checks one command that came over a border. @throws PainterError */
export function readCommand(data: unknown) {
  const read = commandSchema.safeParse(data);
  if (!read.success) throw new PainterError(firstProblem(read.error));
  return read.data;
}
