import { maths } from '@/core/maths/maths';
import { randomFrom } from './noise';
import { blurred, bumps, fibres, resampled, standardised, summed, type Random } from './periodicNoise';
import { Remembered } from './remembered';

/** Watercolour paper by how its sheet was pressed. */
export const PAPER_KINDS = ['paper-hot', 'paper-cold', 'paper-rough'] as const;
export type PaperKind = (typeof PAPER_KINDS)[number];
export const isPaper = (kind: string): kind is PaperKind => (PAPER_KINDS as readonly string[]).includes(kind);

/** Side of the sheet's seamless patch, mm, and the cells in which it is made. */
export const PAPER_PATCH_MM = 86.7;
const MADE_CELLS = 512;

/** What a sheet is: depth of its tooth (98th less 2nd percentile, um), and how much the tooth rules the wash. */
export const PAPERS: Record<PaperKind, { depthUm: number; relief: number; capacity: number; sizing: number }> = {
  'paper-hot': { depthUm: 18, relief: 0.3, capacity: 0.16, sizing: 0.75 },
  'paper-cold': { depthUm: 85, relief: 0.85, capacity: 0.27, sizing: 0.65 },
  'paper-rough': { depthUm: 150, relief: 1.3, capacity: 0.36, sizing: 0.6 },
};

/** Cells in which what changes slowly is made. */
const SLOW_CELLS = MADE_CELLS / 2;

/** What a sheet is like from cell to cell, on its patch; all but the tooth have mean 0 and variance 1. */
const FIELDS = {
  /** Logarithm of the permeability: felt and fibres. */
  permeability: (n: number, random: Random) =>
    summed([
      [0.75, bumps(n, random, 1.4, 3)],
      [0.8, blurred(fibres(n, random, { count: 2600, shortest: 12, longest: 40, width: 0.8 }), n, 0.5)],
      [0.75, bumps(n, random, 3, 7)],
      [0.45, bumps(n, random, 8, 20)],
    ]),
  /** Uneven sizing: where the sheet dries sooner. */
  blotches: (n: number, random: Random) =>
    summed([
      [0.6, bumps(n, random, 2.5, 5.5)],
      [1, bumps(n, random, 6, 17)],
    ]),
  /** Where damp paper holds an advancing front back. */
  lobes: (n: number, random: Random) =>
    summed([
      [0.8, bumps(n, random, 1.5, 3.2)],
      [1, bumps(n, random, 3.2, 7.5)],
    ]),
  /** Stream function of the currents in which paints mingle. */
  currents: (n: number, random: Random) =>
    summed([
      [4, bumps(n, random, 2.5, 4.5)],
      [9, bumps(n, random, 4.5, 9)],
      [16, bumps(n, random, 10, 22)],
    ]),
  /** How grains clump, apart from the tooth. */
  clumps: (n: number, random: Random) =>
    summed([
      [0.75, bumps(n, random, 0.9, 2)],
      [1, bumps(n, random, 2.2, 5)],
      [1.1, bumps(n, random, 6, 14)],
    ]),
  /** Where a painted edge strays: hair, hand and sizing. */
  waver: (n: number, random: Random) =>
    summed([
      [0.45, bumps(n, random, 1, 2.2)],
      [0.9, bumps(n, random, 2.6, 6)],
      [1, bumps(n, random, 8, 20)],
    ]),
  /** How a wet sheet bulges between its fibres' bundles. */
  cockle: (n: number, random: Random) =>
    summed([
      [0.3, bumps(n, random, 3, 7)],
      [1, bumps(n, random, 9, 26)],
    ]),
} as const;
export type SheetField = keyof typeof FIELDS;

/** Height of the tooth, 0 deepest valley .. 1 highest peak. */
function makeTooth(kind: PaperKind, random: Random): Float32Array {
  const n = MADE_CELLS;
  const felt = (fine: number, coarse: number, sharp: number) => {
    const field = bumps(n, random, fine, coarse);
    // rounded tops and deeper pits, as the felt leaves them
    for (let i = 0; i < field.length; i++) field[i] = -maths.exp(-sharp * field[i]);
    return standardised(field);
  };
  switch (kind) {
    case 'paper-hot':
      return flattened(
        summed([
          [0.6, bumps(n, random, 0.5, 1.3)],
          [0.6, fibres(n, random, { count: 5000, shortest: 14, longest: 50, width: 0.8 })],
          [0.5, bumps(n, random, 2, 5)],
          [0.35, bumps(n, random, 9, 22)],
        ]),
      );
    case 'paper-cold':
      return flattened(
        summed([
          [0.9, felt(1.15, 2.6, 0.45)],
          [0.62, bumps(n, random, 0.45, 1.1)],
          [0.42, fibres(n, random, { count: 4600, shortest: 16, longest: 54, width: 0.85, along: 0.15 })],
          [0.45, bumps(n, random, 3, 7)],
          [0.22, bumps(n, random, 12, 30)],
        ]),
      );
    case 'paper-rough':
      return flattened(
        summed([
          [1, felt(2.1, 4.4, 0.55)],
          [0.48, bumps(n, random, 0.6, 1.5)],
          [0.35, fibres(n, random, { count: 3600, shortest: 20, longest: 60, width: 0.9 })],
          [0.42, bumps(n, random, 5, 12)],
        ]),
      );
  }
}

/** Heights 0..1 whose histogram is half flat, half bell-shaped: few extreme peaks and pits, and easy to threshold. */
function flattened(field: Float32Array): Float32Array {
  const raw = standardised(field);
  // ranks by counting: fine enough for a height of 16 bits
  const bins = new Uint32Array(65537);
  const binOf = (v: number) => Math.max(0, Math.min(65535, Math.round((v + 6) * 5461)));
  for (const v of raw) bins[binOf(v) + 1]++;
  for (let i = 1; i < bins.length; i++) bins[i] += bins[i - 1];
  const out = new Float32Array(raw.length);
  for (let i = 0; i < raw.length; i++) {
    const bin = binOf(raw[i]);
    const flat = (bins[bin] + bins[bin + 1]) / (2 * raw.length);
    out[i] = Math.max(0, Math.min(1, 0.5 * flat + 0.5 * (0.5 + 0.21 * raw[i])));
  }
  return out;
}

/** Fields as they are made, at about 150 cells an inch, up to 64 MB; and as they were asked for, up to 32 MB. */
const made = new Remembered<Float32Array>(2 ** 24, (field) => field.length);
const asked = new Remembered<Float32Array>(2 ** 23, (field) => field.length);

/**
 * A field of the sheet of a seed at a resolution: the same felt and fibres at every one. Nobody writes to it.
 * @param size cells along its patch
 */
export function sheetField(name: SheetField, seed: number, size: number): Float32Array {
  const salt = Object.keys(FIELDS).indexOf(name) + 1;
  const cells = name === 'clumps' || name === 'waver' ? MADE_CELLS : SLOW_CELLS;
  return asked.once(`${name}/${seed}/${size}`, () => {
    const field = made.once(`${name}/${seed}`, () =>
      standardised(FIELDS[name](cells, randomFrom(seed * 7919 + 13 + salt * 101))),
    );
    return resampled(field, cells, size);
  });
}

/** The tooth of a sheet, 0..1; nobody writes to it. @param size cells along its patch */
export function toothAt(kind: PaperKind, seed: number, size: number): Float32Array {
  return asked.once(`${kind}/${seed}/${size}`, () => {
    const tooth = made.once(`${kind}/${seed}`, () => makeTooth(kind, randomFrom(seed * 7919 + 13)));
    return resampled(tooth, MADE_CELLS, size).map((v) => Math.max(0, Math.min(1, v)));
  });
}
