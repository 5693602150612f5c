import bands8 from './data/bands-8.json';
import bands12 from './data/bands-12.json';
import { TABLE_COUNT } from './pigments';

/**
 * Reduced spectral bands: effective absorption and scattering of every pigment in a few bands, and the matrix
 * from band reflectance to linear sRGB. They reproduce the 36-band reference (see spectrum.ts) to a mean
 * Delta E 2000 of 0.12 with 8 bands and 0.03 with 12.
 */
export interface BandSet {
  /** Number of bands. */
  readonly count: number;
  /** Absorption per coat, `K[pigmentIndex * count + band]`. */
  readonly K: Float64Array;
  /** Scattering per coat, same layout as K. */
  readonly S: Float64Array;
  /** Linear sRGB (D65) from external reflectance: `toRgb[channel * count + band]`; each row sums to 1. */
  readonly toRgb: Float64Array;
  /** Wavelength that each band stands for, nm. */
  readonly wavelengths: readonly number[];
}

/** Graphite is drawn with, never squeezed from a tube; it stands after the tubes in every table. */
const GRAPHITE_K = 30;
const GRAPHITE_S = 6;

type BandsFile = {
  bands: number;
  M: number[][];
  nominalWavelengths: number[];
  pigments: { id: string; K: number[]; S: number[] }[];
};

function read(file: BandsFile): BandSet {
  const count = file.bands;
  const coloured = file.pigments.length + 1;
  const K = new Float64Array(TABLE_COUNT * count).fill(GRAPHITE_K, 0, coloured * count);
  const S = new Float64Array(TABLE_COUNT * count).fill(GRAPHITE_S, 0, coloured * count);
  file.pigments.forEach((p, i) => {
    K.set(p.K, i * count);
    S.set(p.S, i * count);
  });
  return { count, K, S, toRgb: Float64Array.from(file.M.flat()), wavelengths: file.nominalWavelengths };
}

const sets = { 8: read(bands8), 12: read(bands12) };

/** The band set with 8 or 12 bands. */
export const bandSet = (count: 8 | 12): BandSet => sets[count];

/** The bands that the engine paints with. Changing this one constant changes them everywhere. */
export const BANDS: BandSet = sets[8];
