import { hue } from '@/core/colour/colorimetry';
import type { ToolId } from '@/core/tools/tools';
import { groundFor, type Behaviour, type Ground } from '@/measure/behaviour';
import {
  correlation,
  coverage,
  deviation,
  field,
  grain,
  line,
  loaded,
  mean,
  meanLab,
  paint,
  values,
  type Area,
} from '@/measure/bench';

/** Strokes of a loaded brush. */
const DARK = { PB29: 3, PW6: 1, PBr7BS: 0.6 };
const YELLOW = { PY35: 3, PY43: 1 };
const BLUE = { PB29: 3, PG7: 0.3, PW6: 0.5 };

/** A loaded flat drawn over 225 mm, read in tenths of its length. */
function longStroke(ground: Ground) {
  const studio = groundFor(ground, 250, 30);
  paint(studio, ...loaded('flat', 20, DARK), line(12, 15, 237, 15.5, 0.62));
  const tenths = Array.from({ length: 10 }, (_, k): Area => [14 + k * 22, 8, 22, 14]);
  return { studio, tenths, covered: tenths.map((area) => coverage(studio, area)) };
}

/** Variance of thickness across a stroke over that along it. */
function streaks(ground: Ground, hair: 'bristle' | 'soft'): number {
  const studio = groundFor(ground, 130, 30);
  paint(studio, ...loaded('flat', 20, DARK, { hair }), line(8, 15, 124, 15, 0.62));
  const step = studio.painting.mmPerPx;
  const across: number[] = [];
  const along: number[] = [];
  for (let y = 8; y < 22; y += step) across.push(mean(values(studio, 'volume', [55, y, 20, step])));
  for (let x = 55; x < 75; x += step) along.push(mean(values(studio, 'volume', [x, 8, step, 14])));
  return deviation(across) ** 2 / deviation(along) ** 2;
}

/** Blue drawn across yellow that is wet, or dry. */
function across(ground: Ground, dry: boolean) {
  const studio = groundFor(ground, 80, 70);
  paint(studio, ...field([8, 5, 55, 40], YELLOW));
  if (dry) paint(studio, { do: 'dry' });
  paint(studio, ...loaded('filbert', 11, BLUE, { amount: 0.8 }), line(8, 25, 60, 25));
  const { mixture } = studio.tools.carried();
  const total = Object.values(mixture).reduce((a, b) => a + b, 0);
  const yellow = ((mixture.PY35 ?? 0) + (mixture.PY43 ?? 0)) / total;
  const hues = [14, 24, 34, 44].map((x) => hue(meanLab(studio, [x, 23, 6, 4])));
  paint(studio, line(8, 57, 60, 57));
  return { yellow, hues, after: hue(meanLab(studio, [12, 55, 6, 4])) };
}

/** Largest periodic part of the thickness along a stroke, share of its mean: what beads would be. */
function beads(ground: Ground, tool: ToolId, sizeMm: number, speed: number): number {
  const studio = groundFor(ground, 90, sizeMm + 12);
  const y = sizeMm / 2 + 6;
  const count = Math.max(3, Math.round(80 / speed));
  const samples = Array.from({ length: count + 1 }, (_, i) => [i * 16, 5 + (80 * i) / count, y, 0.6]);
  paint(studio, ...loaded(tool, sizeMm, DARK), { do: 'stroke', samples });
  const step = studio.painting.mmPerPx;
  const half = sizeMm * 0.3;
  const profile: number[] = [];
  for (let x = 15; x < 45; x += step) profile.push(mean(values(studio, 'volume', [x, y - half, step, 2 * half])));
  const m = mean(profile);
  // the weave has a period too: what only the stroke has is told by leaving its part out
  const relief = Array.from(profile, (_, i) => mean(grain(studio, [15 + i * step, y - half, step, 2 * half])));
  const slope = (correlation(profile, relief) * deviation(profile)) / (deviation(relief) + 1e-9);
  const rm = mean(relief);
  const rest = profile.map((v, i) => v - m - slope * (relief[i] - rm));
  let worst = 0;
  for (let period = 0.4; period < 4; period *= 1.06) {
    let c = 0;
    let s = 0;
    rest.forEach((v, i) => {
      c += v * Math.cos((2 * Math.PI * i * step) / period);
      s += v * Math.sin((2 * Math.PI * i * step) / period);
    });
    worst = Math.max(worst, (2 * Math.hypot(c, s)) / rest.length);
  }
  return worst / m;
}

export const STROKES: readonly Behaviour[] = [
  {
    id: 'runs-out',
    says: 'A loaded flat covers at first, runs out, and in its tail touches the peaks of the grain.',
    measure(ground) {
      const { studio, tenths, covered } = longStroke(ground);
      const rises = covered.slice(1).map((c, k) => c - covered[k]);
      const tail = tenths.filter((_, k) => covered[k] < 0.6 && covered[k] > 0.05);
      const grip = tail.map((a) => correlation(values(studio, 'volume', a), grain(studio, a)));
      return [
        { what: 'coverage of the first three tenths', value: Math.min(...covered.slice(0, 3)), least: 0.95 },
        { what: 'largest rise of coverage', value: Math.max(...rises), most: 0.02 },
        { what: 'coverage of the last tenth', value: covered[9], most: 0.65 },
        { what: 'correlation of the tail with the grain', value: grip.length > 0 ? mean(grip) : 0, least: 0.1 },
      ];
    },
  },
  {
    id: 'streaks',
    says: 'Bristle leaves streaks along the stroke, soft hair does not.',
    measure: (ground) => [
      { what: 'across to along, bristle', value: streaks(ground, 'bristle'), least: 1.8 },
      { what: 'across to along, soft hair', value: streaks(ground, 'soft'), most: 1.3 },
    ],
  },
  {
    id: 'wet-into-wet',
    says: 'Blue across wet yellow turns green and dirties the brush; across dry yellow it stays blue.',
    measure(ground) {
      const wet = across(ground, false);
      const dry = across(ground, true);
      return [
        { what: 'hue on the way, least', value: Math.min(...wet.hues), unit: 'degrees', least: 100 },
        { what: 'hue on the way, most', value: Math.max(...wet.hues), unit: 'degrees', most: 190 },
        { what: 'yellow in the brush after wet', value: wet.yellow, least: 0.15 },
        { what: 'yellow in the brush after dry', value: dry.yellow, most: 0.01 },
        { what: 'hue that the dirty brush leaves', value: wet.after, unit: 'degrees', most: 265 },
      ];
    },
  },
  {
    id: 'two-colours',
    says: 'Two colours on one brush stay apart to the middle of the stroke.',
    measure(ground) {
      const studio = groundFor(ground, 120, 30);
      paint(
        studio,
        { do: 'tool', tool: 'flat', sizeMm: 18, body: 0.6 },
        { do: 'load', mixture: { PB29: 1, PW6: 1 }, edge: { mixture: { PY35: 1 } }, amount: 1.2 },
        line(8, 15, 110, 15),
      );
      const d = Math.abs(hue(meanLab(studio, [55, 8, 8, 3])) - hue(meanLab(studio, [55, 19, 8, 3])));
      return [{ what: 'difference of hue', value: Math.min(d, 360 - d), unit: 'degrees', least: 40 }];
    },
  },
  {
    id: 'no-beads',
    says: 'No beads along a stroke, slow or fast, small or large.',
    measure: (ground) =>
      (['flat', 'round', 'filbert', 'roller'] as const).flatMap((tool) =>
        [
          [4, 1],
          [4, 12],
          [16, 2],
          [16, 20],
        ].map(([sizeMm, speed]) => ({
          what: `${tool} ${sizeMm} mm, ${speed} mm between readings`,
          value: beads(ground, tool, sizeMm, speed),
          // what is on a roller comes round again
          most: tool === 'roller' ? 0.16 : 0.06,
        })),
      ),
  },
];
