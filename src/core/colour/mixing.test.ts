import { describe, expect, it } from 'vitest';
import { bandSet } from './bands';
import { chroma, hue, linearToLab, type Triple } from './colorimetry';
import table from './data/mixing-table.json';
import { deltaE2000 } from './deltaE2000';
import { toExternal, toInternal } from './kubelkaMunk';
import { bandsToLinear, filmBands, masstoneLab, normalise, recipeInParts, type Mixture } from './mixture';
import { PIGMENTS } from './pigments';
import { GENERAL_TWELVE } from './tubeSets';
import { filmSpectrum, masstoneSpectrum, spectrumToLab } from './spectrum';

type Reader = (mixture: Mixture) => Triple;
const readers: Record<string, Reader> = {
  '36 bands': (m) => spectrumToLab(masstoneSpectrum(m)),
  '8 bands': (m) => masstoneLab(m, bandSet(8)),
  '12 bands': (m) => masstoneLab(m, bandSet(12)),
};
const between = (h: number, from: number, to: number) => (from <= to ? h >= from && h <= to : h >= from || h <= to);

/** What painters know about these mixtures, as conditions; `of` reads another mixture for comparison. */
const FACTS: Record<string, (lab: Triple, of: Reader) => boolean> = {
  'Phthalo blue + lemon': (m) => between(hue(m), 135, 170) && chroma(m) > 40,
  'Phthalo blue + lemon + white': (m) => between(hue(m), 130, 170) && chroma(m) > 45,
  'Ultramarine + cadmium yellow light': (m, of) =>
    between(hue(m), 105, 165) && chroma(m) < 0.72 * chroma(of({ PB15_3: 1, PY3: 12 })),
  'Ultramarine + cad yellow medium': (m, of) =>
    between(hue(m), 95, 160) && chroma(m) < 0.6 * chroma(of({ PB15_3: 1, PY3: 12 })),
  'Cobalt blue + lemon': (m) => between(hue(m), 130, 182) && chroma(m) > 20,
  'Cerulean + lemon': (m) => between(hue(m), 120, 170) && chroma(m) > 30,
  'Ultramarine + burnt sienna (1:1)+white': (m) => chroma(m) < 14,
  'Ultramarine + burnt sienna 0.68:1 + white (most neutral)': (m) => chroma(m) < 5,
  '...with more ultramarine': (m) => between(hue(m), 225, 300) && chroma(m) > 4,
  '...with more sienna': (m) => between(hue(m), 20, 100) && chroma(m) > 3,
  'Ultramarine + burnt sienna masstone': (m) => m[0] < 20 && chroma(m) < 12,
  'Ultramarine + burnt umber': (m) => m[0] < 14 && chroma(m) < 10,
  'Ivory black + cadmium yellow': (m, of) =>
    between(hue(m), 90, 125) && hue(m) > hue(of({ PY37: 1 })) + 6 && chroma(m) > 10,
  'Ivory black + cadmium yellow light': (m) => between(hue(m), 98, 130) && chroma(m) > 10,
  'Ivory black + lemon': (m) => between(hue(m), 98, 140) && chroma(m) > 12,
  'Ivory black + yellow ochre': (m) => between(hue(m), 72, 110),
  'Ivory black + white': (m) => m[2] < -1.5 && Math.abs(m[1]) < 2,
  'Earth-palette grey reads blue': (m, of) =>
    between(hue(m), 180, 300) && m[2] < of({ PY43: 1, PR108L: 1, PBk9: 0.5, PW6: 5 })[2] - 10,
  'Mars black + white': (m, of) => m[2] > of({ PBk9: 1, PW6: 8 })[2] + 1,
  'Phthalo green + quinacridone rose': (m) => m[0] < 14 && chroma(m) < 8,
  'Phthalo green + alizarin': (m) => m[0] < 12 && chroma(m) < 8,
  'Phthalo green + alizarin + white': (m) => chroma(m) < 12,
  'Cad red light + white': (m, of) => hue(m) < hue(of({ PR108L: 1 })) - 3 && chroma(m) < chroma(of({ PR108L: 1 })),
  'Cad red medium + white': (m) => hue(m) < 30 && chroma(m) > 25,
  'Alizarin + white': (m) => between(hue(m), 330, 15) && chroma(m) > 20,
  'Quinacridone rose + white': (m) => between(hue(m), 335, 5) && chroma(m) > 30,
  'Cobalt blue + cadmium orange': (m) => chroma(m) < 25,
  'Cobalt + cad orange 1.7:1 + white': (m) => chroma(m) < 14,
  'Quin rose + phthalo blue': (m) => between(hue(m), 280, 345) && chroma(m) > 8,
  'Quin rose + phthalo blue + white': (m) => between(hue(m), 290, 330) && chroma(m) > 22,
  'Quin rose + ultramarine + white': (m) => between(hue(m), 290, 330) && chroma(m) > 25,
  'Cad red light + ultramarine + white': (m, of) => chroma(m) < 0.65 * chroma(of({ PV19: 1, PB29: 2, PW6: 12 })),
  'Cad red light + phthalo blue': (m) => chroma(m) < 25,
  'Yellow ochre + white': (m) => between(hue(m), 70, 90) && m[0] > 82 && chroma(m) < 32 && chroma(m) > 12,
  'Cadmium red + viridian': (m) => chroma(m) < 20,
  'Viridian + cad red 1.6:1 + white': (m) => chroma(m) < 14,
  'Yellow + violet (cad yellow med + dioxazine)': (m, of) => chroma(m) < 0.45 * chroma(of({ PY37: 1 })),
  'Lemon + ultramarine violet': (m) => chroma(m) < 45,
  'Phthalo green + pyrrole red': (m) => chroma(m) < 25 && m[0] < 25,
  'Prussian blue + white': (m, of) => between(hue(m), 235, 265) && chroma(m) < chroma(of({ PB15_3: 1, PW6: 30 })),
  'Phthalo blue + white': (m) => between(hue(m), 235, 262) && chroma(m) > 28,
  'Cerulean + white': (m) => between(hue(m), 228, 255),
  'Ultramarine + white': (m) => between(hue(m), 272, 296) && chroma(m) > 35,
  'Dioxazine + white': (m) => between(hue(m), 295, 315) && chroma(m) > 30,
  'Raw umber + white': (m) => between(hue(m), 70, 105),
  'Burnt umber + white': (m) => between(hue(m), 40, 70),
  'Indian red + white': (m) => hue(m) < 30,
  'Venetian red + white': (m) => between(hue(m), 25, 50),
  'Chromium oxide + white': (m) => between(hue(m), 120, 150) && chroma(m) < 25,
  'Flesh: white+ochre+cad red': (m) => between(hue(m), 45, 80) && m[0] > 68 && chroma(m) > 15 && chroma(m) < 45,
  'Terre verte + white': (m) => between(hue(m), 110, 175) && chroma(m) < 12,
  'Phthalo vs terre verte strength': (m) => between(hue(m), 150, 200) && chroma(m) > 10,
  'Cad yellow + cad red': (m) => between(hue(m), 45, 72) && chroma(m) > 75,
  'Lemon + quin magenta': (m) => between(hue(m), 25, 75) && chroma(m) > 55,
  'Phthalo green + lemon': (m) => between(hue(m), 125, 165) && chroma(m) > 45,
  'Viridian + white': (m) => between(hue(m), 160, 190),
};

const rows = table.rows.map((row) => ({
  name: row.name.trim(),
  parts: Object.fromEntries(Object.entries(row.parts)) as Mixture,
  lab: row.inf.lab as Triple,
  note: row.note,
}));

describe.each(Object.entries(readers))('mixtures in %s', (_, of) => {
  it.each(rows)('$name', ({ name, parts, note }) => {
    const lab = of(parts);
    const fact = FACTS[name];
    if (fact) {
      expect(fact(lab, of)).toBe(true);
      return;
    }
    // pairs of complements: somewhere between them the chroma falls to less than half of either end's
    expect(name).toMatch(/^Complements/);
    const ends = /vs ends (\d+)\/(\d+)/.exec(note)!.slice(1).map(Number);
    expect(chroma(lab)).toBeLessThan(0.5 * Math.min(...ends));
  });
});

describe('the reference', () => {
  it('gives the colours of the table', () => {
    for (const { parts, lab } of rows) expect(deltaE2000(readers['36 bands'](parts), lab)).toBeLessThan(0.05);
  });

  it('gives the glazes and scumbles of the table', () => {
    const white = toInternal(0.9);
    const under: Record<string, number[]> = {
      'dry PY37': filmSpectrum({ PY37: 1 }, 1, white),
      'ivory black': filmSpectrum({ PBk9: 1 }, 1, white),
      'burnt umber': filmSpectrum({ PBr7BU: 1 }, 1, white),
    };
    for (const { test, lab } of table.glazes) {
      const [, id, coats] = /^(\w+) ([\d.]+) coat/.exec(test)!;
      const substrate = under[Object.keys(under).find((name) => test.endsWith(name))!];
      const over = filmSpectrum({ [id]: 1 }, Number(coats), substrate).map((R) => toExternal(R));
      expect(deltaE2000(spectrumToLab(over), lab as Triple)).toBeLessThan(0.05);
    }
  });
});

describe('the reduced bands against 36', () => {
  // mixtures, tints and thin films made by a fixed rule from all tubes
  const cases: { mixture: Mixture; coats: number; ground: number }[] = [];
  PIGMENTS.forEach((a, i) => {
    PIGMENTS.forEach((b, j) => {
      if (j <= i || (i * 7 + j) % 3 !== 0) return;
      const coats = [0.02, 0.1, 0.5, 3][(i + j) % 4];
      const ground = toInternal((i + j) % 2 ? 0.9 : 0.012);
      cases.push({ mixture: { [a.id]: 1, [b.id]: [1, 4, 20][(i + 2 * j) % 3] }, coats, ground });
      cases.push({ mixture: { [a.id]: 1, [b.id]: 2, PW6: [0, 6, 30][(2 * i + j) % 3] }, coats: 3, ground });
    });
  });

  it.each([
    [8, 0.2, 0.6, 2.1],
    [12, 0.06, 0.2, 1],
  ] as const)('%i bands: mean, 95 %% and largest Delta E within bounds', (count, meanBound, highBound, maxBound) => {
    const errors = cases
      .map(({ mixture, coats, ground }) => {
        const full = spectrumToLab(filmSpectrum(mixture, coats, ground).map((R) => toExternal(R)));
        const bands = bandSet(count);
        return deltaE2000(full, linearToLab(bandsToLinear(filmBands(mixture, coats, ground, bands), bands)));
      })
      .sort((a, b) => a - b);
    expect(errors.length).toBeGreaterThan(300);
    expect(errors.reduce((a, b) => a + b, 0) / errors.length).toBeLessThan(meanBound);
    expect(errors[Math.floor(errors.length * 0.95)]).toBeLessThan(highBound);
    expect(errors[errors.length - 1]).toBeLessThan(maxBound);
  });
});

describe('recipes in words', () => {
  it('are small whole numbers, strongest first', () => {
    expect(recipeInParts({ PY43: 1, PW6: 3, PBk9: 0.05 })).toEqual([
      { id: 'PW6', parts: 3 },
      { id: 'PY43', parts: 1 },
      { id: 'PBk9', parts: 'touch' },
    ]);
    expect(recipeInParts({ PW6: 0.6, PB29: 0.4 })).toEqual([
      { id: 'PW6', parts: 3 },
      { id: 'PB29', parts: 2 },
    ]);
    expect(recipeInParts({})).toEqual([]);
  });

  it('know only tubes that are there', () => {
    expect(() => masstoneLab({ XX1: 1 })).toThrow(/no tube "XX1"/);
    for (const id of GENERAL_TWELVE) expect(PIGMENTS.some((p) => p.id === id)).toBe(true);
    expect(normalise({ PW6: 2, PY43: 0, PB29: 2 })).toEqual({ PW6: 0.5, PB29: 0.5 });
  });
});
