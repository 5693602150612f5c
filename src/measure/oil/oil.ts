import { fromAfar } from '@/measure/fromAfar';
import type { Mixture } from '@/core/colour/mixture';
import type { CommandInput } from '@/core/commands/commands';
import { columnMeans, covered, meanOf, placeOn, raggedness, rowMeans, rowOf, swath } from '@/measure/alongStroke';
import { groundFor, type Behaviour, type Ground, type Reading } from '@/measure/behaviour';
import { deviation, line, loaded, mean, paint, values } from '@/measure/bench';
import { seenFrom } from '@/measure/tones';
import { first } from '@/measure/thorough';
import { WEAVES, drawn, laid, powers } from './oilStrokes';
import { slab, runsOut, scraper } from './blades';
import { colourStreaks, held, wiped, darkIntoLight } from './oilColours';

/** What a painter in oil looks at in a stroke: how it opens, breaks, ends, and stands. */
const BLUE: Mixture = { PB29: 1, PW6: 1 };
const WHITE: Mixture = { PW6: 1, PY35: 1 };

const ANGLES = [0, 23, 45, 90] as const;

function broken(ground: Ground): Reading[] {
  const weave = WEAVES[ground.surface];
  return ANGLES.flatMap((degrees) => {
    const { studio, way } = laid(ground, 146, 16, degrees);
    paint(
      studio,
      ...loaded('flat', 16, BLUE, { body: 0.8, blend: 0.2, amount: 0.35 }),
      drawn(way, 146, { pressure: 0.5 }),
    );
    const windows = Array.from({ length: 12 }, (_, k) => covered(swath(studio, way, 10 * k, 10 * k + 30, 6)));
    const half = windows.reduce((a, b) => (Math.abs(meanOf(b) - 0.5) < Math.abs(meanOf(a) - 0.5) ? b : a));
    const across = deviation(rowMeans(half)) ** 2;
    const along = deviation(columnMeans(half)) ** 2;
    const readings: Reading[] = [
      { what: `${degrees}°: cover where it is most broken`, value: meanOf(half), least: 0.3, most: 0.85 },
      { what: `${degrees}°: variance across to along`, value: across / along, least: 1.6 },
    ];
    if (!weave) return readings;
    const pitch = Math.max(1, Math.round(weave[degrees === 90 ? 1 : 0] / half.mmPerPx));
    const columns = columnMeans(half);
    const threads = Array.from({ length: Math.floor(columns.length / pitch) }, (_, k) =>
      mean(columns.slice(k * pitch, (k + 1) * pitch)),
    );
    const { lattice } = powers(half, weave);
    readings.push({ what: `${degrees}°: power on the lattice of the weave`, value: lattice, most: 0.075 });
    if (degrees % 90 === 0)
      readings.push({ what: `${degrees}°: deviation between threads`, value: deviation(threads), least: 0.065 });
    return readings;
  });
}

function loads(ground: Ground): Reading[] {
  const read = [1, 0.5, 0.25].map((amount) => {
    const { studio, way } = laid(ground, 144, 12, 0);
    paint(studio, ...loaded('flat', 12, BLUE, { body: 0.7, blend: 0.2, amount }), drawn(way, 144));
    const first = swath(studio, way, 0, 14.4, 4.5);
    return {
      um: meanOf(first),
      cover: meanOf(covered(first)),
      last: meanOf(covered(swath(studio, way, 129.6, 144, 4.5))),
    };
  });
  const [full, half, quarter] = read;
  return [
    { what: 'first tenth, half a load to a full one', value: half.um / full.um, least: 0.45 },
    { what: 'first tenth, a quarter to a full one', value: quarter.um / full.um, least: 0.2 },
    { what: 'first tenth of a full load, cover', value: full.cover, least: 0.98 },
    { what: 'first tenth of half a load, cover', value: half.cover, least: 0.95 },
    { what: 'first tenth of a quarter, cover', value: quarter.cover, least: 0.9 },
    { what: 'last tenth, half a load less than a full one', value: full.last - half.last, least: -0.02 },
    { what: 'last tenth, a quarter less than half', value: half.last - quarter.last, least: -0.02 },
  ];
}

/** Bare way behind a step down, row by row, mm. */
function bareBehind(ground: Ground, um: number) {
  const studio = groundFor(ground, 100, 24);
  const step = 44;
  paint(
    studio,
    {
      do: 'silhouette',
      outline: [
        [step - 14, 2],
        [step, 2],
        [step, 22],
        [step - 14, 22],
      ],
      mixture: { PY43: 1 },
      thicknessUm: um,
    },
    { do: 'dry' },
    ...loaded('flat', 13.7, BLUE, { body: 0.8, blend: 0.2 }),
    drawn({ x: 8, y: 12, angle: 0 }, 84, { pressure: 0.65 }),
  );
  const behind = swath(studio, { x: step + 0.4, y: 12, angle: 0 }, 0, 11, 5, 'PB29');
  return Array.from({ length: behind.across }, (_, j) => {
    const row = rowOf(behind, j);
    const at = row.findIndex((v, i) => v > 0.02 && row[i + 1] > 0.02 && row[i + 2] > 0.02);
    return (at < 0 ? behind.along : at) * behind.mmPerPx;
  });
}

const steps = (ground: Ground): Reading[] => [
  { what: 'bare behind a ridge of 90 um', value: mean(bareBehind(ground, 90)), unit: 'mm', most: 0.6 },
  { what: 'bare behind a ridge of 180 um', value: mean(bareBehind(ground, 180)), unit: 'mm', most: 1 },
];

const median = (v: readonly number[]) => [...v].sort((a, b) => a - b)[v.length >> 1];

function ends(ground: Ground): Reading[] {
  const { studio, way } = laid(ground, 37, 12, 0);
  paint(studio, ...loaded('flat', 12, WHITE, { body: 0.9, blend: 0.2 }), drawn(way, 37, { pressure: 0.65 }));
  const all = swath(studio, way, -5, 44, 5);
  const mm = all.mmPerPx;
  const highest = (row: Float64Array, from: number, to: number) => Math.max(...row.subarray(Math.max(0, from), to));
  const [starts, stops, lips, middles]: number[][] = [[], [], [], []];
  const span = Math.round(1.5 / mm);
  for (let j = 0; j < all.across; j++) {
    const row = rowOf(all, j);
    const first = row.findIndex((v) => v > 12);
    if (first < 0) continue;
    let last = row.length - 1;
    while (row[last] <= 12) last--;
    starts.push(first * mm);
    stops.push(last * mm);
    lips.push(highest(row, last + 1 - span, last + 1));
    // the same reading where nothing ends
    const there: number[] = [];
    for (let x = 23; x < 33; x += 1.5) there.push(highest(row, Math.round(x / mm), Math.round(x / mm) + span));
    middles.push(mean(there));
  }
  const side = (tool: 'flat' | 'filbert' | 'round', sizeMm: number) => {
    const on = laid(ground, 37, 12, 0);
    paint(on.studio, ...loaded(tool, sizeMm, WHITE, { body: 0.9, blend: 0.2 }), drawn(on.way, 37, { pressure: 0.65 }));
    const s = swath(on.studio, on.way, 6, 32, 8);
    const top = Array.from({ length: s.along }, (_, i) => {
      let j = 0;
      while (j < s.across && s.values[j * s.along + i] <= 12) j++;
      return j * s.mmPerPx;
    });
    return raggedness(top);
  };
  return [
    { what: 'lip where it stops to the middle', value: median(lips) / median(middles), least: 0.85, most: 2 },
    { what: 'raggedness of the start', value: raggedness(starts), unit: 'mm', least: 0.15, most: 0.6 },
    { what: 'raggedness of the end', value: raggedness(stops), unit: 'mm', least: 0.15, most: 0.6 },
    { what: 'raggedness of the side, flat', value: side('flat', 12), unit: 'mm', least: 0.04, most: 0.6 },
    { what: 'raggedness of the side, filbert', value: side('filbert', 12), unit: 'mm', least: 0.04, most: 0.6 },
    { what: 'raggedness of the side, round', value: side('round', 7), unit: 'mm', least: 0.04, most: 0.6 },
  ];
}

function hurried(ground: Ground): Reading[] {
  const [slow, fast] = [20, 500].map((speed) => {
    const { studio, way } = laid(ground, 134, 12, 0);
    paint(
      studio,
      ...loaded('flat', 12, BLUE, { body: 0.75, blend: 0.2, amount: 0.5 }),
      drawn(way, 134, { pressure: 0.5, speed }),
    );
    return meanOf(covered(swath(studio, way, 12, 122, 4.5)));
  });
  return [{ what: 'cover at 500 mm/s to that at 20', value: fast / slow, most: 0.85 }];
}

/** Width that a stroke covers, mm: rows of which more than a fifth is covered. */
function widthAt(ground: Ground, tool: 'flat' | 'filbert' | 'round' | 'bright', pressure: number): number {
  const { studio, way } = laid(ground, 34, 12, 0);
  paint(studio, ...loaded(tool, 12, BLUE, { body: 0.6, blend: 0.2 }), drawn(way, 34, { pressure }));
  const cover = covered(swath(studio, way, 6, 28, 9));
  return rowMeans(cover).filter((v) => v > 0.2).length * cover.mmPerPx;
}

function opening(ground: Ground): Reading[] {
  const readings = (['flat', 'filbert', 'round', 'bright'] as const).flatMap((tool): Reading[] => {
    const widths = [0.1, 0.3, 0.6, 1].map((p) => widthAt(ground, tool, p));
    const rises = widths.slice(1).map((w, i) => w - widths[i]);
    return [
      // a full width is as wide at any pressure, but for its ragged sides
      { what: `${tool}: least that it opens with the pressure`, value: Math.min(...rises), unit: 'mm', least: -0.35 },
      { what: `${tool}: from .1 to .3`, value: rises[0], unit: 'mm', least: 0.5 },
      { what: `${tool}: width at .1 to that at 1`, value: widths[0] / widths[3], least: 0.1, most: 0.5 },
    ];
  });
  const { studio, way } = laid(ground, 60, 12, 0);
  // the last 15 mm of a stroke that fades
  const fading: CommandInput = {
    do: 'stroke',
    samples: Array.from({ length: 61 }, (_, i) => [i * 11, ...placeOn(way, i), 0.6 * Math.min(1, (60 - i) / 15)]),
  };
  paint(studio, ...loaded('flat', 12, BLUE, { body: 0.6, blend: 0.2, floor: 0 }), fading);
  const last = covered(swath(studio, way, 57, 60, 6));
  // separate hairs: how often paint begins from one side to the other, on the mean of the way before that
  const tail = covered(swath(studio, way, 52, 57, 6));
  const begins = tail.values.filter((on, at) => on > 0 && !(tail.values[at - tail.along] > 0)).length / tail.along;
  return [
    ...readings,
    { what: 'a stroke that fades, cover of its last 3 mm', value: meanOf(last), most: 0.5 },
    { what: 'separate streaks before that, for 10 mm', value: (begins / 12) * 10, least: 2.8 },
  ];
}

/** A dried passage of thick strokes, and a dry brush drawn over it. */
function scumbled(ground: Ground): Reading[] {
  const studio = groundFor(ground, 70, 40);
  for (let y = 8; y < 36; y += 6)
    paint(
      studio,
      ...loaded('flat', 10, { PBr7BU: 1, PW6: 0.3 }, { body: 0.85, amount: 1.6 }),
      line(6, y, 64, y + 1, 0.55),
    );
  const way = { x: 6, y: 20, angle: 0 };
  const relief = swath(studio, way, 10, 48, 4);
  paint(studio, { do: 'dry' });
  paint(
    studio,
    ...loaded('filbert', 12, { PW6: 1, PY43: 0.2 }, { body: 0.7, blend: 0.1, amount: 0.35 }),
    drawn(way, 58, { pressure: 0.34 }),
  );
  const film = swath(studio, way, 10, 48, 4);
  const cover = covered(film);
  const there = film.values.filter((v) => v > 3);
  return [
    { what: 'cover of a dry brush over dried paint', value: meanOf(cover), least: 0.2, most: 0.6 },
    { what: 'film where it lies', value: mean([...there]), unit: 'um', most: 60 },
    {
      what: 'correlation of its cover with the relief',
      value: correlate(cover.values, relief.values),
      least: 0.1,
      most: 0.5,
    },
  ];
}

function correlate(a: Float64Array, b: Float64Array): number {
  const [ma, mb] = [mean([...a]), mean([...b])];
  let [ab, aa, bb] = [0, 0, 0];
  a.forEach((v, i) => {
    ab += (v - ma) * (b[i] - mb);
    aa += (v - ma) ** 2;
    bb += (b[i] - mb) ** 2;
  });
  return ab / Math.sqrt(aa * bb + 1e-30);
}

/** Strokes of every tool that breaks, on a field of 37 x 14 mm. */
const TRIALS: readonly (readonly [string, readonly CommandInput[]])[] = [
  ['a dry flat', [...loaded('flat', 8, BLUE, { body: 0.7, blend: 0.2, amount: 0.25 }), line(2, 7, 34, 7, 0.45)]],
  ['a full flat', [...loaded('flat', 8, BLUE, { body: 0.7, blend: 0.2 }), line(2, 7, 34, 7, 0.55)]],
  ['a dry filbert', [...loaded('filbert', 8, BLUE, { body: 0.7, blend: 0.2, amount: 0.3 }), line(2, 7, 34, 7, 0.45)]],
  ['a roller', [...loaded('roller', 8, BLUE, { amount: 0.5 }), line(2, 7, 34, 7, 0.5)]],
  ['a spray', [...loaded('spray', 8, BLUE, { body: 0.05, blend: 0, strength: 0.5 }), line(2, 7, 34, 7, 0.5)]],
];

/** Strokes at four times the resolution. */
const finely = (ground: Ground): Reading[] =>
  first(1, TRIALS).flatMap(([what, strokes]) =>
    fromAfar(ground, what, strokes).filter(({ least }) => least === undefined),
  );

/** Readings in bundles of another size give the same stroke. */
function bundled(ground: Ground): Reading[] {
  const stroke = (count: number) => {
    const studio = groundFor(ground, 60, 24);
    const samples = Array.from({ length: count + 1 }, (_, i) => {
      const s = i / count;
      return [s * 900, 6 + 46 * s, 12 + 2 * Math.sin(3 * s), 0.5];
    });
    paint(studio, ...loaded('flat', 10, BLUE, { amount: 0.4 }), { do: 'stroke', samples });
    return { laid: values(studio, 'volume', [0, 0, 60, 24]), seen: seenFrom(studio, [8, 6, 42, 12], 3) };
  };
  const [few, many] = [12, 200].map(stroke);
  const light = (s: typeof few) => Float64Array.from(s.seen.colours, ([L]) => L);
  return [
    { what: 'paint in 12 readings to that in 200', value: Math.abs(mean(few.laid) / mean(many.laid) - 1), most: 0.01 },
    { what: 'correlation of the pictures', value: correlate(light(few), light(many)), least: 0.96 },
  ];
}

export const OIL: readonly Behaviour[] = [
  {
    id: 'broken',
    says: 'A dry brush breaks into streaks along the stroke, not into a screen of threads.',
    measure: broken,
  },
  { id: 'load', says: 'A brush that is dipped less starts closed and breaks sooner.', measure: loads },
  { id: 'steps', says: 'Hair springs down behind a ridge.', measure: steps },
  { id: 'ends', says: 'A stiff stroke ends in a lip; its start, end and sides are ragged.', measure: ends },
  { id: 'colour-streaks', says: 'Streaks of colour survive wet into wet.', measure: colourStreaks },
  { id: 'hurried', says: 'A fast stroke breaks more.', measure: hurried },
  { id: 'opening', says: 'A brush opens with the pressure, and a stroke that fades ends in hairs.', measure: opening },
  { id: 'scumble', says: 'A dry brush over dried relief breaks softly.', measure: scumbled },
  { id: 'knife-slab', says: 'A slab of the knife is no plastic: it chatters, and its start is ragged.', measure: slab },
  {
    id: 'knife-runs-out',
    says: 'A knife that runs out leaves strings along its way, and no screen of crests.',
    measure: runsOut,
  },
  { id: 'scraper', says: 'A scraper leaves what lies in the valleys.', measure: scraper },
  { id: 'wiped', says: 'A wiped brush is nearly clean.', measure: wiped },
  {
    id: 'dark-into-light',
    says: 'A dark in wet light keeps its strength by lay-blend, evenly graded.',
    measure: darkIntoLight,
  },
  {
    id: 'oil-from-afar',
    says: 'A stroke is the same at four times the resolution, seen from farther away.',
    measure: finely,
  },
  { id: 'oil-readings', says: 'It does not matter how the readings of a stroke come.', measure: bundled },
  { id: 'held-spray', says: 'A spray that is held still goes on.', measure: held },
];
