import file from './data/pigments.json';

/** A tube of paint: what a painter reads on the label. Spectra are in bands.ts (reduced) and spectrum.ts (full). */
export interface Pigment {
  /** Key used in mixtures and journals, for example `PB29`. */
  readonly id: string;
  readonly name: string;
  /** Colour Index generic name. */
  readonly colourIndex: string;
  readonly transparency: 'transparent' | 'semi' | 'opaque';
  /** Relative to ultramarine = 1. */
  readonly tintingStrength: number;
  /** sRGB of the masstone, `#rrggbb`. */
  readonly masstoneHex: string;
  /** How long it takes to dry in oil, ultramarine = 1. */
  readonly dryFactor: number;
}

/** Id of the pencil's graphite, which the ledger counts like any pigment. */
export const GRAPHITE = 'graphite';

/** All tubes, in the order of the data; the index of a pigment in engine tables is its place here. */
export const PIGMENTS: readonly Pigment[] = file.pigments.map((p) => ({
  id: p.id,
  name: p.name,
  colourIndex: p.ci,
  transparency: p.transparency as Pigment['transparency'],
  tintingStrength: p.tintingStrength,
  masstoneHex: p.hex.masstone,
  dryFactor: p.oil.dryFactor,
}));

/**
 * What is in paint beside pigment, as far as it changes how the paint behaves. Each rides in the film like a pigment
 * that neither absorbs nor scatters; its mass is counted in coats of its own volume.
 */
export const ADDITIVES = ['medium', 'solvent', 'acrylic', 'retarder'] as const;
export type Additive = (typeof ADDITIVES)[number];

const PIGMENT_IDS: readonly string[] = [...PIGMENTS.map((p) => p.id), GRAPHITE, ...ADDITIVES];

/** Entries of every table: tubes, graphite, additives. */
export const TABLE_COUNT = PIGMENT_IDS.length;
/** Those of them that have a colour: the first so many. */
export const COLOURED_COUNT = PIGMENTS.length + 1;

/** Whether a table index stands for a pigment, and not for what binds or thins it. */
export const isColoured = (index: number): boolean => index < COLOURED_COUNT;
/** Whether there is a tube of this id. */
export const isTube = (id: string): boolean => (indexById.get(id) ?? PIGMENTS.length) < PIGMENTS.length;

const indexById = new Map(PIGMENT_IDS.map((id, i) => [id, i]));

/** Table index of a pigment id, or undefined when there is no such tube. */
export const findPigment = (id: string): number | undefined => indexById.get(id);

/**
 * Table index of a pigment id.
 * @throws RangeError when there is no such tube.
 */
export function pigmentIndex(id: string): number {
  const i = indexById.get(id);
  if (i === undefined) throw new RangeError(`There is no tube "${id}".`);
  return i;
}

/** Id of the pigment at a table index. */
export const pigmentId = (index: number): string => PIGMENT_IDS[index];

/** Name as a painter says it: the tube's, or "Graphite". */
export const pigmentName = (id: string): string => PIGMENTS[indexById.get(id) ?? -1]?.name ?? 'Graphite';

/** A general set of twelve tubes: two whites' worth of light, three yellows, two reds, three blues and greens, three earths. */
export const GENERAL_TWELVE: readonly string[] = [
  'PW6', 'PY3', 'PY150', 'PY43', 'PR188', 'PR122', 'PB29', 'PB15_3', 'PG7', 'PBr7BS', 'PBr7BU', 'PBk9',
]; // prettier-ignore
