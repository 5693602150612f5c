import { findPigment } from '@/core/colour/pigments';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { dustCovers, dustLies, dustUm } from '@/core/flow/washRates';
import { TILE } from '@/core/film/tile';
import type { CommandInput } from '@/core/commands/commands';
import type { Studio } from '@/core/journal/studio';
import type { ToolId, ToolSettings } from '@/core/tools/tools';
import type { Mixture } from '@/core/colour/mixture';
import { groundFor, type Behaviour, type Ground, type Reading } from '@/measure/behaviour';
import {
  correlation,
  eachCell,
  edgeWidth,
  field,
  grain,
  line,
  mean,
  meanLab,
  paint,
  values,
  type Area,
} from '@/measure/bench';
import { coats, massError, meanCoats } from '@/measure/water/washBench';

/** Dry sticks on toned paper: grain, filling of the tooth, smearing, lifting, fixing. */
const RED = { PR188: 2, PW6: 1 };
const DARK = { PB29: 2, PBr7BU: 1 };

/** Takes a stick of a mixture. */
const stick = (tool: ToolId, sizeMm: number, mixture?: Mixture, held: Partial<ToolSettings> = {}): CommandInput[] => [
  { do: 'tool', tool, sizeMm, hold: 'flat', into: 'layer', ...held },
  ...(mixture ? [{ do: 'load', mixture: { ...mixture } } as CommandInput] : []),
];

/** Height of the dust at cells of an area, um. */
function dust(studio: Studio, area: Area): number[] {
  const { painting } = studio;
  const out: number[] = [];
  eachCell(studio, area, (px, py) => {
    const wash = painting.active.tiles[(py >> 6) * painting.tilesX + (px >> 6)]?.wash;
    const cell = (py & 63) * TILE + (px & 63);
    out.push(
      (wash?.dust() ?? []).reduce(
        (sum, { plane, pigment }) => sum + painting.arena.f32[plane + cell] * dustUm(pigment),
        0,
      ),
    );
  });
  return out;
}
/** Share of an area that dust covers. */
function covered(studio: Studio, area: Area): number {
  const { painting } = studio;
  const out: number[] = [];
  eachCell(studio, area, (px, py) => {
    const wash = painting.active.tiles[(py >> 6) * painting.tilesX + (px >> 6)]?.wash;
    const cell = (py & 63) * TILE + (px & 63);
    out.push(
      dustCovers(
        (wash?.dust() ?? []).reduce(
          (sum, { plane, pigment }) => sum + painting.arena.f32[plane + cell] * dustLies(pigment),
          0,
        ),
      ),
    );
  });
  return mean(out);
}
const INNER: Area = [14, 10, 30, 8];

/** A field of passes side by side, so often one over the other. */
function passes(tool: ToolId, mixture: Mixture | undefined, times: number, pressure: number): CommandInput[] {
  const commands = stick(tool, 12, mixture);
  for (let k = 0; k < times; k++) for (const y of [8, 14, 20]) commands.push(line(6, y, 54, y, pressure));
  return commands;
}

function onePass(ground: Ground): Reading[] {
  const studio = groundFor(ground, 60, 28);
  paint(studio, ...stick('pastel-soft', 14, RED), line(6, 14, 54, 14, 0.6));
  const laid = dust(studio, INNER);
  const thin = groundFor(ground, 60, 28);
  paint(thin, ...stick('charcoal', 14), line(6, 14, 54, 14, 0.5));
  return [
    { what: 'coverage of one pass of soft pastel', value: covered(studio, INNER), least: 0.4, most: 0.9 },
    {
      what: 'its correlation with the height of the tooth',
      value: correlation(laid, grain(studio, INNER)),
      least: 0.4,
    },
    { what: 'coverage of one pass of charcoal', value: covered(thin, INNER), least: 0.25, most: 0.85 },
    { what: 'correlation of charcoal', value: correlation(dust(thin, INNER), grain(thin, INNER)), least: 0.4 },
    { what: 'pigment unaccounted for', value: Math.max(massError(studio), massError(thin)), most: 1e-4 },
  ];
}

function fullTooth(ground: Ground): Reading[] {
  const studio = groundFor(ground, 60, 28);
  paint(studio, ...passes('pastel-soft', RED, 1, 0.95));
  const first = mean(dust(studio, INNER));
  paint(studio, ...passes('pastel-soft', RED, 9, 0.95));
  const filled = mean(dust(studio, INNER));
  const closed = covered(studio, INNER);
  paint(studio, ...passes('pastel-soft', RED, 1, 0.95));
  return [
    { what: 'coverage once the tooth is full', value: closed, least: 0.95 },
    { what: 'what another pass leaves, to the first', value: (mean(dust(studio, INNER)) - filled) / first, most: 0.03 },
  ];
}

function lightOverDark(ground: Ground): Reading[] {
  const studio = groundFor(ground, 60, 28);
  paint(studio, ...passes('pastel-hard', DARK, 6, 0.95));
  const dark = meanLab(studio, INNER);
  paint(studio, ...passes('pastel-soft', { PW6: 5, PY37: 1 }, 2, 0.85));
  const light = meanLab(studio, INNER);
  const alone = groundFor(ground, 60, 28);
  paint(alone, ...passes('pastel-soft', { PW6: 5, PY37: 1 }, 2, 0.85));
  return [
    { what: 'light over dark', value: light[0] - dark[0], unit: 'L*', least: 15 },
    { what: 'its yellow stays', value: light[2] / meanLab(alone, INNER)[2], least: 0.4 },
  ];
}

function smeared(ground: Ground): Reading[] {
  const studio = groundFor(ground, 60, 40);
  paint(studio, ...stick('pastel-soft', 12, RED));
  for (let k = 0; k < 3; k++) for (const y of [8, 14]) paint(studio, line(6, y, 54, y, 0.8));
  const profile = (x: number) => {
    const out: number[] = [];
    const step = studio.painting.mmPerPx;
    for (let y = 8; y < 36; y += step) out.push(mean(dust(studio, [x, y, 8, step])));
    return out;
  };
  const hard = edgeWidth(profile(14));
  const before = correlation(dust(studio, [30, 8, 14, 8]), grain(studio, [30, 8, 14, 8]));
  paint(studio, { do: 'tool', tool: 'finger', sizeMm: 9 });
  for (let x = 30; x < 46; x += 2.5) paint(studio, line(x, 12, x + 1, 30, 0.6));
  const after = correlation(dust(studio, [30, 9, 12, 6]), grain(studio, [30, 9, 12, 6]));
  return [
    { what: 'edge drawn with a finger to the hard one', value: edgeWidth(profile(32)) / hard, least: 3 },
    { what: 'correlation with the tooth, rubbed less before', value: after - before, most: -0.05 },
    { what: 'pigment unaccounted for', value: massError(studio), most: 1e-4 },
  ];
}

function liftedDust(ground: Ground): Reading[] {
  const make = () => {
    const studio = groundFor(ground, 60, 28);
    paint(studio, ...passes('charcoal', undefined, 2, 0.6));
    return studio;
  };
  const studio = make();
  const area: Area = [28, 12, 4, 4];
  const before = mean(dust(studio, area));
  paint(studio, { do: 'tool', tool: 'eraser-kneaded', sizeMm: 9 });
  for (let k = 0; k < 3; k++) paint(studio, { do: 'stroke', samples: [[0, 30, 14, 0.9]] });
  const kneaded = 1 - mean(dust(studio, area)) / before;
  const edge = 1 - mean(dust(studio, [40, 12, 4, 4])) / mean(dust(make(), [40, 12, 4, 4]));
  const rubbed = make();
  paint(
    rubbed,
    { do: 'tool', tool: 'eraser', sizeMm: 9, tip: 'hard' },
    line(20, 14, 40, 14, 1),
    line(40, 14, 20, 14, 1),
  );
  return [
    { what: 'charcoal lifted by a kneaded eraser', value: kneaded, least: 0.6, most: 0.98 },
    { what: 'and beside it', value: Math.abs(edge), most: 1e-6 },
    { what: 'charcoal taken off by a hard eraser', value: 1 - mean(dust(rubbed, area)) / before, least: 0.95 },
    { what: 'pigment unaccounted for', value: Math.max(massError(studio), massError(rubbed)), most: 1e-4 },
  ];
}

function blownAndFixed(ground: Ground): Reading[] {
  const studio = groundFor(ground, 60, 28);
  paint(studio, ...passes('pastel-soft', RED, 5, 0.9));
  const heavy = mean(dust(studio, INNER));
  paint(studio, { do: 'blow' });
  const blown = 1 - mean(dust(studio, INNER)) / heavy;
  const before = meanLab(studio, INNER);
  const held = meanCoats(studio, 'PR188', INNER);
  paint(studio, { do: 'fix' });
  const changed = deltaE2000(before, meanLab(studio, INNER));
  paint(studio, { do: 'tool', tool: 'finger', sizeMm: 10 }, line(14, 14, 44, 14, 0.9), line(44, 14, 14, 14, 0.9));
  const smearedOff = Math.abs(1 - meanCoats(studio, 'PR188', INNER) / held);
  paint(studio, ...passes('pastel-soft', { PB29: 1, PW6: 2 }, 1, 0.8));
  return [
    { what: 'dust blown off a full tooth', value: blown, least: 0.1, most: 0.6 },
    { what: 'what fixing changes', value: changed, unit: 'Delta E', most: 4 },
    { what: 'what a finger moves of fixed dust', value: smearedOff, most: 0.01 },
    { what: 'coverage of a pass on fixed dust', value: covered(studio, INNER), least: 0.3 },
    { what: 'pigment unaccounted for', value: massError(studio), most: 1e-4 },
  ];
}

function pencils(ground: Ground): Reading[] {
  const tone = (grade: number, tiltX = 0) => {
    const studio = groundFor(ground, 40, 20);
    paint(studio, { do: 'tool', tool: 'graphite', sizeMm: 1, grade, into: 'layer' });
    for (let y = 6; y < 14; y += 0.7) {
      const stroke = line(5, y, 35, y, 0.5);
      if (stroke.do === 'stroke')
        paint(studio, { ...stroke, samples: stroke.samples.map((s) => [...s.slice(0, 4), tiltX, 0, 0]) });
    }
    return meanLab(studio, [10, 7, 20, 5])[0];
  };
  const [hard, middle, soft] = [tone(-5), tone(0), tone(6)];
  return [
    { what: '5H paler than HB', value: hard - middle, unit: 'L*', least: 2 },
    { what: '6B darker than HB', value: middle - soft, unit: 'L*', least: 4 },
  ];
}

function dirtied(ground: Ground): Reading[] {
  const tone = (charcoal: boolean) => {
    const studio = groundFor(ground, 60, 28);
    if (charcoal) paint(studio, ...passes('charcoal', undefined, 2, 0.7));
    for (let k = 0; k < 2; k++) paint(studio, ...field([4, 4, 52, 20], { PW6: 1 }, 12));
    return studio;
  };
  const dirty = tone(true);
  const film = mean(values(dirty, 'PBk9', INNER));
  // on dry dust wet paint may be drawn over; over wet paint dust goes into it
  const into = tone(false);
  paint(into, ...stick('charcoal', 12), line(6, 14, 54, 14, 0.8));
  return [
    {
      what: 'wet white over charcoal, darker than clean white',
      value: meanLab(tone(false), INNER)[0] - meanLab(dirty, INNER)[0],
      unit: 'L*',
      least: 3,
    },
    { what: 'charcoal in that paint', value: film, unit: 'coats', least: 1e-4 },
    { what: 'charcoal drawn into wet paint', value: mean(values(into, 'PBk9', INNER)), unit: 'coats', least: 1e-4 },
    { what: 'pigment unaccounted for', value: Math.max(massError(dirty), massError(into)), most: 1e-4 },
  ];
}

function sameMillimetres(ground: Ground): Reading[] {
  const at = (ppi: number) => {
    const studio = groundFor({ ...ground, ppi }, 60, 28);
    paint(studio, ...stick('pastel-hard', 10, DARK), line(6, 14, 54, 14, 0.7));
    return { lab: meanLab(studio, INNER), um: mean(dust(studio, INNER)) };
  };
  const [a, b, c] = [100, 150, 300].map(at);
  return [
    {
      what: 'colour at 100 and 300 ppi against 150',
      value: Math.max(deltaE2000(a.lab, b.lab), deltaE2000(c.lab, b.lab)),
      unit: 'Delta E',
      most: 3,
    },
    {
      what: 'dust at 100 and 300 ppi to that at 150',
      value: Math.max(Math.abs(a.um / b.um - 1), Math.abs(c.um / b.um - 1)),
      most: 0.1,
    },
  ];
}

function washedOver(ground: Ground): Reading[] {
  const wash = (tool: ToolId) => {
    const studio = groundFor(ground, 50, 28);
    const id = tool === 'graphite' ? 'graphite' : 'PBk9';
    paint(studio, { do: 'tool', tool, sizeMm: tool === 'graphite' ? 2 : 10, hold: 'flat', into: 'layer' });
    for (const y of [9, 11, 13]) paint(studio, line(10, y, 40, y, 0.7));
    const area: Area = [14, 6, 20, 10];
    const before = meanCoats(studio, id, area);
    paint(
      studio,
      { do: 'tool', tool: 'mop', sizeMm: 12 },
      { do: 'load', mixture: {}, water: 0.7 },
      line(4, 11, 46, 11, 0.9),
      line(46, 15, 4, 15, 0.9),
    );
    const floats = mean(coats(studio, id, [14, 18, 20, 6])) / before;
    paint(studio, { do: 'dry' });
    return {
      moved: 1 - meanCoats(studio, id, area) / before,
      floats,
      error: massError(studio),
      pigment: findPigment(id),
    };
  };
  const graphite = wash('graphite');
  const charcoal = wash('charcoal');
  return [
    { what: 'graphite moved by a wash', value: Math.abs(graphite.moved), most: 0.001 },
    { what: 'charcoal moved by a wash', value: charcoal.moved, least: 0.02, most: 0.7 },
    { what: 'pigment unaccounted for', value: Math.max(graphite.error, charcoal.error), most: 1e-4 },
  ];
}

const on = 'tooth' as const;
export const STICK_BEHAVIOURS: readonly Behaviour[] = [
  { id: 'stick-pass', says: 'One pass of a stick meets the peaks of the tooth.', on, measure: onePass },
  { id: 'full-tooth', says: 'A filled tooth takes no more.', on, measure: fullTooth },
  { id: 'light-over-dark', says: 'Light pastel lies on dark.', on, measure: lightOverDark },
  { id: 'finger', says: 'A finger loses an edge and fills the tooth.', on, measure: smeared },
  { id: 'kneaded', says: 'A kneaded eraser lifts dust, a hard one takes it off.', on, measure: liftedDust },
  { id: 'fixative', says: 'Loose dust is blown off; fixed dust stays.', on, measure: blownAndFixed },
  { id: 'pencils', says: 'Soft pencils are darker than hard ones.', on, measure: pencils },
  { id: 'dirties', says: 'Charcoal dirties wet paint.', on, measure: dirtied },
  { id: 'stick-sameness', says: 'A stick leaves the same at every resolution.', on, measure: sameMillimetres },
  { id: 'washed-dust', says: 'A wash takes charcoal along, and leaves graphite.', on, measure: washedOver },
];
