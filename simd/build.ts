/**
 * Compiles the hot loops (kernels.ts, for shared and for unshared memory) and the portable functions (maths.ts), and
 * writes them as text into src/core, so that the core can start them anywhere without fetching a file.
 *   npm run kernels            (--check only tells whether what is written is what the sources give)
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const dir = mkdtempSync(join(tmpdir(), 'kernels-'));

function compile(source: string, options: readonly string[]): string {
  const file = join(dir, 'out.wasm');
  execFileSync(process.execPath, [
    'node_modules/assemblyscript/bin/asc.js', source, '-o', file,
    '-O3', '--noAssert', '--runtime', 'stub', '--noExportMemory', ...options,
  ], { stdio: 'inherit' }); // prettier-ignore
  return readFileSync(file).toString('base64');
}

const kernels = (...threads: string[]) =>
  compile('simd/kernels.ts', ['--enable', 'simd', '--initialMemory', '64', '--maximumMemory', '49152', '--importMemory', ...threads]); // prettier-ignore

const made = {
  'src/core/kernels/compiled.ts': `// Made by simd/build.ts from simd/kernels.ts. Do not edit.
export const SHARED = '${kernels('--enable', 'threads', '--sharedMemory')}';
export const UNSHARED = '${kernels()}';
`,
  'src/core/maths/compiled.ts': `// Made by simd/build.ts from simd/maths.ts. Do not edit.
export const MATHS = '${compile('simd/maths.ts', [])}';
`,
};

for (const [path, text] of Object.entries(made)) {
  if (!process.argv.includes('--check')) {
    writeFileSync(path, text);
  } else if (readFileSync(path, 'utf8') !== text) {
    console.error(`${path} is not what its source gives: run "npm run kernels".`);
    process.exitCode = 1;
  }
}
