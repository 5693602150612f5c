/** Paint that is carried by water: what it weighs, and how it spreads within the film (kernels/water.ts says how each loop is called). */
import { copy, WATER as B } from './water';

/** Differences of load below this stay: a brush's path, a pool. */
const STANDS = 0.07;

/**
 * Paint that is suspended under each flow cell's film (sum over pigments, in washes), the mingling currents as far as
 * they reach there, and into `nextA` the smoothed load.
 * @param list address of pairs: plane of a suspended pigment (int), and one over its mass in a wash (float)
 */
export function weighPaint(
  f32: Float32Array,
  i32: Int32Array,
  block: number,
  at: number,
  bed: number,
  list: number,
  count: number,
): void {
  const stride = i32[block + B.stride];
  const side = i32[block + B.side];
  const factor = i32[block + B.factor];
  const width = side * factor;
  const share = i32[block + B.share];
  const open = i32[block + B.open];
  const load = i32[block + B.load];
  const blur = f32[block + B.loadBlur];
  const around = (1 - blur) * 0.25;
  const inverse = 1 / (factor * factor);
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x++) {
      const i = at + y * stride + x;
      let sum = 0;
      for (let n = 0; n < count; n++) {
        const first = i32[list + 2 * n] + y * factor * width + x * factor;
        let cells = 0;
        for (let j = 0; j < factor; j++) for (let k = 0; k < factor; k++) cells += f32[first + j * width + k];
        sum += cells * f32[list + 2 * n + 1];
      }
      const covered = f32[share + i];
      if (covered <= 0) {
        f32[i32[block + B.mass] + i] = 0;
        f32[i32[block + B.stream] + i] = 0;
        f32[i32[block + B.nextA] + i] = 0;
        continue;
      }
      const o = open + i;
      const free = Math.min(f32[o], f32[o - 1], f32[o - stride], f32[o - stride - 1]);
      f32[i32[block + B.stream] + i] =
        f32[i32[block + B.currents] + bed + y * i32[block + B.bedStride] + x] * free * f32[block + B.step];
      const mass = (sum * inverse) / Math.max(0.2, covered);
      f32[i32[block + B.mass] + i] = mass;
      const l = load + i;
      const own = f32[l];
      const at4 = (d: number) => (f32[share + i + d] > 0 ? f32[l + d] : own);
      const smooth = blur * mass + around * (at4(-1) + at4(1) + at4(-stride) + at4(stride));
      f32[i32[block + B.nextA] + i] = smooth < 1e-9 ? 0 : smooth;
    }
  }
}

/** Takes over the smoothed load that `weighPaint` left. */
export function adoptLoad(f32: Float32Array, i32: Int32Array, block: number, at: number): void {
  const side = i32[block + B.side];
  for (let y = 0; y < side; y++) {
    const row = at + y * i32[block + B.stride];
    copy(f32, i32[block + B.nextA] + row, i32[block + B.load] + row, side);
  }
}

/**
 * Velocities of paint at the faces: of the film, of spreading into thinner paint or clear water, of the mingling
 * currents, and towards the rim, where the film is pinned and dries first (Deegan et al. 1997).
 * @returns the fastest beyond the film's own, reference cells a step
 */
export function pushPaint(f32: Float32Array, i32: Int32Array, block: number, at: number, bed: number): number {
  const stride = i32[block + B.stride];
  const side = i32[block + B.side];
  const share = i32[block + B.share];
  const open = i32[block + B.open];
  const load = i32[block + B.load];
  const rim = i32[block + B.rim];
  const stream = i32[block + B.stream];
  const most = f32[block + B.fastest];
  const traces = f32[block + B.traces];
  let fastest = 0;
  let drift = 0;
  /** Step of the load at a face, against what is there: -1..1. */
  const stepAt = (i: number, back: number) => {
    if (f32[share + i - back] <= 0) return 0;
    const s = (f32[load + i - back] - f32[load + i]) / (f32[load + i - back] + f32[load + i] + traces);
    return s > STANDS ? s - STANDS : s < -STANDS ? s + STANDS : 0;
  };
  const face = (out: number, film: number, i: number, back: number, current: number, spread: number, steep: number) => {
    if (f32[share + i] <= 0 || f32[share + i - back] <= 0) {
      f32[out + i] = 0;
      return;
    }
    const free = Math.min(f32[open + i - back], f32[open + i]);
    const a = current + drift * (f32[rim + i - back] - f32[rim + i]) + free * spread * steep;
    fastest = Math.max(fastest, Math.abs(a));
    const sum = a + f32[film + i];
    f32[out + i] = sum > most ? most : sum < -most ? -most : sum;
  };
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x++) {
      const i = at + y * stride + x;
      const ground = bed + y * i32[block + B.bedStride] + x;
      const lobe = f32[i32[block + B.lobes] + ground];
      const spread = Math.min(
        f32[block + B.spreadMost],
        f32[block + B.disperse] *
          f32[i32[block + B.permeable] + ground] *
          Math.max(0.05, 1 + f32[block + B.fingers] * lobe),
      );
      drift = f32[block + B.rimDrift] * Math.max(0.1, 1 + f32[block + B.rimUneven] * lobe);
      const s = f32[stream + i];
      const sx = stepAt(i, 1);
      const sy = stepAt(i, stride);
      // as fast aslant as along the axes
      const aslant = spread / Math.sqrt(Math.max(1, sx * sx + sy * sy));
      face(i32[block + B.paintU], i32[block + B.u], i, 1, f32[stream + i + stride] - s, aslant, sx);
      face(i32[block + B.paintV], i32[block + B.v], i, stride, s - f32[stream + i + 1], aslant, sy);
    }
  }
  return fastest;
}
