/**
 * Device-independent colour: sRGB (IEC 61966-2-1), CIE XYZ and CIELAB for D65 and the 2 degree observer
 * (CIE 15:2018). Linear RGB and XYZ are scaled so that a perfect white is 1.
 */
import { hypot, maths } from '@/core/maths/maths';
import cie from './data/cie.json';

export type Triple = [number, number, number];

/** White point of the tabulated observer and illuminant. */
export const WHITE = cie.whiteXYZ as Triple;
const XYZ_TO_RGB = cie.xyzToLinearSrgb as [Triple, Triple, Triple];
const RGB_TO_XYZ = invert(XYZ_TO_RGB);

const multiply = (m: readonly Triple[], [x, y, z]: Readonly<Triple>): Triple => [
  m[0][0] * x + m[0][1] * y + m[0][2] * z,
  m[1][0] * x + m[1][1] * y + m[1][2] * z,
  m[2][0] * x + m[2][1] * y + m[2][2] * z,
];

/** Inverse of a matrix of three rows, which must have one. */
export function invert(m: readonly Readonly<Triple>[]): [Triple, Triple, Triple] {
  const [[a, b, c], [d, e, f], [g, h, i]] = m;
  const det = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
  return [
    [(e * i - f * h) / det, (c * h - b * i) / det, (b * f - c * e) / det],
    [(f * g - d * i) / det, (a * i - c * g) / det, (c * d - a * f) / det],
    [(d * h - e * g) / det, (b * g - a * h) / det, (a * e - b * d) / det],
  ];
}

/** XYZ to linear sRGB. */
export const xyzToLinear = (xyz: Readonly<Triple>): Triple => multiply(XYZ_TO_RGB, xyz);
/** Linear sRGB to XYZ. */
export const linearToXyz = (rgb: Readonly<Triple>): Triple => multiply(RGB_TO_XYZ, rgb);

/** sRGB transfer curve, linear to encoded, one channel, 0..1. */
export const encodeSrgb = (v: number): number => (v <= 0.0031308 ? 12.92 * v : 1.055 * maths.pow(v, 1 / 2.4) - 0.055);
/** sRGB transfer curve, encoded to linear, one channel, 0..1. */
export const decodeSrgb = (v: number): number => (v <= 0.04045 ? v / 12.92 : maths.pow((v + 0.055) / 1.055, 2.4));

/** The cube root of CIELAB, straight near black. */
export const labCurve = (t: number) => (t > 216 / 24389 ? maths.cbrt(t) : ((24389 / 27) * t + 16) / 116);
const labCurveInverse = (t: number) => (t > 6 / 29 ? t * t * t : ((116 * t - 16) * 27) / 24389);

/** XYZ to CIELAB (L* 0..100). */
export function xyzToLab([X, Y, Z]: Readonly<Triple>): Triple {
  const fx = labCurve(X / WHITE[0]);
  const fy = labCurve(Y / WHITE[1]);
  const fz = labCurve(Z / WHITE[2]);
  return [116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)];
}

/** CIELAB to XYZ. */
export function labToXyz([L, a, b]: Readonly<Triple>): Triple {
  const fy = (L + 16) / 116;
  return [
    labCurveInverse(fy + a / 500) * WHITE[0],
    labCurveInverse(fy) * WHITE[1],
    labCurveInverse(fy - b / 200) * WHITE[2],
  ];
}

/** Linear sRGB to CIELAB. */
export const linearToLab = (rgb: Readonly<Triple>): Triple => xyzToLab(linearToXyz(rgb));

/** CIELAB to linear sRGB; channels may lie outside 0..1. */
export const labToLinear = (lab: Readonly<Triple>): Triple => xyzToLinear(labToXyz(lab));

/** Linear sRGB to 8-bit codes, clipped. */
export const linearToBytes = (rgb: Readonly<Triple>): Triple =>
  rgb.map((v) => Math.round(255 * encodeSrgb(Math.min(1, Math.max(0, v))))) as Triple;

/** Linear sRGB to `#rrggbb`, clipped. */
export const linearToHex = (rgb: Readonly<Triple>): string =>
  '#' +
  linearToBytes(rgb)
    .map((v) => v.toString(16).padStart(2, '0'))
    .join('');

/** Chroma of a CIELAB colour. */
export const chroma = ([, a, b]: Readonly<Triple>): number => hypot(a, b);
/** Hue angle of a CIELAB colour, degrees 0..360. */
export const hue = ([, a, b]: Readonly<Triple>): number => ((maths.atan2(b, a) * 180) / Math.PI + 360) % 360;
