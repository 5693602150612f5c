import { describe, expect, it } from 'vitest';
import { Arena } from '@/core/film/arena';
import { randomAct, randomFrom } from '@/measure/randomActs';
import { studioFor } from '@/measure/bench';
import { commandSchema, type Command } from './commands';
import { digest } from './digest';
import { PainterError } from './errors';
import { Studio } from './studio';

/** Does random things until enough of them were accepted. */
function playRandomly(studio: Studio, seed: number, count: number): Command[] {
  const random = randomFrom(seed);
  const done: Command[] = [];
  while (done.length < count) {
    const command = commandSchema.parse(randomAct(random, studio.spec.widthMm, studio.spec.heightMm));
    try {
      studio.apply(command);
      done.push(command);
    } catch (error) {
      if (!(error instanceof PainterError)) throw error;
    }
  }
  return done;
}

const spec = (surface: 'linen-fine' | 'paper-cold' | 'paper-laid') =>
  studioFor(26, 20, { ppi: 90, surface: { kind: surface } }).spec;

describe('random acts of every kind', () => {
  it('know every command that there is', () => {
    const random = randomFrom(3);
    const seen = new Set(Array.from({ length: 4000 }, () => randomAct(random, 20, 20).do));
    const all = commandSchema.options.map((option) => option.shape.do.value);
    expect(all.filter((name) => !seen.has(name))).toEqual([]);
  });

  it.each([1, 2, 3, 4, 5, 6])('give the same bytes in a memory that moves at every allocation (seed %i)', (seed) => {
    const ground = spec((['linen-fine', 'paper-cold', 'paper-laid'] as const)[seed % 3]);
    const calm = new Studio(ground);
    const done = playRandomly(calm, seed, 60);
    const restless = new Studio(ground, undefined, new Arena(3 * 2 ** 30, true));
    for (const command of done) restless.apply(command);
    expect(digest(restless)).toBe(digest(calm));
    for (let i = 0; i < 4; i++) {
      for (const studio of [calm, restless]) if (studio.canUndo) studio.apply({ do: 'undo' });
    }
    expect(digest(restless)).toBe(digest(calm));
  });
});
