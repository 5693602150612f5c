import { WET_FROM_AFAR } from './wetFromAfar';
import { findPigment, tubeAt } from '@/core/colour/pigments';
import { groundFor, type Behaviour, type Ground, type Reading } from '@/measure/behaviour';
import { deviation, mean, paint } from '@/measure/bench';
import { blurredBy, cut, quantile, rankCorrelation, sharesBySize, spreadOf, type Plane } from '@/measure/plane';
import { first, THOROUGH } from '@/measure/thorough';
import { DRY, wait, laid, line, flatWash } from './wetSheet';
import { drops, heldPipette } from './wetDrops';
import { meeting, wetInWet, begun, ring, backRun, dryBrush } from './wetMeeting';

/** Watercolour as a painter judges it: grain, edges, what flows and meets, what can be lifted, drops and dry brush. */

/** Where a wash begins and how dark its rim is there, along its left and its lower edge. */
function edges(sheet: Plane, [x, y, w, h]: readonly [number, number, number, number]) {
  const { mmPerPx, width } = sheet;
  const smooth = blurredBy(sheet, 0.06).values;
  const inner = quantile(cut({ ...sheet, values: smooth }, [x + 6, y + 6, w - 12, h - 12]).values, 0.5);
  const rims: number[] = [];
  const walk = (from: number, to: number, cells: (at: number) => number[]) => {
    const places: number[] = [];
    for (let at = from; at < to; at += 0.2) {
      const profile = cells(at);
      const first = profile.findIndex((v) => v > 0.4 * inner);
      if (first < 0) continue;
      places.push(first * mmPerPx);
      rims.push(Math.max(...profile.slice(first, first + Math.round(2 / mmPerPx))) / inner);
    }
    // what strays over a centimetre is the hand's
    const stray = places.map((p, i) => p - mean(places.slice(Math.max(0, i - 25), i + 26)));
    return { rms: deviation(stray), range: Math.max(...places) - Math.min(...places) };
  };
  const n = Math.round(12 / mmPerPx);
  const left = walk(y + 4, y + h - 4, (at) => {
    const row = Math.floor(at / mmPerPx) * width + Math.round((x - 4) / mmPerPx);
    return Array.from(smooth.subarray(row, row + n));
  });
  const lower = walk(x + 6, x + w - 6, (at) => {
    const column = Math.floor(at / mmPerPx);
    const bottom = Math.round((y + h + 4) / mmPerPx);
    return Array.from({ length: n }, (_, k) => smooth[(bottom - k) * width + column]);
  });
  return {
    rim: mean(rims),
    rimVaries: deviation(rims) / mean(rims),
    strays: (left.rms + lower.rms) / 2,
    range: (left.range + lower.range) / 2,
  };
}

const WASH = [8, 6, 66, 44] as const;
function dried(ground: Ground, id: string): Plane {
  const studio = groundFor(ground, 84, 60);
  paint(studio, ...flatWash(id, WASH, { strength: 0.6 }), wait(40), DRY);
  return laid(studio, id);
}
const grainOf = (sheet: Plane) => {
  const inside = cut(sheet, [16, 14, 48, 28]);
  const { mean: all, variance } = spreadOf(inside);
  return { varies: Math.sqrt(variance) / all, ...sharesBySize(inside, 0.3, 3) };
};

function grained(ground: Ground): Reading[] {
  const sheet = dried(ground, 'PB29');
  const grain = grainOf(sheet);
  const edge = edges(sheet, WASH);
  const varies = { 'paper-hot': [0.05, 0.2], 'paper-cold': [0.2, 0.4], 'paper-rough': [0.25, 0.55] }[
    ground.surface as 'paper-hot'
  ];
  return [
    { what: 'ultramarine varies', value: grain.varies, least: varies[0], most: varies[1] },
    { what: 'share of it under .3 mm', value: grain.fine, most: 0.25 },
    // on a smooth sheet there is little but what pools
    {
      what: 'share of it between .3 and 3 mm',
      value: grain.middle,
      least: ground.surface === 'paper-hot' ? 0.4 : 0.55,
    },
    {
      what: 'share of it over 3 mm',
      value: grain.coarse,
      least: 0.05,
      most: ground.surface === 'paper-hot' ? 0.5 : 0.35,
    },
    { what: 'rim to wash', value: edge.rim, least: 1.2, most: 2 },
    { what: 'rim varies along the edge', value: edge.rimVaries, least: 0.18 },
    { what: 'edge strays, rms', value: edge.strays, unit: 'mm', least: 0.06, most: 0.25 },
    { what: 'edge strays, from most to least', value: edge.range, unit: 'mm', least: 0.3, most: 1.3 },
  ];
}

function stained(ground: Ground): Reading[] {
  const sheet = dried(ground, 'PB15_3');
  return [
    { what: 'phthalo blue varies', value: grainOf(sheet).varies, least: 0.03, most: 0.12 },
    { what: 'rim to wash', value: edges(sheet, WASH).rim, least: 1.2, most: 2 },
  ];
}

/** Share of a dry wash that a thirsty brush lifts in four strokes. */
function liftedShare({ seed }: Ground, id: string, strength: number): number {
  const studio = groundFor({ surface: 'paper-hot', ppi: 90, seed }, 52, 32);
  paint(studio, ...flatWash(id, [6, 5, 40, 20], { strength }), wait(40), DRY);
  paint(studio, { do: 'tool', tool: 'thirsty', sizeMm: 9.7, water: 0.35 }, { do: 'rinse', damp: 0.5 });
  for (const off of [0, 0.3, -0.3, 0]) paint(studio, line(12, 15 + off, 40, 15 + off, 900, 0.8));
  paint(studio, wait(40), DRY);
  const sheet = laid(studio, id);
  const over = (y: number, h: number) => mean([...cut(sheet, [18, y, 14, h]).values]);
  return 1 - over(13.5, 3) / Math.max(over(7.5, 2), over(21.5, 1.5));
}
const LIFTED = [
  'PB29',
  'PB28',
  'PB35',
  'PV15',
  'PY43',
  'PBr7BS',
  'PBr7RU',
  'PR101I',
  'PV19',
  'PB15_3',
  'PG7',
  'PY150',
  'PB27',
  'PG18',
  'PR254',
].filter((id) => findPigment(id) !== undefined);

function lifting(ground: Ground): Reading[] {
  const tried = LIFTED.filter((id, n) => THOROUGH || n % 3 === 0 || id === 'PB35' || id === 'PB15_3');
  return first(1, [0.6, 0.3]).flatMap((strength) => {
    const shares = new Map(tried.map((id) => [id, liftedShare(ground, id, strength)]));
    const clings = tried.map((id) => 1 - (tubeAt(findPigment(id)!)?.staining ?? 0.5));
    return [
      {
        what: `rank of lifting against not staining, at ${strength}`,
        value: rankCorrelation([...shares.values()], clings),
        least: 0.85,
      },
      { what: `cobalt cerulean lifted, at ${strength}`, value: shares.get('PB35')!, least: 0.45 },
      { what: `phthalo blue lifted, at ${strength}`, value: shares.get('PB15_3')!, most: 0.25 },
    ];
  });
}

/** How long a wash shines, and how long the sheet is damp under it, seconds. */
export function driesIn(ground: Ground, water = 0.9): { shines: number; damp: number } {
  const studio = groundFor(ground, 60, 40);
  paint(studio, ...flatWash('PB29', [6, 5, 48, 28], { water }));
  const out = { shines: 0, damp: 0 };
  for (let at = 10; at <= 400 && studio.time.hasWater; at += 10) {
    paint(studio, wait(10));
    const { basin } = studio.painting.active;
    if (!basin) break;
    const { f32 } = studio.painting.arena;
    const places = [
      [25, 18],
      [35, 14],
      [30, 22],
    ].map(([x, y]) => [Math.round(x / studio.painting.mmPerPx), Math.round(y / studio.painting.mmPerPx)]);
    const depth = quantile(
      places.map(([x, y]) => f32[basin.coarseOf('water', x, y)]),
      0.5,
    );
    const moisture = quantile(
      places.map(([x, y]) => f32[basin.coarseOf('moisture', x, y)]),
      0.5,
    );
    if (depth > 0.05) out.shines = at;
    if (depth + moisture > 0.02) out.damp = at;
  }
  return out;
}

const on = 'paper' as const;
export const WET: readonly Behaviour[] = [
  WET_FROM_AFAR,
  {
    id: 'granulation',
    says: 'A granulating wash flocks on several scales, and its edge wavers with a rim that swells and fades.',
    on,
    measure: grained,
  },
  { id: 'stain', says: 'A staining wash is nearly even.', on, measure: stained },
  { id: 'lifting-order', says: 'Dense washes lift as little as they stain.', on, measure: lifting },
  { id: 'drop-ring', says: 'A drop on a dry wash loosens it and leaves a ring.', on, measure: ring },
  { id: 'back-run-crinkle', says: 'A back-run has a dark, crinkled rim.', on, measure: backRun },
  { id: 'neighbours', says: 'Wet neighbours meet, and a colour that is let in runs.', on, measure: meeting },
  { id: 'fingers', says: 'A stroke into a wet sheet frays.', on, measure: wetInWet },
  { id: 'drops', says: 'Drops are round on any grid.', on, measure: drops },
  {
    id: 'held-pipette',
    says: 'A pipette that is held still goes on, and its pool runs to all sides.',
    on,
    measure: heldPipette,
  },
  { id: 'wash-start', says: 'A stroke begins as round as the brush is, and not as an arrow.', on, measure: begun },
  { id: 'dry-brush-hairs', says: 'A dry brush leaves streaks of its hairs and ragged ends.', on, measure: dryBrush },
  {
    id: 'damp-stage',
    says: 'A wash shines for a while, and the sheet stays damp after it.',
    on,
    measure: (g) => {
      const { shines, damp } = driesIn(g);
      return [
        { what: 'shines', value: shines, unit: 's', least: 60 },
        { what: 'damp after that', value: damp - shines, unit: 's', least: 20 },
      ];
    },
  },
];
