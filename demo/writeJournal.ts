import { writeFileSync } from 'node:fs';
import type { CommandInput } from '@/core/commands/commands';
import type { Journal } from '@/core/journal/journalSchema';
import { readJournal } from '@/core/journal/replay';

/** Writes what a hand has done as a journal, an entry a line. @throws PainterError when an entry is wrong */
export function writeJournal(
  path: string,
  painting: Partial<Journal['painting']>,
  entries: readonly CommandInput[],
): void {
  const journal = { format: 'stigmos-journal', version: 1, painting, entries };
  readJournal(journal);
  writeFileSync(path, `${JSON.stringify(journal).replaceAll('{"do"', '\n{"do"')}\n`);
  console.log(`${path}: ${entries.filter((e) => e.do === 'stroke').length} strokes`);
}
