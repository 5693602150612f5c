import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { expect, it } from 'vitest';

/** Source files below a folder, without tests. */
function sources(folder: string): string[] {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) return sources(path);
    return /\.tsx?$/.test(name) && !/\.test\.tsx?$/.test(name) ? [path] : [];
  });
}

/** What a file imports when it is loaded, as files of the project: types are gone by then. */
function imported(path: string): string[] {
  const text = readFileSync(path, 'utf8');
  const found = text.matchAll(/^(?:import|export)\s+(?!type\b)([^;]*?)\s*from\s*['"]([^'"]+)['"]/gm);
  return [...found].flatMap(([, names, from]) => {
    const inside = /^\{([\s\S]*)\}$/.exec(names.trim())?.[1];
    const onlyTypes = inside?.split(',').every((name) => !name.trim() || name.trim().startsWith('type '));
    if (onlyTypes) return [];
    const base = from.startsWith('@/')
      ? join('src', from.slice(2))
      : from.startsWith('.')
        ? join(dirname(path), from)
        : '';
    return base
      ? ['.ts', '.tsx', ''].map((end) => base + end).filter((file) => /\.tsx?$/.test(file) && existsSync(file))
      : [];
  });
}

it('no file is imported by what it imports', () => {
  const graph = new Map(sources('src').map((path) => [path, imported(path)]));
  expect(graph.size).toBeGreaterThan(300);
  const circles: string[] = [];
  const done = new Set<string>();
  const visit = (path: string, way: string[]) => {
    const at = way.indexOf(path);
    if (at >= 0) circles.push([...way.slice(at), path].join(' > '));
    if (at >= 0 || done.has(path)) return;
    for (const next of graph.get(path) ?? []) visit(next, [...way, path]);
    done.add(path);
  };
  for (const path of graph.keys()) visit(path, []);
  expect(circles).toEqual([]);
});

/** Lines of a file, and files of a folder, that can be seen at once. */
const LINES = 400;
const FILES = 20;

it('no file is longer than can be read at once, and no folder holds more than can be seen at once', () => {
  const files = sources('src');
  const long = files.filter((path) => readFileSync(path, 'utf8').split('\n').length > LINES);
  expect(long).toEqual([]);
  const held = new Map<string, number>();
  for (const path of files) held.set(dirname(path), (held.get(dirname(path)) ?? 0) + 1);
  expect([...held].filter(([, count]) => count > FILES)).toEqual([]);
});
