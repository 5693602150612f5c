import { describe, expect, it } from 'vitest';
import { Arena } from '@/core/film/arena';
import { albedoOf } from '@/core/picture/layers/albedo';
import { randomAct, randomFrom } from '@/measure/randomActs';
import { studioFor } from '@/measure/bench';
import { first } from '@/measure/thorough';
import { wholeRect } from '@/core/film/tilesIn';
import { commandSchema, type Command } from '@/core/commands/commands';
import { digest } from './digest';
import { PainterError } from '@/core/errors';
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

  it.each(first(3, [1, 2, 6, 3, 4, 5]))(
    'give the same bytes in a memory that moves at every allocation (seed %i)',
    (seed) => {
      const ground = spec((['linen-fine', 'paper-cold', 'paper-laid'] as const)[seed % 3]);
      const calm = new Studio(ground);
      const done = playRandomly(calm, seed, 60);
      const restless = new Studio(ground, undefined, new Arena(3 * 2 ** 30, true));
      for (const command of done) restless.apply(command);
      expect(digest(restless)).toBe(digest(calm));
      const picture = ({ painting }: Studio) => [...albedoOf(painting).raster(wholeRect(painting))].join();
      expect(picture(restless)).toBe(picture(calm));
      for (const way of ['undo', 'redo'] as const) {
        for (let i = 0; i < 30; i++) {
          for (const studio of [calm, restless]) {
            if (way === 'undo' ? studio.timeline.canUndo : studio.timeline.canRedo) studio.apply({ do: way });
          }
        }
        expect(digest(restless)).toBe(digest(calm));
      }
    },
  );

  it.each(['wash-round', 'pastel-soft', 'flat', 'ink-fast'] as const)(
    '%s is put back where the memory moves',
    (tool) => {
      const studio = new Studio(spec('paper-cold'), undefined, new Arena(3 * 2 ** 30, true));
      const empty = digest(studio);
      const stroke = {
        do: 'stroke',
        samples: [
          [0, 5, 5, 0.6],
          [100, 20, 10, 0.6],
        ],
      };
      const acts = [
        { do: 'tool', tool, sizeMm: 5 },
        { do: 'load', mixture: { PB29: 1 } },
        stroke,
        { do: 'dry' },
        stroke,
        { do: 'layer.duplicate', layer: 'L2' },
      ];
      for (const act of acts) studio.apply(commandSchema.parse(act));
      const there = digest(studio);
      for (let i = 0; i < 4; i++) studio.apply({ do: 'undo' });
      expect(digest(studio)).not.toBe(empty); // the brush is loaded
      for (let i = 0; i < 4; i++) studio.apply({ do: 'redo' });
      expect(digest(studio)).toBe(there);
    },
  );
});
