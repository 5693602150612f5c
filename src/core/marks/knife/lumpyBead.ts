import { noise1 } from '@/core/surface/noise';

/**
 * Paint sits unevenly on a blade, as it was taken up: each column gets what lay beside it, by a factor that wanders along
 * the edge. So colours that meet there interleave in streaks. The sum of every channel stays.
 * @param bead word address of the bead: `n` channels for each column of the blade
 */
export function makeLumpy(
  f32: Float32Array,
  bead: number,
  n: number,
  { columns, columnMm }: { readonly columns: number; readonly columnMm: number },
  seed: number,
): void {
  const s = seed & 0xffff;
  const before = f32.slice(bead, bead + columns * n);
  const filled = Array.from({ length: columns }, (_, c) => c).filter((c) => before[c * n + n - 1] > 0);
  if (filled.length === 0) return;
  const [first, last] = [filled[0], filled[filled.length - 1]];
  const from = new Int32Array(columns);
  const factor = new Float64Array(columns);
  for (let c = first; c <= last; c++) {
    const u = c * columnMm;
    const beside = (noise1(u / 1.1, s + 61) - 0.5) * 5 + (noise1(u / 0.45, s + 62) - 0.5) * 2.5;
    from[c] = Math.max(first, Math.min(last, c + Math.round(beside / columnMm)));
    factor[c] = 0.5 + 0.6 * noise1(u / 3.7, s + 63) + 0.4 * noise1(u / 1.3, s + 64);
  }
  for (let k = 0; k < n; k++) {
    let [had, gets] = [0, 0];
    for (let c = 0; c < columns; c++) {
      had += before[c * n + k];
      gets += before[from[c] * n + k] * factor[c];
    }
    // a channel that no column would get stays where it was
    if (gets <= 0) continue;
    for (let c = 0; c < columns; c++) f32[bead + c * n + k] = (before[from[c] * n + k] * factor[c] * had) / gets;
  }
}
