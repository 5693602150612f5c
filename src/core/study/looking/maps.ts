import { surroundings, type Broad, type InView } from './squint';
import {
  chromaOf,
  codeOf,
  greyOfValue,
  isThere,
  LINEAR,
  luminanceOf,
  valueOf,
  warmthOf,
  type CodeImage,
} from './image';

const pack = (r: number, g: number, b: number): number =>
  (0xff000000 | (Math.round(b) << 16) | (Math.round(g) << 8) | Math.round(r)) >>> 0;

/** Warmth beyond which a map is at its strongest, CIELAB units. */
const STRONG = 24;
/** Spacing of the stripes that tell cool places to those who do not see the hue, pixels. */
const STRIPE_PX = 6;

/** How far a temperature map looks around a place, mm. */
export const temperatureReach = (radiusMm: number): number => 3 * radiusMm;

/**
 * What is warmer and what is cooler than its surroundings: amber and blue over a grey of its value; cool places are
 * striped, so that the map is read without seeing hues too.
 * @param radiusMm of the surroundings, deviation; 0 compares with a neutral grey
 * @param at where the picture lies in the view: stripes stay where they are
 * @param broad what lies around it, where that is known
 */
export function temperatureMap(
  image: CodeImage,
  radiusMm: number,
  at: InView = { x: 0, y: 0 },
  broad?: Broad,
): Uint32Array {
  const { codes, width, height, mmPerPx } = image;
  const around = radiusMm > 0 ? surroundings(image, radiusMm / mmPerPx, warmthOf, at, broad) : undefined;
  const out = new Uint32Array(codes.length);
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      const code = codes[i];
      if (!isThere(code)) continue;
      const by = Math.max(-1, Math.min(1, (warmthOf(code) - (around ? around[i] : 0)) / STRONG));
      const v = 60 + 15 * valueOf(code);
      const stripe = by < -0.08 && ((x + at.x + y + at.y) / STRIPE_PX) % 1 < 0.28 ? 0.82 : 1;
      const k = Math.abs(by) * 0.75;
      out[i] =
        by > 0
          ? pack(v + (232 - v) * k, v + (150 - v) * k, v + (38 - v) * k)
          : pack((v + (40 - v) * k) * stripe, (v + (96 - v) * k) * stripe, (v + (196 - v) * k) * stripe);
    }
  }
  return out;
}

/** Chroma beyond which a map is at its lightest, CIELAB units. */
const FULL = 50;

/** How strong each colour is: neutral greys are black, the strongest colours white. */
export const chromaMap = ({ codes }: CodeImage): Uint32Array =>
  codes.map((code) => (isThere(code) ? greyOfValue(10 * Math.min(1, chromaOf(code) / FULL)) : 0));

/**
 * The darks lifted, so that what is in them is seen: light below a value is raised towards it, hue and order kept.
 * @param below value on the scale of ten
 */
export function liftedDarks({ codes }: CodeImage, below: number): Uint32Array {
  const edge = luminanceOf(greyOfValue(below));
  return codes.map((code) => {
    if (!isThere(code)) return 0;
    const y = luminanceOf(code);
    if (y >= edge) return code;
    // a power below one lifts the most what is darkest, and meets the rest without a step
    const lifted = edge * Math.sqrt(Math.max(y, 1e-4) / edge);
    const k = lifted / Math.max(y, 1e-4);
    const c = (shift: number) => codeOf(LINEAR[(code >>> shift) & 255] * k);
    return (0xff000000 | (c(16) << 16) | (c(8) << 8) | c(0)) >>> 0;
  });
}
