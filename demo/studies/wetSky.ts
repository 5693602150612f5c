/** A wet-in-wet sky over the estuary: everything that is soft is painted before the sheet has lost its shine. */
import { noise2 } from '@/core/surface/noise';
import { along, HEADLAND, POSTS } from '../scene';
import { polygon } from '../shapes';
import { waterHand, type Brush, type Place } from '../waterHand';

const W = 180;
const H = 135;
const HORIZON = 82;
const { random, take, stroke, line, load, lay, drop, wait, dry, save, entries } = waterHand(47, W, H);

// the whole sky is wetted and kept wet, a light warm from the horizon up
const clear: Brush = { tool: 'hake', sizeMm: 34, mixture: {}, water: 0.66 };
load(clear);
for (let y = 12; y < HORIZON; y += 17)
  line(
    clear,
    [
      [-14, y],
      [90, y],
      [W + 14, y],
    ],
    0.95,
    420,
    1,
  );
const warm: Brush = { tool: 'mop', sizeMm: 18, mixture: { PY43: 3, PBr7BS: 0.9 }, amount: 0.26, water: 0.6 };
load(warm);
for (const y of [74, 64, 55])
  line(
    warm,
    [
      [-12, y + 1],
      [60, y - 1],
      [120, y + 1],
      [W + 12, y],
    ],
    0.85,
    300,
    3,
  );

// low bars of cloud over the light
const bar: Brush = {
  tool: 'wash-round',
  sizeMm: 5,
  mixture: { PB29: 2, PBr7BS: 1.1, PV19: 0.1 },
  amount: 0.34,
  water: 0.5,
};
load(bar);
for (const [x, y, far] of [
  [8, 66, 46],
  [70, 70, 62],
  [120, 64, 44],
  [150, 73, 40],
  [24, 74, 30],
] as const)
  line(
    bar,
    [
      [x, y],
      [x + far / 2, y - 0.8],
      [x + far, y + 0.6],
    ],
    (s) => 0.15 + 0.6 * Math.sin(Math.PI * s),
    110,
    1.2,
  );

// three clouds are left as paper: billows above, a flat base below; blue goes round them into the wet sheet
const CLOUDS = [
  {
    base: 57,
    billows: [
      [96, 50, 9],
      [110, 40, 13],
      [126, 28, 15],
      [142, 32, 12],
      [156, 42, 13],
      [132, 44, 16],
      [170, 50, 9],
    ],
  },
  {
    base: 64,
    billows: [
      [14, 57, 8],
      [26, 50, 10],
      [39, 54, 9],
      [52, 59, 7],
    ],
  },
  {
    base: 27,
    billows: [
      [52, 22, 6],
      [62, 17, 8],
      [73, 21, 7],
      [82, 24, 4],
    ],
  },
] as const;
/** How far inside a cloud a place lies, share of a billow; its edge curls at two sizes. */
const cloudAt = (x: number, y: number): number => {
  const curl = 0.3 * (noise2(x / 6.5, y / 5.5, 13) - 0.5) + 0.22 * (noise2(x / 2.8, y / 2.6, 14) - 0.5);
  let most = -1;
  for (const { base, billows } of CLOUDS) {
    for (const [cx, cy, r] of billows) {
      const flat = Math.max(0, (y - base + 3 * noise2(x / 9, 2, 15)) / 6);
      most = Math.max(most, 1 - Math.hypot(x - cx, y - cy) / r + curl - flat);
    }
  }
  return most;
};
// undersides first, while the sheet is wettest: a thin warm grey along each base, touches of it under the billows
const grey = (sizeMm: number, amount: number): Brush => ({
  tool: 'mop',
  sizeMm,
  mixture: { PB29: 2, PBr7BU: 1.1, PBr7BS: 0.8 },
  amount,
  water: 0.58,
});
for (const { base, billows } of CLOUDS) {
  const [left, right] = [billows[0], billows.at(-1)!];
  const foot = Array.from({ length: 9 }, (_, i): Place => {
    const x = left[0] - 2 + ((right[0] - left[0] + 4) * i) / 8;
    return [x, base - 3.2 - 2.6 * noise2(x / 8, 5, 17)];
  });
  line(grey(5, 0.3), foot, (s) => 0.25 + 0.6 * noise2(s * 7, base, 18), 200, 1.6);
  for (const [cx, cy, r] of billows) {
    if (r < 8) continue;
    const low = Math.min(base - 6, cy + 0.4 * r);
    for (let k = 0; k < 3; k++) {
      const x = cx + r * (0.9 * random() - 0.35);
      line(
        grey(2.5 + 3 * random(), 0.16 + 0.1 * random()),
        [
          [x, low - 0.2 * r * random()],
          [x + 0.3 * r, low - 0.25 * r * random()],
        ],
        0.6,
        160,
        1.4,
      );
    }
  }
}
const LOWEST = 61;
const blue = (tool: 'mop' | 'wash-round', sizeMm: number, y: number): Brush => ({
  tool,
  sizeMm,
  mixture: { PB29: 4, PB15_3: 0.05 + 0.008 * y, PBr7BU: 0.6 },
  amount: Math.max(0.2, 0.95 - 0.0118 * y),
  water: 0.58,
});
const bands = Array.from({ length: 13 }, (_, k) => blue('mop', 7, 5 * k));
const open = (x: number, y: number) => cloudAt(x, y) < 0 && y < LOWEST + 3 * noise2(x / 14, 1, 16) - 2;
lay(open, blue('wash-round', 3.4, 26), (y) => bands[Math.max(0, Math.min(12, Math.round(y / 5)))], { speed: 420 });
wait(8);
// lights taken back along the tops, where the sheet has begun to lose its shine
take('thirsty', 4);
for (const { billows } of CLOUDS) {
  for (const [cx, cy, r] of billows) {
    if (r > 7 && random() < 0.8)
      stroke(
        [
          [cx - 0.55 * r, cy - 0.62 * r],
          [cx - 0.1 * r, cy - 0.84 * r],
          [cx + 0.4 * r, cy - 0.7 * r],
        ],
        0.5,
        50,
        0.8,
      );
  }
}
wait(12);
dry();

// the far shore, pale; a nearer one darker at the right, its trees wet into it
const shore = (x: number) => HORIZON - 3.4 - 16 * (0.29 - along(HEADLAND, x / W)) - 1.1 * noise2(x / 7, 1, 3);
const strip = (top: (x: number) => number, from: number, to: number, foot: number): Place[] => [
  ...Array.from({ length: 60 }, (_, i): Place => [from + ((to - from) * i) / 59, top(from + ((to - from) * i) / 59)]),
  [to, foot],
  [from, foot],
];
const far = polygon(strip(shore, -40, W + 40, HORIZON));
lay(
  far,
  { tool: 'wash-round', sizeMm: 2.6, mixture: { PB29: 2.4, PBr7BS: 0.9, PV19: 0.12 }, amount: 0.5, water: 0.66 },
  undefined,
);
line(
  { tool: 'wash-round', sizeMm: 4, mixture: { PB29: 2.4, PBr7BS: 0.9, PV19: 0.12 }, amount: 0.5, water: 0.66 },
  [
    [-8, 80.4],
    [60, 80.5],
    [120, 80.4],
    [W + 8, 80.2],
  ],
  0.8,
  120,
  0.2,
);
dry();
const trees = (x: number) =>
  HORIZON +
  0.5 -
  Math.max(0, Math.min(1, (x - 108) / 40)) ** 0.7 * (8 + 4.4 * noise2(x / 5, 2, 9) + 2 * noise2(x / 2.1, 4, 9));
const near = polygon(strip(trees, 112, W + 40, HORIZON + 0.9));
lay(
  near,
  { tool: 'wash-round', sizeMm: 2.4, mixture: { PB29: 2, PBr7BU: 1.6, PY43: 1 }, amount: 0.9, water: 0.66 },
  { tool: 'wash-round', sizeMm: 4, mixture: { PB29: 2, PBr7BU: 1.6, PY43: 1 }, amount: 0.9, water: 0.7 },
);
load({ tool: 'dropper', sizeMm: 2.4, mixture: { PB29: 2, PBr7BU: 2 }, amount: 1.2, water: 0.6 });
for (let x = 128; x < W; x += 7) drop(x + 3 * random(), HORIZON - 3.5, 0.4);
dry();

// the estuary takes the sky's colours: warm and light below the light, bluer towards us, in one bead to the mud
const bank = (x: number) =>
  112 - 10 * Math.sin((x / W) * 2.7 + 0.1) + 2.2 * noise2(x / 16, 3, 4) + (x > 120 ? (x - 120) * 0.08 : 0);
const graded = (q: number) => ({
  PY43: 1.6 * (1 - q),
  PBr7BS: 0.5 * (1 - q),
  PB29: 0.7 + 2.6 * q,
  PB15_3: 0.08 * q,
  PBr7BU: 0.4,
});
const deep: Brush[] = Array.from({ length: 12 }, (_, k) => ({
  tool: 'mop',
  sizeMm: 9,
  mixture: graded(k / 11),
  amount: 0.24 + 0.3 * (k / 11),
  water: 0.72,
}));
const water = (x: number, y: number) => y > HORIZON + 0.4 && y < bank(x) - 0.3;
lay(
  water,
  { tool: 'wash-round', sizeMm: 2.6, mixture: graded(0.5), amount: 0.34, water: 0.7 },
  (y) => deep[Math.max(0, Math.min(11, Math.round(((y - HORIZON) / 30) * 11)))],
  { speed: 320 },
);
wait(3);
// where the boats' masts would be: soft dark reflections of the far bank, drawn into the wet
const reflection: Brush = {
  tool: 'wash-round',
  sizeMm: 4,
  mixture: { PB29: 2, PBr7BU: 1.4, PY43: 0.5 },
  amount: 0.6,
  water: 0.42,
};
load(reflection);
for (const [x, y, to] of [
  [124, 85.4, 184],
  [138, 88.6, 178],
  [150, 91.5, 182],
] as const)
  line(
    reflection,
    [
      [x, y],
      [(x + to) / 2, y + 0.4],
      [to, y],
    ],
    0.6,
    120,
    0.5,
  );
dry();

// mud in front: ochre, umber charged into it while it is wet, its upper edge found
const mud = (x: number, y: number) => y > bank(x);
lay(
  mud,
  { tool: 'wash-round', sizeMm: 3.4, mixture: { PBr7BU: 2, PY43: 3.6, PB29: 0.5 }, amount: 0.75, water: 0.72 },
  { tool: 'mop', sizeMm: 12, mixture: { PBr7BU: 1.8, PY43: 3.8, PB29: 0.5 }, amount: 0.7, water: 0.76 },
  { speed: 220 },
);
const dark: Brush = { tool: 'mop', sizeMm: 9, mixture: { PBr7BU: 3, PB29: 1.5 }, amount: 0.85, water: 0.5 };
load(dark);
for (const [x, y, to] of [
  [-6, 131, 70],
  [30, 127, 96],
  [96, 133, W + 6],
  [130, 126, 178],
  [-6, 120, 22],
] as const)
  line(
    dark,
    [
      [x, y],
      [(x + to) / 2, y + 1.4],
      [to, y - 0.8],
    ],
    (s) => 0.35 + 0.5 * Math.sin(Math.PI * s),
    150,
    2,
  );
wait(5);
load({ tool: 'dropper', sizeMm: 3.4, mixture: {}, amount: 1, water: 0.9 });
for (const [x, y] of [
  [64, 117],
  [118, 121],
  [152, 118],
] as const)
  drop(x, y, 0.5);
wait(4);
dry();

// posts, their tops square, their reflections drawn down and lost
for (const [k, p] of POSTS.entries()) {
  const [x, top, foot] = [p.x * W, p.top * W + 24, p.foot * W + 16 - 3 * k];
  const width = Math.max(2.2, p.width * W);
  const wood: Brush = {
    tool: 'wash-flat',
    sizeMm: width,
    mixture: { PBr7BU: 2, PB29: 1.3, PBr7BS: 0.3 },
    amount: 1.25,
    water: 0.6,
  };
  load(wood);
  line(
    wood,
    Array.from({ length: 7 }, (_, i): Place => [
      x + p.lean * W * (1 - i / 6) + 0.5 * (noise2(i, k, 19) - 0.5),
      top + ((foot - top) * i) / 6,
    ]),
    (s) => 0.55 + 0.4 * noise2(s * 9, k, 20),
    60,
    0.2,
  );
  const lost: Brush = {
    tool: 'wash-round',
    sizeMm: width * 0.9,
    mixture: { PBr7BU: 2, PB29: 1.6 },
    amount: 0.5,
    water: 0.6,
  };
  load(lost);
  line(
    lost,
    Array.from({ length: 9 }, (_, i): Place => [x + 1.3 * Math.sin(i * 2.1) * (i / 8), foot + 0.3 + 1.8 * i]),
    (s) => 0.75 - 0.65 * s,
    45,
    0.2,
  );
  // its dark side charged while it is wet
  const side: Brush = {
    tool: 'wash-round',
    sizeMm: width * 0.5,
    mixture: { PBr7BU: 2, PB29: 2 },
    amount: 1.5,
    water: 0.45,
  };
  line(
    side,
    [
      [x + p.lean * W + width * 0.24, top + 0.3 * (foot - top)],
      [x + width * 0.24, foot - 0.6],
    ],
    (s) => 0.2 + 0.5 * s,
    60,
    0.25,
  );
}
dry();
// ripples: a brush nearly dry drawn flat over the water; light is what it leaves
const ripple: Brush = { tool: 'dry-brush', sizeMm: 4, mixture: { PB29: 3.4, PBr7BU: 1 }, amount: 0.8, water: 0.09 };
for (const [x, y, to] of [
  [8, 91, 44],
  [60, 95, 112],
  [40, 100, 74],
  [88, 88.5, 120],
] as const) {
  load(ripple);
  stroke(
    [
      [x, y],
      [(x + to) / 2, y + 0.2],
      [to, y],
    ],
    (s) => 0.25 + 0.25 * Math.sin(Math.PI * s),
    150,
    0.4,
  );
}
// drift lines on the mud, and birds
const fine: Brush = { tool: 'wash-rigger', sizeMm: 0.7, mixture: { PBr7BU: 2, PB29: 1.2 }, amount: 1, water: 0.4 };
load(fine);
for (const [x, y, to] of [
  [10, 121, 40],
  [70, 124, 104],
  [112, 117, 150],
  [40, 129, 60],
] as const)
  line(
    fine,
    [
      [x, y],
      [(x + to) / 2, y + 0.8],
      [to, y + 0.2],
    ],
    (s) => 0.6 * Math.sin(Math.PI * s) + 0.05,
    50,
    0.8,
  );
for (const [x, y] of [
  [118, 58],
  [124, 55.5],
  [131, 58.5],
  [104, 50],
] as const)
  stroke(
    [
      [x - 1.9, y - 0.7],
      [x - 0.7, y - 0.9],
      [x, y],
      [x + 0.9, y - 1],
      [x + 2.1, y - 0.6],
    ],
    (s) => 0.7 - 0.5 * Math.abs(s - 0.5),
    30,
    0.1,
  );
entries.push({ do: 'dry' });
save('demo/studies/wet-sky.json', 'paper-cold', 'natural');
