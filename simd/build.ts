/**
 * Compiles kernels.ts for shared and for unshared memory and writes both into src/core/kernels/compiled.ts, so that
 * the core can start them anywhere without fetching a file.
 *   npm run kernels            (--check only tells whether compiled.ts is what kernels.ts gives)
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const OUT = 'src/core/kernels/compiled.ts';
const dir = mkdtempSync(join(tmpdir(), 'kernels-'));

function compile(shared: boolean): string {
  const file = join(dir, `${shared}.wasm`);
  const memory = ['--initialMemory', '64', '--maximumMemory', '49152', '--importMemory', '--noExportMemory'];
  const threads = shared ? ['--enable', 'threads', '--sharedMemory'] : [];
  execFileSync(process.execPath, [
    'node_modules/assemblyscript/bin/asc.js', 'simd/kernels.ts', '-o', file,
    '-O3', '--noAssert', '--runtime', 'stub', '--enable', 'simd', ...memory, ...threads,
  ], { stdio: 'inherit' }); // prettier-ignore
  return readFileSync(file).toString('base64');
}

const text = `// Made by simd/build.ts from simd/kernels.ts. Do not edit.
export const SHARED = '${compile(true)}';
export const UNSHARED = '${compile(false)}';
`;
if (process.argv.includes('--check')) {
  if (readFileSync(OUT, 'utf8') !== text) {
    console.error(`${OUT} is not what simd/kernels.ts gives: run "npm run kernels".`);
    process.exitCode = 1;
  }
} else {
  writeFileSync(OUT, text);
}
