import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pigmentIndex } from '@/core/colour/pigments';
import { Arena } from '@/core/film/arena';
import { makeFootprint } from './footprint';
import { glazed } from './reservoir';
import {
  carriedMixture,
  cloneReservoir,
  emptyReservoir,
  keepShare,
  loadReservoir,
  reservoirMass,
  resizeReservoir,
  type PaintMake,
} from './reservoir';
import { COAT_UM } from '@/core/film/packing/stratum';
import { FORMS } from './brushForms';

const footprint = (id: 'flat' | 'round' | 'filbert', sizeMm = 10, mmPerPx = 0.17) =>
  makeFootprint(new Arena(), FORMS[id], sizeMm, mmPerPx, 3);

function brush(sizeMm = 10) {
  const f = footprint('flat', sizeMm);
  const reservoir = emptyReservoir(f.across, f.along, 0.5, 220);
  const make: PaintMake = { body: 0.6, thin: 0, solvent: 0, gel: 0, retarder: 0, vehicle: 'oil' };
  const carrier = { across: f.across, along: f.along, cellMm2: 0.5, hairy: f.hairy, tipUm: 220, tuftUm: 2200 };
  const load = (mixture: Record<string, number>, more: object = {}, made: Partial<PaintMake> = {}) =>
    loadReservoir(reservoir, { mixture, amount: 1, make: { ...make, ...made }, carrier, seed: 4, ...more });
  return { f, reservoir, load };
}
const sum = (plane: Float32Array) => plane.reduce((a, b) => a + b, 0);

describe('the paint in a brush', () => {
  it('is the mixture that was loaded, at the strength of tube paint', () => {
    const { reservoir, load } = brush();
    load({ PB29: 1, PW6: 3 });
    const mass = reservoirMass(reservoir);
    expect(mass[pigmentIndex('PW6')] / mass[pigmentIndex('PB29')]).toBeCloseTo(3, 4);
    const volume = (sum(reservoir.tipVolume) + sum(reservoir.tuftVolume)) * reservoir.cellMm2;
    expect((mass[pigmentIndex('PB29')] + mass[pigmentIndex('PW6')]) / (volume / COAT_UM)).toBeCloseTo(1, 4);
  });

  it('is thinner with medium', () => {
    const { reservoir, load } = brush();
    load({ PB29: 1 }, {}, { thin: 0.6 });
    const volume = sum(reservoir.tipVolume) + sum(reservoir.tuftVolume);
    expect(((sum(reservoir.tipMass[0]) + sum(reservoir.tuftMass[0])) * COAT_UM) / volume).toBeCloseTo(glazed(0.6), 4);
  });

  it('is only topped up by loading again', () => {
    const { reservoir, load } = brush();
    load({ PB29: 1 });
    const before = reservoirMass(reservoir)[pigmentIndex('PB29')];
    load({ PY43: 1 });
    expect(reservoirMass(reservoir)[pigmentIndex('PB29')]).toBe(before);
    expect(reservoirMass(reservoir)[pigmentIndex('PY43')]).toBeLessThan(1e-6 * before);
    keepShare(reservoir, 0.5);
    load({ PY43: 1 });
    expect(reservoirMass(reservoir)[pigmentIndex('PY43')] / before).toBeCloseTo(0.5, 2);
  });

  it('lies on one side for an edge colour', () => {
    const { f, reservoir, load } = brush();
    load({ PB29: 1 }, { edge: { mixture: { PY35: 1 } } });
    const side = (plane: Float32Array, right: boolean) =>
      plane.reduce((a, v, c) => a + (c % f.across >= f.across / 2 === right ? v : 0), 0);
    const blue = reservoir.tuftMass[reservoir.pigments.indexOf(pigmentIndex('PB29'))];
    const yellow = reservoir.tuftMass[reservoir.pigments.indexOf(pigmentIndex('PY35'))];
    expect(side(blue, false)).toBeGreaterThan(8 * side(blue, true));
    expect(side(yellow, true)).toBeGreaterThan(8 * side(yellow, false));
  });

  it('is wiped in proportion and rinsed entirely', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 0.99, noNaN: true }), (share) => {
        const { reservoir, load } = brush();
        load({ PB29: 1, PR188: 2 });
        const before = reservoirMass(cloneReservoir(reservoir));
        keepShare(reservoir, share);
        reservoirMass(reservoir).forEach((m, i) => expect(m).toBeCloseTo(before[i] * share, 3));
        keepShare(reservoir, 0);
        expect(reservoir.pigments).toEqual([]);
        expect(sum(reservoirMass(reservoir) as unknown as Float32Array)).toBe(0);
      }),
      { numRuns: 20 },
    );
  });

  it('is as thick in a brush of another size', () => {
    const { reservoir, load } = brush(10);
    load({ PB29: 1 });
    const wide = footprint('flat', 24);
    const resized = resizeReservoir(reservoir, emptyReservoir(wide.across, wide.along, 0.5, 220), wide.hairy);
    const thickness = (r: typeof reservoir) => sum(r.tuftVolume) / r.tuftVolume.filter((v) => v > 0).length;
    expect(thickness(resized) / thickness(reservoir)).toBeCloseTo(1, 3);
    expect([...carriedMixture(resized).keys()]).toEqual([pigmentIndex('PB29')]);
  });
});

describe('the form of a brush', () => {
  it.each(['flat', 'round', 'filbert'] as const)('of a %s has its size, and hair within it', (id) => {
    const f = footprint(id, 12, 0.2);
    expect(f.widthPx).toBeCloseTo(60, 6);
    expect(2 * f.halfLength).toBeCloseTo(60 * FORMS[id].aspect, 0);
    const hairy = f.hairy.reduce((a, b) => a + b, 0) / f.hairy.length;
    expect(hairy).toBeGreaterThan(0.5);
    expect(f.hairy.length).toBe(f.across * f.along);
  });

  it('has the same bristles at every resolution', () => {
    const arena = new Arena();
    const comb = (mmPerPx: number) => {
      const f = makeFootprint(arena, FORMS.flat, 12, mmPerPx, 3);
      const row = Math.floor(f.mapLength / 2) * f.mapWidth;
      return Array.from({ length: 40 }, (_, k) => {
        const at = row + Math.round(((k + 0.5) / 40) * (f.mapWidth - 1));
        return arena.f32[(f.profile >> 2) + 2 * at + 1];
      });
    };
    const [a, b] = [comb(0.12), comb(0.25)];
    const m = (v: number[]) => v.reduce((x, y) => x + y, 0) / v.length;
    const cov = m(a.map((v, i) => (v - m(a)) * (b[i] - m(b))));
    const sd = (v: number[]) => Math.sqrt(m(v.map((x) => (x - m(v)) ** 2)));
    expect(cov / (sd(a) * sd(b))).toBeGreaterThan(0.6);
  });

  it('gives its memory back', () => {
    const arena = new Arena();
    const before = arena.used;
    makeFootprint(arena, FORMS.filbert, 20, 0.17, 3).dispose();
    expect(arena.used).toBe(before);
  });
});
