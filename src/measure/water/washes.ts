import {
  coats,
  coatsAt,
  depths,
  dipped,
  massError,
  meanCoats,
  through,
  waitTillDry,
  washed,
  waterError,
} from './washBench';
import type { Studio } from '@/core/journal/studio';
import { groundFor, type Behaviour, type Ground, type Reading } from '@/measure/behaviour';
import { correlation, eachCell, mean, paint, type Area } from '@/measure/bench';
import { salted, masked, dragged, inked, parted, hidden, pulledBack } from './besideWashes';
import { spread, anisotropy, backRun, lifted, dryNow } from './washDrops';

/** Watercolour: washes, what happens in them while they are wet, and what is left when they have dried. */
const BLUE = { PB29: 1 };
const CYAN = { PB15_3: 1 };
const BROWN = { PBr7BS: 1 };

/** Mean profile inward from the left edge of a wash, in its interior's mean, and that mean. */
function fromEdge(studio: Studio, id: string, [x, y, w, h]: Area): { profile: number[]; inner: number } {
  const { mmPerPx } = studio.painting;
  const inner = meanCoats(studio, id, [x + 0.4 * w, y + 0.4 * h, 0.2 * w, 0.2 * h]);
  const n = Math.round((0.35 * w) / mmPerPx);
  const profile = new Array<number>(n).fill(0);
  let rows = 0;
  for (let py = Math.round((y + 0.25 * h) / mmPerPx); py < (y + 0.75 * h) / mmPerPx; py++) {
    let px = Math.round((x - 2) / mmPerPx);
    const end = (x + 0.3 * w) / mmPerPx;
    while (px < end && coatsAt(studio, id, px, py) < 0.45 * inner) px++;
    if (px >= end) continue;
    for (let k = 0; k < n; k++) profile[k] += coatsAt(studio, id, px + k, py);
    rows++;
  }
  return { profile: profile.map((v) => v / rows / inner), inner };
}

/** Largest share of a pattern of the flow grid (checks, stripes) in windows over an area. */
function gridPattern(studio: Studio, id: string, area: Area): number {
  const step = Math.max(1, Math.round(25.4 / 75 / studio.painting.mmPerPx));
  const cells = new Map<string, number>();
  let left = Infinity;
  let top = Infinity;
  eachCell(studio, area, (px, py) => {
    const I = Math.floor(px / step);
    const J = Math.floor(py / step);
    left = Math.min(left, I + 1);
    top = Math.min(top, J + 1);
    cells.set(`${I},${J}`, (cells.get(`${I},${J}`) ?? 0) + coatsAt(studio, id, px, py));
  });
  let worst = 0;
  for (let J = top; cells.has(`${left},${J + 16}`); J += 16) {
    for (let I = left; cells.has(`${I + 16},${J}`); I += 16) {
      const sums = [0, 0, 0];
      let all = 0;
      for (let j = 0; j < 16; j++) {
        for (let i = 0; i < 16; i++) {
          const v = cells.get(`${I + i},${J + j}`)!;
          all += v;
          sums[0] += (i + j) & 1 ? v : -v;
          sums[1] += i & 1 ? v : -v;
          sums[2] += j & 1 ? v : -v;
        }
      }
      worst = Math.max(worst, ...sums.map((s) => Math.abs(s) / all));
    }
  }
  return worst;
}

/** Steps of pigment across borders of tiles against steps elsewhere. */
function borderSteps(studio: Studio, id: string, area: Area): number {
  const at: number[] = [];
  const else_: number[] = [];
  eachCell(studio, area, (px, py) => {
    const here = coatsAt(studio, id, px, py);
    (px % 64 === 0 ? at : else_).push(Math.abs(here - coatsAt(studio, id, px - 1, py)));
    (py % 64 === 0 ? at : else_).push(Math.abs(here - coatsAt(studio, id, px, py - 1)));
  });
  return mean(at) / mean(else_);
}

/** Values over an area less their mean around each cell: what is left is as fine as the tooth. */
function fine(studio: Studio, [x, y, w, h]: Area, all: readonly number[]): number[] {
  const { mmPerPx } = studio.painting;
  const wide = Math.round((x + w) / mmPerPx) - Math.round(x / mmPerPx);
  const high = Math.round((y + h) / mmPerPx) - Math.round(y / mmPerPx);
  const reach = Math.round(1.2 / mmPerPx);
  return all.map((v, i) => {
    const cx = i % wide;
    const cy = Math.floor(i / wide);
    let sum = 0;
    let n = 0;
    for (let py = Math.max(0, cy - reach); py <= Math.min(high - 1, cy + reach); py++) {
      for (let px = Math.max(0, cx - reach); px <= Math.min(wide - 1, cx + reach); px++) {
        sum += all[py * wide + px];
        n++;
      }
    }
    return v - sum / n;
  });
}

function flat(ground: Ground): Reading[] {
  const studio = groundFor(ground, 76, 34);
  const places: [string, Record<string, number>, number][] = [
    ['PB29', BLUE, 3],
    ['PB15_3', CYAN, 27],
    ['PBr7BS', BROWN, 51],
  ];
  for (const [, mixture, x] of places) paint(studio, ...washed([x, 4, 21, 26], 5, mixture, { amount: 0.9 }));
  waitTillDry(studio);
  const out: Reading[] = [];
  for (const [id, , x] of places) {
    const { profile } = fromEdge(studio, id, [x, 4, 21, 26]);
    const rim = Math.max(...profile.slice(0, Math.max(3, Math.round(1 / studio.painting.mmPerPx))));
    const inner = mean(profile.slice(Math.round(profile.length * 0.4)));
    const area: Area = [x + 5, 9, 11, 16];
    const held = correlation(fine(studio, area, coats(studio, id, area)), fine(studio, area, depths(studio, area)));
    out.push({ what: `${id}: rim to interior`, value: rim / inner, least: 1.1, most: 2 });
    if (id === 'PB15_3') out.push({ what: `${id}: correlation with the depth of the tooth`, value: held, most: 0.1 });
    else out.push({ what: `${id}: correlation with the depth of the tooth`, value: held, least: 0.4 });
    out.push({ what: `${id}: pattern of the grid`, value: gridPattern(studio, id, area), most: 0.09 });
  }
  out.push({
    what: 'steps at borders of tiles to steps elsewhere',
    value: borderSteps(studio, 'PB15_3', [31, 8, 13, 18]),
    most: 1.7,
  });
  out.push({ what: 'pigment unaccounted for', value: massError(studio), most: 1e-4 });
  out.push({ what: 'water unaccounted for', value: waterError(studio), most: 1e-4 });
  return out;
}

/** Amplitude of what repeats with the strokes across a field of them, in its mean. */
function seams(ground: Ground, dry: boolean): number {
  const studio = groundFor(ground, 54, 46);
  for (let i = 0; i < 7; i++) {
    paint(
      studio,
      ...dipped('mop', 7, CYAN, { amount: 0.5 }),
      through(
        [
          [6, 7 + i * 5],
          [27, 7.2 + i * 5],
          [48, 7 + i * 5],
        ],
        55,
      ),
    );
    if (dry) paint(studio, { do: 'dry' });
  }
  paint(studio, { do: 'dry' });
  const step = studio.painting.mmPerPx;
  const rows: number[] = [];
  for (let y = 10; y < 35; y += step) rows.push(meanCoats(studio, 'PB15_3', [13, y, 28, step]));
  const period = 5 / step;
  let cos = 0;
  let sin = 0;
  rows.forEach((v, k) => {
    cos += v * Math.cos((2 * Math.PI * k) / period);
    sin += v * Math.sin((2 * Math.PI * k) / period);
  });
  return (2 * Math.hypot(cos, sin)) / rows.length / mean(rows);
}

function graded(ground: Ground): Reading[] {
  const studio = groundFor(ground, 42, 54);
  paint(studio, { do: 'tilt', x: 0, y: 3 });
  let amount = 1.3;
  for (let k = 0; k < 12; k++, amount *= 0.72) {
    const row: [number, number][] = [
      [4, 5 + k * 3.9],
      [21, 5 + k * 3.9],
      [38, 5 + k * 3.9],
    ];
    paint(studio, ...dipped('mop', 6, CYAN, { amount, water: 0.78 }), through(k & 1 ? row.reverse() : row, 64));
  }
  paint(studio, { do: 'tilt', x: 0, y: 0 });
  waitTillDry(studio);
  const rows: number[] = [];
  for (let y = 5; y < 47; y += 1.4) rows.push(meanCoats(studio, 'PB15_3', [10, y, 22, 1.4]));
  return [
    { what: 'top to bottom', value: rows[0] / rows.at(-1)!, least: 8 },
    { what: 'largest reversal', value: Math.max(...rows.slice(1).map((v, k) => (v - rows[k]) / rows[0])), most: 0.03 },
  ];
}

/** Width from 80 to 15 % of what is inside along the lower edge of a stroke, mm. */
function edge(studio: Studio, x: number): number {
  const step = studio.painting.mmPerPx;
  const profile: number[] = [];
  for (let y = 7; y < 20; y += step) profile.push(meanCoats(studio, 'PB29', [x, y, 18, step]));
  const peak = mean(profile.slice(0, Math.round(2 / step)));
  const last = (share: number) => profile.findLastIndex((v) => v > share * peak);
  return Math.max(0.5, last(0.15) - last(0.8)) * step;
}

function softened(ground: Ground): Reading[] {
  const studio = groundFor(ground, 60, 26);
  paint(
    studio,
    ...dipped('wash-round', 6, BLUE, { amount: 1, water: 0.8 }),
    through(
      [
        [4, 8],
        [56, 8],
      ],
      60,
    ),
    { do: 'wait', seconds: 0.6 },
  );
  paint(
    studio,
    ...dipped('wash-round', 5, {}, { water: 0.42 }),
    through(
      [
        [32, 13.2],
        [57, 13.2],
      ],
      40,
    ),
    through(
      [
        [57, 11.4],
        [32, 11.4],
      ],
      40,
    ),
  );
  waitTillDry(studio);
  return [{ what: 'softened edge to the hard one', value: edge(studio, 36) / edge(studio, 8), least: 6 }];
}

const on = 'paper' as const;
export const WASHES: readonly Behaviour[] = [
  {
    id: 'flat-wash',
    says: 'A flat wash dries with a darker rim; grains lie in the valleys, stains do not.',
    on,
    measure: flat,
  },
  {
    id: 'bead',
    says: 'Strokes join in a wet bead without a seam; over dry paint they overlap crisply.',
    on,
    measure: (g) => [
      { what: 'seams of strokes in the wet', value: seams(g, false), most: 0.05 },
      { what: 'overlaps of strokes on dry paint', value: seams(g, true), least: 0.3 },
    ],
  },
  {
    id: 'wet-on-wet',
    says: 'Paint spreads on wet paper, and only there.',
    on,
    measure: (g) => {
      const wet = spread(g, true);
      return [
        { what: 'area on wet paper to that on dry', value: wet.area / spread(g, false).area, least: 3 },
        { what: 'beyond what was wetted', value: wet.outside, most: 0.001 },
      ];
    },
  },
  {
    id: 'back-run',
    says: 'A drop of water in a wash that has lost its shine drives the paint before it.',
    on,
    measure: backRun,
  },
  {
    id: 'lifting',
    says: 'A thirsty brush lifts what does not stain.',
    on,
    measure: (g) => [
      { what: 'ultramarine lifted', value: lifted(g, 'PB29', BLUE), least: 0.6 },
      { what: 'phthalo blue lifted', value: lifted(g, 'PB15_3', CYAN), most: 0.25 },
    ],
  },
  {
    id: 'round-drop',
    says: 'A drop on damp paper spreads alike on all sides.',
    on,
    measure: (g) => [
      // the felt of a sheet makes each drop a little longer one way: three sheets
      {
        what: 'anisotropy of a drop, mean of three',
        value: mean([0, 1, 2].map((k) => anisotropy({ ...g, seed: g.seed + k }))),
        most: 0.065,
      },
    ],
  },
  { id: 'dry-now', says: 'Drying at once comes out as waiting does; watercolour dries lighter.', on, measure: dryNow },
  { id: 'graded-wash', says: 'A graded wash falls evenly.', on, measure: graded },
  { id: 'soft-edge', says: 'A damp brush along an edge loses it.', on, measure: softened },
  { id: 'salt', says: 'Salt leaves pale stars.', on, measure: salted },
  { id: 'masking', says: 'Nothing lands where masking fluid is, and it rubs off clean.', on, measure: masked },
  { id: 'wash-dry-brush', says: 'A dry brush meets the peaks; a wet one covers.', on, measure: dragged },
  { id: 'ink', says: 'Waterproof ink stays under a wash, soluble ink runs.', on, measure: inked },
  { id: 'separation', says: 'Light pigments run farther than heavy ones.', on, measure: parted },
  { id: 'body-colour', says: 'Opaque white covers a dry wash, and takes a glaze.', on, measure: hidden },
  { id: 'pulled-back', says: 'Lights are lifted out of a wet tone.', on, measure: pulledBack },
];
