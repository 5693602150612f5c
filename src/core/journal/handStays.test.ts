import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { commandSchema, type Command, type CommandInput } from '@/core/commands/commands';
import { PainterError } from '@/core/errors';
import { line, loaded, paint, studioFor } from '@/measure/bench';
import { runs } from '@/measure/thorough';
import { digest } from './digest';
import { effectiveCommands } from './history';
import { Studio } from './studio';

const canvas = (historyBytes?: number) => new Studio(studioFor(30, 24, { ppi: 70 }).spec, historyBytes);
const held = ({ tools }: Studio) => ({ inHand: tools.inHand, settings: tools.current, carried: tools.carried() });
const back: CommandInput = { do: 'undo', hand: 'stays' };
const again: CommandInput = { do: 'redo', hand: 'stays' };

describe('an undo that leaves the hand alone', () => {
  it('leaves tool, size, strength and colour that were chosen since, and gives the tool that painted its paint back', () => {
    const studio = canvas();
    paint(studio, ...loaded('flat', 6, { PB29: 1 }));
    const before = digest(studio);
    const full = studio.tools.carried().level;
    paint(studio, line(4, 6, 26, 6));
    expect(studio.tools.carried().level).toBeLessThan(full);
    paint(
      studio,
      { do: 'tool', tool: 'round', sizeMm: 3.5, strength: 0.4 },
      { do: 'load', mixture: { PR188: 1 }, amount: 0.7 },
    );
    const since = held(studio);
    paint(studio, back);
    expect(held(studio)).toEqual(since);
    // the canvas is as it was, and so is the paint on the flat
    paint(studio, { do: 'tool', tool: 'flat' });
    expect(studio.tools.carried().level).toBeCloseTo(full, 6);
    const bare = canvas();
    paint(bare, ...loaded('flat', 6, { PB29: 1 }));
    expect(digest(bare)).toBe(before);
    expect(studio.painting.active.tiles.every((tile) => !tile?.volume)).toBe(true);
  });

  it('does again what was taken back, and the hand still stays', () => {
    const studio = canvas();
    paint(studio, ...loaded('flat', 6, { PB29: 1 }), line(4, 6, 26, 6), { do: 'tool', tool: 'round', sizeMm: 3 }, back);
    paint(studio, { do: 'tool', tool: 'knife', sizeMm: 11 });
    const now = held(studio);
    paint(studio, again);
    expect(held(studio)).toEqual(now);
    expect(studio.painting.active.tiles.some((tile) => tile?.volume)).toBe(true);
    expect(studio.history.map(({ do: act }) => act)).toEqual(['tool', 'rinse', 'load', 'stroke', 'tool', 'tool']);
  });

  it('as it was in older journals, takes the tools back too', () => {
    const studio = canvas();
    paint(studio, ...loaded('flat', 6, { PB29: 1 }));
    const before = digest(studio);
    paint(studio, line(4, 6, 26, 6), { do: 'tool', tool: 'round', sizeMm: 3 }, { do: 'undo' });
    expect(digest(studio)).toBe(before);
    expect(studio.tools.inHand).toBe('flat');
  });

  const act: fc.Arbitrary<CommandInput> = fc.oneof(
    fc.record({
      do: fc.constant('tool' as const),
      tool: fc.constantFrom('flat', 'round', 'knife', 'finger'),
      sizeMm: fc.integer({ min: 2, max: 8 }),
    }),
    fc.record({
      do: fc.constant('load' as const),
      mixture: fc.constantFrom<Record<string, number>>({ PB29: 1 }, { PY43: 1, PW6: 2 }),
      amount: fc.constantFrom(0.3, 1),
    }),
    fc.constantFrom<CommandInput>({ do: 'wipe' }, { do: 'rinse' }, { do: 'wait', seconds: 20 }, { do: 'layer.add' }),
    fc.integer({ min: 3, max: 20 }).map((y): CommandInput => line(4, y, 26, y + 1)),
    fc.constantFrom<CommandInput>(back, back, again, { do: 'undo' }, { do: 'redo' }),
  );

  it('leads where its journal leads, whether what was there is kept or painted again', () => {
    fc.assert(
      fc.property(fc.array(act, { minLength: 4, maxLength: 22 }), (acts) => {
        const [kept, poor] = [canvas(), canvas(0)];
        const journal: Command[] = [];
        for (const input of acts) {
          const command = commandSchema.parse(input);
          const refused = [kept, poor].map((studio) => {
            try {
              studio.apply(command);
              return false;
            } catch (error) {
              if (!(error instanceof PainterError)) throw error;
              return true;
            }
          });
          expect(refused[0]).toBe(refused[1]);
          if (!refused[0]) journal.push(command);
        }
        expect(digest(poor)).toBe(digest(kept));
        expect(kept.history).toEqual(effectiveCommands(journal));
        const [whole, straight] = [canvas(), canvas()];
        for (const command of journal) whole.apply(command);
        for (const command of kept.history) straight.apply(command);
        expect(digest(whole)).toBe(digest(kept));
        expect(digest(straight)).toBe(digest(kept));
      }),
      { numRuns: runs(60) },
    );
  });
});
