/**
 * Compiles the hot loops (kernels.ts, for shared and for unshared memory) and the portable functions (maths.ts), and
 * writes them as text into src/core, so that the core can start them anywhere without fetching a file.
 *   npm run kernels            (--check only tells whether what is written is what the sources give)
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { BLADE } from '../src/core/kernels/blade';
import { CARRIED, SETTLED } from '../src/core/kernels/carry';
import { CONTACT } from '../src/core/kernels/contact';
import { RELIGHT } from '../src/core/kernels/relight';
import { WATER } from '../src/core/kernels/water';
import { WET_LOOK } from '../src/core/kernels/wetLook';

const dir = mkdtempSync(join(tmpdir(), 'kernels-'));

function compile(source: string, options: readonly string[]): string {
  const file = join(dir, 'out.wasm');
  execFileSync(
    process.execPath,
    [
      'node_modules/assemblyscript/bin/asc.js',
      source,
      '-o',
      file,
      '-O3',
      '--noAssert',
      '--runtime',
      'stub',
      '--noExportMemory',
      ...options,
    ],
    { stdio: 'inherit' },
  );
  return readFileSync(file).toString('base64');
}

const kernels = (...threads: string[]) =>
  compile('simd/kernels.ts', [
    '--enable',
    'simd',
    '--initialMemory',
    '64',
    '--maximumMemory',
    '49152',
    '--importMemory',
    ...threads,
  ]);

/** The layouts of the parameter blocks, as the TypeScript twins define them, as constants that the compiler folds. */
const layouts = Object.entries({ BLADE, CARRIED, CONTACT, RELIGHT, SETTLED, WATER, WET_LOOK })
  .map(([name, words]) => {
    const lines = Object.entries(words).map(([key, word]) => `  export const ${key}: i32 = ${word};`);
    return `export namespace ${name} {\n${lines.join('\n')}\n}`;
  })
  .join('\n\n');

/** Writes what has been made to its place; with --check, only tells whether it is there already. */
function publish(path: string, text: string): void {
  if (!process.argv.includes('--check')) {
    writeFileSync(path, text);
  } else if (readFileSync(path, 'utf8') !== text) {
    console.error(`${path} is not what its source gives: run "npm run kernels".`);
    process.exitCode = 1;
  }
}

// the layouts first: the kernels are compiled with them
publish(
  'simd/layout.ts',
  `/** Words of the parameter blocks. Made by simd/build.ts from src/core/kernels. Do not edit. */\n\n${layouts}\n`,
);
publish(
  'src/core/kernels/compiled.ts',
  `// Made by simd/build.ts from simd/kernels.ts. Do not edit.
export const SHARED = '${kernels('--enable', 'threads', '--sharedMemory')}';
export const UNSHARED = '${kernels()}';
`,
);
publish(
  'src/core/maths/compiled.ts',
  `// Made by simd/build.ts from simd/maths.ts. Do not edit.
export const MATHS = '${compile('simd/maths.ts', [])}';
`,
);
