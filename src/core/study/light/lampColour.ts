import { xyzToLinear, type Triple } from '@/core/colour/colorimetry';

/** From candle to blue sky, kelvin. */
export const KELVIN = { least: 1800, most: 12_000, day: 6500 } as const;

/**
 * Colour of a light by its temperature, linear sRGB, the largest of the three 1: the Planckian locus by the cubic fit of
 * Kim et al. 2002, balanced so that 6500 K is white.
 * @param kelvin 1667 to 25,000; what lies beyond is taken as that
 */
export function lampColour(kelvin: number): [number, number, number] {
  const at = planckian(kelvin);
  const day = planckian(KELVIN.day);
  const out = at.map((v, c) => Math.max(0, v) / day[c]);
  const most = Math.max(...out);
  return [out[0] / most, out[1] / most, out[2] / most];
}

function planckian(kelvin: number): Triple {
  const T = Math.max(1667, Math.min(25_000, kelvin));
  const t = 1000 / T;
  const x =
    T <= 4000
      ? -0.2661239 * t * t * t - 0.234358 * t * t + 0.8776956 * t + 0.17991
      : -3.0258469 * t * t * t + 2.1070379 * t * t + 0.2226347 * t + 0.24039;
  const y =
    T <= 2222
      ? -1.1063814 * x * x * x - 1.3481102 * x * x + 2.18555832 * x - 0.20219683
      : T <= 4000
        ? -0.9549476 * x * x * x - 1.37418593 * x * x + 2.09137015 * x - 0.16748867
        : 3.081758 * x * x * x - 5.8733867 * x * x + 3.75112997 * x - 0.37001483;
  return xyzToLinear([x / y, 1, (1 - x - y) / y]);
}
