import { BANDS, type BandSet } from '@/core/colour/bands';
import { labCurve, linearToXyz, WHITE, type Triple } from '@/core/colour/colorimetry';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { infiniteReflectance, toExternal } from '@/core/colour/kubelkaMunk';
import type { Mixture } from '@/core/colour/mixture';
import { pigmentIndex, tube } from '@/core/colour/pigments';
import { maths } from '@/core/maths/maths';
import { type Metric, metricAt, squared, dual } from './localMetric';

export interface Recipe {
  /** Parts that sum to 1. */
  readonly mixture: Mixture;
  /** CIELAB that the mixture gives, thick enough to hide. */
  readonly lab: Triple;
  /** Delta E 2000 from the colour that was asked for. */
  readonly deltaE: number;
}

export interface RecipeOptions {
  /** Most tubes in a recipe. */
  readonly mostTubes?: number;
  /** What one more tube must save, Delta E 2000. */
  readonly perTube?: number;
  /** As near as anybody needs it, Delta E 2000: one tube more is then not tried. */
  readonly enough?: number;
}

/** Logarithmic ratios of influence at which two tubes, and three, are mixed in the lattice. */
const PAIR_STEPS = [-6, -4.6, -3.4, -2.4, -1.6, -0.8, 0, 0.8, 1.6, 2.4, 3.4, 4.6, 6];
const TRIPLE_STEPS = [-3.6, -1.8, 0, 1.8, 3.6];
/** The same for many tubes, where the lattice would be large. */
const FEW_PAIR_STEPS = [-5, -3, -1.5, 0, 1.5, 3, 5];
const FEW_TRIPLE_STEPS = [-2.2, 0, 2.2];
const MANY_TUBES = 16;
/** And for few, where it may be fine. */
const FINE_TRIPLE_STEPS = [-6, -4.2, -2.8, -1.4, 0, 1.4, 2.8, 4.2, 6];
const FOUR_STEPS = [-3.9, -1.3, 1.3, 3.9];
const FEW_TUBES = 6;
/** Combinations that are refined, and of them those that get one tube more. */
const CANDIDATES = 10;
const MANY_CANDIDATES = 24;
const EXPANDED = 5;
/** Influence, as a share of the strongest tube's, below which a tube is left out. */
const NEGLIGIBLE = 0.0008;
/** Influence of one tube more when it is first tried. */
const FOURTH = 0.06;
const MOST = 4;
/** By how much a part is changed to see what it does, and one over the logarithm of it. */
const STEP = 1.002;
const INVERSE_STEP = 1 / maths.log(STEP);

interface Trial {
  readonly tubes: readonly number[];
  readonly weights: readonly number[];
  readonly error: number;
}

/** Finds recipes from one set of tubes. */
export class RecipeSolver {
  /** CIELAB of the lattice's entries, three numbers each. */
  readonly latticeLab: Float64Array;
  private readonly K: Float64Array;
  private readonly S: Float64Array;
  /** Parts of each tube that have about the same influence in a mixture. */
  private readonly even: Float64Array;
  /** Tubes (-1: none) and weights of the lattice's entries, four numbers each; and which combination each is of. */
  private readonly latticeTubes: Int16Array;
  private readonly latticeWeights: Float64Array;
  private readonly latticeSet: Int32Array;
  private readonly best: Float64Array;
  private readonly bestEntry: Int32Array;
  private readonly toXyz: Float64Array;
  private readonly lab: Triple = [0, 0, 0];
  private readonly moved: Triple = [0, 0, 0];
  private readonly slopes = new Float64Array(3 * MOST);

  /** @throws RangeError when a tube is not known, or there is none */
  constructor(
    readonly tubes: readonly string[],
    private readonly bands: BandSet = BANDS,
  ) {
    if (tubes.length === 0) throw new RangeError('A recipe needs at least one tube.');
    const { count } = bands;
    this.K = new Float64Array(tubes.length * count);
    this.S = new Float64Array(tubes.length * count);
    tubes.forEach((id, i) => {
      const row = pigmentIndex(id) * count;
      this.K.set(bands.K.subarray(row, row + count), i * count);
      this.S.set(bands.S.subarray(row, row + count), i * count);
    });
    this.even = Float64Array.from(tubes, (id) => maths.pow(Math.max(tube(id)?.tintingStrength || 0.35, 0.05), -0.75));
    this.toXyz = new Float64Array(3 * count);
    for (let b = 0; b < count; b++) {
      const rgb = [0, 1, 2].map((c) => bands.toRgb[c * count + b]) as Triple;
      linearToXyz(rgb).forEach((v, c) => (this.toXyz[c * count + b] = v));
    }
    const lattice = combinations(this.even);
    this.latticeTubes = lattice.tubes;
    this.latticeWeights = lattice.weights;
    this.latticeSet = lattice.set;
    this.best = new Float64Array(lattice.sets);
    this.bestEntry = new Int32Array(lattice.sets);
    this.latticeLab = new Float64Array(lattice.set.length * 3);
    const ids: number[] = [];
    const weights: number[] = [];
    for (let e = 0; e < lattice.set.length; e++) {
      this.entry(e, ids, weights);
      this.latticeLab.set(this.look(ids, weights, this.lab), 3 * e);
    }
  }

  /** The best recipe for a colour (CIELAB). It may miss: see its deltaE. */
  solve(asked: Readonly<Triple>, { mostTubes = MOST, perTube = 0.25, enough = 0.2 }: RecipeOptions = {}): Recipe {
    const most = Math.max(1, Math.min(MOST, mostTubes));
    const metric = metricAt(asked);
    const trials: Trial[] = [];
    for (const e of this.candidates(metric, most)) {
      const ids: number[] = [];
      const weights: number[] = [];
      this.entry(e, ids, weights);
      trials.push(this.pruned(this.refine(ids, weights, metric, 12), metric));
    }
    if (most === MOST && Math.min(...trials.map((t) => t.error)) > enough * enough)
      trials.push(...this.withOneMore(trials, metric));
    let found: { recipe: Recipe; score: number } | undefined;
    for (const trial of trials) {
      const lab = [...this.look(trial.tubes, trial.weights, this.lab)] as Triple;
      const deltaE = deltaE2000(lab, asked);
      const score = deltaE + perTube * (trial.tubes.length - 1);
      if (!found || score < found.score - 1e-9)
        found = { recipe: { mixture: this.mixture(trial), lab, deltaE }, score };
    }
    return found!.recipe;
  }

  /** Delta E 2000 of the nearest entry of the lattice: quick, and never less than a recipe's by much. */
  nearest(asked: Readonly<Triple>): number {
    const metric = metricAt(asked);
    let best = 0;
    let least = Infinity;
    for (let i = 0; i < this.latticeLab.length; i += 3) {
      const d = metric.squared(this.latticeLab[i], this.latticeLab[i + 1], this.latticeLab[i + 2]);
      if (d < least) {
        least = d;
        best = i;
      }
    }
    return deltaE2000([this.latticeLab[best], this.latticeLab[best + 1], this.latticeLab[best + 2]], asked);
  }

  private mixture({ tubes, weights }: Trial): Mixture {
    const total = weights.reduce((p, q) => p + q, 0);
    const parts = tubes.map((t, i) => [this.tubes[t], weights[i] / total] as const);
    return Object.fromEntries(parts.sort((p, q) => q[1] - p[1]));
  }

  private entry(e: number, ids: number[], weights: number[]): void {
    ids.length = weights.length = 0;
    for (let k = MOST * e; k < MOST * e + MOST && this.latticeTubes[k] >= 0; k++) {
      ids.push(this.latticeTubes[k]);
      weights.push(this.latticeWeights[k]);
    }
  }

  /** CIELAB of a mixture, into `out`. */
  private look(ids: readonly number[], weights: readonly number[], out: Triple): Triple {
    const { count } = this.bands;
    const { K, S, toXyz } = this;
    let X = 0;
    let Y = 0;
    let Z = 0;
    for (let b = 0; b < count; b++) {
      let A = 0;
      let s = 0;
      for (let i = 0; i < ids.length; i++) {
        A += weights[i] * K[ids[i] * count + b];
        s += weights[i] * S[ids[i] * count + b];
      }
      const seen = toExternal(infiniteReflectance(A, s));
      X += toXyz[b] * seen;
      Y += toXyz[count + b] * seen;
      Z += toXyz[2 * count + b] * seen;
    }
    const fx = labCurve(X / WHITE[0]);
    const fy = labCurve(Y / WHITE[1]);
    const fz = labCurve(Z / WHITE[2]);
    out[0] = 116 * fy - 16;
    out[1] = 500 * (fx - fy);
    out[2] = 200 * (fy - fz);
    return out;
  }

  /** The best entries of the most promising combinations. */
  private candidates(metric: Metric, most: number): number[] {
    const { best, bestEntry, latticeLab, latticeSet, latticeTubes } = this;
    best.fill(Infinity);
    for (let e = 0; e < latticeSet.length; e++) {
      if (most < MOST && latticeTubes[MOST * e + most] >= 0) continue;
      const d = metric.squared(latticeLab[3 * e], latticeLab[3 * e + 1], latticeLab[3 * e + 2]);
      const set = latticeSet[e];
      if (d < best[set]) {
        best[set] = d;
        bestEntry[set] = e;
      }
    }
    const count = this.tubes.length > MANY_TUBES ? MANY_CANDIDATES : CANDIDATES;
    // the few smallest, without sorting thousands
    const kept: number[] = [];
    for (let set = 0; set < best.length; set++) {
      if (best[set] === Infinity || (kept.length === count && best[set] >= best[kept[count - 1]])) continue;
      let at = kept.length === count ? count - 1 : kept.length;
      while (at > 0 && best[kept[at - 1]] > best[set]) {
        kept[at] = kept[at - 1];
        at--;
      }
      kept[at] = set;
    }
    return kept.map((set) => bestEntry[set]);
  }

  private refine(tubes: readonly number[], start: readonly number[], metric: Metric, rounds: number): Trial {
    const { slopes } = this;
    let weights = [...start];
    const r: Triple = [0, 0, 0];
    const after: Triple = [0, 0, 0];
    metric.residual(this.look(tubes, weights, this.lab), r);
    let error = squared(r);
    if (tubes.length === 1) return { tubes, weights, error };
    let damping = 1e-2;
    for (let round = 0; round < rounds && error > 1e-4; round++) {
      tubes.forEach((_, j) => {
        const kept = weights[j];
        weights[j] = kept * STEP;
        metric.residual(this.look(tubes, weights, this.moved), after);
        weights[j] = kept;
        for (let c = 0; c < 3; c++) slopes[3 * j + c] = (after[c] - r[c]) * INVERSE_STEP;
      });
      let better = false;
      for (let attempt = 0; attempt < 4 && !better; attempt++) {
        const y = dual(slopes, tubes.length, damping, r);
        const next = weights.map((w, j) => {
          const step = -(slopes[3 * j] * y[0] + slopes[3 * j + 1] * y[1] + slopes[3 * j + 2] * y[2]);
          return w * maths.exp(Math.max(-1.5, Math.min(1.5, step)));
        });
        // no tube gets so weak that it could not come back
        const strongest = Math.max(...next.map((w, j) => w / this.even[tubes[j]]));
        next.forEach((w, j) => (next[j] = Math.max(w, strongest * 2e-5 * this.even[tubes[j]])));
        metric.residual(this.look(tubes, next, this.moved), after);
        if (squared(after) < error) {
          better = squared(after) < error * 0.999;
          [r[0], r[1], r[2]] = after;
          error = squared(after);
          weights = next;
          damping = Math.max(1e-6, damping * 0.2);
          break;
        }
        damping = damping * 8 + 1e-4;
      }
      if (!better) break;
    }
    return { tubes, weights, error };
  }

  /** Leaves out what has no influence, and refines what is left. */
  private pruned(trial: Trial, metric: Metric): Trial {
    const influence = trial.tubes.map((t, j) => trial.weights[j] / this.even[t]);
    const least = Math.max(...influence) * NEGLIGIBLE;
    if (influence.every((v) => v > least)) return trial;
    const keep = <T>(list: readonly T[]) => list.filter((_, j) => influence[j] > least);
    return this.refine(keep(trial.tubes), keep(trial.weights), metric, 6);
  }

  private withOneMore(trials: readonly Trial[], metric: Metric): Trial[] {
    const key = (tubes: readonly number[]) => [...tubes].sort((p, q) => p - q).join();
    const seen = new Set(trials.map((t) => key(t.tubes)));
    const begun = new Set<string>();
    const found: Trial[] = [];
    for (const trial of [...trials].sort((p, q) => p.error - q.error)) {
      if (trial.tubes.length >= MOST || begun.has(key(trial.tubes))) continue;
      if (begun.size === EXPANDED) break;
      begun.add(key(trial.tubes));
      const strongest = Math.max(...trial.tubes.map((t, j) => trial.weights[j] / this.even[t]));
      for (let t = 0; t < this.tubes.length; t++) {
        if (trial.tubes.includes(t)) continue;
        const tubes = [...trial.tubes, t];
        if (seen.has(key(tubes))) continue;
        seen.add(key(tubes));
        const weights = [...trial.weights, strongest * this.even[t] * FOURTH];
        found.push(this.pruned(this.refine(tubes, weights, metric, 10), metric));
      }
    }
    return found;
  }
}

/** Solvers are dear to make and good for ever: the last few are kept. */
const made = new Map<string, RecipeSolver>();
const KEPT = 8;

/** The solver for a set of tubes, in any order. */
export function solverFor(tubes: readonly string[]): RecipeSolver {
  const ids = [...new Set(tubes)].sort();
  const key = ids.join();
  const solver = made.get(key) ?? new RecipeSolver(ids);
  made.delete(key);
  made.set(key, solver);
  if (made.size > KEPT) made.delete(made.keys().next().value!);
  return solver;
}

/** Mixtures of one, two and three tubes (of few tubes, four) at fixed ratios of influence. */
function combinations(even: Float64Array) {
  const n = even.length;
  const many = n > MANY_TUBES;
  const pairs = many ? FEW_PAIR_STEPS : PAIR_STEPS;
  const triples = many ? FEW_TRIPLE_STEPS : n <= FEW_TUBES ? FINE_TRIPLE_STEPS : TRIPLE_STEPS;
  const tubes: number[] = [];
  const weights: number[] = [];
  const set: number[] = [];
  let sets = 0;
  const add = (a: number, wa: number, b = -1, wb = 0, c = -1, wc = 0, d = -1, wd = 0) => {
    tubes.push(a, b, c, d);
    weights.push(wa, wb, wc, wd);
    set.push(sets);
  };
  for (let a = 0; a < n; a++) {
    add(a, 1);
    sets++;
    for (let b = a + 1; b < n; b++) {
      for (const p of pairs) add(a, even[a] * maths.exp(p / 2), b, even[b] * maths.exp(-p / 2));
      sets++;
      for (let c = b + 1; c < n; c++) {
        for (const p of triples)
          for (const q of triples) add(a, even[a], b, even[b] * maths.exp(p), c, even[c] * maths.exp(q));
        sets++;
        for (let d = c + 1; d < n && n <= FEW_TUBES; d++) {
          for (const p of FOUR_STEPS)
            for (const q of FOUR_STEPS)
              for (const r of FOUR_STEPS)
                add(a, even[a], b, even[b] * maths.exp(p), c, even[c] * maths.exp(q), d, even[d] * maths.exp(r));
          sets++;
        }
      }
    }
  }
  return { tubes: Int16Array.from(tubes), weights: Float64Array.from(weights), set: Int32Array.from(set), sets };
}
