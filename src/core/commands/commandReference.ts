import type { CommandSet } from './commandSet';
import { describe, nameOf } from './commandSet';
import { z } from '@/core/schema';

/** A field of a JSON Schema, as far as the reference tells of it. */
interface Field {
  readonly type?: string;
  readonly const?: unknown;
  readonly enum?: readonly unknown[];
  readonly anyOf?: readonly Field[];
  readonly minimum?: number;
  readonly maximum?: number;
  readonly default?: unknown;
  readonly description?: string;
}

const SAFE = Number.MAX_SAFE_INTEGER;

/** Which values a field takes, in short; empty where its name says it. */
function values({ enum: choices, const: only, anyOf, minimum, maximum, type }: Field): string {
  if (choices) return choices.map((v) => `\`${String(v)}\``).join(', ');
  if (only !== undefined) return `\`${String(only)}\``;
  const choice = anyOf?.filter((each) => each.const !== undefined);
  if (choice?.length) return choice.map(values).join(', ');
  if ((type === 'number' || type === 'integer') && minimum !== undefined && maximum !== undefined && maximum < SAFE) {
    return `${minimum} to ${maximum}`;
  }
  return type === 'boolean' ? '`true`, `false`' : '';
}

function line([name, field]: [string, Field], required: readonly string[]): string {
  const usual = required.includes(name)
    ? 'needed'
    : field.default === undefined
      ? ''
      : `\`${JSON.stringify(field.default)}\` where left out`;
  const told = [values(field), field.description ?? '', usual].filter(Boolean).join('; ');
  return `- \`${name}\`${told && `: ${told}`}`;
}

/** All commands with their fields as Markdown, each in a section of its own. */
export function commandReference({ definitions }: CommandSet): string {
  return definitions
    .map((definition) => {
      const { properties, required = [] } = z.toJSONSchema(definition.schema, {
        io: 'input',
        unrepresentable: 'any',
      }) as {
        properties: Record<string, Field>;
        required?: readonly string[];
      };
      const fields = Object.entries(properties).filter(([name]) => name !== 'do');
      const step = definition.undoable ? ' A step of undo.' : '';
      const lines = fields.map((field) => line(field, required));
      return [
        `## \`${nameOf(definition)}\``,
        '',
        `${describe(definition)}.${step}`,
        ...(lines.length ? ['', ...lines] : []),
      ].join('\n');
    })
    .join('\n\n');
}
