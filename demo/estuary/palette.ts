import type { Triple } from '@/core/colour/colorimetry';
import { masstoneLab, type Mixture } from '@/core/colour/mixture';
import { randomFrom } from '@/core/surface/noise';

/** Mixtures of a few tubes, as many colours as they reach, found by the colour that they have. */

/** Mixtures that are tried, and how far apart in CIELAB those are that are kept. */
const TRIED = 60_000;
const GRAIN = 0.8;
/** Mixtures of the same grain that are kept, so that a colour is not always made from the same tubes. */
const ALIKE = 2;
/** How much more a difference in lightness counts. */
const LIGHTNESS = 1.3;

export class Palette {
  private readonly mixtures: { readonly parts: Mixture; readonly lab: Triple }[] = [];

  /** @param tubes ids of tubes; the first is white */
  constructor(tubes: readonly string[], seed = 1) {
    const random = randomFrom(seed);
    // equal shares of colour, not of paint
    const strength = tubes.map((id) => 0.15 + (100 - masstoneLab({ [id]: 1 })[0]) / 25);
    const seen = new Map<string, number>();
    for (let n = 0; n < TRIED; n++) {
      const parts: Record<string, number> = {};
      let sum = 0;
      for (let k = 2 + Math.floor(random() * 3); k > 0; k--) {
        const t = Math.floor(random() * tubes.length);
        const part = -Math.log(1 - random()) / strength[t] ** 0.8;
        parts[tubes[t]] = (parts[tubes[t]] ?? 0) + part;
        sum += part;
      }
      if (random() < 0.7) parts[tubes[0]] = (parts[tubes[0]] ?? 0) + sum * 10 ** (-1.5 + 3.8 * random());
      const lab = masstoneLab(parts);
      const grain = lab.map((v) => Math.round(v / GRAIN)).join();
      const there = seen.get(grain) ?? 0;
      if (there >= ALIKE) continue;
      seen.set(grain, there + 1);
      const all = Object.values(parts).reduce((a, b) => a + b, 0);
      const told = Object.entries(parts)
        .map(([id, v]) => [id, Math.round((v / all) * 1e4) / 1e4] as const)
        .filter(([, v]) => v > 0.0015);
      this.mixtures.push({ parts: Object.fromEntries(told), lab });
    }
  }

  /** A mixture of a colour: one of those that come near it. @param spread how much worse than the best one, Delta E */
  mix([L, a, b]: Readonly<Triple>, random: () => number, spread: number): Mixture {
    const far = this.mixtures.map(({ lab }) => Math.hypot(LIGHTNESS * (lab[0] - L), lab[1] - a, lab[2] - b));
    const best = far.reduce((x, y) => Math.min(x, y), Infinity);
    const near = this.mixtures.filter((_, i) => far[i] <= best + spread);
    return near[Math.floor(random() * near.length)].parts;
  }
}
