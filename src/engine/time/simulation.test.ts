import { describe, expect, it } from 'vitest';
import { commandSchema, type Command } from '@/core/commands/commands';
import { digest } from '@/core/journal/digest';
import { Studio } from '@/core/journal/studio';
import { studioFor } from '@/measure/bench';
import { Simulation } from './simulation';

const apply = (studio: Studio, ...commands: object[]) => commands.forEach((c) => studio.apply(commandSchema.parse(c)));

/** A sheet with a wash that shines, and a simulation that keeps what it writes. */
function sheet() {
  const studio = studioFor(30, 20, { ppi: 80, surface: { kind: 'paper-cold' } });
  apply(
    studio,
    { do: 'tool', tool: 'wash-round', sizeMm: 7 },
    { do: 'load', mixture: { PB29: 1 }, water: 0.8 },
    {
      do: 'stroke',
      samples: [
        [0, 5, 10, 0.8],
        [200, 25, 10, 0.8],
      ],
    },
  );
  const kept: Command[] = [];
  let flowed = 0;
  const simulation = new Simulation({
    changed: () => {},
    flowed: (tiles) => (flowed += tiles.size),
    keep: (command) => kept.push(command),
    tell: () => {},
    plan: () => {},
    dried: () => {},
  });
  return { studio, simulation, kept, flowed: () => flowed };
}
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Lets the clock on the wall go on, turn by turn. */
async function watch({ studio, simulation }: ReturnType<typeof sheet>, turns: number, held = false): Promise<void> {
  simulation.clock.set(performance.now());
  for (let i = 0; i < turns; i++) {
    await pause(60);
    simulation.flow(studio, held);
  }
}

describe('water', () => {
  it('flows while the painter looks on, and what has passed becomes a wait that leads to the same state', async () => {
    const world = sheet();
    const line = [...world.studio.history];
    await watch(world, 8);
    expect(world.flowed()).toBeGreaterThan(0);
    expect(world.kept).toEqual([]);
    world.simulation.endWait(world.studio);
    expect(world.kept).toHaveLength(1);
    expect(world.kept[0]).toMatchObject({ do: 'wait' });
    const again = new Studio(world.studio.begun);
    for (const command of [...line, ...world.kept]) again.apply(command);
    expect(digest(again)).toBe(digest(world.studio));
    world.simulation.endWait(world.studio);
    expect(world.kept).toHaveLength(1);
  });

  it.each([
    ['while the clock is held', true, false],
    ['while something is painted again, or another tab paints', false, true],
  ])('stands still %s', async (_, stopped, held) => {
    const world = sheet();
    if (stopped) world.simulation.clock.pace = 0;
    const before = digest(world.studio);
    await watch(world, 5, held);
    world.simulation.endWait(world.studio);
    expect(world.kept).toEqual([]);
    expect(digest(world.studio)).toBe(before);
  });

  it('goes on under a hand that rests in its stroke, by readings of its own', async () => {
    const { studio, simulation } = sheet();
    studio.beginStroke(undefined, simulation.strokePace(studio));
    studio.addSample([0, 12, 14, 0.6]);
    simulation.read([0, 12, 14, 0.6]);
    expect(simulation.flow(studio, false)).toBe(false);
    await pause(90);
    expect(simulation.flow(studio, false)).toBe(true);
    const { command } = studio.endStroke()!;
    expect(command.samples.length).toBe(2);
    expect(command.samples[1][0]).toBeGreaterThan(60);
    expect(command.samples[1].slice(1)).toEqual([12, 14, 0.6]);
  });
});

it('a tool that lets no time pass has no pace of its own', () => {
  const { studio, simulation } = sheet();
  apply(studio, { do: 'tool', tool: 'graphite' });
  expect(simulation.strokePace(studio)).toBeUndefined();
  expect(
    simulation.waterTime(studio, {
      do: 'stroke',
      samples: [
        [0, 1, 1, 1],
        [900, 9, 9, 1],
      ],
    }),
  ).toBe(0);
});
