import { maths } from '@/core/maths/maths';
import { type randomFrom } from './noise';

/** Seamless random fields on a square of `size` x `size`, as paper is made of: blurred noise in bands, and fibres. */
export type Random = ReturnType<typeof randomFrom>;

/** Gaussian blur of a periodic field; `sigma` in cells. Wide ones are three box blurs, as their sum comes close. */
export function blurred(field: Float32Array, size: number, sigma: number): Float32Array {
  const out = field.slice();
  if (sigma <= 0) return out;
  if (sigma > 5) {
    const radius = Math.max(1, Math.round((Math.sqrt(4 * sigma * sigma + 1) - 1) / 2));
    const kernel = new Float64Array(0);
    for (let k = 0; k < 3; k++) bothWays(out, size, Math.min(size, radius), kernel);
    return out;
  }
  const radius = Math.min(size, Math.ceil(3 * sigma));
  const kernel = Float64Array.from({ length: 2 * radius + 1 }, (_, i) =>
    maths.exp(-((i - radius) ** 2) / (2 * sigma ** 2)),
  );
  const total = kernel.reduce((a, b) => a + b, 0);
  bothWays(
    out,
    size,
    radius,
    kernel.map((v) => v / total),
  );
  return out;
}

/** Filters rows, then columns. An empty kernel stands for a box. */
function bothWays(field: Float32Array, size: number, radius: number, kernel: Float64Array): void {
  // a line with its own continuation at both ends
  const line = new Float64Array(size + 2 * radius + 1);
  for (let axis = 0; axis < 2; axis++) {
    for (let start = 0; start < field.length; start += size) {
      for (let i = 0; i < size; i++) line[i + radius] = field[start + i];
      for (let i = 0; i < radius; i++) {
        line[i] = line[i + size];
        line[radius + size + i] = line[radius + i];
      }
      if (kernel.length === 0) boxLine(line, field, start, size, radius);
      else kernelLine(line, field, start, size, kernel);
    }
    transpose(field, size);
  }
}

function kernelLine(line: Float64Array, out: Float32Array, start: number, size: number, kernel: Float64Array): void {
  for (let i = 0; i < size; i++) {
    let sum = 0;
    for (let k = 0; k < kernel.length; k++) sum += kernel[k] * line[i + k];
    out[start + i] = sum;
  }
}

function boxLine(line: Float64Array, out: Float32Array, start: number, size: number, radius: number): void {
  const share = 1 / (2 * radius + 1);
  let sum = 0;
  for (let i = 0; i <= 2 * radius; i++) sum += line[i];
  for (let i = 0; i < size; i++) {
    out[start + i] = sum * share;
    sum += line[i + 2 * radius + 1] - line[i];
  }
}

/** Swaps rows and columns of a square field, in blocks that stay in the cache. */
function transpose(field: Float32Array, size: number): void {
  const block = 16;
  for (let by = 0; by < size; by += block) {
    for (let bx = by; bx < size; bx += block) {
      for (let y = by; y < Math.min(size, by + block); y++) {
        for (let x = Math.max(bx, y + 1); x < Math.min(size, bx + block); x++) {
          const v = field[y * size + x];
          field[y * size + x] = field[x * size + y];
          field[x * size + y] = v;
        }
      }
    }
  }
}

/** Brings a field to mean 0 and variance 1, in place. */
export function standardised(field: Float32Array): Float32Array {
  let mean = 0;
  for (const v of field) mean += v / field.length;
  let square = 0;
  for (const v of field) square += (v - mean) ** 2 / field.length;
  const scale = 1 / (Math.sqrt(square) || 1);
  for (let i = 0; i < field.length; i++) field[i] = (field[i] - mean) * scale;
  return field;
}

/** Bumps of sizes between two blurs (cells), mean 0, variance 1. */
export function bumps(size: number, random: Random, fine: number, coarse: number): Float32Array {
  const white = new Float32Array(size * size);
  for (let i = 0; i < white.length; i++) white[i] = random() - 0.5;
  const out = blurred(white, size, fine);
  const wide = blurred(white, size, coarse);
  for (let i = 0; i < out.length; i++) out[i] -= wide[i];
  return standardised(out);
}

/** Curved fibres: how many, their lengths and half width in cells, and how much they lie along x (0..1). */
export function fibres(
  size: number,
  random: Random,
  {
    count,
    shortest,
    longest,
    width,
    along = 0,
  }: { count: number; shortest: number; longest: number; width: number; along?: number },
): Float32Array {
  const out = new Float32Array(size * size);
  const reach = Math.ceil(width * 2);
  const wrap = (v: number) => (v + size) % size;
  const falls = Float64Array.from({ length: 512 }, (_, i) => 0.7 * maths.exp((-i * 5) / 511));
  for (let n = 0; n < count; n++) {
    let x = random() * size;
    let y = random() * size;
    let heading = (random() - 0.5) * Math.PI * (1 - along);
    const length = shortest + random() * (longest - shortest);
    const height = (0.35 + 0.65 * random()) * (random() < 0.5 ? 1 : -0.7);
    let curl = (random() - 0.5) * 0.12;
    for (let s = 0; s < length; s += 0.7) {
      const fade = maths.sin((Math.PI * s) / length);
      const cx = Math.floor(x);
      const cy = Math.floor(y);
      for (let dy = -reach; dy <= reach; dy++) {
        const row = wrap(cy + dy) * size;
        for (let dx = -reach; dx <= reach; dx++) {
          const q = ((cx + dx - x) ** 2 + (cy + dy - y) ** 2) / (width * width);
          if (q <= 5) out[row + wrap(cx + dx)] += height * fade * falls[(q * 102.2) | 0];
        }
      }
      x = (x + maths.cos(heading) * 0.7 + size) % size;
      y = (y + maths.sin(heading) * 0.7 + size) % size;
      heading += curl;
      curl += (random() - 0.5) * 0.02;
    }
  }
  return standardised(out);
}

/** Weighted sum of fields. */
export function summed(parts: readonly (readonly [weight: number, field: Float32Array])[]): Float32Array {
  const out = new Float32Array(parts[0][1].length);
  for (const [weight, field] of parts) for (let i = 0; i < out.length; i++) out[i] += weight * field[i];
  return out;
}

/** A periodic field at another size: averaged where it gets smaller, smoothly interpolated where it gets larger. */
export function resampled(field: Float32Array, from: number, to: number): Float32Array {
  if (from === to) return field.slice();
  const ratio = from / to;
  const source = ratio > 1 ? blurred(field, from, 0.42 * ratio) : field;
  const out = new Float32Array(to * to);
  const at = new Int32Array(to);
  const weight = new Float64Array(to * 4);
  for (let i = 0; i < to; i++) {
    const u = (i + 0.5) * ratio - 0.5;
    at[i] = Math.floor(u);
    const t = u - at[i];
    // Catmull and Rom's cubic
    weight[4 * i] = 0.5 * (-t + 2 * t * t - t * t * t);
    weight[4 * i + 1] = 0.5 * (2 - 5 * t * t + 3 * t * t * t);
    weight[4 * i + 2] = 0.5 * (t + 4 * t * t - 3 * t * t * t);
    weight[4 * i + 3] = 0.5 * (-t * t + t * t * t);
  }
  const rows = new Float32Array(from * to);
  for (let y = 0; y < from; y++) {
    for (let x = 0; x < to; x++) {
      let sum = 0;
      for (let k = 0; k < 4; k++) sum += weight[4 * x + k] * source[y * from + ((at[x] + k - 1 + from) % from)];
      rows[y * to + x] = sum;
    }
  }
  for (let y = 0; y < to; y++) {
    for (let x = 0; x < to; x++) {
      let sum = 0;
      for (let k = 0; k < 4; k++) sum += weight[4 * y + k] * rows[((at[y] + k - 1 + from) % from) * to + x];
      out[y * to + x] = sum;
    }
  }
  return out;
}
