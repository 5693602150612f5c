import { WET_FROM_AFAR } from './wetFromAfar';
import { findPigment, tubeAt } from '@/core/colour/pigments';
import { groundFor, type Behaviour, type Ground, type Reading } from './behaviour';
import { deviation, mean, paint } from './bench';
import {
  areaOf,
  blurredBy,
  cut,
  mapped,
  perimeter,
  quantile,
  rankCorrelation,
  sharesBySize,
  spreadOf,
  togetherLength,
  type Plane,
} from './plane';
import { first, THOROUGH } from './thorough';
import { dipped, massError, waterError } from './washBench';
import { DRY, wait, laid, line, drop, flatWash } from './wetSheet';
import { sectors, drops, heldPipette } from './wetDrops';

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

/** A drop of water on a dry wash loosens it, and leaves a ring. */
function ring(ground: Ground): Reading[] {
  const studio = groundFor(ground, 60, 50);
  paint(studio, ...flatWash('PB28', [6, 6, 48, 38], { strength: 0.6 }), wait(40), DRY);
  const before = blurredBy(laid(studio, 'PB28'), 0.25);
  paint(studio, ...dipped('dropper', 7, {}, { water: 1 }), drop(30, 25), wait(60), DRY);
  const after = blurredBy(laid(studio, 'PB28'), 0.25);
  const ratio = mapped(after, (v, i) => v / Math.max(1e-9, before.values[i]));
  const around = sectors(ratio, 30, 25, 12);
  return [
    { what: 'middle to the wash', value: around.inside, most: 0.86 },
    { what: 'ring to the wash', value: around.rim, least: 1.15 },
  ];
}

/** A drop in a wash that loses its shine, at the best of four moments. */
function backRun(ground: Ground): Reading[] {
  let best: { rim: number; inside: number; crinkle: number } | undefined;
  const wash = flatWash('PB29', [8, 6, 70, 40], { strength: 0.6, water: 0.9 });
  const plain = groundFor(ground, 90, 60);
  paint(plain, ...wash, wait(100), DRY);
  const base = blurredBy(laid(plain, 'PB29'), 0.25);
  for (const moment of first(1, [85, 60, 110, 140])) {
    const studio = groundFor(ground, 90, 60);
    paint(
      studio,
      ...wash,
      wait(moment),
      ...dipped('dropper', 7, {}, { water: 1 }),
      drop(42, 27, 0.7, 300),
      wait(30),
      DRY,
    );
    const ratio = mapped(blurredBy(laid(studio, 'PB29'), 0.25), (v, i) => v / Math.max(1e-9, base.values[i]));
    const around = sectors(ratio, 42, 27, 17);
    const part = cut(ratio, [42 - 17, 27 - 17, 34, 34]);
    const limit = (1 + around.inside) / 2;
    const middle = (part.width - 1) / 2;
    const pale = mapped(part, (v, i) => {
      const far = Math.hypot((i % part.width) - middle, Math.floor(i / part.width) - middle) * part.mmPerPx;
      return v < limit && far < around.radius + 4 ? 1 : 0;
    });
    const area = areaOf(pale);
    const crinkle = area > 4 ? perimeter(pale) / (2 * Math.sqrt(Math.PI * area)) : 0;
    if (!best || around.rim > best.rim) best = { rim: around.rim, inside: around.inside, crinkle };
  }
  return [
    { what: 'rim to the wash', value: best!.rim, least: 1.3 },
    { what: 'inside to the wash', value: best!.inside, most: 0.8 },
    { what: 'length of its border to that of a circle', value: best!.crinkle, least: 1.03 },
  ];
}

function meeting(ground: Ground): Reading[] {
  const studio = groundFor(ground, 76, 48);
  paint(studio, ...dipped('wash-flat', 12, { PB29: 1 }, { water: 0.85, strength: 0.6 }), line(10, 16, 66, 16));
  paint(
    studio,
    ...dipped('wash-flat', 12, { PY150: 1 }, { water: 0.85, strength: 0.6 }),
    line(10, 28.2, 66, 28.2),
    wait(40),
    DRY,
  );
  const parts = ['PB29', 'PY150'].map((id) => {
    const sheet = laid(studio, id);
    const whole = quantile(sheet.values, 0.9);
    return blurredBy(
      mapped(sheet, (v) => v / whole),
      0.42,
    ).values;
  });
  const sheet = laid(studio, 'PB29');
  const mixed = mapped(sheet, (_, i) => (Math.min(parts[0][i], parts[1][i]) > 0.15 ? 1 : 0));
  const charged = groundFor(ground, 80, 60);
  paint(charged, ...dipped('wash-round', 13.7, { PY150: 1 }, { water: 0.8 }), line(12, 28, 60, 28, 800, 0.8));
  paint(
    charged,
    ...dipped('wash-round', 5.3, { PB15_3: 1 }, { water: 0.5, strength: 0.9 }),
    line(36, 28, 38, 28, 200, 0.6),
    wait(40),
    DRY,
  );
  const blue = cut(blurredBy(laid(charged, 'PB15_3'), 0.85), [10, 20, 54, 16]);
  const columns = Array.from({ length: blue.width }, (_, x) =>
    Math.max(...Array.from({ length: blue.height }, (_unused, y) => blue.values[y * blue.width + x])),
  );
  const most = Math.max(...columns);
  const over = columns.flatMap((v, x) => (v > 0.1 * most ? [x] : []));
  return [
    {
      what: 'width over which neighbours mix',
      value: mean([...cut(mixed, [16, 6, 44, 36]).values]) * 36,
      unit: 'mm',
      least: 1.3,
    },
    {
      what: 'length of a colour that was let in',
      value: (over.at(-1)! - over[0]) * blue.mmPerPx,
      unit: 'mm',
      least: 6.5,
    },
    { what: 'pigment unaccounted for', value: Math.max(massError(studio), massError(charged)), most: 1e-4 },
    { what: 'water unaccounted for', value: Math.max(waterError(studio), waterError(charged)), most: 1e-4 },
  ];
}

/** A stroke into a wet sheet: its border to that of a smooth band of the same area. */
function wetInWet(ground: Ground): Reading[] {
  const studio = groundFor(ground, 90, 60);
  paint(studio, ...dipped('hake', 41, {}, { water: 0.8 }), line(6, 28, 84, 28, 900, 0.6), wait(8));
  paint(
    studio,
    ...dipped('wash-round', 7.3, { PV19: 1 }, { water: 0.6, strength: 0.8 }),
    line(20, 28, 66, 28, 900, 0.5),
    wait(40),
    DRY,
  );
  const soft = blurredBy(laid(studio, 'PV19'), 0.15);
  const limit = 0.25 * quantile(soft.values, 0.98);
  const on = mapped(soft, (v) => (v > limit ? 1 : 0));
  const area = areaOf(on);
  const round = perimeter(on);
  const length = 46 + 7.3;
  const smooth = 2 * length + (2 * area) / length;
  return [
    { what: 'square of its border to its area', value: (round * round) / area, least: 40 },
    { what: 'the same, to that of a smooth band', value: (round / smooth) ** 2, least: 1.1 },
  ];
}

function dryBrush(ground: Ground): Reading[] {
  const studio = groundFor(ground, 90, 40);
  paint(
    studio,
    { do: 'tool', tool: 'dry-brush', sizeMm: 13.7, strength: 0.8, water: 0.2 },
    { do: 'load', mixture: { PBr7BU: 1 }, amount: 0.8, water: 0.2 },
    line(10, 20, 82, 20, 500, 0.45),
    wait(200),
    DRY,
  );
  const sheet = laid(studio, 'PBr7BU');
  const limit = 0.15 * quantile(sheet.values, 0.99);
  const on = mapped(sheet, (v) => (v > limit ? 1 : 0));
  const inside = cut(on, [25, 15, 45, 10]);
  const begins: number[] = [];
  const ends: number[] = [];
  for (let y = 14.5; y < 25.5; y += 0.35) {
    const row = on.values.subarray(Math.floor(y / on.mmPerPx) * on.width, (Math.floor(y / on.mmPerPx) + 1) * on.width);
    const first = row.indexOf(1);
    if (first < 0) continue;
    begins.push(first * on.mmPerPx);
    ends.push(row.lastIndexOf(1) * on.mmPerPx);
  }
  return [
    {
      what: 'length of its grain along to across',
      value: togetherLength(inside, 'x') / togetherLength(inside, 'y'),
      least: 1.5,
    },
    { what: 'where its hairs begin, deviation', value: deviation(begins), unit: 'mm', least: 0.8 },
    { what: 'where they end, deviation', value: deviation(ends), unit: 'mm', least: 0.8 },
  ];
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

/** Strokes of brushes with a belly and a point, under a steady hand: how broad they are near where they begin. */
function begun(ground: Ground): Reading[] {
  return (['mop', 'wash-round'] as const).map((tool) => {
    const studio = groundFor(ground, 60, 24);
    paint(studio, ...dipped(tool, 9, { PB15_3: 1 }, { water: 0.6 }), line(14, 12, 50, 12), DRY);
    const { width, height, values, mmPerPx } = laid(studio, 'PB15_3');
    const most = quantile(values, 0.98);
    const widths = Array.from({ length: width }, (_, x) => {
      let n = 0;
      for (let y = 0; y < height; y++) if (values[y * width + x] > 0.2 * most) n++;
      return n * mmPerPx;
    });
    const whole = quantile(widths.slice(Math.round(25 / mmPerPx), Math.round(40 / mmPerPx)), 0.5);
    const start = widths.findIndex((mm) => mm > 0);
    return {
      what: `${tool}: width near its start to the whole`,
      value: widths[start + Math.round((0.12 * whole) / mmPerPx)] / whole,
      least: 0.45,
    };
  });
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
