import { maths } from '@/core/maths/maths';
import { fractalNoise, noise2, randomFrom } from './noise';

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
  const raw = Float64Array.from({ length: count }, () => 1 + slub * (random() - 0.5) * 1.4);
  const total = raw.reduce((a, b) => a + b, 0);
  const centre = new Float64Array(count);
  const width = raw.map((w) => w / total);
  const thickness = new Float64Array(count);
  for (let i = 0, at = 0; i < count; i++) {
    centre[i] = at + width[i] / 2;
    at += width[i];
    thickness[i] = 0.82 + 0.72 * slub * (random() - 0.5) + 0.18 * random();
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

/** Fills `um` (size x size, periodic) with the heights of a weave on a patch of `patchMm`. */
export function weave(um: Float32Array, size: number, patchMm: number, w: Weave, seed: number): void {
  const random = randomFrom(seed * 7919 + 13);
  const warp = layThreads(evenCount(patchMm, w.pitchMm), w.slub, random);
  const weft = layThreads(evenCount(patchMm, w.pitchWeftMm), w.slub, random);
  const coarse = Math.round(patchMm / 6); // lattice cells of the wandering: 6 mm
  const fibre = Math.round(patchMm / 0.5);
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
      const slubX = 1 + w.slub * 0.6 * (noise2(i, v * coarse * 2, seed + 21, 0, coarse * 2) - 0.5);
      const slubY = 1 + w.slub * 0.6 * (noise2(u * coarse * 2, j, seed + 22, coarse * 2, 0) - 0.5);
      // a thread is highest where it passes over the other
      const warpHeight = warp.thickness[i] * slubX * profile(ux) * 0.62 + 0.38 * over * maths.cos(Math.PI * uy);
      const weftHeight = weft.thickness[j] * slubY * profile(uy) * 0.62 - 0.38 * over * maths.cos(Math.PI * ux);
      let h = Math.max(warpHeight, weftHeight);
      h += 0.06 * (noise2(u * fibre, v * fibre, seed + 31, fibre, fibre) - 0.5);
      if (h < w.priming) h = w.priming + (h - w.priming) * 0.55;
      um[y * size + x] = h * w.depthUm;
    }
  }
  soften(um, size, 0.14 / (patchMm / size));
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
