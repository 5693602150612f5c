import { describe, expect, it } from 'vitest';
import { WaterClock } from './waterClock';

/** A clock set now, on a machine that needs some ms for each wet tile in a step. */
function clockOn(msPerTile: number): { clock: WaterClock; now: number } {
  const clock = new WaterClock();
  // whole ms: a step more or less would hang on the last digit
  const now = Math.ceil(performance.now());
  for (let i = 0; i < 60; i++) clock.ran(1, msPerTile * 40, 40);
  clock.set(now);
  return { clock, now };
}

describe('the clock of wet paper', () => {
  it('owes a step for every 50 ms, and none while it is held', () => {
    const { clock, now } = clockOn(0.01);
    expect(clock.due(now + 151, 10)).toBe(3);
    clock.ran(3, 0.3, 10);
    expect(clock.due(now + 190, 10)).toBe(0);
    clock.pace = 0;
    expect(clock.due(now + 5000, 10)).toBe(0);
  });

  it('goes as fast as the painter wants it, and catches up with no more than a few steps', () => {
    const { clock, now } = clockOn(0.01);
    clock.pace = 4;
    expect(clock.due(now + 50, 10)).toBe(4);
    expect(clock.due(now + 60_000, 10)).toBe(8);
  });

  it('is not told to go slower where the machine keeps up', () => {
    const { clock } = clockOn(0.05);
    expect(clock.strokePace(100)).toBeUndefined();
    expect(clock.lag(100)).toBe(1);
    expect(clock.strokePace(0)).toBeUndefined();
  });

  it('goes slower the more of the sheet is wet, so that water takes its share of the time and no more', () => {
    const { clock } = clockOn(0.2);
    const paces = [200, 400, 800].map((tiles) => clock.strokePace(tiles)!);
    expect(paces[0]).toBeLessThan(1);
    expect(paces[1] / paces[0]).toBeCloseTo(0.5, 1);
    expect(paces[2]).toBeLessThan(paces[1]);
    // steps a second times what a step costs
    for (const [i, tiles] of [200, 400, 800].entries()) {
      const share = (paces[i] * 20 * clock.cost(1, tiles)) / 1000;
      expect(share).toBeGreaterThan(0.3);
      expect(share).toBeLessThan(0.65);
    }
  });

  it('is not upset by one busy moment', () => {
    const { clock } = clockOn(0.05);
    const before = clock.cost(1, 100);
    clock.ran(1, 5000, 40);
    expect(clock.cost(1, 100) / before).toBeLessThan(1.7);
  });
});
