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
  /** In watercolour: how much it settles into the grain, and how much of it cannot be lifted again; 0..1. */
  readonly granulation: number;
  readonly staining: number;
  /** In watercolour: how fast its grains sink, 0..1. */
  readonly settling: number;
  /** ASTM D4303 lightfastness, I (excellent) to V; undefined where nobody has tested. */
  readonly lightfast?: 'I' | 'II' | 'III' | 'IV' | 'V';
  /** Steps of the blue wool scale (ISO 105-B02), 1 fades at once .. 8 hardly ever; undefined where nobody has tested. */
  readonly blueWool?: number;
  /** Share of black against white that one coat hides, 0..1. */
  readonly hiding: number;
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
  granulation: p.watercolour.granulation,
  staining: p.watercolour.staining,
  settling: p.watercolour.settling,
  lightfast: p.lightfast.astm as Pigment['lightfast'],
  blueWool: p.lightfast.blueWool,
  hiding: p.hiding.contrastRatio1coat,
}));

/**
 * What is in paint beside pigment, as far as it changes how the paint behaves. Each rides in the film like a pigment
 * that neither absorbs nor scatters; its mass is counted in coats of its own volume.
 */
export const ADDITIVES = ['medium', 'solvent', 'acrylic', 'retarder'] as const;
export type Additive = (typeof ADDITIVES)[number];

const PIGMENT_IDS: string[] = [...PIGMENTS.map((p) => p.id), GRAPHITE, ...ADDITIVES];

/** How many paints a painter can add to the tubes. They stand last in every table, so that indices once written hold. */
export const OWN_PLACES = 48;
/** Where they begin. */
export const FIRST_OWN = PIGMENT_IDS.length;
/** Entries of every table: tubes, graphite, additives, own paints. */
export const TABLE_COUNT = FIRST_OWN + OWN_PLACES;
const COLOURED_COUNT = PIGMENTS.length + 1;

/** Labels of own paints, in the order in which they came. */
const own: Pigment[] = [];

/** Whether a table index stands for a pigment, and not for what binds or thins it. */
export const isColoured = (index: number): boolean => index < COLOURED_COUNT || index >= FIRST_OWN;
/** Whether there is a tube of this id. */
export const isTube = (id: string): boolean => tube(id) !== undefined;
/** The label of a tube, the painter's own among them; undefined when there is no such tube. */
export const tube = (id: string): Pigment | undefined => tubeAt(indexById.get(id) ?? -1);
/** The label of the tube at a table index. */
export const tubeAt = (index: number): Pigment | undefined => PIGMENTS[index] ?? own[index - FIRST_OWN];

/**
 * Gives a painter's own paint a place in the tables (see ownPaints.ts, which fills it).
 * @returns its index
 * @throws RangeError when all places are taken
 */
export function placePigment(label: Pigment): number {
  const known = indexById.get(label.id);
  if (known !== undefined) return known;
  if (own.length >= OWN_PLACES) throw new RangeError(`There is room for ${OWN_PLACES} own paints.`);
  own.push(label);
  PIGMENT_IDS.push(label.id);
  indexById.set(label.id, PIGMENT_IDS.length - 1);
  return PIGMENT_IDS.length - 1;
}

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
export const pigmentName = (id: string): string => tube(id)?.name ?? (id === GRAPHITE ? 'Graphite' : 'Unknown paint');
