/**
 * Seeded randomness that is the same on every machine: integer hashes, a small generator, and value noise that
 * can close upon itself (periodic), as seamless surfaces need.
 */

/** Mulberry32: uniform numbers in 0..1 from a 32-bit seed. */
export function randomFrom(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Hash of a lattice point to 0..1. */
export function latticeHash(x: number, y: number, seed: number): number {
  let h = Math.imul(x, 374761393) + Math.imul(y, 668265263) + Math.imul(seed, 1274126177);
  h = Math.imul(h ^ (h >>> 13), 1274126177);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}

const smooth = (t: number) => t * t * (3 - 2 * t);
const wrap = (v: number, period: number) => (period ? ((v % period) + period) % period : v);

/** Value noise along a line, 0..1, one lattice cell per unit. */
export function noise1(x: number, seed: number): number {
  const x0 = Math.floor(x);
  const a = latticeHash(x0, 7, seed);
  return a + (latticeHash(x0 + 1, 7, seed) - a) * smooth(x - x0);
}

/** Value noise in the plane, 0..1; `px`, `py` are periods in lattice cells, 0 for none. */
export function noise2(x: number, y: number, seed: number, px = 0, py = 0): number {
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  const fx = smooth(x - x0);
  const fy = smooth(y - y0);
  const l = wrap(x0, px);
  const r = wrap(x0 + 1, px);
  const t = wrap(y0, py);
  const u = wrap(y0 + 1, py);
  const a = latticeHash(l, t, seed);
  const b = latticeHash(r, t, seed);
  const c = latticeHash(l, u, seed);
  return a + (b - a) * fx + (c - a) * fy + (a - b - c + latticeHash(r, u, seed)) * fx * fy;
}

/** Sum of octaves of value noise, 0..1. */
export function fractalNoise(x: number, y: number, seed: number, octaves: number, px = 0, py = 0): number {
  let sum = 0;
  let weight = 0.5;
  let total = 0;
  for (let i = 0, f = 1; i < octaves; i++, f *= 2, weight *= 0.5) {
    sum += weight * noise2(x * f, y * f, seed + i * 101, px * f, py * f);
    total += weight;
  }
  return sum / total;
}
