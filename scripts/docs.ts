import { writeFileSync } from 'node:fs';
import { format } from 'prettier';
import { COMMANDS } from '@/core/commands/commands';
import { commandReference } from '@/core/commands/commandReference';
import { EXPORTS } from '@/core/formats/exports/exports';
import { PURPOSES, type ExportDefinition } from '@/core/formats/exports/definition';
import { mayBe } from '@/core/formats/exports/settings';

const page = (text: string): Promise<string> => format(text, { parser: 'markdown', printWidth: 120 });

/** Writes the parts of the documentation that are derived from definitions. */
export const commandPage = (): Promise<string> =>
  page(
    `# Commands\n\nEverything that can happen to a painting, as entries of a journal (see [journal.md](journal.md)). Written by \`npm run docs\` from the definitions in \`src/core/commands/\`.\n\n${commandReference(COMMANDS)}\n`,
  );

const exportSection = ([id, { label, purposes, extension, settings }]: [string, ExportDefinition]): string => {
  const lines = Object.entries(settings).map(
    ([name, setting]) => `- \`${name}\`: ${setting.label}; ${mayBe(setting)}; \`${String(setting.first)}\` at first`,
  );
  const wanted = purposes.map((purpose) => PURPOSES[purpose].name.toLowerCase()).join(', ');
  return `## \`${id}\`\n\n${label} (\`.${extension}\`). For: ${wanted}.\n\n${lines.join('\n')}\n`;
};

/** All ways to send a painting out, for the screen and the command line. */
export const exportPage = (): Promise<string> =>
  page(
    `# Ways out\n\nWhat a painting can be sent out as: in the room by "Send out", and by \`./stigmos render FILE --as KIND --out FILE --set NAME=VALUE\`, where \`FILE\` is a journal or a painting's own file. Prints one JSON object: \`as\`, \`bytes\`, \`px\`, \`sizeMm\`, \`says\`. Written by \`npm run docs\` from the definitions in \`src/core/formats/exports/\`.\n\n${Object.entries<ExportDefinition>(EXPORTS).map(exportSection).join('\n')}`,
  );

if (process.argv[1]?.endsWith('docs.ts')) {
  writeFileSync('docs/commands.md', await commandPage());
  writeFileSync('docs/exports.md', await exportPage());
}
