import { existsSync, readFileSync } from 'node:fs';
import { expect, it } from 'vitest';

/** Files that a page of the documentation names, from the root, from `src` or from `src/core`. */
const named = (page: string): string[] =>
  [...readFileSync(page, 'utf8').matchAll(/`((?:[\w-]+\/)*[\w-]+\.tsx?)`/g)].map(([, path]) => path);

it.each(['docs/architecture.md', 'docs/journal.md', 'README.md'])('%s names files that are there', (page) => {
  const missing = named(page).filter((path) => !['', 'src/', 'src/core/'].some((base) => existsSync(base + path)));
  expect(missing).toEqual([]);
  if (page.includes('architecture')) expect(named(page).length).toBeGreaterThan(30);
});
