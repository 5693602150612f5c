import { describe, expect, it } from 'vitest';
import { commandSchema, type Command } from '@/core/commands/commands';
import { PainterError } from '@/core/errors';
import { digest } from '@/core/journal/digest';
import { Studio } from '@/core/journal/studio';
import { line, loaded, studioFor } from '@/measure/bench';
import { randomAct, randomFrom } from '@/measure/randomActs';
import { first } from '@/measure/thorough';
import { Picture } from '@/core/picture/picture';
import { wholeRect } from '@/core/film/tilesIn';
import { effectiveCommands } from '../history';
import { Player, type Place } from './player';

const SURFACES = ['linen-fine', 'paper-cold', 'paper-laid'] as const;

/** A painting at which random things were done, some taken back; what is left of it, and its seal after each. */
function randomHistory(seed: number, count: number) {
  const { spec } = studioFor(26, 20, { ppi: 90, surface: { kind: SURFACES[seed % 3] } });
  const random = randomFrom(seed);
  const studio = new Studio(spec);
  const entries: Command[] = [];
  while (entries.length < count) {
    const command = commandSchema.parse(randomAct(random, spec.widthMm, spec.heightMm));
    try {
      studio.apply(command);
      entries.push(command);
    } catch (error) {
      if (!(error instanceof PainterError)) throw error;
    }
  }
  const history = effectiveCommands(entries);
  const again = new Studio(spec);
  const seals = [digest(again)];
  for (const command of history) {
    again.apply(command);
    seals.push(digest(again));
  }
  return { spec, history, seals, sealed: digest(studio), random };
}

/** A clock that goes on by one whenever it is looked at: a state is kept after so many looks. */
function countedClock() {
  let looks = 0;
  return () => ++looks;
}

const goTo = (player: Player, to: Place) => {
  let turns = 0;
  while (!player.go(to, 3, () => {})) if (++turns > 100_000) throw new Error('It does not come there.');
};

describe('a player', () => {
  it.each(first(3, [1, 2, 3, 4, 5, 6, 7, 8, 9]))(
    'comes to the same bytes at any moment, from wherever it comes (seed %i)',
    (seed) => {
      const { spec, history, seals, sealed, random } = randomHistory(seed, 45);
      const player = new Player(spec, history, { now: countedClock(), keepEvery: 9 });
      const visit = (done: number) => {
        goTo(player, { done, readings: 0 });
        expect(player.place).toEqual({ done, readings: 0 });
        expect(digest(player.studio), `after ${done}`).toBe(seals[done]);
      };
      for (let i = 0; i < 25; i++) {
        // now and then it is left in the middle of something
        player.go({ done: random.below(history.length + 1), readings: random.below(9) }, random.below(9), () => {});
        visit(random.below(history.length + 1));
      }
      while (!player.explore(5, () => {})) continue;
      visit(history.length);
      expect(seals.at(-1)).toBe(sealed);
      visit(0);
    },
    240_000,
  );

  it.each(first(2, [2, 3, 4, 7]))('tells of everything that changes in the picture (seed %i)', (seed) => {
    const { spec, history, random } = randomHistory(seed, 40);
    const player = new Player(spec, history, { now: countedClock(), keepEvery: 7 });
    let picture = new Picture(player.studio.painting);
    picture.update(wholeRect(player.studio.painting));
    const pixels = (of: Picture) => {
      const { arena, width, height } = of.painting;
      return arena.u32.slice(of.lit, of.lit + width * height).join();
    };
    for (let i = 0; i < 20; i++) {
      const to = { done: random.below(history.length), readings: random.below(6) };
      const arrived = { is: false };
      while (!arrived.is) {
        arrived.is = player.go(to, 4, (rect, canvas) => {
          if (canvas) picture = new Picture(player.studio.painting);
          picture.update(canvas ? wholeRect(player.studio.painting) : rect);
        });
      }
      const anew = new Picture(player.studio.painting);
      anew.update(wholeRect(player.studio.painting));
      expect(pixels(picture) === pixels(anew), `at ${to.done}, ${to.readings}`).toBe(true);
      anew.dispose();
    }
  });

  it('keeps as much as it may, and has all moments within the same reach of one that is kept', () => {
    const { spec } = studioFor(60, 40, { ppi: 101.6 });
    const history = [
      ...loaded('flat', 8, { PB29: 1, PW6: 2 }),
      ...Array.from({ length: 60 }, (_, i) => line(4, 3 + ((i * 7) % 34), 56, 3 + ((i * 11) % 34))),
    ].map((command) => commandSchema.parse(command));
    const keeping = (mostBytes: number) => {
      const player = new Player(spec, history, { now: countedClock(), keepEvery: 5, mostBytes });
      while (!player.explore(1000, () => {})) continue;
      return player;
    };
    const [ample, scarce] = [keeping(1e9), keeping(4e6)];
    expect(ample.keptBytes).toBeGreaterThan(4e6);
    expect(scarce.keptBytes).toBeLessThanOrEqual(4e6);
    goTo(scarce, { done: 20, readings: 0 });
    goTo(ample, { done: 20, readings: 0 });
    expect(digest(scarce.studio)).toBe(digest(ample.studio));
  });

  it('says which step cannot be painted again', () => {
    const { spec } = studioFor(20, 20);
    const player = new Player(spec, [commandSchema.parse({ do: 'layer.choose', layer: 'L9' })]);
    expect(() => player.go(player.end, 10, () => {})).toThrow(/^Step 1 cannot be painted again: /);
  });
});
