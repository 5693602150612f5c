import { hypot, maths } from '@/core/maths/maths';
import type { Triple } from './colorimetry';

const RAD = Math.PI / 180;
const P7 = 25 ** 7;

/**
 * Colour difference Delta E 2000 between two CIELAB colours (ISO/CIE 11664-6).
 * Implemented after Sharma, Wu and Dalal (2005), whose test pairs are in the tests. The pitfalls are in the
 * mean hue (angles that straddle 0) and in hue when one colour is neutral.
 */
export function deltaE2000([L1, a1, b1]: Readonly<Triple>, [L2, a2, b2]: Readonly<Triple>): number {
  const meanC7 = maths.pow((hypot(a1, b1) + hypot(a2, b2)) / 2, 7);
  const g = 1 + 0.5 * (1 - Math.sqrt(meanC7 / (meanC7 + P7)));
  const A1 = a1 * g;
  const A2 = a2 * g;
  const C1 = hypot(A1, b1);
  const C2 = hypot(A2, b2);
  const neutral = C1 * C2 === 0;
  const h1 = C1 === 0 ? 0 : (maths.atan2(b1, A1) / RAD + 360) % 360;
  const h2 = C2 === 0 ? 0 : (maths.atan2(b2, A2) / RAD + 360) % 360;

  let dh = neutral ? 0 : h2 - h1;
  if (dh > 180) dh -= 360;
  else if (dh < -180) dh += 360;
  const dH = 2 * Math.sqrt(C1 * C2) * maths.sin((dh / 2) * RAD);

  let h = h1 + h2;
  if (!neutral) {
    if (Math.abs(h1 - h2) <= 180) h /= 2;
    else h = h < 360 ? (h + 360) / 2 : (h - 360) / 2;
  }
  const L = (L1 + L2) / 2 - 50;
  const C = (C1 + C2) / 2;
  const T =
    1 -
    0.17 * maths.cos((h - 30) * RAD) +
    0.24 * maths.cos(2 * h * RAD) +
    0.32 * maths.cos((3 * h + 6) * RAD) -
    0.2 * maths.cos((4 * h - 63) * RAD);
  const l = (L2 - L1) / (1 + (0.015 * L * L) / Math.sqrt(20 + L * L));
  const c = (C2 - C1) / (1 + 0.045 * C);
  const e = dH / (1 + 0.015 * C * T);
  const C7 = maths.pow(C, 7);
  const turn = -maths.sin(60 * maths.exp(-(((h - 275) / 25) ** 2)) * RAD) * 2 * Math.sqrt(C7 / (C7 + P7));
  return Math.sqrt(l * l + c * c + e * e + turn * c * e);
}
