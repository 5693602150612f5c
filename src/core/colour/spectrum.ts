/**
 * The 36-band reference (380..730 nm in 10 nm steps): slow and exact, the yardstick for the reduced bands.
 */
import cie from './data/cie.json';
import file from './data/pigments.json';
import { xyzToLab, type Triple } from './colorimetry';
import { filmReflectance, infiniteReflectance, toExternal } from './kubelkaMunk';
import { normalise, type Mixture } from './mixture';

/** Wavelengths of the bands, nm. */
export const WAVELENGTHS: readonly number[] = cie.wavelengths;
const byId = new Map<string, PigmentSpectrum>(file.pigments.map((p) => [p.id, p]));

/** Absorption and scattering of one coat of a pigment at each of WAVELENGTHS. */
export interface PigmentSpectrum {
  readonly K: readonly number[];
  readonly S: readonly number[];
}

/** Spectrum of a tube, or undefined when there is none of that id. */
export const pigmentSpectrum = (id: string): PigmentSpectrum | undefined => byId.get(id);

/** Makes the spectrum of an own paint known (see ownPaints.ts). */
export const placeSpectrum = (id: string, spectrum: PigmentSpectrum): unknown => byId.set(id, spectrum);

const norm = 1 / cie.ybar.reduce((sum, y, i) => sum + y * cie.d65[i], 0);

/** External reflectance in 36 bands to XYZ under D65, 2 degree observer. */
export function spectrumToXyz(reflectance: readonly number[]): Triple {
  const xyz: Triple = [0, 0, 0];
  for (let i = 0; i < WAVELENGTHS.length; i++) {
    const light = reflectance[i] * cie.d65[i] * norm;
    xyz[0] += light * cie.xbar[i];
    xyz[1] += light * cie.ybar[i];
    xyz[2] += light * cie.zbar[i];
  }
  return xyz;
}

/** External reflectance in 36 bands to CIELAB. */
export const spectrumToLab = (reflectance: readonly number[]): Triple => xyzToLab(spectrumToXyz(reflectance));

/** Spectra by the id of a paint; undefined where there is none. */
export type SpectrumOf = (id: string) => PigmentSpectrum | undefined;

function absorptionScattering(
  mixture: Mixture,
  coats: number,
  spectrumOf: SpectrumOf = pigmentSpectrum,
): { A: number[]; S: number[] } {
  const A = WAVELENGTHS.map(() => 0);
  const S = WAVELENGTHS.map(() => 0);
  for (const [id, part] of Object.entries(normalise(mixture))) {
    const p = spectrumOf(id);
    if (!p) throw new RangeError(`There is no spectrum for "${id}".`);
    for (let i = 0; i < A.length; i++) {
      A[i] += part * coats * p.K[i];
      S[i] += part * coats * p.S[i];
    }
  }
  return { A, S };
}

/**
 * External reflectance in 36 bands of a mixture too thick to see through.
 * @throws RangeError when a paint has no spectrum
 */
export function masstoneSpectrum(mixture: Mixture, spectrumOf?: SpectrumOf): number[] {
  const { A, S } = absorptionScattering(mixture, 1, spectrumOf);
  return A.map((a, i) => toExternal(infiniteReflectance(a, S[i])));
}

/** Internal reflectance in 36 bands of `coats` of a mixture over a substrate of internal reflectance (36 values, or one). */
export function filmSpectrum(mixture: Mixture, coats: number, substrate: number | readonly number[]): number[] {
  const { A, S } = absorptionScattering(mixture, coats);
  return A.map((a, i) => filmReflectance(a, S[i], typeof substrate === 'number' ? substrate : substrate[i]));
}
