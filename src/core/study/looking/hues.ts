import { labToLinear, linearToHex, linearToLab } from '@/core/colour/colorimetry';
import { isThere, LINEAR, type CodeImage } from './image';

/** Colours of about one hue and chroma in a picture, all values of them together. */
export interface HueSpot {
  /** Mean a and b, CIELAB: yellow is up, red is right; the distance from the middle is the chroma. */
  readonly a: number;
  readonly b: number;
  /** Share of the picture. */
  readonly share: number;
  /** Their mean colour. */
  readonly hex: string;
}

/** Side of a bin, CIELAB units; and bins on each side of the middle. */
const BIN = 6;
const BINS = 22;
/** Fewer than this nobody sees, share of a picture. */
const FEW = 0.001;

/** How hues and chromas are spread in a picture, the most frequent first. */
export function hueSpots({ codes }: CodeImage): HueSpot[] {
  const side = 2 * BINS;
  const sums = new Map<number, [L: number, a: number, b: number, count: number]>();
  let all = 0;
  for (const code of codes) {
    if (!isThere(code)) continue;
    const [L, a, b] = linearToLab([LINEAR[code & 255], LINEAR[(code >>> 8) & 255], LINEAR[(code >>> 16) & 255]]);
    const at = (v: number) => Math.max(0, Math.min(side - 1, Math.floor(v / BIN) + BINS));
    const key = at(b) * side + at(a);
    const sum = sums.get(key) ?? [0, 0, 0, 0];
    sum[0] += L;
    sum[1] += a;
    sum[2] += b;
    sum[3]++;
    sums.set(key, sum);
    all++;
  }
  return [...sums.values()]
    .map(([L, a, b, n]) => ({
      a: a / n,
      b: b / n,
      share: n / all,
      hex: linearToHex(labToLinear([L / n, a / n, b / n])),
    }))
    .filter(({ share }) => share >= FEW)
    .sort((p, q) => q.share - p.share);
}
