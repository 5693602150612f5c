/** Planes of numbers cell by cell, as measures of texture and outline need them. Lengths are mm. */
export interface Plane {
  readonly width: number;
  readonly height: number;
  readonly values: Float64Array;
  readonly mmPerPx: number;
}

/** A plane of the same size. */
export const mapped = (p: Plane, of: (v: number, i: number) => number): Plane => ({
  ...p,
  values: p.values.map((v, i) => of(v, i)),
});

/** Blurred by a Gaussian whose standard deviation is `mm`; beyond the border the last cells go on. */
export function blurredBy(p: Plane, mm: number): Plane {
  const sigma = mm / p.mmPerPx;
  const reach = Math.ceil(3 * sigma);
  if (reach === 0) return p;
  const weights = Float64Array.from({ length: 2 * reach + 1 }, (_, k) =>
    Math.exp(-((k - reach) ** 2) / (2 * sigma ** 2)),
  );
  const sum = weights.reduce((a, b) => a + b, 0);
  const along = (from: Float64Array, count: number, step: number, lines: number, next: number): Float64Array => {
    const to = new Float64Array(from.length);
    for (let line = 0; line < lines; line++) {
      for (let i = 0; i < count; i++) {
        let v = 0;
        for (let k = -reach; k <= reach; k++) {
          const at = Math.min(count - 1, Math.max(0, i + k));
          v += weights[k + reach] * from[line * next + at * step];
        }
        to[line * next + i * step] = v / sum;
      }
    }
    return to;
  };
  const { width, height } = p;
  return { ...p, values: along(along(p.values, width, 1, height, width), height, width, width, 1) };
}

/** Mean, and variance about the plane's own slope. */
export function spreadOf({ width, height, values }: Plane): { mean: number; variance: number } {
  const n = values.length;
  const mean = values.reduce((a, b) => a + b, 0) / n;
  // on a full grid x and y do not go together: the two slopes are found apart
  let sx = 0;
  let sy = 0;
  let xx = 0;
  let yy = 0;
  let all = 0;
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      const v = values[i] - mean;
      const dx = x - (width - 1) / 2;
      const dy = y - (height - 1) / 2;
      sx += v * dx;
      sy += v * dy;
      xx += dx * dx;
      yy += dy * dy;
      all += v * v;
    }
  }
  return { mean, variance: (all - (sx * sx) / xx - (sy * sy) / yy) / n };
}

/** A Gaussian of this deviation takes away half the power of a wave as long as 1. */
const HALF_POWER = 0.1325;

/** Shares of the variance that are finer than `fine` mm, between, and coarser than `coarse` mm (sizes of half a wave). */
export function sharesBySize(p: Plane, fine: number, coarse: number): { fine: number; middle: number; coarse: number } {
  const all = spreadOf(p).variance;
  const [a, b] = [fine, coarse].map((size) => spreadOf(blurredBy(p, 2 * size * HALF_POWER)).variance / all);
  return { fine: 1 - a, middle: a - b, coarse: b };
}

/** Length of the border between what is 1 and what is 0, mm, alike in all directions. */
export function perimeter(on: Plane): number {
  const { width, height, values, mmPerPx } = blurredBy(on, 1.2 * on.mmPerPx);
  let sum = 0;
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      sum += Math.hypot(values[i + 1] - values[i - 1], values[i + width] - values[i - width]) / 2;
    }
  }
  return sum * mmPerPx;
}

export const areaOf = (on: Plane): number => on.values.reduce((a, b) => a + b, 0) * on.mmPerPx ** 2;

/** The value below which this share of a plane's values lie. */
export function quantile(values: ArrayLike<number>, share: number): number {
  const sorted = Float64Array.from(values).sort();
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))];
}

/** Cut out of a plane, mm. */
export function cut(p: Plane, [x, y, w, h]: readonly [number, number, number, number]): Plane {
  const left = Math.round(x / p.mmPerPx);
  const top = Math.round(y / p.mmPerPx);
  const width = Math.round(w / p.mmPerPx);
  const height = Math.round(h / p.mmPerPx);
  const values = new Float64Array(width * height);
  for (let j = 0; j < height; j++)
    values.set(p.values.subarray((top + j) * p.width + left, (top + j) * p.width + left + width), j * width);
  return { ...p, width, height, values };
}

/** Length over which a plane goes together with itself, along x or y, mm: until its correlation has fallen to .37. */
export function togetherLength({ width, height, values, mmPerPx }: Plane, way: 'x' | 'y'): number {
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  const [count, lines, step, next] = way === 'x' ? [width, height, 1, width] : [height, width, width, 1];
  const at = (lag: number) => {
    let sum = 0;
    for (let l = 0; l < lines; l++) {
      for (let i = 0; i + lag < count; i++) {
        sum += (values[l * next + i * step] - mean) * (values[l * next + (i + lag) * step] - mean);
      }
    }
    return sum;
  };
  const all = at(0);
  for (let lag = 1; lag < count; lag++) if (at(lag) < 0.37 * all) return lag * mmPerPx;
  return count * mmPerPx;
}

/** Rank correlation of two lists (Spearman). */
export function rankCorrelation(a: readonly number[], b: readonly number[]): number {
  const ranks = (v: readonly number[]) =>
    v.map((x) => v.filter((y) => y < x).length + (v.filter((y) => y === x).length - 1) / 2);
  const [p, q] = [ranks(a), ranks(b)];
  const m = (v: readonly number[]) => v.reduce((s, x) => s + x, 0) / v.length;
  const [mp, mq] = [m(p), m(q)];
  let top = 0;
  let pp = 0;
  let qq = 0;
  p.forEach((x, i) => {
    top += (x - mp) * (q[i] - mq);
    pp += (x - mp) ** 2;
    qq += (q[i] - mq) ** 2;
  });
  return top / Math.sqrt(pp * qq);
}
