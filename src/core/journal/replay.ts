import { closest, distance } from 'fastest-levenshtein';
import { z } from '@/core/schema';
import { commandSchema } from '@/core/commands/commands';
import { journalSchema, paintingSchema, type Journal } from './journalSchema';
import { PainterError } from '@/core/errors';
import type { PaintingSpec } from '@/core/film/painting';
import { Studio } from './studio';

/** Choices that are named when none of them was given; of more only the nearest is. */
const MANY = 12;
const COMMANDS = commandSchema.options.map((option) => option.shape.do.value as string);

/** The choice that was perhaps meant. */
function nearest(given: unknown, choices: readonly string[]): string {
  if (typeof given !== 'string' || given.length > 40) return '';
  const found = closest(given, choices);
  return distance(given, found) <= Math.max(2, given.length / 2) ? `; did you mean "${found}"?` : '';
}

/** Says in one sentence what is wrong with a journal. */
function firstProblem(error: z.ZodError, data: unknown): string {
  const issue = error.issues[0];
  const [top, number, ...rest] = issue.path;
  const where =
    top === 'entries' && typeof number === 'number'
      ? `Entry ${number + 1}${rest.length ? ` (${rest.join('.')})` : ''}`
      : top === undefined
        ? 'The journal'
        : `"${issue.path.join('.')}"`;
  return `${where} is not right: ${describe(issue, data)}.`.replace(/\?\.$/, '?');
}

function describe(issue: z.core.$ZodIssue, data: unknown): string {
  const given = issue.path.reduce<unknown>((at, key) => (at as Record<PropertyKey, unknown> | undefined)?.[key], data);
  if (issue.code === 'invalid_union' && issue.path.at(-1) === 'do') {
    return `there is no such command in "do"${nearest(given, COMMANDS)}`;
  }
  if (issue.code === 'invalid_value' && issue.values.length > MANY && typeof given === 'string') {
    return `there is no "${given.slice(0, 40)}"${nearest(given, issue.values.map(String))}`;
  }
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
  throw new PainterError(firstProblem(read.error, data));
}

/**
 * Paints a journal from its empty ground.
 * @param scale resolution as a multiple of the journal's: the same strokes on more cells.
 * @throws PainterError naming the entry that cannot be done.
 */
export function replay(journal: Journal, scale = 1): Studio {
  const painting = paintedAt(journal.painting, scale);
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

/**
 * The same ground in more or fewer cells.
 * @throws PainterError where it cannot be painted so
 */
export function paintedAt<S extends Journal['painting'] | PaintingSpec>(painting: S, scale: number): S {
  if (scale === 1) return painting;
  const read = paintingSchema.safeParse({ ...painting, ppi: painting.ppi * scale });
  if (!read.success)
    throw new PainterError(`At scale ${scale} it cannot be painted: ${describe(read.error.issues[0], painting)}.`);
  return read.data as S;
}

/** JSON Schema of the journal, for tools and people outside. */
export const journalJsonSchema = (): unknown => z.toJSONSchema(journalSchema, { io: 'input', unrepresentable: 'any' });

/** Checks one command that came over a border. @throws PainterError */
export function readCommand(data: unknown) {
  const read = commandSchema.safeParse(data);
  if (!read.success) throw new PainterError(firstProblem(read.error, data));
  return read.data;
}
