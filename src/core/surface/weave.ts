import { maths } from '@/core/maths/maths';
import { fractalNoise, latticeHash, noise2, randomFrom } from './noise';

/** A plain weave of round, slightly crushed threads under a priming. */
export interface Weave {
  /** Distance of the warp and weft threads, mm. */
  readonly pitchMm: number;
  readonly pitchWeftMm: number;
  /** Height of a thread, um. */
  readonly depthUm: number;
  /** Unevenness of the threads, 0..1. */
  readonly slub: number;
  /** Sideways wandering of the threads, in parts of 0.25 mm. */
  readonly wobble: number;
  /** Level (0..1 of the thread's height) below which the priming fills the valleys. */
  readonly priming: number;
}

interface Threads {
  /** Centre, width (both 0..1 of the patch) and thickness of each thread. */
  readonly centre: Float64Array;
  readonly width: Float64Array;
  readonly thickness: Float64Array;
  /** Nearest thread by position along the patch. */
  readonly nearest: Int16Array;
}

const LOOKUP = 4096;

function layThreads(count: number, slub: number, random: () => number): Threads {
  // hand-spun flax: no two threads are alike, and the reed leaves gaps
  const raw = Float64Array.from({ length: count }, () => {
    const r = random() + random() - 1;
    return Math.max(0.5, 1 + slub * (0.75 * r + (random() < 0.1 ? 0.6 * random() : 0)));
  });
  const total = raw.reduce((a, b) => a + b, 0);
  const centre = new Float64Array(count);
  const width = raw.map((w) => w / total);
  const thickness = new Float64Array(count);
  // the patch is cut somewhere, not between two threads
  for (let i = 0, at = 0.37 / count; i < count; i++) {
    const c = at + width[i] / 2;
    centre[i] = c < 1 ? c : c - 1;
    at += width[i];
    thickness[i] = 0.82 + 1.15 * slub * (random() + random() - 1) + 0.18 * random();
  }
  const nearest = new Int16Array(LOOKUP);
  for (let k = 0; k < LOOKUP; k++) {
    const p = (k + 0.5) / LOOKUP;
    let best = 0;
    for (let i = 1; i < count; i++) {
      if (Math.abs(around(p - centre[i])) < Math.abs(around(p - centre[best]))) best = i;
    }
    nearest[k] = best;
  }
  return { centre, width, thickness, nearest };
}

/** Signed distance on a circle of length 1. */
const around = (d: number) => (d > 0.5 ? d - 1 : d < -0.5 ? d + 1 : d);
const evenCount = (patchMm: number, pitchMm: number) => 2 * Math.max(2, Math.round(patchMm / pitchMm / 2));

/** Places along each thread at which its thickness is known. */
const PLACES = 256;

/** Thickness along threads, 1 on the mean: it swells and thins slowly, and here and there carries a slub of 4 to 18 mm. */
function slubsOf(count: number, patchMm: number, slub: number, random: () => number): Float32Array {
  const along = new Float32Array(count * PLACES).fill(1);
  for (let i = 0; i < count; i++) {
    const events = 3 + Math.floor(random() * 5);
    for (let k = 0; k < events; k++) {
      const at = random() * PLACES;
      const half = ((2 + 7 * random() * random()) / patchMm) * PLACES;
      const high = slub * (random() < 0.62 ? 0.35 + 1.1 * random() : -0.5 - 0.4 * random());
      for (let j = Math.ceil(at - 2.5 * half); j <= at + 2.5 * half; j++) {
        const d = (j - at) / half;
        along[i * PLACES + (((j % PLACES) + PLACES) % PLACES)] += high * maths.exp(-d * d);
      }
    }
  }
  return along;
}

/** Reads a ring of places between them. */
function placeAlong(along: Float32Array, i: number, p: number): number {
  const t = (p - Math.floor(p)) * PLACES;
  const k = Math.min(PLACES - 1, Math.floor(t));
  const a = along[i * PLACES + k];
  return a + (along[i * PLACES + ((k + 1) % PLACES)] - a) * (t - k);
}

/** Fills `um` (size x size, periodic) with the heights of a weave on a patch of `patchMm`. */
export function weave(um: Float32Array, size: number, patchMm: number, w: Weave, seed: number): void {
  const random = randomFrom(seed * 7919 + 13);
  const warp = layThreads(evenCount(patchMm, w.pitchMm), w.slub, random);
  const weft = layThreads(evenCount(patchMm, w.pitchWeftMm), w.slub, random);
  const coarse = Math.round(patchMm / 6); // lattice cells of the wandering: 6 mm
  const fibre = Math.round(patchMm / 0.5);
  const warpAlong = slubsOf(warp.centre.length, patchMm, w.slub, random);
  const weftAlong = slubsOf(weft.centre.length, patchMm, w.slub, random);
  const [long, short] = [Math.round(patchMm / 7), Math.round(patchMm / 0.55)];
  const wander = (w.wobble * 2 * 0.25) / patchMm;
  const profile = (u: number) => Math.sqrt(Math.max(0, 1 - 3.1 * u * u));
  const index = (p: number) => Math.min(LOOKUP - 1, Math.floor((p - Math.floor(p)) * LOOKUP));

  for (let y = 0; y < size; y++) {
    const v = (y + 0.5) / size;
    for (let x = 0; x < size; x++) {
      const u = (x + 0.5) / size;
      const px = u + wander * (fractalNoise(u * coarse, v * coarse, seed + 5, 2, coarse, coarse) - 0.5);
      const py = v + wander * (fractalNoise(u * coarse, v * coarse, seed + 9, 2, coarse, coarse) - 0.5);
      const i = warp.nearest[index(px)];
      const j = weft.nearest[index(py)];
      const ux = around(px - Math.floor(px) - warp.centre[i]) / warp.width[i];
      const uy = around(py - Math.floor(py) - weft.centre[j]) / weft.width[j];
      const over = (i + j) & 1 ? 1 : -1;
      const slubX = placeAlong(warpAlong, i, v);
      const slubY = placeAlong(weftAlong, j, u);
      // a thread is highest where it passes over the other, and no two crossings are pulled equally tight
      const crimp = 0.14 + 0.34 * latticeHash(i, j, seed + 23);
      const warpHeight = warp.thickness[i] * slubX * profile(ux) * 0.66 + crimp * over * maths.cos(Math.PI * uy);
      const weftHeight = weft.thickness[j] * slubY * profile(uy) * 0.66 - crimp * over * maths.cos(Math.PI * ux);
      let h = Math.max(warpHeight, weftHeight);
      h += 0.06 * (noise2(u * fibre, v * fibre, seed + 31, fibre, fibre) - 0.5);
      if (h < w.priming) h = w.priming + (h - w.priming) * 0.55;
      um[y * size + x] = h * w.depthUm;
    }
  }
  soften(um, size, 0.1 / (patchMm / size));
  prime(um, size, patchMm, w, seed, [long, short, fibre]);
  soften(um, size, 0.08 / (patchMm / size));
}

/** Share of the depth below the smoothed surface that priming fills, and of what stands above it that it rounds. */
const FILLS = 0.5;
const ROUNDS = 0.2;

/** Brushed priming: it runs into valleys, hardly lies on the tops, and keeps the marks of the brush that laid it. */
function prime(um: Float32Array, size: number, patchMm: number, w: Weave, seed: number, per: number[]): void {
  const [long, short, fibre] = per;
  const even = um.slice();
  soften(even, size, 0.3 / (patchMm / size));
  for (let y = 0; y < size; y++) {
    const v = (y + 0.5) / size;
    for (let x = 0; x < size; x++) {
      const u = (x + 0.5) / size;
      const at = y * size + x;
      const d = um[at] - even[at];
      const where = noise2(u * long, v * long, seed + 41, long, long);
      const brushed =
        where > 0.5
          ? noise2(u * long, v * short, seed + 43, long, short)
          : noise2(u * short, v * long, seed + 44, short, long);
      const dust = noise2(u * fibre * 2, v * fibre * 2, seed + 45, fibre * 2, fibre * 2);
      um[at] =
        even[at] +
        d * (1 - (d < 0 ? FILLS * (0.6 + 0.8 * where) : ROUNDS)) +
        w.depthUm * (0.22 * Math.abs(where - 0.5) * 2 * (brushed - 0.5) + 0.07 * (dust - 0.5));
    }
  }
}

/** Gaussian blur of a periodic field, `sigma` in cells. */
function soften(field: Float32Array, size: number, sigma: number): void {
  const radius = Math.max(1, Math.ceil(2.5 * sigma));
  const kernel = Float64Array.from({ length: 2 * radius + 1 }, (_, i) =>
    maths.exp(-((i - radius) ** 2) / (2 * sigma * sigma)),
  );
  const total = kernel.reduce((a, b) => a + b, 0);
  const line = new Float64Array(size);
  const pass = (start: number, stride: number) => {
    for (let i = 0; i < size; i++) line[i] = field[start + i * stride];
    for (let i = 0; i < size; i++) {
      let sum = 0;
      for (let k = -radius; k <= radius; k++) sum += kernel[k + radius] * line[(i + k + size) % size];
      field[start + i * stride] = sum / total;
    }
  };
  for (let y = 0; y < size; y++) pass(y * size, 1);
  for (let x = 0; x < size; x++) pass(x, size);
}
