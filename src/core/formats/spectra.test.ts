import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { derivePaint } from '@/core/colour/derivePaint';
import { knowPaint, makeOwnPaint, ownPaintId } from '@/core/colour/ownPaints';
import { masstoneLab, type Mixture } from '@/core/colour/mixture';
import { PIGMENTS, tube } from '@/core/colour/pigments';
import { masstoneSpectrum, pigmentSpectrum, spectrumToLab, WAVELENGTHS } from '@/core/colour/spectrum';
import { ownPaintSchema } from '@/core/journal/journalSchema';
import { PainterError } from '@/core/errors';
import { measurePaint } from '@/devices/spectrometer';
import { readCgats, writeCgats } from './cgats';
import { readCxf, writeCxf } from './cxf';
import { pairUp, paintFrom, readSpectra } from './paintMeasurement';
import { MAX_SPECTRA_BYTES, resampled, type SpectralSample } from './spectra';
import { decodeTubeSet, encodeTubeSet } from './tubeSetFile';

const DAY = new Date('2026-11-23T12:00:00Z');
const anySample = fc
  .record({
    name: fc.string({ maxLength: 60 }),
    r: fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 36, maxLength: 36 }),
  })
  .map(({ name, r }): SpectralSample => ({ name, wavelengths: WAVELENGTHS, reflectance: r }));

describe.each([
  ['CGATS', writeCgats, readCgats],
  ['CxF3', writeCxf, readCxf],
] as const)('%s', (_, write, read) => {
  test('what is written here is read again, whatever it is called', () => {
    fc.assert(
      fc.property(fc.array(anySample, { minLength: 1, maxLength: 4 }), (samples) => {
        const again = read(write(samples, 'drawdowns', DAY));
        expect(again).toHaveLength(samples.length);
        again.forEach((sample, i) => {
          expect(sample.wavelengths).toEqual(WAVELENGTHS);
          sample.reflectance.forEach((r, k) => expect(r).toBeCloseTo(samples[i].reflectance[k], 5));
          // names keep their words; quotes and control characters become blanks
          const plain = samples[i].name
            .replace(/["\u0000-\u001f\u007f]/g, ' ')
            .replace(/\s+/g, ' ')
            .trim();
          expect(sample.name).toBe(plain || 'sample');
        });
        // and written again it is the same, letter by letter
        expect(write(again, 'drawdowns', DAY)).toBe(write(read(write(again, 'drawdowns', DAY)), 'drawdowns', DAY));
      }),
      { numRuns: 60, seed: 3 },
    );
  });

  test('nothing to write, and samples that do not go together, are refused', () => {
    expect(() => write([], 'none', DAY)).toThrow(RangeError);
    const one = { name: 'a', wavelengths: [400, 410, 420], reflectance: [0.1, 0.2, 0.3] };
    expect(() => write([one, { ...one, wavelengths: [400, 415, 420] }], 'odd', DAY)).toThrow(RangeError);
  });

  test('a damaged file ends in a sentence, never in anything else', () => {
    const whole = write(measurePaint('Mussel blue', { PB29: 2, PBr7BU: 1 }, 10, 4), 'Mussel blue', DAY);
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: whole.length - 1 }),
        fc.integer({ min: 0, max: 400 }),
        fc.string({ maxLength: 12 }),
        (from, length, instead) => {
          const text = whole.slice(0, from) + instead + whole.slice(from + length);
          try {
            for (const s of readSpectra(text)) expect(s.reflectance.every((r) => r >= -0.02 && r <= 2)).toBe(true);
          } catch (error) {
            expect(error).toBeInstanceOf(PainterError);
            expect((error as Error).message).toMatch(/[.]$/);
          }
        },
      ),
      { numRuns: 300, seed: 8 },
    );
  });
});

describe('files of spectra', () => {
  const table = (fields: string, rows: string[], head = '') =>
    `CGATS.17\n${head}\nBEGIN_DATA_FORMAT\n${fields}\nEND_DATA_FORMAT\nBEGIN_DATA\n${rows.join('\n')}\nEND_DATA\n`;
  const nm = Array.from({ length: 31 }, (_, i) => 400 + 10 * i);
  const values = (v: number) => nm.map(() => v).join(' ');

  test.each([
    ['SPECTRAL_NM_', 0.25],
    ['SPECTRAL_NM', 0.25],
    ['SPEC_', 0.25],
    ['nm', 0.25],
    ['SPECTRAL_', 0.25],
    ['SPECTRAL_PCT_', 25],
    ['SPECTRAL_DEC_', 0.25],
    ['R_', 25],
  ])('fields called %s and a wavelength', (prefix, value) => {
    const [sample] = readCgats(table(`SAMPLE_ID ${nm.map((w) => prefix + w).join(' ')}`, [`A1 ${values(value)}`]));
    expect(sample.name).toBe('A1');
    expect(sample.wavelengths).toEqual(nm);
    expect(sample.reflectance[7]).toBeCloseTo(0.25, 9);
  });

  test('pairs of wavelength and value, comments, quotes, a norm, two tables', () => {
    const pairs = nm.map(() => 'SPECTRAL_NM SPECTRAL_PCT').join(' ');
    const row = `"wet mud" ${nm.map((w) => `${w} 30`).join(' ')}`;
    const first = table(`SAMPLE_NAME ${pairs}`, [row], 'DESCRIPTOR "a ""shore"""\n# not data 1 2 3');
    const second = table(`SAMPLE_ID ${nm.map((w) => `SPEC_${w}`).join(' ')}`, [`b ${values(40)}`], 'SPECTRAL_NORM 100');
    const read = readCgats(first + second);
    expect(read.map((s) => s.name)).toEqual(['wet mud', 'b']);
    expect(read[0].reflectance[3]).toBeCloseTo(0.3, 9);
    expect(read[1].reflectance[3]).toBeCloseTo(0.4, 9);
  });

  test.each([
    ['', /empty/],
    ['hello', /no CGATS file/],
    [table('SAMPLE_ID LAB_L LAB_A LAB_B', ['1 50 0 0']), /no spectra/],
    [table(`SAMPLE_ID ${nm.map((w) => `nm${w}`).join(' ')}`, ['A1 0.1 0.2']), /incomplete/],
    [table(`SAMPLE_ID nm400 nm500`, ['A1 0.1 x']), /no reflectance/],
    [table(`SAMPLE_ID nm400 nm500`, ['A1 0.1 0.2'], 'NUMBER_OF_SETS 7'), /promises 7 samples and has 1/],
    ['BEGIN_DATA_FORMAT\nSAMPLE_ID nm400', /cut short/],
    ['<nothing/>', /CxF element/],
    ['<CxF><Resources></CxF>', /does not close/],
    ['<!DOCTYPE a [<!ENTITY b "c">]><CxF/>', /document type/],
    ['<CxF><Resources><ObjectCollection/></Resources></CxF>', /no reflectance spectra/],
    ['<a>'.repeat(60) + '</a>'.repeat(60), /nested/],
    ['\u0000\u0001binary', /no text/],
  ])('wrong: %s', (text, why) => {
    expect(() => readSpectra(text)).toThrow(PainterError);
    expect(() => readSpectra(text)).toThrow(why);
  });

  test('huge files are refused before they are read', () => {
    expect(() => readSpectra(' x'.repeat(MAX_SPECTRA_BYTES / 2 + 1))).toThrow(/larger than 8 MB/);
  });

  test('one sample alone, or too little of the spectrum, is no paint', () => {
    const samples = readCgats(table(`SAMPLE_ID ${nm.map((w) => `nm${w}`).join(' ')}`, [`only ${values(0.2)}`]));
    expect(() => pairUp(samples)).toThrow(/“only” alone/);
    expect(() => resampled({ name: 'short', wavelengths: [450, 600], reflectance: [0.1, 0.2] })).toThrow(
      /covers 450 to 600/,
    );
    const grey = { name: 'grey', wavelengths: nm, reflectance: nm.map(() => 0.2) };
    expect(() => paintFrom('same', grey, { ...grey, name: 'same' }, 10)).toThrow(/look alike/);
  });

  test('masstone and tint are told apart by name, and without names by how light they are', () => {
    const [masstone, tint] = measurePaint('x', { PB28: 1 }, 8, 2);
    expect(pairUp([tint, masstone])).toEqual({ masstone, tint });
    const nameless = [tint, masstone].map((s, i) => ({ ...s, name: `p${i}` }));
    expect(pairUp(nameless).masstone.name).toBe('p1');
  });

  /** Folders of open colour files that other programs wrote; ./check unpacks them from Debian packages. */
  const others = [process.env.STIGMOS_SPECTRA, '.cache/spectra'].filter((p): p is string => !!p && existsSync(p));
  test.skipIf(others.length === 0)('files that others wrote', () => {
    const files = others.flatMap((folder) => readdirSync(folder).map((f) => join(folder, f)));
    const spectral = files.filter((f) => f.endsWith('.sp'));
    const without = files.filter((f) => /\.(ti[12]|cie)$/.test(f));
    expect(spectral.length).toBeGreaterThan(5);
    expect(without.length).toBeGreaterThan(3);
    let paints = 0;
    for (const file of spectral) {
      const text = readFileSync(file, 'utf8');
      try {
        const samples = readSpectra(text);
        expect(samples.length).toBeGreaterThan(0);
        if (/TCS/.test(file)) {
          // fourteen and more known test colours: reflectances, and the greens are green
          expect(samples.length).toBeGreaterThanOrEqual(14);
          const lab = spectrumToLab(resampled(samples[4]));
          expect(lab[1]).toBeLessThan(-15);
          paints += samples.length;
        }
      } catch (error) {
        // lamps are no reflectances: that is said
        expect(error).toBeInstanceOf(PainterError);
      }
    }
    expect(paints).toBeGreaterThan(0);
    for (const file of without) {
      expect(() => readSpectra(readFileSync(file, 'utf8'))).toThrow(PainterError);
    }
  });
});

describe('own paints', () => {
  test('every tube, measured without fault, gives its own K and S back where it has any colour', () => {
    for (const { id } of PIGMENTS.filter((p) => p.tintingStrength > 0)) {
      const paint = derivePaint({
        name: id,
        masstone: masstoneSpectrum({ [id]: 1 }),
        tint: masstoneSpectrum({ [id]: 1, PW6: 10 }),
        whiteParts: 10,
      });
      for (const white of [1, 30]) {
        const { K, S } = pigmentSpectrum('PW6')!;
        const mixed = makeOwnPaint(
          id,
          paint.K.map((k, i) => k + white * K[i]),
          paint.S.map((s, i) => s + white * S[i]),
        );
        const ratio = mixed.K.map((k, i) => k / mixed.S[i]);
        const R = ratio.map((q) => 1 / (1 + q + Math.sqrt(q * q + 2 * q)));
        const seen = spectrumToLab(R.map((r) => 0.005 + (0.48 * r) / (1 - 0.5 * r)));
        expect(deltaE2000(seen, spectrumToLab(masstoneSpectrum({ [id]: 1, PW6: white })))).toBeLessThan(0.5);
      }
    }
  });

  test.each([1, 2, 3])('through the noisy device and a file, it mixes as the paint it is (seed %i)', (seed) => {
    const twins = ['PB29', 'PY43', 'PR122', 'PG18'].map((id) => {
      const text = writeCgats(measurePaint(id, { [id]: 1 }, 10, seed), id, DAY);
      const { masstone, tint } = pairUp(readSpectra(text));
      const paint = paintFrom(`${id} measured, ${seed}`, masstone, tint, 10);
      knowPaint(paint);
      expect(ownPaintSchema.safeParse(JSON.parse(JSON.stringify(paint))).success).toBe(true);
      expect(tube(paint.id)!.tintingStrength).toBeCloseTo(tube(id)!.tintingStrength, 0);
      return [id, paint.id] as const;
    });
    for (const [id, twin] of twins) {
      for (const other of <Mixture[]>[{}, { PW6: 5 }, { PBr7BU: 1, PW6: 2 }, { PY3: 3 }]) {
        const difference = deltaE2000(masstoneLab({ [twin]: 1, ...other }), masstoneLab({ [id]: 1, ...other }));
        expect(difference).toBeLessThan(2.5);
      }
    }
  });

  test('an id says what paint it is; another paint may not bear it', () => {
    const { K, S } = pigmentSpectrum('PB29')!;
    const paint = makeOwnPaint('Slate', K, S);
    expect(paint.id).toBe(ownPaintId(paint.name, paint.K, paint.S));
    expect(ownPaintSchema.safeParse({ ...paint, name: 'Other' }).success).toBe(false);
    expect(ownPaintSchema.safeParse({ ...paint, K: paint.K.slice(1) }).success).toBe(false);
  });

  test('the device has the faults of a device: small, different each time, the same for the same seed', () => {
    const truth = masstoneSpectrum({ PR122: 1 });
    const errors = [1, 2, 3, 4].map((seed) => {
      const [{ reflectance }] = measurePaint('m', { PR122: 1 }, 10, seed);
      return Math.max(...reflectance.map((r, i) => Math.abs(r - truth[i])));
    });
    expect(new Set(errors).size).toBe(4);
    expect(Math.max(...errors)).toBeLessThan(0.03);
    expect(Math.min(...errors)).toBeGreaterThan(0.0003);
    expect(measurePaint('m', { PR122: 1 }, 10, 9)).toEqual(measurePaint('m', { PR122: 1 }, 10, 9));
  });
});

describe('a set of tubes as a file', () => {
  const { K, S } = pigmentSpectrum('PG18')!;
  const own = makeOwnPaint('Weed green', K, S);
  const set = { name: 'Ebb', note: 'greys', tubes: ['PW6', 'PB29', own.id], paints: [own] };
  test('comes back as it was', () => expect(decodeTubeSet(encodeTubeSet(set))).toEqual(set));
  test.each([
    ['{', /damaged/],
    ['{"format":"other"}', /no set of tubes/],
    [JSON.stringify({ ...JSON.parse(encodeTubeSet(set)), tubes: [] }), /"tubes" is not right/],
    [JSON.stringify({ ...JSON.parse(encodeTubeSet(set)), colour: 'grey' }), /"colour" does not belong there/],
    [JSON.stringify({ ...JSON.parse(encodeTubeSet(set)), tubes: ['PX9'] }), /“PX9” that is not known/],
    [JSON.stringify({ ...JSON.parse(encodeTubeSet(set)), paints: [{ ...own, name: 'x' }] }), /"paints/],
  ])('wrong: %s', (text, why) => expect(() => decodeTubeSet(text)).toThrow(why));
});
