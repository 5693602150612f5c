/**
 * Levelling of wet paint after the brush has left it: Bingham flow (it moves only where the step of the surface
 * exceeds the yield of the paint) and, in films thick enough, a little surface tension that rounds lumps.
 * All channels move with the volume, so paint is conserved.
 */
export interface LevellingBlock {
  /** Word addresses. */
  film: number;
  relief: number;
  body: number;
  fresh: number;
  channels: number;
  /** Cells in a row of the window. */
  stride: number;
  /** A cell flows while `fresh` is in 1..active; every pass counts it down. */
  active: number;
  /** Share of the excess that moves in one pass. */
  rate: number;
  /** Side of a cell in units of 0.25 mm: a slope, not a step, is what paint feels. */
  cell: number;
}

/** One pass over cells [x0, x1) x [y0, y1). @returns whether any cell has passes left. */
export function levelPass(
  f32: Float32Array,
  b: LevellingBlock,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): boolean {
  const { fresh, stride, active } = b;
  let more = false;
  for (let y = y0; y < y1; y++) {
    for (let x = x0; x < x1; x++) {
      const cell = y * stride + x;
      const left = f32[fresh + cell];
      if (left <= 0) continue;
      f32[fresh + cell] = left - 1;
      if (left > 1) more = true;
      if (left > active) continue;
      if (x + 1 < x1) flow(f32, b, cell, cell + 1);
      if (y + 1 < y1) flow(f32, b, cell, cell + stride);
    }
  }
  return more;
}

/** Lets paint run between two neighbouring cells. */
function flow(f32: Float32Array, b: LevellingBlock, p: number, q: number): void {
  const n = b.channels;
  const tp = f32[b.film + p * n + n - 1];
  const tq = f32[b.film + q * n + n - 1];
  if (tp + tq < 2) return;
  let from = p;
  let to = q;
  let high = tp;
  let low = tq;
  let step = f32[b.relief + p] + tp - f32[b.relief + q] - tq;
  if (step < 0) {
    step = -step;
    from = q;
    to = p;
    high = tq;
    low = tp;
  }
  if (high < 3) return;
  const body = f32[b.body + from];
  // thin films hold on to the ground
  const yieldUm = (10 + 190 * body * body + (2500 / (25 + high)) * (0.3 + body)) * b.cell;
  let move = high > 25 && low > 25 ? 0.08 * step * (1.2 - 0.85 * body) : 0;
  if (step > yieldUm) move += b.rate * (step - yieldUm) * (1.05 - 0.75 * body);
  if (move <= 0) return;
  if (move > 0.3 * high) move = 0.3 * high;
  const share = move / high;
  f32[b.body + to] += ((body - f32[b.body + to]) * move) / (low + move);
  for (let i = 0; i < n; i++) {
    const m = f32[b.film + from * n + i] * share;
    f32[b.film + from * n + i] -= m;
    f32[b.film + to * n + i] += m;
  }
}
