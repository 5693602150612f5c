/**
 * Levelling of wet paint after the brush has left it: Bingham flow (it moves only where the step of the surface
 * exceeds the yield of the paint) and, in films thick enough, a little surface tension that rounds lumps.
 * All channels move with the volume, so paint is conserved.
 */

/**
 * One pass over cells [x0, x1) x [y0, y1) of a window. `film`, `relief`, `body`, `cure` and `fresh` are word addresses.
 * @param n channels of a cell; as many again for the paint on top
 * @param stride cells in a row of the window
 * @param active a cell flows while its `fresh` is in 1..active; every pass counts it down
 * @param rate share of the excess that moves in one pass
 * @param size side of a cell in units of 0.25 mm: a slope, not a step, is what paint feels
 * @returns 1 when any cell has passes left, else 0
 */
export function levelPass(
  f32: Float32Array,
  film: number,
  relief: number,
  body: number,
  cure: number,
  fresh: number,
  n: number,
  stride: number,
  active: number,
  rate: number,
  size: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): number {
  let more = 0;
  for (let y = y0; y < y1; y++) {
    for (let x = x0; x < x1; x++) {
      const cell = y * stride + x;
      const left = f32[fresh + cell];
      if (left <= 0) continue;
      f32[fresh + cell] = left - 1;
      if (left > 1) more = 1;
      if (left > active) continue;
      if (x + 1 < x1) flow(f32, film, relief, body, cure, n, rate, size, cell, cell + 1);
      if (y + 1 < y1) flow(f32, film, relief, body, cure, n, rate, size, cell, cell + stride);
    }
  }
  return more;
}

/** Lets paint run between two neighbouring cells. */
function flow(
  f32: Float32Array,
  film: number,
  relief: number,
  body: number,
  cure: number,
  n: number,
  rate: number,
  size: number,
  p: number,
  q: number,
): void {
  const tp = f32[film + 2 * p * n + n - 1];
  const tq = f32[film + 2 * q * n + n - 1];
  if (tp + tq < 2) return;
  let from = p;
  let to = q;
  let high = tp;
  let low = tq;
  let step = f32[relief + p] + tp - f32[relief + q] - tq;
  if (step < 0) {
    step = -step;
    from = q;
    to = p;
    high = tq;
    low = tp;
  }
  if (high < 3) return;
  const b = f32[body + from];
  // thin films hold on to the ground
  const yieldUm = (10 + 190 * b * b + (2500 / (25 + high)) * (0.3 + b)) * size;
  let move = high > 25 && low > 25 ? 0.08 * step * (1.2 - 0.85 * b) : 0;
  if (step > yieldUm) move += rate * (step - yieldUm) * (1.05 - 0.75 * b);
  // paint that dries stands
  move *= 1 - f32[cure + from];
  if (move <= 0) return;
  if (move > 0.3 * high) move = 0.3 * high;
  const share = move / high;
  const mixed = move / (low + move);
  f32[body + to] += (b - f32[body + to]) * mixed;
  f32[cure + to] += (f32[cure + from] - f32[cure + to]) * mixed;
  const a = film + 2 * from * n;
  const z = film + 2 * to * n;
  for (let i = 0; i < 2 * n; i++) {
    const m = f32[a + i] * share;
    f32[a + i] -= m;
    f32[z + i] += m;
  }
}
