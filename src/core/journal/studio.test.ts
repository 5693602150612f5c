import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TOOL_IDS } from '@/core/tools/tools';
import { field, line, loaded, paint, studioFor } from '@/measure/bench';
import { runs } from '@/measure/thorough';
import { commandSchema, type Command, type CommandInput } from '@/core/commands/commands';
import { digest } from './digest';
import { PainterError } from '@/core/errors';
import { changesPainting, effectiveCommands } from './history';
import { Studio } from './studio';

const position = fc.double({ min: -4, max: 44, noNaN: true });
const pressure = fc.double({ min: 0.02, max: 1, noNaN: true });
const tubes = fc.constantFrom('PW6', 'PB29', 'PY35', 'PR188', 'PBr7BU', 'PB15_3');

/** Any command that a painter can give on a small painting; what does not fit the moment is refused. */
const anyCommand: fc.Arbitrary<CommandInput> = fc.oneof(
  {
    weight: 6,
    arbitrary: fc
      .array(fc.tuple(position, position, pressure), { minLength: 1, maxLength: 5 })
      .map((points) => ({ do: 'stroke' as const, samples: points.map(([x, y, p], i) => [i * 30, x, y, p]) })),
  },
  {
    weight: 4,
    arbitrary: fc.record({
      do: fc.constant('tool' as const),
      tool: fc.constantFrom(...TOOL_IDS),
      sizeMm: fc.double({ min: 1, max: 14, noNaN: true }),
      strength: fc.double({ min: 0.1, max: 1, noNaN: true }),
      blend: fc.double({ min: 0, max: 1, noNaN: true }),
      body: fc.double({ min: 0, max: 1, noNaN: true }),
      thin: fc.double({ min: 0, max: 0.9, noNaN: true }),
    }),
  },
  {
    weight: 4,
    arbitrary: fc
      .tuple(tubes, tubes, fc.double({ min: 0.1, max: 2, noNaN: true }))
      .map(([a, b, amount]) => ({ do: 'load' as const, mixture: { [a]: 1, [b]: 2 }, amount })),
  },
  { weight: 1, arbitrary: fc.constantFrom<CommandInput>({ do: 'wipe' }, { do: 'rinse' }, { do: 'wait', seconds: 60 }) },
  { weight: 1, arbitrary: fc.constant<CommandInput>({ do: 'dry' }) },
  { weight: 2, arbitrary: fc.constantFrom<CommandInput>({ do: 'undo' }, { do: 'redo' }) },
  {
    weight: 2,
    arbitrary: fc.constantFrom<CommandInput>(
      { do: 'layer.add' },
      { do: 'layer.choose', layer: 'L2' },
      { do: 'layer.move', layer: 'L2', to: 0 },
      { do: 'layer.set', layer: 'L2', visible: false },
      { do: 'layer.set', layer: 'L2', visible: true },
      { do: 'layer.remove', layer: 'L3' },
    ),
  },
);
const anyJournal = fc.array(anyCommand, { minLength: 4, maxLength: 22 });

/** Applies what can be applied, and returns it. */
function play(studio: Studio, journal: readonly CommandInput[]): Command[] {
  const done: Command[] = [];
  for (const input of journal) {
    const command = commandSchema.parse(input);
    try {
      studio.apply(command);
      done.push(command);
    } catch (error) {
      if (!(error instanceof PainterError)) throw error;
    }
  }
  return done;
}

const small = (historyBytes?: number) => new Studio(studioFor(40, 40).spec, historyBytes);

describe('any journal', () => {
  it('keeps the mass of every pigment', () => {
    fc.assert(
      fc.property(anyJournal, (journal) => {
        const studio = small();
        play(studio, journal);
        for (const m of Object.values(studio.massBalance())) {
          const found = m.film + m.settled + m.strata + m.tool + m.removed;
          expect(Math.abs(found - m.loaded)).toBeLessThanOrEqual(1e-4 * m.loaded);
          for (const part of [m.film, m.strata, m.tool]) expect(part).toBeGreaterThanOrEqual(0);
        }
      }),
      { numRuns: runs(30) },
    );
  });

  it('gives the same bytes twice, and when what was undone is left out', () => {
    fc.assert(
      fc.property(anyJournal, (journal) => {
        const studio = small();
        const done = play(studio, journal);
        const again = small();
        play(again, done);
        expect(digest(again)).toBe(digest(studio));
        const straight = small();
        for (const command of effectiveCommands(done)) straight.apply(command);
        expect(digest(straight)).toBe(digest(studio));
      }),
      { numRuns: runs(14) },
    );
  });

  it('can be undone to the beginning and redone, byte for byte, with tiles kept or by painting again', () => {
    fc.assert(
      fc.property(anyJournal, fc.constantFrom(600e6, 0), (journal, historyBytes) => {
        const studio = small(historyBytes);
        play(
          studio,
          journal.filter((c) => c.do !== 'undo' && c.do !== 'redo'),
        );
        const states = [digest(studio)];
        // brush work after the last change to the painting is taken back with it
        const tail = studio.history.slice(studio.history.findLastIndex(changesPainting) + 1);
        while (studio.timeline.canUndo) {
          studio.apply({ do: 'undo' });
          states.push(digest(studio));
        }
        while (studio.timeline.canRedo) {
          expect(digest(studio)).toBe(states.pop());
          studio.apply({ do: 'redo' });
        }
        expect(studio.history.length).toBeGreaterThanOrEqual(tail.length);
        expect(digest(studio)).toBe(states.pop());
        expect(states).toEqual([]);
      }),
      { numRuns: runs(14) },
    );
  });
});

describe('undo', () => {
  it('takes over what lay under its steps from a studio that was painted beside it', () => {
    fc.assert(
      fc.property(anyJournal, fc.nat(), (journal, cut) => {
        const whole = small();
        play(
          whole,
          journal.filter((c) => c.do !== 'undo' && c.do !== 'redo'),
        );
        const { history } = whole;
        const until = cut % (history.length + 1);
        const [opened, beside] = [small(), small()];
        for (const command of history.slice(0, until)) for (const each of [opened, beside]) each.apply(command);
        // as a snapshot is opened: nothing is known of what lay under the steps; and it is painted on
        opened.timeline.adopt(opened.history);
        for (const command of history.slice(until)) opened.apply(command);
        opened.timeline.adoptPast(beside.timeline);
        while (whole.timeline.canUndo) {
          for (const each of [whole, opened]) each.apply({ do: 'undo' });
          expect(digest(opened)).toBe(digest(whole));
        }
        while (whole.timeline.canRedo) {
          for (const each of [whole, opened]) each.apply({ do: 'redo' });
          expect(digest(opened)).toBe(digest(whole));
        }
      }),
      { numRuns: runs(14) },
    );
  });

  it('brings back the paint, its wetness, and the load of the brush', () => {
    const studio = small();
    paint(studio, ...loaded('flat', 8, { PB29: 1 }));
    const before = digest(studio);
    paint(studio, line(4, 20, 36, 20));
    const after = digest(studio);
    paint(studio, { do: 'wipe' }, { do: 'undo' });
    expect(digest(studio)).toBe(before);
    paint(studio, { do: 'tool', tool: 'round' }, { do: 'redo' });
    expect(studio.tools.inHand).toBe('flat');
    paint(studio, { do: 'undo' });
    expect(digest(studio)).toBe(before);
    paint(studio, line(4, 20, 36, 20));
    expect(digest(studio)).toBe(after);
    expect(studio.timeline.canRedo).toBe(false);
  });

  it('says when there is nothing to take back or to do again', () => {
    const studio = small();
    expect(() => studio.apply({ do: 'undo' })).toThrow(/nothing to take back/);
    expect(() => studio.apply({ do: 'redo' })).toThrow(/nothing to do again/);
  });
});

describe('layers', () => {
  it('can be added, chosen, moved, hidden and removed, and the numbers of new ones go on', () => {
    const studio = small();
    paint(studio, { do: 'layer.add', name: 'Glaze' }, { do: 'layer.move', layer: 'L3', to: 0 });
    expect(studio.painting.layers.map((l) => l.name)).toEqual(['Glaze', 'Sketch', 'Paint']);
    expect(studio.painting.active.name).toBe('Glaze');
    paint(studio, { do: 'layer.remove', layer: 'L3' });
    expect(studio.painting.active.name).toBe('Paint');
    paint(studio, { do: 'layer.add', kind: 'drawing' });
    expect(studio.painting.active.id).toBe('L4');
    expect(() => paint(studio, { do: 'layer.remove', layer: 'L2' })).toThrow(/needs one paint layer/);
    expect(() => paint(studio, { do: 'layer.choose', layer: 'L9' })).toThrow(/no layer "L9"/);
  });

  it('keep their paint apart: what lies on another layer is not picked up', () => {
    const studio = small();
    paint(studio, ...field([2, 2, 36, 36], { PY35: 1 }, 12), { do: 'layer.add' });
    paint(studio, ...loaded('flat', 8, { PB29: 1 }), line(4, 20, 36, 20));
    expect(Object.keys(studio.tools.carried().mixture)).toEqual(['PB29']);
    expect(studio.painting.active.tiles.flatMap((t) => t?.pigments ?? []).length).toBeGreaterThan(0);
  });
});

describe('memory', () => {
  it('is taken only where there is paint, and given back when it is undone', () => {
    const studio = studioFor(400, 400);
    const empty = studio.painting.arena.used;
    paint(studio, ...loaded('round', 4, { PB29: 1 }), line(20, 20, 40, 20));
    const tiles = studio.painting.active.tiles.filter(Boolean).length;
    expect(tiles).toBeGreaterThan(0);
    expect(tiles).toBeLessThan(12);
    paint(studio, { do: 'undo' });
    expect(studio.painting.active.tiles.filter(Boolean).length).toBe(0);
    // the brush's own maps stay
    expect(studio.painting.arena.used - empty).toBeLessThan(200_000);
  });
});
