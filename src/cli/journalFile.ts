import { readFileSync, statSync } from 'node:fs';
import { parse, printParseErrorCode, type ParseError } from 'jsonc-parser';
import { PainterError } from '@/core/errors';

/** Largest journal file, bytes. */
const MAX_BYTES = 512 * 2 ** 20;

/** Parses a file of JSON, in UTF-8 with or without a byte-order mark. @throws PainterError saying where it is wrong */
export function readJsonFile(path: string): unknown {
  let text: string;
  try {
    if (statSync(path).size > MAX_BYTES) throw new PainterError(`"${path}" is too large for a journal.`);
    text = readFileSync(path, 'utf8');
  } catch (error) {
    if (error instanceof PainterError) throw error;
    throw new PainterError(`"${path}" cannot be read.`);
  }
  return readJson(text.replace(/^\uFEFF/, ''), path);
}

function readJson(text: string, path: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    const errors: ParseError[] = [];
    parse(text, errors, { disallowComments: true });
    const [first] = errors;
    if (!first) throw new PainterError(`"${path}" is not JSON.`);
    const before = text.slice(0, first.offset).split('\n');
    const why = printParseErrorCode(first.error)
      .replace(/([a-z])([A-Z])/g, '$1 $2')
      .toLowerCase();
    throw new PainterError(
      `"${path}" is not JSON: ${why} at line ${before.length}, column ${before.at(-1)!.length + 1}.`,
    );
  }
}
