import { linearToLab, type Triple } from '@/core/colour/colorimetry';
import { compareColours, type Comparison } from '@/core/study/compare';
import { isThere, LINEAR, valueOf, type CodeImage } from './image';
import { massAt, type Masses } from './masses';

/** A part of two pictures in register, compared. */
export interface Difference {
  /** Mean colour of each there, CIELAB: of what is painted, and of what is painted from. */
  readonly painted: Readonly<Triple>;
  readonly motif: Readonly<Triple>;
  /** What is painted, compared with the motif. */
  readonly compared: Comparison;
  /** "upper left: a value too light, a little too warm". */
  readonly words: string;
}

/** One area of a net over both. */
export interface AreaDifference extends Difference {
  /** Column and row of the net, from the upper left. */
  readonly column: number;
  readonly row: number;
}

/** One mass of the motif: all that is about as light there. */
export interface MassDifference extends Difference {
  /** From the darkest. */
  readonly mass: number;
  /** Share of the motif. */
  readonly share: number;
}

/** Mean colours of the cells of a net over a picture, in linear light, CIELAB; undefined where there is no picture. */
export function netColours({ codes, width, height }: CodeImage, columns: number, rows: number): (Triple | undefined)[] {
  const sums = new Float64Array(columns * rows * 4);
  for (let y = 0; y < height; y++) {
    const row = Math.floor((y * rows) / height) * columns;
    for (let x = 0; x < width; x++) {
      const code = codes[y * width + x];
      if (!isThere(code)) continue;
      const at = 4 * (row + Math.floor((x * columns) / width));
      sums[at] += LINEAR[code & 255];
      sums[at + 1] += LINEAR[(code >>> 8) & 255];
      sums[at + 2] += LINEAR[(code >>> 16) & 255];
      sums[at + 3]++;
    }
  }
  return Array.from({ length: columns * rows }, (_, k) => {
    const n = sums[4 * k + 3];
    return n > 0 ? linearToLab([sums[4 * k] / n, sums[4 * k + 1] / n, sums[4 * k + 2] / n]) : undefined;
  });
}

const ROWS = ['upper', 'middle', 'lower'] as const;
const SIDES = ['left', 'middle', 'right'] as const;

/** Where a cell lies, as one would say it. */
export function placeWords(column: number, row: number, columns: number, rows: number): string {
  const third = (at: number, of: number) => Math.min(2, Math.floor(((at + 0.5) / of) * 3));
  const [across, down] = [SIDES[third(column, columns)], ROWS[third(row, rows)]];
  if (across === 'middle' && down === 'middle') return 'in the middle';
  if (across === 'middle') return `${down} middle`;
  return down === 'middle' ? across : `${down} ${across}`;
}

/** Differences below this are not worth a word, Delta E 2000. */
const WORTH = 3;

/** How much too light, warm and strong something is, in a painter's words; empty when nobody would say it. */
export function tooWords({ valueSteps, warmer, cleaner }: Comparison): string {
  const parts: string[] = [];
  const steps = Math.abs(valueSteps);
  if (steps >= 0.25) {
    const size = steps < 0.75 ? 'half a value' : steps < 1.25 ? 'a value' : `${Math.round(steps * 2) / 2} values`;
    parts.push(`${size} too ${valueSteps > 0 ? 'light' : 'dark'}`);
  }
  const degree = (units: number, more: string, less: string) => {
    const size = Math.abs(units);
    if (size < 2.5) return;
    parts.push(`${size < 7 ? 'a little ' : size < 16 ? '' : 'much '}too ${units > 0 ? more : less}`);
  };
  degree(warmer, 'warm', 'cool');
  degree(cleaner, 'strong', 'dull');
  return parts.join(', ');
}

/**
 * What is painted against what it is painted from, area by area, the largest difference first. Both in register.
 * @param columns and rows of the net
 */
export function differences(painted: CodeImage, motif: CodeImage, columns: number, rows: number): AreaDifference[] {
  const motifs = netColours(motif, columns, rows);
  const out: AreaDifference[] = [];
  netColours(painted, columns, rows).forEach((lab, k) => {
    const other = motifs[k];
    if (!lab || !other) return;
    const [column, row] = [k % columns, Math.floor(k / columns)];
    const compared = compareColours(lab, other);
    const said = tooWords(compared) || (compared.deltaE < WORTH ? 'as it is there' : 'another hue');
    out.push({
      column,
      row,
      painted: lab,
      motif: other,
      compared,
      words: `${placeWords(column, row, columns, rows)}: ${said}`,
    });
  });
  return out.sort((p, q) => q.compared.deltaE - p.compared.deltaE);
}

const MASS_NAMES: Readonly<Record<number, readonly string[]>> = {
  1: ['all of it'],
  2: ['darks', 'lights'],
  3: ['darks', 'halftones', 'lights'],
  4: ['darks', 'dark halftones', 'light halftones', 'lights'],
  5: ['darks', 'dark halftones', 'halftones', 'light halftones', 'lights'],
};

/**
 * The same mass by mass: where the motif is of a mass, what is painted there. The largest difference first.
 * @param massed the motif squinted, which tells the mass of each place
 */
export function differencesByMass(
  painted: CodeImage,
  motif: CodeImage,
  massed: Uint32Array,
  masses: Masses,
): MassDifference[] {
  const count = masses.of.length;
  const sums = new Float64Array(8 * count);
  let all = 0;
  for (let i = 0; i < massed.length; i++) {
    if (!isThere(massed[i]) || !isThere(painted.codes[i]) || !isThere(motif.codes[i])) continue;
    const at = 8 * massAt(massed[i], masses);
    [painted.codes[i], motif.codes[i]].forEach((code, k) => {
      sums[at + 4 * k] += LINEAR[code & 255];
      sums[at + 4 * k + 1] += LINEAR[(code >>> 8) & 255];
      sums[at + 4 * k + 2] += LINEAR[(code >>> 16) & 255];
      sums[at + 4 * k + 3]++;
    });
    all++;
  }
  const out: MassDifference[] = [];
  for (let mass = 0; mass < count; mass++) {
    const n = sums[8 * mass + 3];
    if (n === 0) continue;
    const mean = (k: number) => linearToLab([0, 1, 2].map((c) => sums[8 * mass + 4 * k + c] / n) as unknown as Triple);
    const [lab, other] = [mean(0), mean(1)];
    const compared = compareColours(lab, other);
    const said = tooWords(compared) || (compared.deltaE < WORTH ? 'as they are there' : 'another hue');
    const share = n / all;
    const name = MASS_NAMES[count]?.[mass] ?? `mass ${mass + 1}`;
    out.push({
      mass,
      share,
      painted: lab,
      motif: other,
      compared,
      words: `${name} (${Math.round(100 * share)} %): ${said}`,
    });
  }
  return out.sort((p, q) => q.compared.deltaE - p.compared.deltaE);
}

/** Two families of value, light and dark, of a picture. */
export interface ValueKey {
  /** Value at which they part, and the share of the dark one, 0..1. */
  readonly parting: number;
  readonly darkShare: number;
  /** Their mean values. */
  readonly dark: number;
  readonly light: number;
  /** Darkest of the lights and lightest of the darks, but for a twentieth of each. */
  readonly darkestLight: number;
  readonly lightestDark: number;
}

/**
 * The two families into which the values of a picture fall, and how far they stay apart when it is seen in detail.
 * @param whole the picture as it is
 * @param massed the same squinted, at which places belong to a family
 * @param parting value between the families, of the squinted picture
 */
export function valueKey(whole: CodeImage, massed: Uint32Array, parting: number): ValueKey | undefined {
  const dark = new Float64Array(BINS);
  const light = new Float64Array(BINS);
  for (let i = 0; i < massed.length; i++) {
    if (!isThere(massed[i]) || !isThere(whole.codes[i])) continue;
    const family = valueOf(massed[i]) < parting ? dark : light;
    family[Math.min(BINS - 1, Math.floor((valueOf(whole.codes[i]) / 10) * BINS))]++;
  }
  const [darks, lights] = [total(dark), total(light)];
  if (darks + lights === 0) return undefined;
  return {
    parting,
    darkShare: darks / (darks + lights),
    dark: mean(dark),
    light: mean(light),
    darkestLight: quantile(light, 0.05),
    lightestDark: quantile(dark, 0.95),
  };
}

const BINS = 200;
const total = (counts: Float64Array) => counts.reduce((a, b) => a + b, 0);
const valueAt = (bin: number) => ((bin + 0.5) / BINS) * 10;
const mean = (counts: Float64Array) => {
  const all = total(counts);
  return all > 0 ? counts.reduce((sum, c, bin) => sum + c * valueAt(bin), 0) / all : 0;
};
function quantile(counts: Float64Array, share: number): number {
  const goal = share * total(counts);
  let sum = 0;
  for (let bin = 0; bin < BINS; bin++) {
    sum += counts[bin];
    if (sum >= goal && sum > 0) return valueAt(bin);
  }
  return 0;
}

/** What the key of a picture is, in a sentence. */
export function keyWords({ darkShare, dark, light, darkestLight, lightestDark }: ValueKey): string {
  if (darkShare < 0.01 || darkShare > 0.99) return 'One family of value: all of it is nearly as light.';
  const share = `${Math.round(100 * darkShare)} % dark, ${Math.round(100 * (1 - darkShare))} % light`;
  const apart = darkestLight - lightestDark;
  const families =
    Math.abs(apart) < 0.05
      ? 'the families touch'
      : apart > 0
        ? `the families keep ${apart.toFixed(1)} values apart`
        : `the families overlap by ${(-apart).toFixed(1)} values`;
  return `${share}; means ${dark.toFixed(1)} and ${light.toFixed(1)}; ${families}.`;
}

/** Pale to deep, by how large a difference is: also told by hatching, closer where it is larger. */
export function differenceMap(image: CodeImage, all: readonly AreaDifference[], columns: number, rows: number) {
  const of: Difference[] = [];
  for (const d of all) of[d.row * columns + d.column] = d;
  const { width, height } = image;
  return mapOf(image, (x, y) => of[Math.floor((y * rows) / height) * columns + Math.floor((x * columns) / width)]);
}

/** The same of masses. @param massed the motif squinted */
export function massDifferenceMap(
  image: CodeImage,
  all: readonly MassDifference[],
  massed: Uint32Array,
  masses: Masses,
) {
  const of: Difference[] = [];
  for (const d of all) of[d.mass] = d;
  return mapOf(image, (x, y) => {
    const code = massed[y * image.width + x];
    return isThere(code) ? of[massAt(code, masses)] : undefined;
  });
}

function mapOf({ codes, width, height }: CodeImage, at: (x: number, y: number) => Difference | undefined): Uint32Array {
  const out = new Uint32Array(codes.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (!isThere(codes[i])) continue;
      const { compared } = at(x, y) ?? {};
      const much = Math.min(1, (compared?.deltaE ?? 0) / 25);
      // what is too dark is hatched
      const line = compared && compared.valueSteps < -0.25 && (x + y) % 6 < 2 ? 0.6 : 1;
      const [r, g, b] = [236 - 56 * much, 232 - 162 * much, 224 - 180 * much].map((v) => Math.round(v * line));
      out[i] = (0xff000000 | (b << 16) | (g << 8) | r) >>> 0;
    }
  }
  return out;
}
