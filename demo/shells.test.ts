import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dome, INSIDE, onValve, OUTSIDE, valvePoint } from './shells';

const valves = fc.constantFrom(OUTSIDE, INSIDE, { ...OUTSIDE, long: 84, beak: [13, 86] as const });
const share = fc.double({ min: 0.02, max: 0.98, noNaN: true });

describe('a mussel valve', () => {
  it('has every place of its own where growth and side say', () => {
    fc.assert(
      fc.property(valves, share, share, (valve, growth, across) => {
        const side = 2 * across - 1;
        const place = onValve(valve, ...valvePoint(valve, growth, side))!;
        expect(place.growth).toBeCloseTo(growth, 6);
        expect(place.side).toBeCloseTo(side, 6);
        expect(onValve(valve, ...valvePoint(valve, 1.03, side))).toBeUndefined();
      }),
    );
  });

  it('was the same shell when it was smaller', () => {
    fc.assert(
      fc.property(valves, share, share, (valve, growth, across) => {
        const [x, y] = valvePoint(valve, growth, 2 * across - 1);
        expect(onValve(valve, x, y, growth + 0.01)).toBeDefined();
        expect(onValve(valve, x, y, growth - 0.01)).toBeUndefined();
      }),
    );
  });

  it('is highest inside, and lies down along its sides and its rim', () => {
    fc.assert(
      fc.property(share, (growth) => {
        expect(dome(growth, 0)).toBeGreaterThan(dome(growth, 0.9));
        expect(dome(growth, 1)).toBe(0);
        expect(dome(1, 0)).toBe(0);
      }),
    );
  });
});
