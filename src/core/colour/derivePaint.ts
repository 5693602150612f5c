/**
 * Absorption and scattering of a paint from two measured drawdowns, masstone and tint, both too thick to see through.
 *
 * Two-constant theory (Kubelka and Munk 1931; relative to a white of known K and S, after Duncan 1940): the masstone
 * gives K/S; the tint, which mixes the paint with a known white, gives what share of the light each scatters.
 */
import { maths } from '@/core/maths/maths';
import { makeOwnPaint, type OwnPaint } from './ownPaints';
import { toInternal } from './kubelkaMunk';
import { pigmentSpectrum, WAVELENGTHS } from './spectrum';

/** Scattering that a paint may have, per coat; outside of it the measurement says nothing. */
const LEAST_S = 0.02;
const MOST_S = 60;
/** Difference of K/S between masstone and tint below which a band says nothing of S. */
const TELLING = 0.02;

export interface Measured {
  readonly name: string;
  /** External reflectance at WAVELENGTHS, 0..1, specular excluded. */
  readonly masstone: readonly number[];
  readonly tint: readonly number[];
  /** Parts of white to one part of paint in the tint. */
  readonly whiteParts: number;
  /** Tube that the tint was made with. */
  readonly white?: string;
}

/** K/S of a reflectance (external) of a layer too thick to see through. */
function ratio(external: number): number {
  const R = Math.min(0.995, Math.max(0.0008, toInternal(external)));
  return ((1 - R) * (1 - R)) / (2 * R);
}

/**
 * The paint that would look as measured.
 * @throws RangeError with a sentence when the two drawdowns contradict each other
 */
export function derivePaint({ name, masstone, tint, whiteParts, white = 'PW6' }: Measured): OwnPaint {
  const { K: Kw, S: Sw } = pigmentSpectrum(white)!;
  const c = 1 / (1 + whiteParts);
  const q = masstone.map(ratio);
  const qt = tint.map(ratio);
  // from q S c + Kw (1 - c) = qt (S c + Sw (1 - c))
  const told = q.map((qm, i) => {
    const top = (1 - c) * (qt[i] * Sw[i] - Kw[i]);
    const low = c * (qm - qt[i]);
    const S = top / low;
    return low > c * TELLING && S > LEAST_S ? { S: Math.min(MOST_S, S), weight: low / c / (1 + qm) } : undefined;
  });
  if (told.filter(Boolean).length < 4) {
    throw new RangeError(
      'Masstone and tint look alike, so they do not tell how strong this paint is: the tint should be the paint mixed with white.',
    );
  }
  // scattering is smooth: bands that tell little take it from their neighbours
  const S = WAVELENGTHS.map((_, i) => {
    let sum = 0;
    let weights = 0;
    told.forEach((t, j) => {
      if (!t) return;
      const weight =
        t.weight * maths.exp(-0.5 * ((i - j) / (t.weight > 0.3 && i === j ? 0.6 : 1.1)) ** 2) + 1e-9 * t.weight;
      sum += weight * maths.log(t.S);
      weights += weight;
    });
    return maths.exp(sum / weights);
  });
  return makeOwnPaint(
    name,
    S.map((s, i) => q[i] * s),
    S,
  );
}
