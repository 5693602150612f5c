import { labCurve, linearToXyz, WHITE } from '@/core/colour/colorimetry';
import { isThere, LINEAR, type CodeImage } from './image';
import { blurByBoxes } from './squint';

/** A picture in CIELAB on one scale: each is half as fine as the one before. */
export interface Scale {
  readonly width: number;
  readonly height: number;
  /** L, a and b; beside the picture the colour goes on that is nearest along the row. */
  readonly planes: readonly Float32Array[];
  /** 1 where there is a picture. */
  readonly there: Uint8Array;
  /** Pixels of the finest scale in one of these. */
  readonly px: number;
  /** Variance by which it is soft of itself, its own pixels squared: the box of its pixels and what made it coarser. */
  readonly variance: number;
  /** Fourth cumulant of that: boxes are flatter than a Gaussian. */
  readonly cumulant: number;
}

/** Least width and height of a scale, pixels. */
const LEAST = 12;

/** Parts of each primary in X/Xn, Y/Yn and Z/Zn, row by row. */
const PARTS = Float32Array.from(
  [0, 1, 2].flatMap((row) => [0, 1, 2].map((c) => linearToXyz([+(c === 0), +(c === 1), +(c === 2)])[row] / WHITE[row])),
);
/** The curve of CIELAB in so many steps; straight between them it is within 0.01 of a unit, but for the deepest darks. */
const CURVE_STEPS = 8192;
const CURVE = Float32Array.from({ length: CURVE_STEPS + 2 }, (_, i) => labCurve(i / CURVE_STEPS));
function curve(t: number): number {
  const at = t <= 0 ? 0 : t >= 1 ? CURVE_STEPS : t * CURVE_STEPS;
  const i = at | 0;
  return CURVE[i] + (at - i) * (CURVE[i + 1] - CURVE[i]);
}

/** Variance of boxes of so many pixels, one after another, and their fourth cumulant. */
const varianceOf = (boxes: readonly number[]) => boxes.reduce((sum, n) => sum + (n * n - 1) / 12, 0);
const cumulantOf = (boxes: readonly number[]) => boxes.reduce((sum, n) => sum - (n * n * n * n - 1) / 120, 0);

/** A first blur, boxes in pixels: where an edge lies between pixels tells then little of how steep it seems. */
const CALM = [3, 3];

/** The finest scale. */
export function finest({ codes, width, height }: CodeImage): Scale {
  const planes = [0, 1, 2].map(() => new Float32Array(codes.length));
  const there = new Uint8Array(codes.length);
  let [L, a, b] = [0, 0, 0];
  for (let i = 0; i < codes.length; i++) {
    const code = codes[i];
    if (isThere(code)) {
      there[i] = 1;
      const red = LINEAR[code & 255];
      const green = LINEAR[(code >>> 8) & 255];
      const blue = LINEAR[(code >>> 16) & 255];
      const x = curve(PARTS[0] * red + PARTS[1] * green + PARTS[2] * blue);
      const y = curve(PARTS[3] * red + PARTS[4] * green + PARTS[5] * blue);
      const z = curve(PARTS[6] * red + PARTS[7] * green + PARTS[8] * blue);
      L = 116 * y - 16;
      a = 500 * (x - y);
      b = 200 * (y - z);
    }
    planes[0][i] = L;
    planes[1][i] = a;
    planes[2][i] = b;
  }
  const spare = new Float32Array(codes.length);
  for (const plane of planes) blurByBoxes(plane, spare, width, height, CALM);
  return {
    width,
    height,
    planes,
    there,
    px: 1,
    variance: 1 / 12 + varianceOf(CALM),
    cumulant: cumulantOf(CALM) - 1 / 120,
  };
}

/** The next coarser scale: 1 3 3 1 in both directions, every other place. Nothing where it would be too small. */
export function coarser(fine: Scale): Scale | undefined {
  const width = fine.width >> 1;
  const height = fine.height >> 1;
  if (Math.min(width, height) < LEAST) return undefined;
  const rows = new Float32Array(width * fine.height);
  const planes = fine.planes.map((plane) => {
    for (let y = 0; y < fine.height; y++) {
      const row = y * fine.width;
      for (let x = 0; x < width; x++) {
        const i = row + 2 * x;
        const before = plane[x === 0 ? i : i - 1];
        const after = plane[2 * x + 2 < fine.width ? i + 2 : i + 1];
        rows[y * width + x] = (before + 3 * (plane[i] + plane[i + 1]) + after) / 8;
      }
    }
    const out = new Float32Array(width * height);
    for (let y = 0; y < height; y++) {
      const at = 2 * y * width;
      const up = y === 0 ? at : at - width;
      const down = 2 * y + 2 < fine.height ? at + 2 * width : at + width;
      for (let x = 0; x < width; x++)
        out[y * width + x] = (rows[up + x] + 3 * (rows[at + x] + rows[at + width + x]) + rows[down + x]) / 8;
    }
    return out;
  });
  const there = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = 2 * y * fine.width + 2 * x;
      there[y * width + x] =
        fine.there[i] & fine.there[i + 1] & fine.there[i + fine.width] & fine.there[i + fine.width + 1];
    }
  }
  // the kernel has a variance of 3/4 of a finer pixel squared; a coarser pixel holds four finer ones
  return {
    width,
    height,
    planes,
    there,
    px: 2 * fine.px,
    variance: (fine.variance + 0.75) / 4,
    cumulant: fine.cumulant / 16,
  };
}

/** Boxes of a known blur, pixels; its variance and fourth cumulant. */
const WIDE = [3, 3, 3, 3, 3, 3];
export const WIDE_VARIANCE = varianceOf(WIDE);
export const WIDE_CUMULANT = cumulantOf(WIDE);

/** The planes of a scale, softer by a known blur: variance `WIDE_VARIANCE`. */
export function softened({ planes, width, height }: Scale): Float32Array[] {
  const spare = new Float32Array(width * height);
  return planes.map((plane) => {
    const out = Float32Array.from(plane);
    blurByBoxes(out, spare, width, height, WIDE);
    return out;
  });
}

/** Steepness of all three planes together at each place, and the direction in which it is steepest. */
export interface Slopes {
  /** CIELAB units a pixel; 0 at the rim. */
  readonly steep: Float32Array;
  /** Unit vector across the edge. */
  readonly nx: Float32Array;
  readonly ny: Float32Array;
}

/** What a difference over two pixels adds to the variance. */
export const SLOPE_VARIANCE = 1 / 3;
export const SLOPE_CUMULANT = -16 / 120;

/** Slopes of a colour picture: the larger eigenvalue of its structure (Di Zenzo 1986). */
export function slopes(planes: readonly Float32Array[], width: number, height: number): Slopes {
  const count = width * height;
  const steep = new Float32Array(count);
  const nx = new Float32Array(count);
  const ny = new Float32Array(count);
  const [L, a, b] = planes;
  for (let y = 1; y < height - 1; y++) {
    for (let i = y * width + 1; i < (y + 1) * width - 1; i++) {
      const lx = L[i + 1] - L[i - 1];
      const ly = L[i + width] - L[i - width];
      const ax = a[i + 1] - a[i - 1];
      const ay = a[i + width] - a[i - width];
      const bx = b[i + 1] - b[i - 1];
      const by = b[i + width] - b[i - width];
      const xx = lx * lx + ax * ax + bx * bx;
      const yy = ly * ly + ay * ay + by * by;
      const xy = lx * ly + ax * ay + bx * by;
      const spread = Math.sqrt((xx - yy) * (xx - yy) + 4 * xy * xy);
      const most = (xx + yy + spread) / 2;
      if (most <= 0) continue;
      steep[i] = Math.sqrt(most) / 2;
      // the eigenvector of the larger eigenvalue; of its two forms the longer
      const [ux, uy] = xx >= yy ? [most - yy, xy] : [xy, most - xx];
      const length = Math.sqrt(ux * ux + uy * uy);
      nx[i] = length > 0 ? ux / length : 1;
      ny[i] = length > 0 ? uy / length : 0;
    }
  }
  return { steep, nx, ny };
}

/** A plane between its pixels, bilinear; at the rim as there. */
export function between(plane: Float32Array, width: number, height: number, x: number, y: number): number {
  const cx = Math.max(0, Math.min(width - 1.001, x));
  const cy = Math.max(0, Math.min(height - 1.001, y));
  const i = Math.floor(cy) * width + Math.floor(cx);
  const u = cx - Math.floor(cx);
  const v = cy - Math.floor(cy);
  const right = width > 1 ? i + 1 : i;
  const down = height > 1 ? width : 0;
  return (1 - v) * ((1 - u) * plane[i] + u * plane[right]) + v * ((1 - u) * plane[i + down] + u * plane[right + down]);
}
