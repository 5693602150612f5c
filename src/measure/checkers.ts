import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** General tools that look at files with eyes other than ours. */
export type Checker = 'exiftool' | 'pngcheck' | 'identify' | 'pdfinfo' | 'pdftoppm' | 'xmllint';

/** Whether this machine lacks one of them. */
export const lacks = (...tools: readonly Checker[]): boolean =>
  tools.some((tool) => spawnSync('sh', ['-c', `command -v ${tool}`]).status !== 0);

const folder = mkdtempSync(join(tmpdir(), 'stigmos-check-'));

/** Writes bytes where a tool can look at them. @returns the path */
export function fileFor(name: string, bytes: Uint8Array): string {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
}

/** What a tool says of a file. @throws Error when it finds fault with it */
export const check = (tool: Checker, ...args: readonly string[]): string =>
  execFileSync(tool, args, { encoding: 'utf8', maxBuffer: 2 ** 28 });
