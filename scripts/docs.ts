import { writeFileSync } from 'node:fs';
import { format } from 'prettier';
import { COMMANDS } from '@/core/commands/commands';
import { commandReference } from '@/core/commands/commandReference';

/** Writes the parts of the documentation that are derived from definitions. */
export const commandPage = (): Promise<string> =>
  format(
    `# Commands\n\nEverything that can happen to a painting, as entries of a journal (see [journal.md](journal.md)). Written by \`npm run docs\` from the definitions in \`src/core/commands/\`.\n\n${commandReference(COMMANDS)}\n`,
    { parser: 'markdown', printWidth: 120 },
  );

if (process.argv[1]?.endsWith('docs.ts')) writeFileSync('docs/commands.md', await commandPage());
