import { maths } from '@/core/maths/maths';

/**
 * Light in a film of paint: Kubelka and Munk (1931), in the hyperbolic form of Kubelka (1948), and the passage
 * through the film's upper face after Saunderson (1942).
 *
 * `A` is the absorption and `S` the scattering of the whole film (sum of coats times coefficient), reflectances
 * are 0..1. "Internal" means inside the binder, "external" what the eye gets (specular excluded).
 */

/** Saunderson: share of outside light reflected by the face, and of inside light thrown back by it. */
export const K1 = 0.04;
export const K2 = 0.5;
/** Light that any real surface scatters before it meets the pigment; sets the deepest black at L* 4.5. */
export const VEIL = 0.005;

/** Internal to external reflectance. */
export const toExternal = (r: number, veil = VEIL): number => veil + ((1 - K1) * (1 - K2) * r) / (1 - K2 * r);

/** External to internal reflectance, the inverse of toExternal, kept just below 1. */
export function toInternal(external: number, veil = VEIL): number {
  const q = Math.max(0, external - veil);
  return Math.min(0.99999, q / ((1 - K1) * (1 - K2) + K2 * q));
}

/** Internal reflectance of a layer too thick to see through. */
export function infiniteReflectance(A: number, S: number): number {
  if (S <= 1e-9) return A > 1e-9 ? 0 : 1;
  const q = A / S;
  return 1 / (1 + q + Math.sqrt(q * q + 2 * q));
}

/** Internal reflectance of a film over a substrate of internal reflectance `Rg`: the textbook formula, any S >= 0. */
export function filmReflectance(A: number, S: number, Rg: number): number {
  if (S < 1e-7) return Rg * maths.exp(-2 * A);
  const bS = Math.sqrt(A * (A + 2 * S));
  if (bS < 1e-5) return (Rg + S * (1 - Rg)) / (1 + S * (1 - Rg));
  const a = 1 + A / S;
  const b = bS / S;
  const e = maths.exp(-2 * bS);
  const bCoth = (b * (1 + e)) / (1 - e);
  return (1 - Rg * (a - bCoth)) / (a - Rg + bCoth);
}

/**
 * The same without branches or exponentials, as the kernels use it: multiply numerator and denominator by S, and
 * write x = A(A + 2S), c = beta coth(beta) with beta = sqrt(x), where 1/(c^2 - x) = p(x) is a quartic fitted to
 * sinh^2(beta)/beta^2. Exact for S -> 0 to the accuracy of the fit.
 */
export function filmReflectanceFast(A: number, S: number, Rg: number): number {
  const x = A * (A + 2 * S);
  const p = 1 + x * (0.332777959 + x * (0.0457631785 + x * (0.00243847915 + x * 0.00026247427)));
  const c = Math.sqrt(x + 1 / p);
  const alpha = A + S;
  return (S - Rg * (alpha - c)) / (alpha - Rg * S + c);
}
