import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { commandSchema, type Command, type CommandInput } from '@/core/commands/commands';
import { line, loaded } from '@/measure/bench';
import { randomAct, randomFrom } from '@/measure/randomActs';
import { PlayTimes } from './playTimes';
import { placeBefore } from './player';
import { stageWords, Told } from './stages';

const read = (commands: readonly CommandInput[]): Command[] => commands.map((command) => commandSchema.parse(command));
const strokes = (count: number) => Array.from({ length: count }, (_, i) => line(2, 2 + (i % 2), 30, 2 + (i % 2)));

const PAINTED = read([
  ...loaded('flat', 40, { PB29: 1, PW6: 3 }),
  ...strokes(10),
  { do: 'tool', tool: 'flat', sizeMm: 12 },
  ...strokes(5),
  { do: 'leave', hours: 72 },
  ...loaded('rigger', 2, { PBk9: 1 }),
  ...strokes(1),
  { do: 'tool', tool: 'flat' },
  ...strokes(6),
  { do: 'layer.add', name: 'Lights' },
  ...loaded('knife', 20, { PW6: 1 }),
  ...strokes(7),
]);

describe('stages', () => {
  it('are strokes that are alike; a single one of another tool between them is no stage of its own', () => {
    const { stages } = new Told(PAINTED);
    expect(stages.map(({ strokes: [a, b], layer }) => [a, b, layer])).toEqual([
      [1, 10, 'L2'],
      [11, 22, 'L2'],
      [23, 29, 'L3'],
    ]);
    expect(stages.map(stageWords)).toEqual([
      'Flat, 40 mm',
      'Flat, 12 mm, and Rigger',
      expect.stringMatching(/, 20 mm$/),
    ]);
  });

  it('say of every place what is in hand, and what time passes', () => {
    const told = new Told(PAINTED);
    const at = (done: number) => told.inHandAt(done);
    expect(at(0)).toBeUndefined();
    expect(at(3)!.tool).toMatch(/ 40 mm$/);
    expect(at(3)!.paint).toBe('3 White, 1 Ultramarine');
    const leave = PAINTED.findIndex(({ do: does }) => does === 'leave');
    expect(told.pauseAt(leave)).toBe('Left for 3 days');
    expect(told.pauseAt(leave + 1)).toBe('');
    expect(at(leave)!.tool).toMatch(/ 12 mm$/);
    expect(at(PAINTED.length)!.paint).toBe('White');
    expect([0, 3, 4, PAINTED.length].map((done) => told.made(done))).toEqual([0, 0, 1, 29]);
    expect(new Told([]).stages).toEqual([]);
  });

  it('hold every stroke on the canvas once, whatever was done', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const random = randomFrom(seed);
        const history = Array.from({ length: 120 }, () => commandSchema.parse(randomAct(random, 30, 20)));
        const told = new Told(history);
        let next = 0;
        for (const { from, until, number } of told.stages) {
          expect(from).toBeGreaterThanOrEqual(next);
          expect(told.stageAt(from)!.number).toBe(number);
          expect(told.made(until)).toBeGreaterThan(told.made(from));
          next = until;
        }
        if (told.count > 0) expect(next).toBe(history.length);
        const on = history.filter((c) => c.do === 'stroke' && !c.on).length;
        expect(told.made(history.length)).toBe(on);
      }),
      { numRuns: 30 },
    );
  });
});

describe('times of playing', () => {
  it('are even by strokes, or as the hand took, and last as long as they are to', () => {
    const even = new PlayTimes(PAINTED, { by: 'stroke', seconds: 20 });
    expect(even.total).toBeCloseTo(20, 9);
    const ten = even.timeOf({ done: 13, readings: 0 }) - even.timeOf({ done: 3, readings: 0 });
    expect(ten / 10).toBeCloseTo(20 / (29 + 2), 6);
    const painted = new PlayTimes(PAINTED, { by: 'time' });
    expect(painted.total).toBeCloseTo(29 * (0.96 + 0.25) + 0.6, 6);
    expect(new PlayTimes([], { by: 'time', seconds: 9 }).total).toBe(0);
  });

  it('lead from a time to a place and back, never backwards', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.constantFrom('stroke' as const, 'time' as const),
        fc.option(fc.double({ min: 0.5, max: 900, noNaN: true }), { nil: undefined }),
        (seed, by, seconds) => {
          const random = randomFrom(seed);
          const history = Array.from({ length: 60 }, () => commandSchema.parse(randomAct(random, 30, 20)));
          const times = new PlayTimes(history, { by, seconds });
          let last = times.placeAt(-1);
          expect(last).toEqual({ done: 0, readings: 0 });
          for (let k = 0; k <= 200; k++) {
            const t = (times.total * k) / 200;
            const place = times.placeAt(t);
            expect(placeBefore(place, last)).toBe(false);
            expect(times.timeOf(place)).toBeLessThanOrEqual(t + 1e-9);
            // the next is not yet
            const { done, readings } = place;
            const stroke = history[done]?.do === 'stroke';
            const next = stroke ? { done, readings: readings + 1 } : { done: done + 1, readings: 0 };
            expect(times.timeOf(next)).toBeGreaterThanOrEqual(t - 1e-9);
            last = place;
          }
          expect(times.placeAt(times.total + 1)).toEqual({ done: history.length, readings: 0 });
        },
      ),
      { numRuns: 40 },
    );
  });
});
