/** How often each code occurs: red, green, blue and luma, 256 counts each. */
export type Counts = number[][];

export const noCounts = (): Counts => [0, 1, 2, 3].map(() => new Array<number>(256).fill(0));

/** Counts every `step`th of some colours. @param codes 0xAABBGGRR; those that are mostly see-through do not count */
export function count(counts: Counts, codes: Uint32Array, step = 1): void {
  const [red, green, blue, luma] = counts;
  for (let i = 0; i < codes.length; i += step) {
    const v = codes[i];
    if (v >>> 24 < 128) continue;
    const [r, g, b] = [v & 255, (v >>> 8) & 255, (v >>> 16) & 255];
    red[r]++;
    green[g]++;
    blue[b]++;
    luma[Math.round(0.2126 * r + 0.7152 * g + 0.0722 * b)]++;
  }
}
