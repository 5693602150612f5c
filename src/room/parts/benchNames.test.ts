import { expect, it } from 'vitest';
import { isColoured, PIGMENTS } from '@/core/colour/pigments';
import { benchName } from './benchNames';

it('every tube has a short name of its own, of words that fit on it', () => {
  const tubes = PIGMENTS.filter((_, i) => isColoured(i));
  const names = tubes.map(({ id }) => benchName(id));
  expect(new Set(names).size).toBe(names.length);
  expect(names.flatMap((name) => name.split(' ')).filter((word) => word.length > 8)).toEqual([]);
  expect(names.filter((name) => name.length > 14)).toEqual([]);
});
