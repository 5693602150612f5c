import { describe, expect, it } from 'vitest';
import { decodeSrgb, linearToLab, type Triple } from '@/core/colour/colorimetry';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { randomFrom } from '@/measure/randomActs';
import { PaperInks, PRINT_PAPERS, type PaperId } from './printPapers';
import { OUT_OF_REACH, printProof } from './printProof';

const PAPERS = Object.keys(PRINT_PAPERS) as PaperId[];
const squared = (a: Triple, b: Triple) => a.reduce((sum, v, k) => sum + (v - b[k]) ** 2, 0);

describe.each(PAPERS)('the inks of %s', (id) => {
  const inks = new PaperInks(PRINT_PAPERS[id]);

  it('its primaries are what its solids give, and each is reached', () => {
    const solids: Triple[] = [
      [0, 0, 0],
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
      [0, 1, 1],
      [1, 0, 1],
      [1, 1, 0],
      [1, 1, 1],
    ];
    solids.forEach((solid, p) => {
      const primary = PRINT_PAPERS[id].primaries[p] as unknown as Triple;
      inks.labOf(solid).forEach((v, k) => expect(v).toBeCloseTo(primary[k], 6));
      expect(inks.printed(primary).off).toBeLessThan(0.05);
    });
  });

  it('white comes out as paper, black as its darkest, and a grey between them as grey as they are', () => {
    const white = inks.wanted([100, 0, 0]);
    white.forEach((v, k) => expect(v).toBeCloseTo(PRINT_PAPERS[id].primaries[0][k], 6));
    inks.wanted([0, 0, 0]).forEach((v, k) => expect(v).toBeCloseTo(PRINT_PAPERS[id].primaries[7][k], 6));
    for (let L = 0; L <= 100; L += 10) {
      expect(inks.printed(inks.wanted([L, 0, 0])).off, `L* ${L}`).toBeLessThan(OUT_OF_REACH);
      inks.asScreen(inks.wanted([L, 12, -7])).forEach((v, k) => expect(v).toBeCloseTo([L, 12, -7][k], 6));
    }
  });

  it('what it finds is no farther than the nearest of all halftones in steps of a 40th', () => {
    const all: Triple[] = [];
    for (let c = 0; c <= 40; c++)
      for (let m = 0; m <= 40; m++) for (let y = 0; y <= 40; y++) all.push(inks.labOf([c / 40, m / 40, y / 40]));
    const random = randomFrom(11);
    for (let i = 0; i < 60; i++) {
      const rgb = [random.next(), random.next(), random.next()].map(decodeSrgb) as Triple;
      const wanted = inks.wanted(linearToLab(rgb));
      const nearest = Math.sqrt(Math.min(...all.map((lab) => squared(lab, wanted))));
      const found = Math.sqrt(squared(inks.printed(wanted).lab, wanted));
      expect(found, `${wanted}`).toBeLessThan(nearest + 0.02);
    }
  });
});

describe('a proof', () => {
  /** A patch of each of some colours, eight pixels wide. */
  const patches = (colours: readonly Triple[]) => {
    const data = new Uint8Array(colours.length * 8 * 8 * 3);
    for (let i = 0; i < data.length / 3; i++) data.set(colours[Math.floor((i % (8 * colours.length)) / 8)], 3 * i);
    return { width: 8 * colours.length, height: 8, channels: 3 as const, data };
  };

  it('by its table is the paper by itself, wherever colours lie', () => {
    const random = randomFrom(5);
    const colours = Array.from({ length: 40 }, () => [0, 1, 2].map(() => random.below(256)) as Triple);
    const { raster } = printProof(patches(colours), 'coated', { asPaper: true, marked: false });
    const inks = new PaperInks(PRINT_PAPERS.coated);
    const offs = colours.map((colour, i) => {
      const wanted = inks.wanted(linearToLab(colour.map((v) => decodeSrgb(v / 255)) as Triple));
      const at = 3 * 8 * i;
      const shown = linearToLab([0, 1, 2].map((c) => decodeSrgb(raster.data[at + c] / 255)) as Triple);
      return deltaE2000(inks.printed(wanted).lab, shown);
    });
    // a screen has colours that no paper has, and a paper some that no screen has: there it is cut off
    offs.sort((a, b) => a - b);
    expect(offs[35]).toBeLessThan(1);
    expect(offs[39]).toBeLessThan(6);
  });

  it('tells what is out of reach and stripes it, and nothing else', () => {
    const picture = patches([
      [0, 255, 0],
      [150, 140, 130],
    ]);
    const marked = printProof(picture, 'uncoated', { asPaper: false, marked: true });
    const plain = printProof(picture, 'uncoated', { asPaper: false, marked: false });
    expect(marked.out).toBeCloseTo(0.5, 9);
    expect(marked.farthest).toBeGreaterThan(10);
    let striped = 0;
    for (let i = 0; i < 16 * 8; i++) {
      const differs = [0, 1, 2].some((c) => marked.raster.data[3 * i + c] !== plain.raster.data[3 * i + c]);
      if (i % 16 >= 8) expect(differs).toBe(false);
      else if (differs) striped++;
    }
    expect(striped / 64).toBeGreaterThan(0.2);
    expect(striped / 64).toBeLessThan(0.5);
  });

  it('baryta reaches more than a letter does', () => {
    const random = randomFrom(8);
    const colours = Array.from({ length: 60 }, () => [0, 1, 2].map(() => random.below(256)) as Triple);
    const [baryta, uncoated] = (['baryta', 'uncoated'] as const).map(
      (paper) => printProof(patches(colours), paper, { asPaper: false, marked: false }).out,
    );
    expect(uncoated).toBeGreaterThan(1.3 * baryta);
  });
});
