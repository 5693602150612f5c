import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomFrom } from '@/measure/randomActs';
import { segments } from './segments';

describe('cutting a row where it changes', () => {
  it('finds where it was put together, whatever lies in it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.array(fc.integer({ min: 12, max: 90 }), { minLength: 2, maxLength: 7 }),
        (seed, lengths) => {
          const random = randomFrom(seed);
          // each part lies farther on than the one before, much farther than things lie apart within
          const row = lengths.flatMap((length, k) => Array.from({ length }, () => 10 * k + 0.5 * random.next()));
          const starts = lengths.map((_, k) => lengths.slice(0, k).reduce((a, b) => a + b, 0));
          expect(segments([row], { most: 20, least: 3, gain: 0.002 })).toEqual(starts);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('makes no more parts than it may, none too short, and none where nothing changes', () => {
    const row = Array.from({ length: 100 }, (_, i) => Math.floor(i / 10) % 2);
    const some = segments([row], { most: 4, least: 10, gain: 0.001 });
    expect(some.length).toBeLessThanOrEqual(4);
    expect(some.every((from, i) => (some[i + 1] ?? 100) - from >= 10)).toBe(true);
    expect(segments([new Array<number>(50).fill(3)], { most: 9, least: 2, gain: 0 })).toEqual([0]);
    expect(segments([[]], { most: 9, least: 2, gain: 0 })).toEqual([]);
    expect(segments([[1, 2]], { most: 9, least: 4, gain: 0 })).toEqual([0]);
  });
});
