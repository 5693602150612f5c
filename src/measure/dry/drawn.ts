import { linearToLab } from '@/core/colour/colorimetry';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import type { Mixture } from '@/core/colour/mixture';
import type { CommandInput } from '@/core/commands/commands';
import type { Studio } from '@/core/journal/studio';
import type { ToolId } from '@/core/tools/tools';
import { Picture } from '@/core/picture/picture';
import { groundFor, type Behaviour, type Ground, type Reading } from '@/measure/behaviour';
import {
  correlation,
  deviation,
  eachCell,
  line,
  loaded,
  mean,
  meanLab,
  paint,
  values,
  type Area,
} from '@/measure/bench';
import { apart, grainLength, middleShare, seenFrom, tonesIn, tonesOf, type Tones } from '@/measure/tones';
import { massError } from '@/measure/water/washBench';
import { first } from '@/measure/thorough';

/** How drawing looks: tones of sticks and pencils, cell by cell, on every sheet. */
const RED = { PR188: 2, PW6: 1 };
const YELLOW = { PW6: 6, PY37: 1 };
const INNER: Area = [8, 5.5, 10, 5];
const SIZE = [26, 16] as const;

const stick = (tool: ToolId, sizeMm: number, mixture?: Mixture): CommandInput[] => [
  { do: 'tool', tool, sizeMm, hold: 'flat', into: 'layer' },
  ...(mixture ? [{ do: 'load', mixture: { ...mixture } } as CommandInput] : []),
];

const leaning = (stroke: CommandInput, tilt = 50): CommandInput =>
  stroke.do === 'stroke' ? { ...stroke, samples: stroke.samples.map((s) => [...s.slice(0, 4), 0, tilt, 0]) } : stroke;

/** Tones of one pass with the side of a stick. */
function sidePass(ground: Ground, tool: ToolId, pressure: number, mixture?: Mixture): Tones {
  const studio = groundFor(ground, ...SIZE);
  paint(studio, ...stick(tool, 9, mixture), line(2, 8, 24, 8.1, pressure));
  return tonesOf(studio, INNER);
}

/** Lines side by side with the side of the lead, so often one over the other. */
function leadSide(ground: Ground, grade: number, pressure: number, passes = 1): Tones {
  const studio = groundFor(ground, ...SIZE);
  paint(studio, { do: 'tool', tool: 'graphite', sizeMm: 0.5, grade, into: 'layer' });
  for (let k = 0; k < passes; k++)
    for (let y = 4.5; y < 11.5; y += 0.4) paint(studio, leaning(line(4, y, 22, y + 0.1, pressure)));
  return tonesOf(studio, INNER);
}

/** Bounds by sheet: share of middle tones in one pass, deviation of lightness. */
const MIDDLE: Partial<Record<Ground['surface'], number>> = { 'paper-sanded': 0.3, 'paper-rough': 0.28 };
const SPREAD: Partial<Record<Ground['surface'], number>> = { 'paper-hot': 14, 'paper-rough': 21 };

function tones(ground: Ground): Reading[] {
  const bare = mean(tonesOf(groundFor(ground, ...SIZE), INNER).values);
  const least = MIDDLE[ground.surface] ?? 0.4;
  const most = SPREAD[ground.surface] ?? 17;
  const drawn: [string, (pressure: number) => Tones][] = [
    ['charcoal', (p) => sidePass(ground, 'charcoal', p)],
    ['pressed charcoal', (p) => sidePass(ground, 'charcoal-pressed', p)],
    ['chalk', (p) => sidePass(ground, 'chalk', p, { PR101T: 1 })],
    ['soft pastel', (p) => sidePass(ground, 'pastel-soft', p, RED)],
    ['hard pastel', (p) => sidePass(ground, 'pastel-hard', p, RED)],
    ['side of a lead', (p) => leadSide(ground, 0, p)],
    ['side of a soft lead', (p) => leadSide(ground, 6, p)],
  ];
  return drawn.flatMap(([what, at]) => {
    const solid = mean(at(1).values);
    return [0.2, 0.35, 0.55].flatMap((pressure) => {
      const seen = at(pressure);
      const L = mean(seen.values);
      const readings: Reading[] = [
        { what: `${what} at ${pressure}, deviation of L*`, value: deviation(seen.values), most },
      ];
      // what is nearly paper or nearly solid has no middle
      if (bare - L >= 10 && L - solid >= 15)
        readings.push({ what: `${what} at ${pressure}, middle tones`, value: middleShare(seen), least });
      return readings;
    });
  });
}

/** Share of a line that lies in gaps longer than so many mm: places where it is hardly darker than the paper. */
function gaps(ground: Ground, grade: number, pressure: number): number {
  const studio = groundFor(ground, 40, 12);
  paint(studio, { do: 'tool', tool: 'graphite', sizeMm: 0.5, grade, into: 'layer' }, line(3, 6, 37, 6, pressure));
  const { mmPerPx } = studio.painting;
  const seen = tonesOf(studio, [6, 5.2, 28, 1.6]);
  const bare = mean(tonesOf(studio, [6, 1, 28, 2]).values);
  const height = seen.values.length / seen.width;
  let inGaps = 0;
  let run = 0;
  const close = () => {
    if (run * mmPerPx > 0.3) inGaps += run;
    run = 0;
  };
  for (let x = 0; x < seen.width; x++) {
    let darkest = Infinity;
    for (let y = 0; y < height; y++) darkest = Math.min(darkest, seen.values[y * seen.width + x]);
    if (bare - darkest < 3) run++;
    else close();
  }
  close();
  return inGaps / seen.width;
}

const lines = (ground: Ground): Reading[] => [
  { what: 'a line of HB at .5, share in gaps', value: gaps(ground, 0, 0.5), most: 0 },
  { what: 'a line of HB at .9, share in gaps', value: gaps(ground, 0, 0.9), most: 0 },
  { what: 'a line of HB at .2, share in gaps', value: gaps(ground, 0, 0.2), most: 0.1 },
  { what: 'a line of 4H at .2, share in gaps', value: gaps(ground, -4, 0.2), most: 0.25 },
];

function grades(ground: Ground): Reading[] {
  const tone = (grade: number) => mean(leadSide(ground, grade, 0.5).values);
  const all = [-4, -2, 0, 2, 4, 6, 8].map(tone);
  return [
    {
      what: 'least step from a grade to the next softer one',
      value: Math.min(...all.slice(1).map((L, i) => all[i] - L)),
      unit: 'L*',
      least: 0.5,
    },
    { what: '4H paler than 8B', value: all[0] - all.at(-1)!, unit: 'L*', least: 30 },
  ];
}

function buildUp(ground: Ground): Reading[] {
  const passes = [1, 2, 3, 4].map((n) => mean(leadSide(ground, 0, 0.4, n).values));
  const pressures = [0.15, 0.3, 0.5, 0.7, 0.9].map((p) => mean(leadSide(ground, 0, p).values));
  const steps = (v: readonly number[]) => Math.min(...v.slice(1).map((L, i) => v[i] - L));
  // the same lines once more, without lifting
  const studio = groundFor(ground, ...SIZE);
  paint(studio, { do: 'tool', tool: 'graphite', sizeMm: 0.5, grade: 0, into: 'layer' });
  const once = groundFor(ground, ...SIZE);
  paint(once, { do: 'tool', tool: 'graphite', sizeMm: 0.5, grade: 0, into: 'layer' });
  const zigzag = (there: number): CommandInput => {
    const places: [number, number][] = [];
    for (let k = 0; k < there; k++)
      for (let y = 4.5, n = 0; y < 11.5; y += 0.4, n++)
        places.push(
          ...((n % 2
            ? [
                [22, y],
                [4, y + 0.2],
              ]
            : [
                [4, y],
                [22, y + 0.2],
              ]) as [number, number][]),
        );
    let t = 0;
    return {
      do: 'stroke',
      samples: places.flatMap(([x, y], i) => {
        const [fx, fy] = places[Math.max(0, i - 1)];
        return Array.from({ length: i === 0 ? 1 : 9 }, (_, k) => {
          const s = i === 0 ? 1 : (k + 1) / 9;
          return [(t += 20), fx + (x - fx) * s, fy + (y - fy) * s, 0.4, 0, 50, 0];
        });
      }),
    };
  };
  paint(once, zigzag(1));
  paint(studio, zigzag(3));
  const [one, three] = [once, studio].map((s) => mean(tonesOf(s, INNER).values));
  return [
    { what: 'least that another pass of HB darkens', value: steps(passes), unit: 'L*', least: 0 },
    { what: 'four passes darker than one', value: passes[0] - passes[3], unit: 'L*', least: 8, most: 28 },
    { what: 'least that more pressure darkens', value: steps(pressures), unit: 'L*', least: 1 },
    { what: 'from .15 to .9', value: pressures[0] - pressures[4], unit: 'L*', least: 15 },
    { what: 'gone over three times without lifting, darker', value: one - three, unit: 'L*', least: 6 },
  ];
}

function lightOverDark(ground: Ground): Reading[] {
  const after = (times: number) => {
    const studio = groundFor(ground, ...SIZE);
    paint(studio, ...stick('charcoal-pressed', 9));
    for (let k = 0; k < 3; k++) paint(studio, line(2, 8, 24, 8, 0.9));
    paint(studio, ...stick('pastel-soft', 9, YELLOW));
    for (let k = 0; k < times; k++) paint(studio, line(2, 8, 24, 8.1, 0.6));
    return { seen: tonesOf(studio, INNER), error: massError(studio) };
  };
  const [one, two, three] = [1, 2, 3].map(after);
  const L = ({ seen }: { seen: Tones }) => mean(seen.values);
  return [
    { what: 'light over dark, one pass', value: L(one), unit: 'L*', most: 65 },
    { what: 'the second lightens', value: L(two) - L(one), unit: 'L*', least: 1 },
    { what: 'the third lightens', value: L(three) - L(two), unit: 'L*', least: 0 },
    { what: 'three passes', value: L(three), unit: 'L*', least: 70 },
    { what: 'three passes, deviation', value: deviation(three.seen.values), unit: 'L*', least: 0.5, most: 11 },
    { what: 'pigment unaccounted for', value: three.error, most: 1e-4 },
  ];
}

function fixed(ground: Ground): Reading[] {
  return (
    [
      ['charcoal', undefined],
      ['pastel-soft', RED],
      ['graphite', undefined],
    ] as const
  ).map(([tool, mixture]) => {
    const studio = groundFor(ground, ...SIZE);
    if (tool === 'graphite') {
      paint(studio, { do: 'tool', tool, sizeMm: 0.5, grade: 4, into: 'layer' });
      for (let y = 4.5; y < 11.5; y += 0.4) paint(studio, leaning(line(4, y, 22, y + 0.1, 0.6)));
    } else paint(studio, ...stick(tool, 9, mixture), line(2, 8, 24, 8, 0.7), line(2, 8, 24, 8, 0.7));
    const before = meanLab(studio, INNER);
    paint(studio, { do: 'fix' });
    const after = meanLab(studio, INNER);
    return { what: `${tool}, darker once fixed`, value: before[0] - after[0], unit: 'L*', least: 0.5, most: 3.5 };
  });
}

/** Test strokes of every stick, lightly and hard, in a field of 14 x 9 mm. */
const TRIALS: readonly (readonly [string, readonly CommandInput[]])[] = [
  ['charcoal', stick('charcoal', 7)],
  ['soft pastel', stick('pastel-soft', 7, RED)],
  ['side of a lead', [{ do: 'tool', tool: 'graphite', sizeMm: 0.5, grade: 2, into: 'layer' }]],
  ['pressed charcoal', stick('charcoal-pressed', 7)],
  ['chalk', stick('chalk', 7, { PR101T: 1 })],
  ['hard pastel', stick('pastel-hard', 7, RED)],
];

/** Where lines of a lead close, the paper that is left between them counts for more the coarser the cells are. */
const NEARLY_SOLID: ReadonlySet<string> = new Set(['side of a lead']);

/** The same drawing at four times the resolution, seen from four times as far. */
function fromAfar(ground: Ground): Reading[] {
  const area: Area = [3, 2, 8, 5];
  return first(3, TRIALS).flatMap(([what, take]) =>
    first(1, [0.9, 0.25]).flatMap((pressure) => {
      const [near, far] = [1, 4].map((scale) => {
        const studio = groundFor({ ...ground, ppi: ground.ppi * scale }, 14, 9);
        paint(studio, ...take);
        if (what === 'side of a lead')
          for (let y = 1; y < 8; y += 0.4) paint(studio, leaning(line(1, y, 13, y + 0.1, pressure)));
        else paint(studio, line(1, 4.5, 13, 4.6, pressure));
        const perMm = Math.round(ground.ppi / 25.4) * scale;
        return { cells: seenFrom(studio, area, scale), squares: seenFrom(studio, area, perMm) };
      });
      const [a, b] = [near, far].map(({ cells }) => tonesIn(cells));
      const colour = mean(near.squares.colours.map((lab, i) => deltaE2000(lab, far.squares.colours[i])));
      const name = `${what} at ${pressure}`;
      const readings: Reading[] = [
        {
          what: `${name}: colour of square millimetres`,
          value: colour,
          unit: 'Delta E',
          most: NEARLY_SOLID.has(what) && pressure > 0.5 ? 3 : 2,
        },
        { what: `${name}: distance of the tones`, value: apart(a, b), unit: 'L*', most: 4 },
      ];
      // what is even has no grain
      if (deviation(b.values) > 2)
        readings.push({
          what: `${name}: size of the grain to that`,
          value: grainLength(a) / grainLength(b),
          least: 0.75,
          most: 1.25,
        });
      return readings;
    }),
  );
}

/** Readings in bundles of another size give the same stroke. */
function bundled(ground: Ground): Reading[] {
  return TRIALS.flatMap(([what, take]) => {
    const drawn = (count: number) => {
      const studio = groundFor(ground, ...SIZE);
      const samples = Array.from({ length: count + 1 }, (_, i) => {
        const s = i / count;
        return [s * 600, 3 + 20 * s, 8 + 1.5 * Math.sin(5 * s), 0.6, 0, 50, 0];
      });
      paint(studio, ...take, { do: 'stroke', samples });
      return studio;
    };
    const [few, many] = [12, 200].map(drawn);
    const dust = (studio: ReturnType<typeof drawn>) => studio.painting.ledger.loaded.reduce((s, v) => s + v, 0);
    const [a, b] = [few, many].map((studio) => tonesOf(studio, [2, 2, 22, 12]).values);
    return [
      { what: `${what}, dust in 12 readings to that in 200`, value: Math.abs(dust(few) / dust(many) - 1), most: 0.01 },
      { what: `${what}, correlation of the pictures`, value: correlation(a, b), least: 0.96 },
    ];
  });
}

/** Dried strokes of thick paint under a stick: it meets their ridges. */
function onRelief(ground: Ground): Reading[] {
  const made = () => {
    const studio = groundFor(ground, 44, 24);
    for (let y = 4; y < 22; y += 5)
      paint(
        studio,
        ...loaded('flat', 8, { PW6: 1, PY43: 0.2 }, { body: 0.9, amount: 1.6 }),
        line(3, y, 41, y + 0.6, 0.55),
      );
    return studio;
  };
  const area: Area = [8, 9, 28, 5];
  const thick = values(made(), 'volume', area);
  // ridges: what stands above its surroundings
  const { mmPerPx } = made().painting;
  const width = Math.round((area[0] + area[2]) / mmPerPx) - Math.round(area[0] / mmPerPx);
  const ridges = thick.map((um, i) => um - mean(around(thick, width, i, Math.round(1 / mmPerPx))));
  return TRIALS.flatMap(([what, take]) => {
    const studio = made();
    paint(studio, { do: 'dry' });
    const before = lightness(studio, area);
    paint(studio, ...take);
    if (what === 'side of a lead') for (let y = 8; y < 15; y += 0.4) paint(studio, leaning(line(5, y, 39, y, 0.3)));
    else paint(studio, line(5, 11.5, 39, 11.5, 0.25));
    const darker = lightness(studio, area).map((L, i) => before[i] - L);
    return [
      { what: `${what} over dried paint, with its ridges`, value: correlation(darker, ridges), least: 0.15 },
      { what: `${what} over dried paint, pigment unaccounted for`, value: massError(studio), most: 1e-4 },
    ];
  });
}

/** Unlit lightness of the same cells that `values` reads. */
function lightness(studio: Studio, area: Area): number[] {
  const picture = new Picture(studio.painting);
  const out: number[] = [];
  eachCell(studio, area, (px, py) => out.push(linearToLab(picture.linearAt(px, py))[0]));
  return out;
}

/** Values of the cells of a square about a cell. @param reach half its side, cells */
function around(all: readonly number[], width: number, i: number, reach: number): number[] {
  const [x, y] = [i % width, Math.floor(i / width)];
  const out: number[] = [];
  for (let v = Math.max(0, y - reach); v <= y + reach && v * width < all.length; v++) {
    for (let u = Math.max(0, x - reach); u <= Math.min(width - 1, x + reach); u++) out.push(all[v * width + u]);
  }
  return out;
}

/** Masking fluid keeps sticks off, and rubs off clean. */
function keptOff(ground: Ground): Reading[] {
  const area: Area = [9, 7.7, 8, 0.6];
  const beside: Area = [9, 11, 8, 1];
  return TRIALS.flatMap(([what, take]) => {
    const studio = groundFor(ground, ...SIZE);
    const bare = tonesOf(studio, area).values;
    const before = mean(tonesOf(studio, beside).values);
    paint(studio, { do: 'tool', tool: 'masking', sizeMm: 4 }, line(4, 8, 22, 8, 0.9), { do: 'dry' }, ...take);
    for (let y = 5; y < 12.5; y += 0.4) paint(studio, leaning(line(4, y, 22, y, 0.9)));
    const drawn = before - mean(tonesOf(studio, beside).values);
    paint(studio, { do: 'tool', tool: 'crepe', sizeMm: 10 }, line(3, 8, 23, 8, 0.9), line(23, 8, 3, 8, 0.9));
    const after = tonesOf(studio, area).values;
    return [
      { what: `${what} beside masking fluid`, value: drawn, unit: 'L*', least: 15 },
      {
        what: `${what} under it`,
        value: Math.max(...after.map((L, i) => Math.abs(bare[i] - L))),
        unit: 'L*',
        most: 0.5,
      },
    ];
  });
}

const on = 'sheet' as const;
export const DRAWN_BEHAVIOURS: readonly Behaviour[] = [
  { id: 'stick-tones', says: 'A stick gives tones, not two values.', on, measure: tones },
  { id: 'pencil-lines', says: 'A line of a pencil does not break.', on, measure: lines },
  { id: 'grades', says: 'Every softer grade is darker.', on, measure: grades },
  {
    id: 'build-up',
    says: 'Tone builds up over passes and with pressure, and within a scribble.',
    on,
    measure: buildUp,
  },
  { id: 'light-on-dark', says: 'Light pastel covers dark in two or three passes.', on, measure: lightOverDark },
  { id: 'fixed-darker', says: 'Fixative darkens a little.', on, measure: fixed },
  {
    id: 'stick-from-afar',
    says: 'A drawing is the same at four times the resolution, seen from farther away.',
    on,
    measure: fromAfar,
  },
  { id: 'stick-readings', says: 'It does not matter how the readings of a stick come.', on, measure: bundled },
  { id: 'stick-relief', says: 'A stick meets the ridges of dried paint.', on, measure: onRelief },
  { id: 'stick-masking', says: 'Masking fluid keeps sticks off.', on, measure: keptOff },
];
