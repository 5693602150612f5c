/**
 * A measuring device that is not there: it "measures" any mixture as a hand-held 45/0 spectrometer would, with its
 * faults, and so stands in for one. The same seed gives the same readings.
 */
import { normalise, type Mixture } from '@/core/colour/mixture';
import { masstoneSpectrum, WAVELENGTHS, type SpectrumOf } from '@/core/colour/spectrum';
import type { SpectralSample } from '@/core/formats/spectra';
import { latticeHash } from '@/core/surface/noise';

/** Error of calibration, share; shift of the wavelengths, nm; noise of one reading, reflectance and share of it. */
const GAIN = 0.003;
const SHIFT_NM = 0.3;
const NOISE = 0.0006;
const RELATIVE_NOISE = 0.0015;
/** Readings that are averaged. */
const READINGS = 3;

/** A number with mean 0 and standard deviation 1 (sum of twelve even ones). */
const normal = (i: number, k: number, seed: number): number => {
  let sum = -6;
  for (let n = 0; n < 12; n++) sum += latticeHash(i, 12 * k + n, seed);
  return sum;
};

/**
 * Reads a drawdown of a mixture, too thick to see through.
 * @throws RangeError when a tube is not known
 */
export function measure(name: string, mixture: Mixture, seed: number, spectrumOf?: SpectrumOf): SpectralSample {
  const truth = masstoneSpectrum(mixture, spectrumOf);
  const gain = 1 + GAIN * normal(1000, 0, seed);
  const shift = (SHIFT_NM * normal(1001, 0, seed)) / (WAVELENGTHS[1] - WAVELENGTHS[0]);
  const reflectance = truth.map((r, i) => {
    const beside = truth[Math.min(truth.length - 1, Math.max(0, i + Math.sign(shift)))];
    const shifted = r + (beside - r) * Math.min(1, Math.abs(shift));
    let sum = 0;
    for (let k = 0; k < READINGS; k++) sum += (NOISE + RELATIVE_NOISE * shifted) * normal(i, k + 1, seed);
    return Math.max(0, shifted * gain + sum / READINGS);
  });
  return { name, wavelengths: WAVELENGTHS, reflectance };
}

/** The two drawdowns that a paint is known from: itself, and a tint with so many parts of titanium white. */
export function measurePaint(
  name: string,
  mixture: Mixture,
  whiteParts: number,
  seed: number,
  spectrumOf?: SpectrumOf,
): SpectralSample[] {
  const parts = normalise(mixture);
  return [
    measure(`${name}, masstone`, parts, seed, spectrumOf),
    measure(`${name}, tint 1:${whiteParts}`, { ...parts, PW6: (parts.PW6 ?? 0) + whiteParts }, seed + 1, spectrumOf),
  ];
}
