import { type Triple } from '@/core/colour/colorimetry';
import { hypot, maths } from '@/core/maths/maths';

/** Colour differences near a colour as a metric, and steps by it. */

/** Colour difference near a colour, linear: lightness, chroma and hue, each divided by what the eye forgives there. */
export interface Metric {
  /** Into `out`. */
  residual(lab: Readonly<Triple>, out: Triple): void;
  squared(L: number, a: number, b: number): number;
}

/** Delta E 2000's weights at a colour. */
export function metricAt([L0, a0, b0]: Readonly<Triple>): Metric {
  const C = hypot(a0, b0);
  const C7 = maths.pow(C, 7);
  const g = 1 + 0.5 * (1 - Math.sqrt(C7 / (C7 + 25 ** 7)));
  const cos = C > 1e-6 ? a0 / C : 1;
  const sin = C > 1e-6 ? b0 / C : 0;
  const l = 1 / (1 + (0.015 * (L0 - 50) ** 2) / Math.sqrt(20 + (L0 - 50) ** 2));
  const c = 1 / (1 + 0.045 * C);
  const h = 1 / (1 + 0.015 * C);
  return {
    residual(lab, out) {
      const da = (lab[1] - a0) * g;
      const db = lab[2] - b0;
      out[0] = (lab[0] - L0) * l;
      out[1] = (cos * da + sin * db) * c;
      out[2] = (cos * db - sin * da) * h;
    },
    squared(L, a, b) {
      const da = (a - a0) * g;
      const db = b - b0;
      const dl = (L - L0) * l;
      const dc = (cos * da + sin * db) * c;
      const dh = (cos * db - sin * da) * h;
      return dl * dl + dc * dc + dh * dh;
    },
  };
}

export const squared = ([x, y, z]: Readonly<Triple>) => x * x + y * y + z * z;

/** Solves (J Jt + damping) y = r, where row c of J is slopes[3 j + c]. */
export function dual(slopes: Float64Array, count: number, damping: number, r: Readonly<Triple>): Triple {
  let a = damping;
  let b = 0;
  let c = 0;
  let d = damping;
  let e = 0;
  let f = damping;
  for (let j = 0; j < 3 * count; j += 3) {
    const [p, q, u] = [slopes[j], slopes[j + 1], slopes[j + 2]];
    a += p * p;
    b += p * q;
    c += p * u;
    d += q * q;
    e += q * u;
    f += u * u;
  }
  const c00 = d * f - e * e;
  const c01 = c * e - b * f;
  const c02 = b * e - c * d;
  const c11 = a * f - c * c;
  const c12 = b * c - a * e;
  const c22 = a * d - b * b;
  const det = a * c00 + b * c01 + c * c02;
  return [
    (c00 * r[0] + c01 * r[1] + c02 * r[2]) / det,
    (c01 * r[0] + c11 * r[1] + c12 * r[2]) / det,
    (c02 * r[0] + c12 * r[1] + c22 * r[2]) / det,
  ];
}
