import { describe, expect, test } from 'vitest';
import { bandSet } from './bands';
import { deltaE2000 } from './deltaE2000';
import { masstoneLab, type Mixture } from './mixture';
import { knowPaint, makeOwnPaint } from './ownPaints';
import { FIRST_OWN, isColoured, isTube, pigmentIndex, PIGMENTS, pigmentName, tube, TABLE_COUNT } from './pigments';
import { reduceToBands } from './reduceBands';
import { masstoneSpectrum, pigmentSpectrum, spectrumToLab } from './spectrum';

const MIXED: readonly ((id: string) => Mixture)[] = [
  (id) => ({ [id]: 1 }),
  (id) => ({ [id]: 1, PW4: 6 }),
  (id) => ({ [id]: 1, PY43: 8 }),
  (id) => ({ [id]: 1, PB28: 2 }),
  (id) => ({ [id]: 1, PR122: 1, PW6: 3 }),
];

describe('a spectrum fitted into few bands', () => {
  test.each([8, 12] as const)('%i bands: a known pigment mixes as in 36', (count) => {
    const bands = bandSet(count);
    const errors = PIGMENTS.filter((_, i) => i % 4 === 1).flatMap(({ id }) => {
      const spectrum = pigmentSpectrum(id)!;
      const { K, S } = reduceToBands(spectrum, bands);
      const row = pigmentIndex(id) * count;
      const [k, s] = [bands.K.slice(row, row + count), bands.S.slice(row, row + count)];
      // stands in for the table's own row for as long as it is looked at
      bands.K.set(K, row);
      bands.S.set(S, row);
      const found = MIXED.map((mix) =>
        deltaE2000(masstoneLab(mix(id), bands), spectrumToLab(masstoneSpectrum(mix(id)))),
      );
      bands.K.set(k, row);
      bands.S.set(s, row);
      return found;
    });
    expect(errors.reduce((p, q) => p + q, 0) / errors.length).toBeLessThan(0.3);
    expect(Math.max(...errors)).toBeLessThan(2.5);
  });
});

describe('an own paint among the tubes', () => {
  const { K, S } = pigmentSpectrum('PB28')!;
  const paint = makeOwnPaint('Pewter sky', K, S);
  test('gets a place after all others, a label, and is coloured', () => {
    expect(isTube(paint.id)).toBe(false);
    expect(pigmentName(paint.id)).toBe('Unknown paint');
    knowPaint(paint);
    knowPaint(paint);
    const at = pigmentIndex(paint.id);
    expect(at).toBeGreaterThanOrEqual(FIRST_OWN);
    expect(at).toBeLessThan(TABLE_COUNT);
    expect(isColoured(at)).toBe(true);
    expect(isColoured(FIRST_OWN - 1)).toBe(false);
    expect(tube(paint.id)).toMatchObject({ name: 'Pewter sky', transparency: tube('PB28')!.transparency });
    expect(tube(paint.id)!.hiding).toBeCloseTo(tube('PB28')!.hiding, 1);
    expect(tube(paint.id)!.tintingStrength).toBeCloseTo(tube('PB28')!.tintingStrength, 1);
    expect(tube(paint.id)!.masstoneHex).toMatch(/^#[0-9a-f]{6}$/);
  });
  test('another name or one other number is another paint', () => {
    const ids = [
      makeOwnPaint('Pewter sky', K, S),
      makeOwnPaint('Pewter', K, S),
      makeOwnPaint(
        'Pewter sky',
        K.map((k, i) => (i === 9 ? k * 1.01 : k)),
        S,
      ),
    ].map((p) => p.id);
    expect(new Set(ids).size).toBe(3);
    expect(ids[0]).toBe(paint.id);
  });
});
