/**
 * Paints "Low tide, study 1", the painting that hangs on the rack at first, as a painter would who has decided on a light: toned linen, thin lay-in, big planes,
 * strokes along the form, things from the back to the front, thick lights last. Writes its journal.
 *   npm run demo:painting
 */
import type { Triple } from '@/core/colour/colorimetry';
import type { Mixture } from '@/core/colour/mixture';
import type { ToolId } from '@/core/tools/tools';
import { writeJournal } from '../writeJournal';
import { dot, unit } from './dinghy';
import { belly, firm, Hand, into, land, lift, off, sweep, type Place, type Press } from './hand';
import { plus, smoothstep, towards } from './idea';
import { aroundPosts, boat, headlandTop, HEIGHT, idea, LIE, MASS, POSTS, RIGHT, WIDTH } from './masses';
import { Palette } from './palette';
import { alongForm, Planner, type Lie, type Mark } from './planner';

const TONE: Mixture = { PY43: 2.2, PBr7BS: 1.2, PB29: 0.22, PW6: 2.6 };
const palette = new Palette(['PW6', 'PY43', 'PY35', 'PO20', 'PBr7BS', 'PR177', 'PB29', 'PG18']);
const hand = new Hand(21);
const planner = new Planner(hand, palette, WIDTH, HEIGHT);
const soft = { hair: 'soft' } as const;
const mark = (
  through: readonly Place[],
  colour: Readonly<Triple>,
  tool: ToolId,
  size: number,
  press: Press,
  load: number,
  body: number,
  blend: number,
  more: Mark = {},
) => planner.mark(through, colour, tool, size, press, { load, body, blend, ...more });
const stage = () => hand.do({ do: 'rinse' });
const steady =
  (p: number): Press =>
  () =>
    p;
const blend = (size: number, paths: readonly Place[][], press: number) => {
  hand.take('blender-soft', size, { floor: 0 });
  for (const path of paths) hand.stroke(path, sweep(press));
};

function layIn(): void {
  const thin = { body: 0.2, blend: 0.2, solvent: 0.6 };
  planner.fill(MASS.ground, {
    tools: ['house'],
    size: 24,
    length: 90,
    lie: LIE.mud,
    cover: 0.985,
    most: 70,
    colour: () => [28, 10, 14],
    load: 0.6,
    perLoad: 1,
    press: 0.48,
    held: { ...thin, body: 0.25 },
  });
  planner.fill(MASS.headland, {
    tools: ['filbert'],
    size: 6,
    length: 40,
    lie: LIE.headland,
    cover: 0.985,
    most: 70,
    colour: () => [36, 3, -10],
    load: 0.6,
    perLoad: 1,
    press: 0.48,
    held: thin,
  });
  planner.fill(MASS.above, {
    tools: ['house'],
    size: 26,
    length: 90,
    lie: LIE.sky,
    cover: 0.999,
    most: 40,
    colour: idea.blurred(10).shifted([-8, 2, -1]),
    load: 1,
    perLoad: 1,
    press: 0.5,
    held: thin,
  });
  planner.fill(MASS.boat, {
    tools: ['filbert'],
    size: 9,
    length: 40,
    lie: () => [1, 0.12],
    cover: 0.95,
    most: 30,
    colour: () => [22, 4, 6],
    load: 0.6,
    perLoad: 1,
    held: { ...thin, body: 0.3 },
  });
  // the run of light wiped out of the mud
  hand.take('rag', 12, { solvent: 0.7 });
  const wiped: Place[][] = [
    [
      [122, 70],
      [96, 76],
      [70, 86],
      [62, 94],
    ],
    [
      [62, 95],
      [84, 106],
      [92, 114],
    ],
    [
      [86, 122],
      [60, 136],
      [20, 150],
    ],
    [
      [60, 144],
      [16, 166],
    ],
  ];
  for (const path of wiped) hand.stroke(path, land(0.6));
  planner.fill(MASS.water, {
    tools: ['filbert'],
    size: 16,
    length: 50,
    lie: LIE.water,
    cover: 0.995,
    most: 50,
    colour: idea.blurred(6).shifted([-7, 0, 2]),
    load: 0.9,
    perLoad: 1,
    press: 0.5,
    held: thin,
  });
  hand.do({ do: 'dry' });
  stage();
}

function paintSky(): void {
  const form = alongForm(idea, LIE.sky);
  planner.fill(MASS.sky, {
    tools: ['flat', 'filbert'],
    size: 20,
    length: 56,
    lie: LIE.sky,
    cover: 0.998,
    colour: idea.blurred(5),
    perLoad: 2,
    load: 1.5,
    press: 0.52,
    jitter: 0.7,
    over: 4,
    curl: 0.1,
    held: { body: 0.3, thin: 0.15, blend: 0.3, ...soft },
  });
  planner.fill(MASS.sky, {
    tools: ['filbert', 'worn', 'filbert'],
    size: 12,
    length: 38,
    lie: form,
    cover: 0.8,
    colour: idea.blurred(1.5),
    within: 9,
    perLoad: 3,
    load: 0.9,
    press: 0.5,
    jitter: 0.8,
    over: 4,
    curl: 0.07,
    spread: 0.7,
    held: { body: 0.4, thin: 0.08, blend: 0.28 },
  });
  blend(
    16,
    Array.from({ length: 15 }, () =>
      planner.trace([hand.between(10, 230), hand.between(6, 54)], form, 36, { curl: 0.15 }),
    ),
    0.36,
  );
  planner.fill(MASS.sky, {
    tools: ['worn', 'filbert'],
    size: 7,
    length: 26,
    lie: form,
    cover: 0.36,
    colour: idea.blurred(1),
    within: 7,
    least: 0.7,
    perLoad: 2,
    load: 0.8,
    press: 0.5,
    jitter: 0.9,
    over: 3,
    curl: 0.07,
    spread: 0.7,
    held: { body: 0.6, blend: 0.15 },
  });
  planner.fill(MASS.lit, {
    tools: ['filbert', 'worn', 'round'],
    size: 5,
    length: 26,
    lie: form,
    cover: 0.66,
    colour: idea.blurred(2).shifted([1, 0.5, 1]),
    within: 8,
    least: 0.7,
    perLoad: 2,
    load: 1,
    press: 0.5,
    jitter: 0.5,
    over: 3,
    clean: 'rinse',
    spread: 0.6,
    curl: 0.08,
    held: { body: 0.75, blend: 0.08 },
  });
  stage();
}

function paintFarShore(): void {
  planner.fill(MASS.ridge, {
    tools: ['filbert'],
    size: 3.2,
    length: 26,
    lie: LIE.level,
    cover: 0.9,
    colour: idea.blurred(3),
    perLoad: 2,
    load: 0.9,
    press: 0.45,
    jitter: 0.7,
    held: { body: 0.5, blend: 0.35 },
  });
  planner.fill(MASS.headland, {
    tools: ['filbert'],
    size: 5.5,
    length: 18,
    lie: LIE.headland,
    cover: 0.97,
    most: 120,
    colour: idea,
    perLoad: 2,
    load: 1,
    jitter: 1.2,
    over: 0.5,
    held: { body: 0.5 },
  });
  // trees: short upright touches into the sky
  for (let x = 136; x < 238; x += 6) {
    const far = (x - 136) / 100;
    const y = headlandTop(x);
    mark(
      [
        [x + hand.normal(), y + 4.5],
        [x + 0.8 + hand.normal(), y - 0.6 + hand.normal(0.9)],
      ],
      [60 - 19 * far + hand.normal(1.5), -1.5 * far, -5],
      'filbert',
      2.6 + 2.4 * hand.random(),
      off(0.55),
      0.7,
      0.5,
      0.3,
    );
  }
  planner.fill(MASS.haze, {
    tools: ['worn'],
    size: 2.2,
    length: 20,
    lie: LIE.level,
    cover: 0.4,
    colour: () => [66, 2, 0],
    perLoad: 2,
    load: 0.6,
    press: 0.4,
    jitter: 0.6,
    held: { body: 0.5, blend: 0.3 },
  });
  blend(
    6,
    [
      [
        [98, 65],
        [122, 65.2],
        [142, 63.4],
      ],
    ],
    0.3,
  );
  // the boathouse
  const x = 195;
  const rinse = { clean: 'rinse' } as const;
  mark(
    [
      [x - 3.6, 60.6],
      [x + 11, 60.4],
    ],
    [57, 4, 1],
    'flat',
    6,
    land(0.55),
    1.6,
    0.55,
    0.04,
    rinse,
  );
  mark(
    [
      [x - 9, 60.6],
      [x - 4, 60.4],
    ],
    [88, 8, 22],
    'flat',
    6.2,
    land(0.55),
    1.6,
    0.75,
    0.03,
    rinse,
  );
  mark(
    [
      [x - 5.6, 56.2],
      [x - 4, 54.6],
      [x + 12, 54.3],
    ],
    [33, 0, -9],
    'flat',
    4.6,
    land(0.58),
    2,
    0.6,
    0.03,
  );
  mark(
    [
      [x - 10, 58.4],
      [x - 6.8, 53.2],
      [x - 3.4, 58.2],
    ],
    [30, 2, -6],
    'rigger',
    1.2,
    land(0.55),
    1.3,
    0.55,
    0.04,
  );
  mark(
    [
      [x - 4, 52.6],
      [x + 11, 52.2],
    ],
    [62, 0, -8],
    'rigger',
    0.7,
    off(0.5),
    0.8,
    0.5,
    0.05,
  );
  mark(
    [
      [x + 1.5, 62.4],
      [x + 1.5, 60.2],
    ],
    [26, 3, -3],
    'flat',
    2.2,
    land(0.55),
    1,
    0.5,
    0.04,
  );
  mark(
    [
      [x + 6, 60.2],
      [x + 7.8, 60.2],
    ],
    [30, 2, -6],
    'flat',
    1.7,
    land(0.55),
    0.8,
    0.5,
    0.04,
  );
  mark(
    [
      [x - 10, 64.2],
      [x + 13, 63.9],
    ],
    [40, 2, 0],
    'worn',
    2,
    sweep(0.5),
    0.8,
    0.5,
    0.2,
  );
  mark(
    [
      [x - 6.5, 66.5],
      [x - 6.4, 70],
    ],
    [80, 6, 17],
    'filbert',
    3.4,
    off(0.4),
    0.7,
    0.4,
    0.4,
  );
  stage();
}

/** Ridges of mud that the light rakes: through, width, colour. */
const RIDGES: readonly (readonly [Place, Place, Place, number, Triple])[] = [
  [[238, 124], [216, 128], [190, 136], 9, [40, 9, 19]],
  [[150, 142], [172, 139], [204, 133], 7, [38, 9, 18]],
  [[130, 150], [150, 146], [176, 143], 8, [30, 8, 13]],
  [[238, 142], [210, 143], [186, 147], 9, [33, 8, 15]],
  [[126, 172], [146, 163], [170, 158], 11, [29, 8, 13]],
  [[238, 172], [206, 170], [176, 172], 12, [27, 8, 12]],
  [[120, 160], [130, 155], [146, 151], 7, [41, 10, 20]],
  [[238, 150], [214, 152], [192, 156], 6, [42, 4, -2]],
  [[204, 176], [180, 174], [158, 178], 9, [24, 7, 9]],
  [[236, 160], [222, 161], [206, 164], 6, [38, 9, 18]],
];

function paintMud(): void {
  const form = alongForm(idea, LIE.mud, 4, 2.5);
  planner.fill(MASS.mud, {
    tools: ['flat', 'filbert'],
    size: 16,
    length: 50,
    lie: LIE.mud,
    cover: 0.998,
    colour: idea.blurred(3),
    perLoad: 2,
    load: 1.3,
    press: 0.52,
    jitter: 0.8,
    over: 1,
    downwards: true,
    held: { body: 0.3, thin: 0.12, blend: 0.25, ...soft },
  });
  planner.fill(MASS.nearMud, {
    tools: ['filbert', 'worn', 'bright'],
    size: 8.5,
    length: 30,
    lie: form,
    cover: 0.6,
    colour: idea,
    within: 9,
    perLoad: 3,
    load: 0.85,
    press: 0.52,
    jitter: 1.3,
    pairs: 0.8,
    curl: 0.12,
    spread: 0.8,
    over: 1,
    held: { body: 0.5 },
  });
  planner.fill(MASS.farMud, {
    tools: ['filbert', 'worn'],
    size: 3.8,
    length: 26,
    lie: form,
    cover: 0.66,
    colour: idea,
    within: 8,
    perLoad: 3,
    load: 0.8,
    press: 0.48,
    jitter: 1,
    pairs: 0.8,
    curl: 0.05,
    spread: 0.7,
    held: { body: 0.45, blend: 0.18 },
  });
  for (const [a, b, c, size, colour] of RIDGES)
    mark([a, b, c], colour, size > 8 || hand.random() < 0.4 ? 'worn' : 'filbert', size, off(0.55), 1.1, 0.5, 0.25, {
      jitter: 1,
    });
  stage();
}

function paintWater(): void {
  const form = alongForm(idea, LIE.water, 4, 1.6);
  planner.fill(MASS.water, {
    tools: ['flat', 'filbert'],
    size: 10,
    length: 38,
    lie: LIE.water,
    cover: 0.995,
    colour: idea.blurred(4),
    perLoad: 2,
    load: 1.2,
    press: 0.52,
    jitter: 0.6,
    over: 1,
    spread: 0.6,
    held: { body: 0.28, thin: 0.2, blend: 0.25, ...soft },
  });
  planner.fill(MASS.wet, {
    tools: ['filbert', 'worn'],
    size: 2.4,
    length: 24,
    lie: LIE.water,
    cover: 0.9,
    most: 90,
    colour: idea.blurred(2),
    perLoad: 2,
    load: 0.9,
    press: 0.5,
    jitter: 0.6,
    over: 2,
    spread: 0.6,
    held: { body: 0.35, thin: 0.1, blend: 0.25, ...soft },
  });
  // pulled down, then cut across
  const pulls: Place[][] = [];
  for (let n = 0; n < 120 && pulls.length < 26; n++) {
    const [x, y] = [hand.between(4, 120), hand.between(74, 168)];
    if (MASS.water.at(x, y) > 0.5 && MASS.water.at(x, Math.min(179, y + 9)) > 0.5)
      pulls.push([
        [x, y - 2],
        [x + 0.5, y + 5],
        [x, y + (14 * (y - 60)) / 80],
      ]);
  }
  blend(9, pulls, 0.4);
  planner.fill(MASS.water, {
    tools: ['filbert', 'worn'],
    size: 4.2,
    length: 28,
    lie: form,
    cover: 0.36,
    colour: idea.blurred(1.5),
    within: 8,
    perLoad: 2,
    load: 0.8,
    press: 0.45,
    jitter: 1,
    over: 0.5,
    spread: 0.7,
    held: { body: 0.45, blend: 0.18 },
  });
  // the bank is found near the boat, by a dark thin lip
  const lip = RIGHT.slice(Math.floor(RIGHT.length * 0.61), Math.floor(RIGHT.length * 0.73)).filter(
    (_, i) => i % 4 === 0,
  );
  mark(
    lip.map(([x, y]): Place => [x + 0.5, y + 0.2]),
    [25, 7, 9],
    'worn',
    2.2,
    sweep(0.55),
    1.2,
    0.4,
    0.15,
  );
  stage();
}

function paintPost({ x, top, foot, width, lean, far }: (typeof POSTS)[number]): void {
  const at = (s: number, aside = 0): Place => [
    x + lean * (1 - s) + aside * width * (1 + 0.16 * s),
    top + (foot - top) * s,
  ];
  const base = towards([17, 4, 3], [60, 4, -2], far);
  const lit = towards([70, 14, 34], [80, 8, 20], far);
  const mid = towards([30, 8, 10], [64, 4, 4], far);
  const held = { floor: 0, body: 0.5, blend: 0.08, thin: 0.05, solvent: 0, strength: 1 };
  const runs: [number, number, Press][] =
    foot - top < 40
      ? [[0, 1, steady(0.55)]]
      : [
          [0, 0.6, (s) => (s < 0.7 ? 0.56 : (0.56 * (1 - s)) / 0.3 + 0.14)],
          [1, 0.34, (s) => 0.56 * (1 - s) ** 0.6],
        ];
  const mixture = palette.mix(base, hand.random, 0.5);
  hand.take('flat', width * 0.96, held);
  for (const [from, to, press] of runs) {
    hand.load(mixture, 3, 'wipe');
    hand.stroke([at(from), at((from + to) / 2, 0.05 * hand.normal()), at(to)], press, 0.25);
  }
  // what it does in the water: one wet pull, cut by ripples
  const long = (foot - top) * 0.6;
  const mirror = towards(base, [40, 3, 3], 0.3);
  const end = towards(mirror, idea.at(x, Math.min(176, foot + long)), 0.55);
  mark(
    [
      [x, foot - 0.3],
      [x + 0.25 * width, foot + long * 0.33],
      [x - 0.15 * width, foot + long * 0.66],
      [x + 0.2 * width, foot + long],
    ],
    mirror,
    'filbert',
    width * 0.86,
    off(0.55),
    1,
    0.3,
    0.35,
    { thin: 0.2 },
  );
  mark(
    [
      [x + 0.2 * width, foot + long * 0.45],
      [x - 0.1 * width, foot + long * 0.8],
      [x + 0.15 * width, foot + long * 1.12],
    ],
    end,
    'worn',
    width * 0.9,
    sweep(0.5),
    0.8,
    0.3,
    0.4,
    { thin: 0.2 },
  );
  for (let n = Math.floor(2 + 4 * (1 - far)); n > 0; n--) {
    const s = hand.random() ** 0.8;
    const y = foot + 1.5 + long * s;
    const half = width * (0.5 + 1.3 * hand.random());
    const middle = x + hand.normal(0.3) * width;
    const colour = hand.random() < 0.7 ? idea.at(Math.min(238, x + width * 1.6), Math.min(176, y)) : mirror;
    mark(
      [
        [middle - half, y],
        [middle, y + 0.3],
        [middle + half, y - 0.1],
      ],
      colour,
      'rigger',
      Math.max(0.7, (0.7 + 0.7 * s) * (1 - 0.5 * far)),
      sweep(0.55),
      1,
      0.35,
      0.15,
    );
  }
  for (const [from, to, aside] of [
    [0, 0.3, -0.36],
    [0.34, 0.46, -0.38],
    [0.5, 0.7, -0.36],
  ] as const) {
    mark(
      [at(from, aside), at((from + to) / 2, aside + 0.02), at(to, aside + 0.03)],
      towards(lit, mid, from * 0.5),
      'round',
      Math.max(0.7, width * 0.24),
      lift(0.5),
      1,
      0.75,
      0.06,
      { clean: 'rinse' },
    );
  }
  if (width > 3)
    mark([at(0.02, 0.12), at(0.4, 0.2), at(0.62, 0.1)], mid, 'filbert', width * 0.3, belly(0.3), 0.5, 0.6, 0.1);
  if (width > 3)
    mark(
      [at(0, -0.42), at(-0.008), at(0.004, 0.42)],
      lit.map((v) => v * 0.8) as Triple,
      'round',
      width * 0.22,
      land(0.45),
      0.7,
      0.8,
      0.08,
    );
}

function paintPosts(): void {
  for (const post of POSTS) paintPost(post);
  // a keelboat far out, for scale
  mark(
    [
      [143.5, 73.4],
      [147, 74.4],
      [151.5, 73],
    ],
    [38, 0, -8],
    'filbert',
    1.9,
    sweep(0.55),
    0.9,
    0.5,
    0.06,
  );
  mark(
    [
      [144, 72.6],
      [148, 73.2],
      [151, 72.3],
    ],
    [84, 4, 10],
    'rigger',
    0.8,
    sweep(0.5),
    0.8,
    0.6,
    0.05,
    { clean: 'rinse' },
  );
  mark(
    [
      [147.5, 72.4],
      [149.4, 63],
      [151, 55.5],
    ],
    [40, 2, -6],
    'rigger',
    0.55,
    (s) => 0.5 - 0.3 * s,
    0.9,
    0.4,
    0.05,
  );
  mark(
    [
      [148, 75],
      [148.5, 79],
    ],
    [48, 2, -2],
    'filbert',
    1.6,
    off(0.4),
    0.6,
    0.35,
    0.4,
  );
  stage();
}

/** From the lamp to the hull: the light comes from under the glow. */
const LIGHT = unit([-0.8, 0.4, -0.45]);

/** Colour of the hull: light only towards the bow, deep at the stern; sheer strake, planks, bottom. */
function hullColour(u: number, v: number): Triple {
  const n = boat.normal(Math.min(u, 0.9), v);
  const [dark, light]: [Triple, Triple] =
    v > 0.88
      ? [
          [52, 2, -5],
          [95, 5, 22],
        ]
      : v < 0.3
        ? [
            [11, 8, 4],
            [33, 24, 19],
          ]
        : [
            [11, -7, -2],
            [57, -18, 21],
          ];
  const t =
    0.02 +
    0.92 * smoothstep(0.5, 0.97, u) ** 1.15 * (0.42 + 0.58 * smoothstep(0.15, 0.8, v)) +
    0.1 * smoothstep(0.3, 0.6, u) * smoothstep(0.2, 0.8, v);
  const above = Math.max(0, n[1]) * 0.5 + 0.25;
  const below = Math.max(0, -n[1]);
  const c = plus(towards(dark, light, t), [5, 1, -7], above * (1 - t) * smoothstep(0.3, 0.9, v));
  return plus(c, [3, 3, 6], below * 0.6 * (1 - t));
}

function paintBoat(): void {
  const rinse = { clean: 'rinse' } as const;
  const middles = (us: readonly number[], height: number, half: number) =>
    us.map((u) => boat.across(u, height, -half, half)[2]);
  // the mud under her: wet, dark, her colour pulled down in it
  mark(
    [
      [124, 131],
      [146, 137.2],
      [168, 137.2],
      [190, 133],
    ],
    [11, 3, 1],
    'filbert',
    4,
    sweep(0.55),
    1.1,
    0.4,
    0.25,
    { thin: 0.1, jitter: 0.4 },
  );
  for (let x = 126; x < 196; x += 6.5) {
    const y = boat.at(1 - (x - 118) / 100, 0.05)[1] + 3;
    mark(
      [
        [x, y - 1],
        [x + hand.normal(0.6), y + hand.between(6, 13)],
      ],
      [20, -3 + hand.normal(2), 4],
      'flat',
      6,
      lift(0.42),
      0.6,
      0.35,
      0.45,
      { thin: 0.2 },
    );
  }
  blend(
    10,
    [130, 146, 164, 182].map((x): Place[] => [
      [x, 137],
      [x + 14, 138.5],
      [x + 26, 137],
    ]),
    0.3,
  );
  // inside
  for (const [v, size] of [
    [0.93, 4.2],
    [0.74, 4.4],
    [0.55, 4.6],
    [0.36, 5],
  ]) {
    for (const [from, to] of [
      [0.02, 0.42],
      [0.38, 0.74],
      [0.7, 0.96],
    ]) {
      const lit = Math.max(0, -dot(boat.normal((from + to) / 2, v, -1), LIGHT));
      mark(
        boat.line(v, from, to, -1, 8),
        towards([18, 6, 5], [58, 12, 28], Math.min(1, lit * 1.5) * (0.35 + 0.65 * v)),
        'flat',
        size,
        land(0.5),
        1.1,
        0.5,
        0.12,
        { jitter: 0.7 },
      );
    }
  }
  mark(middles([0.15, 0.4, 0.65, 0.85], 0.2, 0.5), [16, 5, 3], 'filbert', 7, land(0.5), 1, 0.4, 0.15);
  for (const u of [0.14, 0.4, 0.64])
    mark(
      [0.96, 0.7, 0.45].map((v) => boat.at(u, v, -1)),
      [26, 8, 8],
      'rigger',
      1.3,
      lift(0.5),
      0.9,
      0.5,
      0.1,
    );
  for (const q of [0.3, 0.52, 0.74, 0.93]) {
    const [a, b] = [boat.at(0.015, q, -1), boat.at(0.015, q)];
    mark(
      [a, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], b],
      plus([62, 12, 28], [22, 2, 8], q - 1),
      'flat',
      3.9,
      land(0.5),
      1.1,
      0.6,
      0.08,
    );
  }
  mark(boat.line(0.86, 0.05, 0.36, -1, 6), [66, 11, 30], 'flat', 2.6, off(0.5), 1.1, 0.7, 0.06, rinse);
  mark(boat.line(0.66, 0.04, 0.2, -1, 6), [52, 11, 25], 'flat', 2.6, off(0.45), 1, 0.65, 0.08);
  mark(middles([0.5, 0.7, 0.88], 0.3, 0.6), [9, 3, 2], 'filbert', 5, sweep(0.55), 1.1, 0.4, 0.12);
  for (const [u, height] of [
    [0.27, 0.64],
    [0.52, 0.6],
    [0.76, 0.66],
  ]) {
    const thwart = boat.across(u, height, -0.97, 0.97, 4);
    mark(
      thwart.map(([x, y]): Place => [x, y + 1.9]),
      [22, 8, 8],
      'flat',
      2.4,
      land(0.5),
      1,
      0.5,
      0.1,
    );
    mark(thwart, [80, 8, 30], 'flat', 2.9, land(0.5), 1.4, 0.8, 0.04, rinse);
    mark(thwart.slice(2), [46, 6, 10], 'flat', 2.7, land(0.45), 0.8, 0.6, 0.1);
  }
  paintPlanks();
  // the ground is cut back against the stem, then comes the stem itself
  const stem = [1, 0.75, 0.5, 0.25, 0].map((v) => boat.at(1, v));
  for (let k = 0; k < 3; k++) {
    const [a, b] = [stem[k], stem[k + 2]];
    const m: Place = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
    mark(
      [
        [a[0] - 2.6, a[1]],
        [m[0] - 2.5, m[1]],
        [b[0] - 2.2, b[1]],
      ],
      idea.at(m[0] - 5, m[1]),
      'filbert',
      3.4,
      land(0.45),
      0.9,
      0.6,
      0.1,
      { jitter: 0.4 },
    );
  }
  mark(stem.slice(0, 4), [82, 5, 22], 'round', 1.7, lift(0.6), 1.2, 0.85, 0.04, rinse);
  mark(
    stem.slice(1).map(([x, y]): Place => [x + 1.5, y]),
    [22, -6, 4],
    'rigger',
    0.9,
    belly(0.4),
    0.8,
    0.4,
    0.05,
  );
  // rails
  for (const [from, to, c] of [
    [0, 0.36, [66, 6, 18]],
    [0.3, 0.7, [78, 7, 24]],
    [0.64, 1, [86, 6, 24]],
  ] as const)
    mark(boat.line(1, from, to, -1, 9), [...c], 'round', 1.5, land(0.5), 1, 0.75, 0.05, rinse);
  for (const [from, to, c] of [
    [1, 0.62, [96, 4, 18]],
    [0.66, 0.32, [88, 4, 18]],
    [0.36, 0, [70, 3, 4]],
  ] as const)
    mark(boat.line(1, from, to, 1, 11), [...c], 'round', 1.9, land(0.55, 0.08, 0.2), 1.7, 0.9, 0.03, {
      ...rinse,
      jitter: 0.4,
    });
  mark([boat.at(0, 1, -1), boat.at(0, 1)], [82, 7, 24], 'round', 1.6, land(0.5), 1.2, 0.8, 0.05);
  // an oar left across the thwarts
  const grip = boat.across(0.8, 0.8, -0.9, 0.9, 3)[1];
  const [near, far] = [boat.at(0.06, 1), boat.at(0.06, 1, -1)];
  const blade: Place = [near[0] * 0.35 + far[0] * 0.65 + 9, near[1] * 0.35 + far[1] * 0.65 - 4.2];
  const half: Place = [(grip[0] + blade[0]) / 2, (grip[1] + blade[1]) / 2];
  mark([grip, [half[0], half[1] - 0.4], blade], [78, 9, 30], 'round', 1.5, steady(0.5), 1.4, 0.7, 0.04, rinse);
  mark(
    [
      [grip[0], grip[1] + 1.2],
      [half[0], half[1] + 0.8],
    ],
    [18, 6, 6],
    'rigger',
    0.8,
    off(0.5),
    0.8,
    0.4,
    0.1,
  );
  paintRopeAndFloat();
  stage();
}

/** Outside, plank by plank from the keel up: each lit along its middle, dark under its lap. */
function paintPlanks(): void {
  const edges = [0, 0.17, 0.3, 0.45, 0.6, 0.75, 0.9, 1];
  const width = (u: number, v: number, dv: number) => {
    const [a, b] = [boat.at(u, Math.min(1, v + dv / 2)), boat.at(u, Math.max(0, v - dv / 2))];
    return Math.hypot(a[0] - b[0], a[1] - b[1]);
  };
  for (let i = 0; i + 1 < edges.length; i++) {
    const [low, high] = [edges[i], edges[i + 1]];
    const v = (low + high) / 2;
    const cuts = [
      0.985,
      0.88 + hand.normal(0.02),
      0.75 + hand.normal(0.03),
      0.6 + hand.normal(0.03),
      0.36 + hand.normal(0.03),
      0.015,
    ];
    for (let k = 0; k + 1 < cuts.length; k++) {
      const u = (cuts[k] + cuts[k + 1]) / 2;
      const size = Math.min(6.5, Math.max(1.5, width(u, v, high - low) * 1.3 + 0.7));
      mark(
        boat.line(v, cuts[k], Math.max(0.01, cuts[k + 1] - 0.05), 1, 9),
        hullColour(u, v),
        'filbert',
        size,
        land(0.52, 0.08, 0.2),
        1.2,
        0.55,
        0.12,
        { jitter: 0.6 },
      );
    }
    for (let u = 0.96; i > 0 && u > 0.12;) {
      const to = u - hand.between(0.2, 0.45);
      const lap = plus([11, -6, 0], [12, -5, 6], smoothstep(0.6, 0.95, (u + to) / 2));
      if (hand.random() < 0.85)
        mark(
          boat.line(low + 0.012, u, Math.max(0.03, to), 1, 9),
          lap,
          'rigger',
          0.75 + 0.35 * u,
          sweep(0.55),
          1,
          0.35,
          0.05,
          { jitter: 0.4 },
        );
      u = to - hand.between(0.02, 0.1);
    }
  }
  // the light that rakes the bow, in a few short thick strokes
  for (const [v, from, to, c] of [
    [0.875, 0.955, 0.78, [70, -17, 24]],
    [0.725, 0.95, 0.84, [62, -18, 22]],
    [0.575, 0.94, 0.87, [54, -17, 18]],
  ] as const)
    mark(boat.line(v, from, to, 1, 7), [...c], 'round', 1.15, off(0.5), 1.4, 0.9, 0.03, {
      clean: 'rinse',
      jitter: 0.4,
    });
  mark(boat.line(0.66, 0.3, 0.08, 1, 6), [38, -8, -10], 'filbert', 3, belly(0.35), 0.6, 0.5, 0.1);
  mark(boat.line(0.2, 0.5, 0.2, 1, 6), [30, 10, 2], 'filbert', 3, belly(0.35), 0.6, 0.5, 0.15);
}

function paintRopeAndFloat(): void {
  const [bx, by] = boat.at(1, 0.95);
  mark(
    [
      [bx, by],
      [bx - 9, by + 10],
      [bx - 18, by + 17],
    ],
    [34, 8, 14],
    'rigger',
    0.9,
    off(0.6),
    1.3,
    0.45,
    0.05,
  );
  mark(
    [
      [bx - 15, by + 15.4],
      [78, 116.5],
      [60, 110],
      [43.5, 95],
    ],
    [40, 8, 14],
    'rigger',
    0.8,
    (s) => 0.42 + 0.12 * Math.sin(17 * s),
    1.3,
    0.4,
    0.1,
  );
  // the one red
  const [x, y] = [114.5, 137.2];
  mark(
    [
      [x - 1.5, y + 3],
      [x + 4, y + 3.6],
      [x + 9, y + 2.6],
    ],
    [13, 5, 2],
    'filbert',
    2.2,
    off(0.5),
    0.8,
    0.4,
    0.25,
  );
  mark(
    [
      [x - 0.3, y + 3.2],
      [x - 0.2, y + 7],
    ],
    [34, 20, 14],
    'filbert',
    3,
    off(0.4),
    0.6,
    0.35,
    0.4,
    { thin: 0.2 },
  );
  mark(
    [
      [x - 1.4, y + 0.8],
      [x + 0.4, y + 0.9],
      [x + 1.5, y + 0.4],
    ],
    [26, 30, 18],
    'round',
    4.6,
    land(0.5),
    1,
    0.55,
    0.08,
    { clean: 'rinse', jitter: 0.3 },
  );
  mark(
    [
      [x - 1.3, y + 0.5],
      [x - 0.9, y - 0.9],
      [x + 0.5, y - 1.2],
    ],
    [47, 46, 38],
    'round',
    2.6,
    off(0.55),
    1,
    0.7,
    0.06,
    { jitter: 0.3 },
  );
  mark(
    [
      [x - 1, y - 1.2],
      [x - 0.3, y - 1.6],
    ],
    [82, 18, 26],
    'round',
    1,
    land(0.5),
    0.7,
    0.9,
    0.03,
    { clean: 'rinse' },
  );
  mark(
    [
      [x, y - 1.5],
      [x + 1.2, y - 7],
      [bx + 0.5, by + 12],
      [bx - 0.3, by + 3],
    ],
    [34, 8, 12],
    'rigger',
    0.6,
    land(0.4),
    1.2,
    0.4,
    0.05,
  );
}

/** A nearly bare brush over dry paint: the light breaks. */
function scumble(
  count: number,
  [left, top, right, bottom]: readonly number[],
  length: number,
  size: number,
  colour: Triple,
  lie: Lie,
  mass: typeof MASS.water,
): void {
  const free = ([x, y]: Place) => mass.at(x, y) > 0.5 && aroundPosts.at(x, y) < 0.002;
  for (let tries = 0, made = 0; made < count && tries < 8 * count; tries++) {
    const at: Place = [hand.between(left, right), hand.between(top, bottom)];
    if (!free(at)) continue;
    const path = planner.trace(at, lie, length * Math.exp(hand.normal(0.3)), { curl: 0.04 }).filter(free);
    if (path.length < 4) continue;
    mark(
      path.length > 6 ? path.filter((_, i) => i % 2 === 0) : path,
      colour,
      'worn',
      size * Math.exp(hand.normal(0.2)),
      sweep(0.5),
      0.75,
      0.85,
      0.02,
      { clean: 'rinse', jitter: 0.8 },
    );
    made++;
  }
}

function paintLights(): void {
  const rinse = { clean: 'rinse', jitter: 0.3 } as const;
  hand.do({ do: 'dry' });
  scumble(7, [66, 69, 128, 92], 22, 2.6, [95, 6, 25], LIE.water, MASS.water);
  scumble(4, [54, 94, 100, 118], 20, 3, [84, 6, 12], LIE.water, MASS.water);
  scumble(3, [2, 70, 50, 84], 24, 2.6, [74, 7, 16], LIE.mud, MASS.mud);
  // the bow again, thick, and the rail where the light strikes it
  mark(boat.line(0.85, 0.955, 0.8, 1, 6), [74, -15, 33], 'worn', 2.6, off(0.42), 0.6, 0.9, 0.02, rinse);
  mark(boat.line(0.7, 0.95, 0.87, 1, 6), [66, -17, 28], 'worn', 2.6, off(0.42), 0.6, 0.9, 0.02, rinse);
  mark(boat.line(1, 1, 0.8, 1, 7), [98, 4, 18], 'round', 1.6, firm(0.5), 1.6, 0.95, 0.02, rinse);
  mark(boat.line(1, 0.4, 0.24, 1, 6), [92, 5, 18], 'round', 1.3, off(0.5), 1.2, 0.95, 0.02, rinse);
  const [a, b] = [boat.at(0, 1, -1), boat.at(0, 1)];
  mark(
    [a, [a[0] * 0.6 + b[0] * 0.4, a[1] * 0.6 + b[1] * 0.4]],
    [96, 6, 24],
    'round',
    1.3,
    off(0.5),
    1.2,
    0.95,
    0.02,
    rinse,
  );
  // light on the water, gulls
  for (const [x, y, l, size, c] of [
    [106, 70.6, 20, 1.2, [96, 5, 22]],
    [90, 74, 13, 1.04, [96, 5, 24]],
    [74, 79.6, 8, 0.96, [95, 5, 24]],
  ] as const)
    mark(
      [
        [x - l * 0.6, y],
        [x - l * 0.1, y - 0.2],
        [x + l * 0.6, y + 0.1],
      ],
      [...c],
      'round',
      size,
      sweep(0.55),
      1.2,
      0.85,
      0.03,
      { clean: 'rinse', jitter: 0.4 },
    );
  for (const [x, y] of [
    [150, 36],
    [158, 32.5],
    [164, 38.5],
  ]) {
    mark(
      [
        [x - 2, y - 0.7],
        [x - 0.8, y - 0.9],
        [x, y],
      ],
      [88, 3, 10],
      'rigger',
      0.6,
      into(0.45),
      0.35,
      0.4,
      0.04,
      rinse,
    );
    mark(
      [
        [x, y],
        [x + 0.9, y - 1.1],
        [x + 2.1, y - 0.9],
      ],
      [84, 3, 10],
      'rigger',
      0.6,
      off(0.45),
      0.35,
      0.4,
      0.04,
    );
  }
  // shingle and wrack, larger towards us
  for (let n = 0; n < 15; n++) {
    const [x, y] = [200 + hand.normal(20), hand.between(160, 178)];
    const near = (y - 140) / 40;
    const q = hand.between(0.7, 1.7) * near;
    if (MASS.mud.at(x, y) < 0.5) continue;
    mark(
      [
        [x - q, y + 0.5],
        [x + q, y + 0.5],
      ],
      [15, 5, 3],
      'round',
      1.5 * near,
      sweep(0.5),
      0.7,
      0.5,
      0.12,
      { jitter: 0.5 },
    );
    mark(
      [
        [x - q * 0.8, y - 0.3],
        [x + q * 0.5, y - 0.4],
      ],
      [hand.between(38, 52), hand.between(2, 6), hand.between(4, 12)],
      'round',
      1.1 * near,
      sweep(0.5),
      0.7,
      0.6,
      0.08,
      { clean: 'rinse', jitter: 0.8 },
    );
  }
  hand.do({ do: 'dry' });
}

for (const paint of [layIn, paintSky, paintFarShore, paintMud, paintWater, paintPosts, paintBoat, paintLights]) paint();
// a clean brush of a useful size lies ready for whoever comes next
hand.do({ do: 'tool', tool: 'filbert', sizeMm: 8, strength: 1, blend: 0.3, body: 0.6, thin: 0 });
hand.do({ do: 'rinse' });
writeJournal(
  'demo/low-tide.json',
  {
    widthMm: WIDTH,
    heightMm: HEIGHT,
    ppi: 90,
    seed: 21,
    surface: { kind: 'linen-fine', scale: 1, depth: 0.7 },
    tone: { mixture: TONE },
  } as never,
  hand.entries,
);
