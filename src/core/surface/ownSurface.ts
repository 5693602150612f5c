import { unzlibSync } from 'fflate';
import { maths } from '@/core/maths/maths';

/** A surface of the painter's own: a scan or a photo of which the lightness is taken as height. */
export interface OwnSurface {
  readonly widthPx: number;
  readonly heightPx: number;
  /** Heights 0..255, row by row; zlib, base64. */
  readonly heights: string;
  /** Width of the scanned piece, mm. */
  readonly widthMm: number;
  /** Depth of the grain (98th less 2nd percentile) at depth 1, um. */
  readonly depthUm: number;
}

/** Share of a side over which a piece is blended into its neighbour. */
const SEAM = 0.25;
/** What is longer than this share of the piece is light that fell unevenly, not grain. */
const UNEVEN = 0.2;

/** Heights of a scan, 0..1. @throws RangeError when they are not of the size it says */
export function scannedHeights({ widthPx, heightPx, heights }: OwnSurface): Float32Array {
  let bytes: Uint8Array;
  try {
    const packed = Uint8Array.from(atob(heights), (c) => c.charCodeAt(0));
    bytes = unzlibSync(packed, { out: new Uint8Array(widthPx * heightPx) });
  } catch {
    throw new RangeError('The scan of the surface is damaged.');
  }
  if (bytes.length !== widthPx * heightPx) throw new RangeError('The scan of the surface is not of the size it says.');
  return Float32Array.from(bytes, (v) => v / 255);
}

/** Takes slow changes off a plane: what the light did, and not the grain. Means over large boxes, twice. */
export function evened(plane: Float32Array, width: number, height: number): Float32Array {
  const half = Math.max(2, Math.round(Math.min(width, height) * UNEVEN));
  let slow = plane;
  for (let n = 0; n < 2; n++) slow = boxed(boxed(slow, width, height, half, 1, width), width, height, half, width, 1);
  let mean = 0;
  for (const v of plane) mean += v / plane.length;
  return plane.map((v, i) => v - slow[i] + mean);
}

function boxed(
  plane: Float32Array,
  width: number,
  height: number,
  half: number,
  step: number,
  lead: number,
): Float32Array {
  const [count, lines] = step === 1 ? [width, height] : [height, width];
  const out = new Float32Array(plane.length);
  for (let l = 0; l < lines; l++) {
    const at = l * lead;
    const get = (i: number) => plane[at + Math.max(0, Math.min(count - 1, i)) * step];
    let sum = 0;
    for (let i = -half; i <= half; i++) sum += get(i);
    for (let i = 0; i < count; i++) {
      out[at + i * step] = sum / (2 * half + 1);
      sum += get(i + half + 1) - get(i - half);
    }
  }
  return out;
}

/**
 * Makes a plane seamless along its rows: its end is blended into what comes before its beginning. The two pieces are
 * weighted so that the spread of heights stays what it is (weights whose squares add up to 1), not washed out.
 * @returns the plane, shorter by the seam
 */
export function closedAcross(
  plane: Float32Array,
  width: number,
  height: number,
): { plane: Float32Array; width: number } {
  const seam = Math.max(1, Math.floor(width * SEAM));
  const wide = width - seam;
  let mean = 0;
  for (const v of plane) mean += v / plane.length;
  const out = new Float32Array(wide * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < wide; x++) {
      const own = plane[y * width + x] - mean;
      if (x >= seam) out[y * wide + x] = own + mean;
      else {
        const angle = ((x + 0.5) / seam) * (Math.PI / 2);
        const other = plane[y * width + wide + x] - mean;
        out[y * wide + x] = own * maths.sin(angle) + other * maths.cos(angle) + mean;
      }
    }
  }
  return { plane: out, width: wide };
}

const transposed = (plane: Float32Array, width: number, height: number): Float32Array =>
  Float32Array.from(plane, (_, i) => plane[(i % height) * width + Math.floor(i / height)]);

/**
 * A seamless square height field from a scan.
 * @param size cells along its side @returns heights with mean 0 and a depth of 1 (98th less 2nd percentile)
 */
export function seamless(surface: OwnSurface, size: number): Float32Array {
  const { widthPx, heightPx } = surface;
  const level = evened(scannedHeights(surface), widthPx, heightPx);
  const across = closedAcross(level, widthPx, heightPx);
  const down = closedAcross(transposed(across.plane, across.width, heightPx), heightPx, across.width);
  const [w, h] = [across.width, down.width];
  const patch = transposed(down.plane, h, w);
  // a square of the shorter side would have seams: the whole patch is laid as often as it fits, to whole numbers
  const out = new Float32Array(size * size);
  const timesDown = Math.max(1, Math.round(w / h));
  const timesAcross = Math.max(1, Math.round(h / w));
  const at = (x: number, y: number) => patch[(((y % h) + h) % h) * w + (((x % w) + w) % w)];
  for (let y = 0; y < size; y++) {
    for (let x = 0; x < size; x++) {
      const u = ((x + 0.5) / size) * w * timesAcross - 0.5;
      const v = ((y + 0.5) / size) * h * timesDown - 0.5;
      const [i, j] = [Math.floor(u), Math.floor(v)];
      const [a, b] = [u - i, v - j];
      out[y * size + x] =
        (at(i, j) * (1 - a) + at(i + 1, j) * a) * (1 - b) + (at(i, j + 1) * (1 - a) + at(i + 1, j + 1) * a) * b;
    }
  }
  const sorted = out.slice().sort();
  const share = (q: number) => sorted[Math.floor((sorted.length - 1) * q)];
  const depth = Math.max(1e-6, share(0.98) - share(0.02));
  let mean = 0;
  for (const v of out) mean += v / out.length;
  return out.map((v) => (v - mean) / depth);
}
