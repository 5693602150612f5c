/**
 * Edges of a picture: how wide each is, and how strong. An edge that is soft by a Gaussian of deviation s is, after a
 * known blur s0, less steep by R = sqrt((s^2 + s0^2) / s^2); so s = s0 / sqrt(R^2 - 1) (Zhuo and Sim 2011, Defocus map
 * estimation from a single image). Each edge is measured on the scale where it is about as soft as a pixel (Elder and
 * Zucker 1998, Local scale control), and what the pixels and differences themselves soften is taken off.
 */
import type { Triple } from '@/core/colour/colorimetry';
import { maths } from '@/core/maths/maths';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import type { CodeImage } from './image';
import {
  between,
  coarser,
  finest,
  SLOPE_CUMULANT,
  SLOPE_VARIANCE,
  slopes,
  softened,
  WIDE_CUMULANT,
  WIDE_VARIANCE,
  type Scale,
  type Slopes,
} from './scales';

/** Width of an edge, by its deviation: the run that its whole change would take where it is steepest. */
const WIDTH = 2.5066282746; // sqrt(2 pi); between a tenth and nine tenths of a Gaussian's change there is 2.563
/** Least change that is an edge, CIELAB units. */
const FAINT = 4;
/** On its scale an edge has this deviation, pixels, up to twice as much; on the finest also less. */
const LEAST_DEVIATION = 0.8;
/** Softest edge that is told from a slow passage, deviation in pixels of the coarsest scale. */
const MOST_DEVIATION = 2.4;
/** Steepness that the rounding of colours to codes can make out of a slow passage, CIELAB units a pixel. */
const ROUNDING = 0.5;
/** Share of what pixels themselves soften, below which nothing that is measured is an edge. */
const NO_EDGE = 0.8;
/** Least length of an edge that is not a speck, pixels of its scale. */
const LEAST_LENGTH = 5;

/** Places on edges, about one for each pixel of the scale on which an edge is seen. */
export interface Edges {
  readonly count: number;
  /** Pixels of the picture, middle of the first is 0.5. */
  readonly x: Float32Array;
  readonly y: Float32Array;
  /** Unit vector across. */
  readonly nx: Float32Array;
  readonly ny: Float32Array;
  /** Width, mm. */
  readonly width: Float32Array;
  /** Delta E 2000 from one side to the other. */
  readonly contrast: Float32Array;
  /** Length of the edge that this place stands for, mm. */
  readonly length: Float32Array;
}

/** Places of one scale, and which of them lies in which pixel. */
interface Spots {
  /** Number of the spot in a pixel, from 1; 0 where there is none. */
  readonly at: Int32Array;
  readonly pixel: number[];
  readonly x: number[];
  readonly y: number[];
  /** Deviation of the edge itself and of all that softens it here, pixels of the scale. */
  readonly own: number[];
  readonly whole: number[];
}

/**
 * Finds and measures the edges of a picture.
 * @param mostMm widest edge that is looked for, mm
 * @param leastMm shortest edge that is no speck, mm along it
 */
export function findEdges(image: CodeImage, mostMm = 24, leastMm = 0): Edges {
  const out: Record<keyof Omit<Edges, 'count'>, number[]> = {
    x: [],
    y: [],
    nx: [],
    ny: [],
    width: [],
    contrast: [],
    length: [],
  };
  const one: Triple = [0, 0, 0];
  const other: Triple = [0, 0, 0];
  let scale: Scale | undefined = image.width < 8 || image.height < 8 ? undefined : finest(image);
  while (scale) {
    const { px, planes, width, height } = scale;
    const mm = px * image.mmPerPx;
    const next: Scale | undefined = WIDTH * 2 * LEAST_DEVIATION * mm < mostMm ? coarser(scale) : undefined;
    const steepness = slopes(planes, width, height);
    const spots = spotsOf(scale, steepness, next === undefined);
    for (const k of linked(spots, width, Math.max(LEAST_LENGTH, leastMm / mm))) {
      const nx = steepness.nx[spots.pixel[k]];
      const ny = steepness.ny[spots.pixel[k]];
      const far = Math.max(1.2, 2.2 * spots.whole[k]);
      for (let c = 0; c < 3; c++) {
        one[c] = between(planes[c], width, height, spots.x[k] - far * nx, spots.y[k] - far * ny);
        other[c] = between(planes[c], width, height, spots.x[k] + far * nx, spots.y[k] + far * ny);
      }
      out.x.push((spots.x[k] + 0.5) * px);
      out.y.push((spots.y[k] + 0.5) * px);
      out.nx.push(nx);
      out.ny.push(ny);
      out.width.push(WIDTH * spots.own[k] * mm);
      out.contrast.push(deltaE2000(one, other));
      out.length.push(mm / Math.max(Math.abs(nx), Math.abs(ny)));
    }
    scale = next;
  }
  return {
    count: out.x.length,
    x: Float32Array.from(out.x),
    y: Float32Array.from(out.y),
    nx: Float32Array.from(out.nx),
    ny: Float32Array.from(out.ny),
    width: Float32Array.from(out.width),
    contrast: Float32Array.from(out.contrast),
    length: Float32Array.from(out.length),
  };
}

/**
 * Variance of an edge, pixels squared, from how much less steep the known blur makes it. Boxes are flatter than
 * Gaussians: a fourth cumulant lowers the top of a slope by an eighth of the excess (Edgeworth's first term).
 * @param cumulant of all that softened it before
 */
function varianceOf(ratio: number, cumulant: number): number {
  const lowered = (variance: number, of: number) => 1 + of / (8 * Math.max(0.8, variance * variance));
  let variance = WIDE_VARIANCE / (ratio * ratio - 1);
  for (let turn = 0; turn < 2; turn++) {
    const mended = (ratio * lowered(variance + WIDE_VARIANCE, cumulant + WIDE_CUMULANT)) / lowered(variance, cumulant);
    variance = WIDE_VARIANCE / (mended * mended - 1);
  }
  return variance;
}

/** Places of one scale where it is steepest across, and where the edge belongs to this scale. */
function spotsOf(scale: Scale, { steep, nx, ny }: Slopes, last: boolean): Spots {
  const { width, height, there, px } = scale;
  const soft = slopes(softened(scale), width, height).steep;
  const spots: Spots = { at: new Int32Array(width * height), pixel: [], x: [], y: [], own: [], whole: [] };
  // the steepest that a change of FAINT can be where an edge is as soft as it may be on this scale
  const most = last ? MOST_DEVIATION : 2 * LEAST_DEVIATION;
  const least = FAINT / (WIDTH * Math.sqrt(most * most + scale.variance + SLOPE_VARIANCE));
  for (let y = 2; y < height - 2; y++) {
    for (let x = 2; x < width - 2; x++) {
      const i = y * width + x;
      const here = steep[i];
      if (here < least || !isInside(there, width, i)) continue;
      const before = between(steep, width, height, x - nx[i], y - ny[i]);
      const after = between(steep, width, height, x + nx[i], y + ny[i]);
      if (here < before || here <= after || before <= 0 || after <= 0) continue;
      // the top of a Gaussian through three places, and how steep the softer one is there
      const bend = maths.log((before * after) / (here * here));
      const lean = maths.log(after / before) / 2;
      const off = bend < 0 ? Math.max(-0.75, Math.min(0.75, -lean / bend)) : 0;
      const top = here * maths.exp(off * (lean + (off * bend) / 2));
      const atX = x + off * nx[i];
      const atY = y + off * ny[i];
      const softBefore = between(soft, width, height, x - nx[i], y - ny[i]);
      const softAfter = between(soft, width, height, x + nx[i], y + ny[i]);
      if (softBefore <= 0 || soft[i] <= 0 || softAfter <= 0) continue;
      const softBend = maths.log((softBefore * softAfter) / (soft[i] * soft[i]));
      const softTop = soft[i] * maths.exp(off * (maths.log(softAfter / softBefore) / 2 + (off * softBend) / 2));
      const ratio = top / softTop;
      if (ratio < 1.05 || (px === 1 && top - top / ratio < ROUNDING)) continue;
      // a difference along x softens only what of the edge runs across x, and so for y; boxes are flattest along them
      const aslant = nx[i] * nx[i] * nx[i] * nx[i] + ny[i] * ny[i] * ny[i] * ny[i];
      const variance = varianceOf(ratio, aslant * (scale.cumulant + SLOPE_CUMULANT));
      const floor = scale.variance + SLOPE_VARIANCE * aslant;
      // at corners and ends it is steeper than any edge can be
      if (variance < NO_EDGE * floor) continue;
      const own = Math.sqrt(Math.max(0, variance - floor));
      if (own >= most || (px > 1 && own < LEAST_DEVIATION)) continue;
      if (WIDTH * top * Math.sqrt(variance) < FAINT) continue;
      spots.pixel.push(i);
      spots.x.push(atX);
      spots.y.push(atY);
      spots.own.push(own);
      spots.whole.push(Math.sqrt(variance));
      spots.at[i] = spots.pixel.length;
    }
  }
  return spots;
}

function isInside(there: Uint8Array, width: number, i: number): boolean {
  return (
    (there[i - 2 * width - 2] &
      there[i - 2 * width + 2] &
      there[i + 2 * width - 2] &
      there[i + 2 * width + 2] &
      there[i]) ===
    1
  );
}

/** Numbers, from 0, of those spots that stand in a row of at least so many. */
function linked({ at, pixel }: Spots, width: number, least: number): number[] {
  const seen = new Uint8Array(pixel.length);
  const out: number[] = [];
  const around = [-width - 1, -width, -width + 1, -1, 1, width - 1, width, width + 1];
  for (let start = 0; start < pixel.length; start++) {
    if (seen[start]) continue;
    const row = [start];
    seen[start] = 1;
    for (let k = 0; k < row.length; k++) {
      for (const step of around) {
        const next = at[pixel[row[k]] + step] - 1;
        if (next < 0 || seen[next]) continue;
        seen[next] = 1;
        row.push(next);
      }
    }
    if (row.length >= least) for (const k of row) out.push(k);
  }
  return out;
}
