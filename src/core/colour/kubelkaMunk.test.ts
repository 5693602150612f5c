import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { filmReflectance, filmReflectanceFast, infiniteReflectance, toExternal, toInternal } from './kubelkaMunk';

const absorption = fc.double({ min: 0, max: 60, noNaN: true });
const scattering = fc.double({ min: 0, max: 40, noNaN: true });
const reflectance = fc.double({ min: 0, max: 1, noNaN: true });

describe('a film after Kubelka and Munk', () => {
  it('is its substrate when there is no film', () => {
    expect(filmReflectance(0, 0, 0.37)).toBeCloseTo(0.37, 9);
    expect(filmReflectanceFast(0, 0, 0.37)).toBeCloseTo(0.37, 9);
  });

  it('is its masstone when it is thick, whatever lies under it', () => {
    for (const Rg of [0, 0.5, 1]) {
      expect(filmReflectance(40, 160, Rg)).toBeCloseTo(infiniteReflectance(40, 160), 6);
      expect(filmReflectanceFast(40, 160, Rg)).toBeCloseTo(infiniteReflectance(40, 160), 3);
    }
  });

  it('absorbs like Lambert and Beer when it does not scatter', () => {
    expect(filmReflectance(0.4, 0, 0.8)).toBeCloseTo(0.8 * Math.exp(-0.8), 9);
    expect(filmReflectanceFast(0.4, 0, 0.8)).toBeCloseTo(0.8 * Math.exp(-0.8), 3);
  });

  it('gives the same without branches to within half a code of eight bits', () => {
    fc.assert(
      fc.property(absorption, scattering, reflectance, (A, S, Rg) => {
        const exact = toExternal(filmReflectance(A, S, Rg));
        expect(Math.abs(toExternal(filmReflectanceFast(A, S, Rg)) - exact)).toBeLessThan(0.5 / 255);
      }),
      { numRuns: 2000 },
    );
  });

  it('never reflects more than white or less than nothing, and darkens with absorption', () => {
    fc.assert(
      fc.property(absorption, scattering, reflectance, (A, S, Rg) => {
        const R = filmReflectance(A, S, Rg);
        expect(R).toBeGreaterThanOrEqual(-1e-9);
        expect(R).toBeLessThanOrEqual(1 + 1e-9);
        expect(filmReflectance(A + 1, S, Rg)).toBeLessThanOrEqual(R + 1e-9);
      }),
    );
  });
});

describe('the passage through the face of the film', () => {
  it('is undone by its inverse', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.006, max: 0.95, noNaN: true }), (seen) => {
        expect(toExternal(toInternal(seen))).toBeCloseTo(seen, 9);
      }),
    );
  });
});
