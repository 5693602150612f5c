/**
 * Writes public/sw.js after the app has been built: the worker that serves the app without a network, and the list of
 * the files it keeps. Run by ./start and ./check.
 */
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const list = (folder, prefix, keep = () => true) =>
  readdirSync(folder, { recursive: true })
    .filter((name) => statSync(join(folder, name)).isFile() && keep(name))
    .map((name) => `${prefix}/${name.split('\\').join('/')}`)
    .sort();

const files = [
  ...list('.next/static', '/_next/static', (name) => !name.endsWith('.map')),
  ...list('public/marks', '/marks'),
];
const source = readFileSync('scripts/serviceWorker.source.js', 'utf8');
const build = readFileSync('.next/BUILD_ID', 'utf8').trim();
const version = createHash('sha256')
  .update(JSON.stringify([build, files, source]))
  .digest('hex')
  .slice(0, 12);
writeFileSync(
  'public/sw.js',
  `const VERSION = 'stigmos-${version}';\nconst FILES = ${JSON.stringify(files)};\n${source}`,
);
console.log(`public/sw.js: ${files.length} files`);
