import { groundFor, type Ground, type Reading } from '@/measure/behaviour';
import { deviation, mean, paint } from '@/measure/bench';
import { blurredBy, cut, quantile, type Plane } from '@/measure/plane';
import { dipped } from './washBench';
import { DRY, wait, laid, drop } from './wetSheet';

/** Drops and pools. */

/** Around a place: the mean of the darkest in each direction, where that is, and what is inside it. */
export function sectors({ width, values, mmPerPx }: Plane, x: number, y: number, most: number, count = 48) {
  const step = 0.4;
  const rings = Math.round(most / step);
  const sums = Array.from({ length: count }, () => new Float64Array(rings));
  const cells = Array.from({ length: count }, () => new Float64Array(rings));
  const reach = Math.floor(most / mmPerPx);
  const cx = Math.round(x / mmPerPx);
  const cy = Math.round(y / mmPerPx);
  for (let j = -reach; j <= reach; j++) {
    for (let i = -reach; i <= reach; i++) {
      const r = Math.floor((Math.hypot(i, j) * mmPerPx) / step);
      if (r >= rings) continue;
      const s = Math.min(count - 1, Math.floor(((Math.atan2(j, i) + Math.PI) / (2 * Math.PI)) * count));
      sums[s][r] += values[(cy + j) * width + cx + i];
      cells[s][r]++;
    }
  }
  const at: number[] = [];
  const rims: number[] = [];
  sums.forEach((sum, s) => {
    let best = 2;
    const value = (r: number) => (cells[s][r] > 0 ? sum[r] / cells[s][r] : 1);
    for (let r = 2; r < rings; r++) if (value(r) > value(best)) best = r;
    at.push(best * step);
    rims.push(value(best));
  });
  const radius = quantile(at, 0.5);
  let inside = 0;
  let n = 0;
  sums.forEach((sum, s) => {
    for (let r = 0; r < (0.6 * radius) / step; r++) {
      inside += sum[r];
      n += cells[s][r];
    }
  });
  return { rim: mean(rims), inside: inside / n, radius, radii: at };
}

/** How far the paint in a part of a sheet (mm) is from round: rms of its radius, and of that what goes by four and by eight. */
function outOfRound(sheet: Plane, area: readonly [number, number, number, number]) {
  const part = cut(sheet, area);
  const high = Math.max(...part.values);
  const limit =
    0.3 *
    quantile(
      part.values.filter((v) => v > 0.2 * high),
      0.5,
    );
  let sx = 0;
  let sy = 0;
  let n = 0;
  part.values.forEach((v, k) => {
    if (v <= limit) return;
    sx += k % part.width;
    sy += Math.floor(k / part.width);
    n++;
  });
  const radii = Array.from({ length: 72 }, () => 0);
  part.values.forEach((v, k) => {
    if (v <= limit) return;
    const dx = (k % part.width) - sx / n;
    const dy = Math.floor(k / part.width) - sy / n;
    const sector = Math.min(71, Math.floor(((Math.atan2(dy, dx) + Math.PI) / (2 * Math.PI)) * 72));
    radii[sector] = Math.max(radii[sector], Math.hypot(dx, dy));
  });
  const middle = mean(radii);
  const harmonic = (order: number) =>
    Math.hypot(
      ...[Math.cos, Math.sin].map(
        (f) => (2 / 72) * radii.reduce((s, r, k) => s + (r / middle) * f((2 * Math.PI * order * k) / 72), 0),
      ),
    );
  return { out: deviation(radii) / middle, fourth: harmonic(4), eighth: harmonic(8) };
}

export function drops(ground: Ground): Reading[] {
  const studio = groundFor(ground, 84, 56);
  for (const i of [0, 1, 2])
    paint(studio, ...dipped('dropper', 5.3 + 1.2 * i, { PG7: 1 }, { water: 1 }), drop(15 + 26 * i, 28, 0.6));
  paint(studio, wait(30), DRY);
  const sheet = blurredBy(laid(studio, 'PG7'), 0.12);
  const all = [0, 1, 2].map((i) => outOfRound(sheet, [2 + 26 * i, 2, 26, 52]));
  return [
    { what: 'radius out of round, rms', value: Math.max(...all.map((o) => o.out)), most: 0.05 },
    { what: 'fourth harmonic', value: Math.max(...all.map((o) => o.fourth)), most: 0.03 },
    { what: 'eighth harmonic', value: Math.max(...all.map((o) => o.eighth)), most: 0.025 },
  ];
}

/** A pipette that is held still: drop falls into drop, until the pool runs, and not along the grid. */
export function heldPipette(ground: Ground): Reading[] {
  const pool = (ms: number, x: number, y: number) => {
    const studio = groundFor(ground, 40, 40);
    const readings = Array.from({ length: 401 }, (_, k) => [
      (ms * k) / 400,
      x + 0.06 * Math.sin(2.1 * k),
      y + 0.06 * Math.cos(3.7 * k),
      0.6,
    ]); // a hand trembles

    paint(studio, ...dipped('dropper', 4, { PG7: 1 }), { do: 'stroke', samples: readings }, DRY);
    return laid(studio, 'PG7');
  };
  const coats = (sheet: Plane) => sheet.values.reduce((sum, v) => sum + v, 0);
  const long = pool(4000, 20.3, 19.6);
  return [
    { what: '4 s to 20 times .2 s', value: coats(long) / coats(pool(200, 20.3, 19.6)) / 20, least: 0.95, most: 1.05 },
    { what: 'fourth harmonic', value: outOfRound(blurredBy(long, 0.12), [0, 0, 40, 40]).fourth, most: 0.07 },
  ];
}
