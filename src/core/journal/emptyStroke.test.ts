import { expect, it } from 'vitest';
import { studioFor } from '@/measure/bench';
import { TOOL_IDS } from '@/core/tools/tools';
import { commandSchema } from '@/core/commands/commands';
import { digest } from './digest';
import { PainterError } from '@/core/errors';

it.each(TOOL_IDS)('%s: put down and lifted without a reading, nothing has happened', (tool) => {
  const studio = studioFor(20, 15, { surface: { kind: 'paper-cold' } });
  for (const act of [
    { do: 'tool', tool },
    { do: 'load', mixture: { PB29: 1 } },
  ]) {
    try {
      studio.apply(commandSchema.parse(act));
    } catch (error) {
      if (!(error instanceof PainterError)) throw error;
    }
  }
  const before = digest(studio);
  const { length } = studio.history;
  studio.beginStroke();
  studio.addSample([NaN, 3, 4, 0.5]);
  studio.addSample([0, 3, Infinity, 0.5]);
  expect(studio.endStroke()).toBeUndefined();
  expect(studio.strokeInAir).toBe(false);
  expect(digest(studio)).toBe(before);
  expect(studio.history).toHaveLength(length);
  const { used } = studio.painting.arena;
  for (let i = 0; i < 3; i++) {
    studio.beginStroke();
    studio.endStroke();
  }
  expect(studio.painting.arena.used).toBe(used);
});
