/** Strings: rows of mixtures set out before painting. */
import { chroma, hue, type Triple } from '@/core/colour/colorimetry';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { masstoneLab, normalise, type Mixture } from '@/core/colour/mixture';
import { maths } from '@/core/maths/maths';
import { lch } from './relations';
import type { Recipe, RecipeSolver } from './recipe';

const joined = (a: Mixture, b: Mixture, share: number): Mixture => {
  const parts: Record<string, number> = {};
  for (const [id, part] of Object.entries(normalise(a))) parts[id] = part * (1 - share);
  for (const [id, part] of Object.entries(normalise(b))) parts[id] = (parts[id] ?? 0) + part * share;
  return normalise(parts);
};

/** Shares that are tried between two mixtures: fine where a strong tube changes much with little. */
const SHARES = Array.from({ length: 121 }, (_, i) => 1 / (1 + maths.exp(-(i - 60) / 6)));

/**
 * A row of mixtures from one to another, in steps that look alike (equal lengths along the way, Delta E 2000).
 * @param count how many, the two at the ends among them; at least 2
 */
export function stringBetween(
  a: Mixture,
  b: Mixture,
  count: number,
): { mixture: Mixture; lab: Triple; share: number }[] {
  const way = [0, ...SHARES, 1].map((share) => {
    const mixture = share === 0 ? normalise(a) : share === 1 ? normalise(b) : joined(a, b, share);
    return { share, mixture, lab: masstoneLab(mixture), length: 0 };
  });
  for (let i = 1; i < way.length; i++) way[i].length = way[i - 1].length + deltaE2000(way[i - 1].lab, way[i].lab);
  const whole = way[way.length - 1].length;
  return Array.from({ length: count }, (_, k) => {
    const wanted = (whole * k) / (count - 1);
    const at = Math.max(
      1,
      way.findIndex((p) => p.length >= wanted - 1e-9),
    );
    const [p, q] = [way[at - 1], way[at]];
    if (k === 0 || k === count - 1 || q.length === p.length) return k === 0 ? way[0] : q;
    const share = p.share + ((q.share - p.share) * (wanted - p.length)) / (q.length - p.length);
    const mixture = joined(a, b, share);
    return { mixture, lab: masstoneLab(mixture), share };
  }).map(({ mixture, lab, share }) => ({ mixture, lab, share }));
}

/** How near a step of a value string must come to what it should be, Delta E 2000. */
const NEAR = 1;

/**
 * One mixture from dark to light at even steps of value, keeping its hue, and its chroma as far as the tubes reach it.
 * @param from CIELAB lightness of the darkest step, @param to of the lightest
 */
export function valueString(
  mixture: Mixture,
  solver: RecipeSolver,
  count: number,
  from: number,
  to: number,
): (Recipe & { asked: Triple })[] {
  const lab = masstoneLab(mixture);
  const [C, h] = [chroma(lab), hue(lab)];
  return Array.from({ length: count }, (_, k) => {
    const L = from + ((to - from) * k) / Math.max(1, count - 1);
    const at = (c: number) => {
      const asked = lch(L, c, h);
      return { ...solver.solve(asked), asked };
    };
    const full = at(C);
    if (full.deltaE <= NEAR) return full;
    // less chroma, until it can be reached
    let [low, high] = [0, C];
    let found = at(0);
    for (let i = 0; i < 7; i++) {
      const c = (low + high) / 2;
      const tried = at(c);
      if (tried.deltaE <= NEAR) {
        low = c;
        found = tried;
      } else high = c;
    }
    return found;
  });
}
