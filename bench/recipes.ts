/**
 * How near recipes come and how long they take, as JSON.
 *   npm run bench:recipes
 *
 * Colours that the tubes can mix (random mixtures of one to four of them, seen in 36 bands), and colours anywhere.
 */
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { masstoneLab } from '@/core/colour/mixture';
import { PIGMENTS, tube } from '@/core/colour/pigments';
import { masstoneSpectrum, spectrumToLab } from '@/core/colour/spectrum';
import { TUBE_SETS } from '@/core/colour/tubeSets';
import type { Triple } from '@/core/colour/colorimetry';
import { RecipeSolver } from '@/core/mixing/recipe';
import { latticeHash } from '@/core/surface/noise';
import { copyTime, round } from './measure';

const COUNT = 1000;
const share = (values: readonly number[], p: number) =>
  round([...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * p))]);
const figures = (values: readonly number[]) => ({
  mean: round(values.reduce((a, b) => a + b, 0) / values.length),
  p95: share(values, 0.95),
  max: share(values, 1),
});

function mixture(tubes: readonly string[], k: number) {
  const random = (i: number) => latticeHash(k, i, 41);
  const size = Math.min(tubes.length, 1 + Math.floor(random(0) * 4));
  const order = tubes.map((id, i) => [random(i + 10), id] as const).sort((p, q) => p[0] - q[0]);
  return Object.fromEntries(
    order.slice(0, size).map(([, id], i) => {
      const even = Math.max(tube(id)!.tintingStrength || 0.35, 0.05) ** -0.75;
      return [id, even * Math.exp((random(i + 100) - 0.5) * 5)];
    }),
  );
}

const copy = copyTime();
const report: Record<string, unknown> = { copyMs: round(copy) };
const sets = [...TUBE_SETS, { id: 'all', tubes: PIGMENTS.map((p) => p.id) }];
for (const { id, tubes } of sets) {
  const start = performance.now();
  const solver = new RecipeSolver(tubes);
  const built = performance.now() - start;
  const errors: number[] = [];
  const errors36: number[] = [];
  const counts = [0, 0, 0, 0];
  const times: number[] = [];
  const timed = (lab: Triple) => {
    const before = performance.now();
    const recipe = solver.solve(lab);
    times.push(performance.now() - before);
    return recipe;
  };
  for (let k = 0; k < COUNT; k++) {
    const parts = mixture(tubes, k);
    const seen = spectrumToLab(masstoneSpectrum(parts));
    errors36.push(deltaE2000(spectrumToLab(masstoneSpectrum(timed(seen).mixture)), seen));
    const recipe = timed(masstoneLab(parts));
    errors.push(recipe.deltaE);
    counts[Object.keys(recipe.mixture).length - 1]++;
  }
  for (let k = 0; k < COUNT; k++) {
    const random = (i: number) => latticeHash(k, i, 77);
    timed([5 + 90 * random(0), 160 * (random(1) - 0.5), 160 * (random(2) - 0.5)]);
  }
  report[id] = {
    tubes: tubes.length,
    latticeMs: round(built),
    deltaE: figures(errors),
    deltaEIn36Bands: figures(errors36),
    shareUnder1: round(errors36.filter((e) => e < 1).length / COUNT),
    tubesUsed: counts.map((c) => round(c / COUNT)),
    ms: figures(times),
    over20ms: times.filter((t) => t > 20).length,
    timesACopy: round(times.reduce((a, b) => a + b, 0) / times.length / copy),
  };
}
console.log(JSON.stringify(report, null, 2));
