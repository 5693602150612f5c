import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TUBE_SETS } from '@/core/colour/tubeSets';
import { Painting } from '@/core/film/painting';
import { PainterError } from '@/core/errors';
import { isSheet, MADE_SURFACES } from '@/core/surface/heightField';
import {
  AT_FIRST,
  lacks,
  lastPreparation,
  onSurface,
  paletteOf,
  pixelsOf,
  specOf,
  started,
  STARTS,
  surfaceOf,
  toneOf,
  type Preparation,
} from './preparation';

const anyKind = fc.constantFrom(...MADE_SURFACES);

describe('a preparation', () => {
  it('of any support, however one came to it, can be painted on, and says what it will be', () => {
    fc.assert(
      fc.property(
        fc.array(anyKind, { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 50, max: 140 }),
        (kinds, ppi) => {
          const it = kinds.reduce(onSurface, { ...AT_FIRST, ppi, widthMm: 30, heightMm: 20 });
          const spec = specOf(it, 3, []);
          expect(spec.surface.kind).toBe(kinds.at(-1));
          // a tone where paint has a body, bare paper otherwise
          expect(spec.tone === undefined).toBe(isSheet(it.kind));
          expect(spec.surface.tint === undefined).toBe(!isSheet(it.kind));
          const { width, height } = new Painting(spec);
          expect(pixelsOf(it)).toMatchObject({ width, height });
          expect(lacks(it)).toBe('');
        },
      ),
      { numRuns: 12 },
    );
  });

  it.each(STARTS)('is begun from “$name” with tubes that there are', (start) => {
    const it = started({ ...AT_FIRST, kind: 'panel', scale: 2, title: 'Bay' }, start);
    expect(it).toMatchObject({ title: 'Bay', scale: 1, kind: start.of.kind });
    const set = TUBE_SETS.find(({ id }) => id === it.tubes)!;
    const palette = paletteOf(it, set);
    expect(palette.tubes).toEqual(set.tubes);
    // what it is toned with is at hand
    expect(Object.keys(toneOf(it)).filter((id) => !set.tubes.includes(id))).toEqual([]);
    expect(specOf(it, 1, []).surface.kind).toBe(start.of.kind);
  });

  it('leaves out of the tone what has no part', () => {
    expect(toneOf({ ...AT_FIRST, tone: { PW6: 2, PY43: 0 } })).toEqual({ PW6: 2 });
    expect(specOf({ ...AT_FIRST, tone: { PY43: 0 } }, 1, []).tone).toBeUndefined();
  });

  it('says what it lacks', () => {
    expect(lacks({ ...AT_FIRST, widthMm: 3000, heightMm: 3000, ppi: 300 })).toMatch(/million pixels/);
    expect(lacks({ ...AT_FIRST, kind: 'own' })).toMatch(/scan/);
    expect(() => specOf({ ...AT_FIRST, kind: 'own' }, 1, [])).toThrow(PainterError);
    expect(() => specOf({ ...AT_FIRST, widthMm: 1 }, 1, [])).toThrow(PainterError);
    expect(surfaceOf({ ...AT_FIRST, kind: 'own' }).own).toBeUndefined();
  });

  it('is kept for the next painting, but for a scan', async () => {
    expect(await lastPreparation.read()).toBeUndefined();
    const it: Preparation = { ...onSurface(AT_FIRST, 'paper-rough'), sizing: 0.35, tubes: 'earth' };
    await lastPreparation.write(it);
    expect(await lastPreparation.read()).toEqual(it);
    await lastPreparation.write({ ...it, kind: 'own' });
    expect(await lastPreparation.read()).toBeUndefined();
  });
});
