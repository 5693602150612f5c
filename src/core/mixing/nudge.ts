/** Nudges: a mixture made lighter, darker, warmer, cooler, cleaner or duller by adding a little of a tube at hand. */
import { chroma, linearToLab, type Triple } from '@/core/colour/colorimetry';
import { BANDS } from '@/core/colour/bands';
import { infiniteReflectance } from '@/core/colour/kubelkaMunk';
import { bandsToLinear, masstoneLab, normalise, type Mixture } from '@/core/colour/mixture';
import { pigmentIndex } from '@/core/colour/pigments';
import { warmth } from '@/core/colour/warmth';
import { hypot } from '@/core/maths/maths';

export const NUDGES = ['lighter', 'darker', 'warmer', 'cooler', 'cleaner', 'duller'] as const;
export type NudgeDirection = (typeof NUDGES)[number];

export interface Nudge {
  readonly direction: NudgeDirection;
  /** Tube that is added, and how much of it to one part of the mixture. */
  readonly tube: string;
  readonly amount: number;
  /** The mixture with it; parts sum to 1. */
  readonly mixture: Mixture;
  readonly lab: Triple;
}

/** How far a nudge goes: lightness by half a value step, the others by about as much to the eye. */
const STEP: Record<NudgeDirection, number> = { lighter: 5, darker: 5, warmer: 5, cooler: 5, cleaner: 5, duller: 5 };
/** A tube must take it at least this share of the way. */
const ENOUGH = 0.3;
/** Amounts are looked for between these, parts to one part of the mixture. */
const LEAST = 1e-4;
const MOST = 2;
/** What going astray costs against going the right way. */
const ASTRAY = 0.8;

/** How far `to` lies from `from` in a direction. */
function along(direction: NudgeDirection, from: Readonly<Triple>, to: Readonly<Triple>): number {
  switch (direction) {
    case 'lighter':
      return to[0] - from[0];
    case 'darker':
      return from[0] - to[0];
    case 'warmer':
      return warmth(to) - warmth(from);
    case 'cooler':
      return warmth(from) - warmth(to);
    case 'cleaner':
      return chroma(to) - chroma(from);
    case 'duller':
      return chroma(from) - chroma(to);
  }
}

/** What changes that was not asked for. */
function astray(direction: NudgeDirection, from: Readonly<Triple>, to: Readonly<Triple>): number {
  const [dL, da, db] = [to[0] - from[0], to[1] - from[1], to[2] - from[2]];
  if (direction === 'lighter' || direction === 'darker') return hypot(da, db);
  const wanted = along(direction, from, to);
  return hypot(0.7 * dL, Math.sqrt(Math.max(0, da * da + db * db - wanted * wanted)));
}

/** The mixture with `amount` of a tube added to one part of it. */
function withTube(mixture: Mixture, tube: string, amount: number): Mixture {
  const parts = normalise(mixture);
  return normalise({ ...parts, [tube]: (parts[tube] ?? 0) + amount });
}

/** Absorption and scattering of one part of a mixture in the engine's bands. */
function bandsOf(mixture: Mixture): { K: Float64Array; S: Float64Array } {
  const { count } = BANDS;
  const K = new Float64Array(count);
  const S = new Float64Array(count);
  for (const [id, part] of Object.entries(normalise(mixture))) {
    const row = pigmentIndex(id) * count;
    for (let b = 0; b < count; b++) {
      K[b] += part * BANDS.K[row + b];
      S[b] += part * BANDS.S[row + b];
    }
  }
  return { K, S };
}

/** CIELAB of a mixture with some of a tube added: hundreds are looked at for one nudge. */
function withMore({ K, S }: { K: Float64Array; S: Float64Array }, tube: string): (amount: number) => Triple {
  const { count } = BANDS;
  const row = pigmentIndex(tube) * count;
  const R = new Float64Array(count);
  return (amount) => {
    for (let b = 0; b < count; b++) {
      R[b] = infiniteReflectance(K[b] + amount * BANDS.K[row + b], S[b] + amount * BANDS.S[row + b]);
    }
    return linearToLab(bandsToLinear(R));
  };
}

/**
 * The best way to nudge a mixture with the tubes at hand.
 * @returns undefined when none of them takes it that way, or the mixture is empty
 */
export function nudge(mixture: Mixture, direction: NudgeDirection, tubes: readonly string[]): Nudge | undefined {
  if (Object.keys(normalise(mixture)).length === 0) return undefined;
  const base = bandsOf(mixture);
  const from = masstoneLab(mixture);
  // a dull colour cannot be much duller, nor white much lighter
  const room =
    direction === 'duller'
      ? chroma(from)
      : direction === 'lighter'
        ? 100 - from[0]
        : direction === 'darker'
          ? from[0]
          : 99;
  const step = Math.min(STEP[direction], room * 0.6);
  if (step < 0.4) return undefined;
  let best: { nudge: Nudge; score: number } | undefined;
  for (const tube of tubes) {
    const look = withMore(base, tube);
    const amount = amountFor((x) => along(direction, from, look(x)), step);
    if (amount === undefined) continue;
    const lab = look(amount);
    const way = along(direction, from, lab);
    const score = way / step - ASTRAY * (astray(direction, from, lab) / step);
    if (way < ENOUGH * step || (best && score <= best.score)) continue;
    best = { nudge: { direction, tube, amount, mixture: withTube(mixture, tube, amount), lab }, score };
  }
  return best?.nudge;
}

/** The least amount that goes as far as `step`, or, where none does, the one that goes farthest. */
function amountFor(way: (amount: number) => number, step: number): number | undefined {
  let farthest = { amount: 0, way: 0 };
  let low = LEAST;
  for (let amount = LEAST; amount <= MOST; amount *= 1.6) {
    const now = way(amount);
    if (now >= step) {
      let high = amount;
      for (let i = 0; i < 14; i++) {
        const middle = Math.sqrt(low * high);
        if (way(middle) >= step) high = middle;
        else low = middle;
      }
      return high;
    }
    if (now > farthest.way) farthest = { amount, way: now };
    low = amount;
  }
  return farthest.way > 0 ? farthest.amount : undefined;
}
