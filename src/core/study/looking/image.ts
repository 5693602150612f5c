import { chroma, decodeSrgb, encodeSrgb, linearToLab, type Triple } from '@/core/colour/colorimetry';
import { warmth } from '@/core/colour/warmth';

/** A drawn picture that is looked at: of the canvas, or of a photo. */
export interface CodeImage {
  /** 0xAABBGGRR, row by row; see-through where there is no picture. */
  readonly codes: Uint32Array;
  readonly width: number;
  readonly height: number;
  readonly mmPerPx: number;
}

/** Linear light of each code of a channel. */
export const LINEAR: Float32Array = Float32Array.from({ length: 256 }, (_, code) => decodeSrgb(code / 255));

/** Codes of linear light in 4096 steps: finer than a step of the darkest codes. */
const STEPS = 4096;
const CODES = Uint8Array.from({ length: STEPS + 1 }, (_, i) => Math.round(255 * encodeSrgb(i / STEPS)));
export const codeOf = (linear: number): number =>
  CODES[linear <= 0 ? 0 : linear >= 1 ? STEPS : Math.round(linear * STEPS)];

/** Whether there is a picture at a place. */
export const isThere = (code: number): boolean => code >>> 24 !== 0;

const red = (code: number) => LINEAR[code & 255];
const green = (code: number) => LINEAR[(code >>> 8) & 255];
const blue = (code: number) => LINEAR[(code >>> 16) & 255];

/** Relative luminance (Y) of a code, 0..1 (IEC 61966-2-1). */
export const luminanceOf = (code: number): number => 0.2126 * red(code) + 0.7152 * green(code) + 0.0722 * blue(code);

/** CIELAB of a code. */
export const labOf = (code: number): Triple => linearToLab([red(code), green(code), blue(code)]);

/** A table of something over all colours, in 64 steps a channel: made when it is first asked for. */
function overColours(of: (lab: Triple) => number): (code: number) => number {
  let table: Float32Array | undefined;
  return (code) => {
    if (!table) {
      table = new Float32Array(1 << 18);
      for (let i = 0; i < table.length; i++) {
        const step = (shift: number) => LINEAR[((i >>> shift) & 63) * 4 + 2];
        table[i] = of(linearToLab([step(0), step(6), step(12)]));
      }
    }
    return table[((code >>> 2) & 63) | ((code >>> 4) & 0xfc0) | ((code >>> 6) & 0x3f000)];
  };
}

/** Warmth and chroma of a code, CIELAB units, to within what four steps of a code make. */
export const warmthOf = overColours(warmth);
export const chromaOf = overColours(chroma);

/** Values of the luminances, in steps as fine as those of the codes: ten for white, 0 for black. */
const VALUES = Float32Array.from(
  { length: STEPS + 1 },
  (_, i) => linearToLab([i / STEPS, i / STEPS, i / STEPS])[0] / 10,
);
/** Value of a code on the painter's scale of ten: CIELAB lightness over ten. */
export const valueOf = (code: number): number => VALUES[Math.round(luminanceOf(code) * STEPS)];

/** A grey of a value, 0..10. */
export function greyOfValue(value: number): number {
  const L = Math.max(0, Math.min(10, value)) * 10;
  const f = (L + 16) / 116;
  const c = codeOf(f > 6 / 29 ? f * f * f : ((116 * f - 16) * 27) / 24389);
  return (0xff000000 | (c << 16) | (c << 8) | c) >>> 0;
}
