/** "Low tide" in waterproof and soluble ink with loose washes: lines first, then water over them, whites left. */
import { along, BOATHOUSE, DINGHY, HEADLAND, HORIZON, POOLS, POSTS, SHINGLE } from '../scene';
import { noise2 } from '@/core/surface/noise';
import { polygon } from '../shapes';
import { waterHand, type Brush, type Place } from '../waterHand';

const W = 180;
const { random, vary, take, stroke, line, load, lay, wait, dry, save, entries } = waterHand(31, W, 135);
const mm = (x: number, y: number): Place => [x * W, y * W];
const curve = (c: Parameters<typeof along>[0], from: number, to: number, n = 12): Place[] =>
  Array.from({ length: n + 1 }, (_, i) => mm(from + ((to - from) * i) / n, along(c, from + ((to - from) * i) / n)));
const light = (s: number) => 0.2 + 0.5 * Math.sin(Math.PI * s) * (0.6 + 0.4 * Math.sin(s * 17));

// waterproof lines: found here, left out there
take('ink-fast', 0.7);
entries.push({ do: 'load', mixture: { PBk9: 3, PBr7BU: 1 } });
stroke(curve(HEADLAND, 0.02, 0.36), light, 70);
stroke(curve(HEADLAND, 0.42, 0.99), light, 70);
stroke([mm(0.03, HORIZON), mm(0.66, HORIZON)], 0.12, 90);
stroke(curve(SHINGLE, 0, 0.4), light, 70);
const { left, right, eaves, foot, ridge } = BOATHOUSE;
stroke(
  [mm(left, foot), mm(left, eaves), mm((left + right) / 2, ridge), mm(right, eaves), mm(right, foot)],
  0.35,
  40,
  0.2,
);
stroke([mm(left - 0.006, eaves + 0.003), mm(right + 0.006, eaves + 0.003)], 0.3, 40, 0.2);
for (const p of POSTS) {
  for (const side of [-1, 1]) {
    stroke([mm(p.x + p.lean + (side * p.width) / 2, p.top), mm(p.x + (side * p.width) / 2, p.foot)], light, 60);
  }
  stroke([mm(p.x + p.lean - p.width / 2, p.top), mm(p.x + p.lean + p.width / 2, p.top + 0.004)], 0.4, 40, 0.1);
}
for (const c of [DINGHY.near, DINGHY.far, DINGHY.keel])
  stroke(curve(c, DINGHY.left, DINGHY.right, 16), light, 70, 0.35);
for (const x of [0.55, 0.66])
  stroke([mm(x, along(DINGHY.far, x)), mm(x + 0.012, along(DINGHY.near, x))], 0.45, 40, 0.2);
for (const share of [0.32, 0.6]) {
  stroke(
    Array.from({ length: 12 }, (_, i): Place => {
      const x = 0.45 + (0.36 * i) / 11;
      return mm(x, along(DINGHY.near, x) * (1 - share) + along(DINGHY.keel, x) * share);
    }),
    (s) => 0.1 + 0.2 * Math.sin(s * 9) ** 2,
    70,
  );
}
for (const p of POOLS) stroke([mm(p.x - p.rx * 0.9, p.y), mm(p.x - p.rx * 0.3, p.y + p.ry)], light, 60);

// soluble lines where shadows will run
take('ink-soluble', 0.9);
entries.push({ do: 'load', mixture: { PBk9: 2, PB29: 1 } });
for (const p of POSTS) {
  for (let k = 0; k < 6; k++) {
    const y = p.top + ((p.foot - p.top) * (k + 0.6)) / 6.4;
    stroke([mm(p.x + p.width * 0.05, y), mm(p.x + p.width * 0.42, y + 0.018)], 0.7, 40, 0.2);
  }
  stroke([mm(p.x - p.width / 2, p.foot + 0.004), mm(p.x, p.foot + 0.05), mm(p.x + 0.01, p.foot + 0.09)], 0.6, 50, 1.4);
}
for (let x = 0.47; x < 0.8; x += 0.024)
  stroke([mm(x, along(DINGHY.keel, x) + 0.003), mm(x + 0.02, along(DINGHY.keel, x) + 0.013)], 0.7, 40, 0.3);

// a loose sky: wetted with a ragged edge, greys and a warm light let run, paper left white about it
const sky = (x: number, y: number) =>
  y < 46 - 5 * noise2(x / 17, 1, 5) - 9 * Math.max(0, (x - 130) / 50) && y > -20 && x > -20 + 24 * noise2(y / 11, 2, 6);
const clear: Brush = { tool: 'hake', sizeMm: 22, mixture: {}, water: 0.6 };
lay(sky, { tool: 'mop', sizeMm: 8, mixture: {}, water: 0.6 }, clear, { speed: 420 });
const warm: Brush = { tool: 'mop', sizeMm: 9, mixture: { PY43: 2, PBr7BS: 0.7 }, amount: 0.24, water: 0.6 };
for (const [x, y, to] of [
  [4, 40, 80],
  [50, 36, 124],
  [96, 41, 150],
] as const)
  line(
    warm,
    [
      [x, y],
      [(x + to) / 2, y - 1],
      [to, y],
    ],
    (s) => 0.3 + 0.5 * Math.sin(Math.PI * s),
    260,
    2,
  );
const rain: Brush = { tool: 'mop', sizeMm: 9, mixture: { PB29: 3, PBr7BU: 1.5 }, amount: 0.62, water: 0.58 };
const heavy = (x: number, y: number) => noise2(x / 34, y / 15, 31) + 0.5 * noise2(x / 13, y / 8, 32) > 0.6 + 0.012 * y;
for (let y = 2; y < 32; y += 4.4) {
  let from: number | undefined;
  for (let x = -6; x <= W; x += 2) {
    const on = heavy(x, y) && sky(x, y + 4) && x < W - 1;
    if (on) from ??= x;
    if (on || from === undefined) continue;
    if (x - from > 5)
      line(
        rain,
        [
          [from, y + random()],
          [(from + x) / 2, y - random()],
          [x, y + random()],
        ],
        (s) => 0.3 + 0.5 * Math.sin(Math.PI * s) ** 0.6,
        260,
        1.5,
      );
    from = undefined;
  }
}
wait(4);
dry();

// mud: one loose wash from the water's edge to the front, ochre turning umber, pools and boat left white
const inPool = (x: number, y: number) =>
  POOLS.filter((_, i) => i !== 1).some(
    (p) => ((x / W - p.x) / p.rx) ** 2 + ((y / W - p.y - p.slope * (x / W - p.x)) / (p.ry * 1.1)) ** 2 < 1,
  );
const inBoat = (x: number, y: number) => {
  const u = x / W;
  return (
    u > DINGHY.left && u < DINGHY.right && y / W > along(DINGHY.far, u) - 0.003 && y / W < along(DINGHY.keel, u) + 0.002
  );
};
const front = (x: number) => 127 - 7 * noise2(x / 23, 7, 8) - 3 * noise2(x / 7, 3, 8);
const mud = (x: number, y: number) =>
  y > W * 0.352 + 1.6 * noise2(x / 15, 2, 4) &&
  y < front(x) &&
  x > 3 * noise2(y / 9, 1, 2) + 2 &&
  x < W - 3 - 6 * noise2(y / 12, 5, 2) &&
  !inPool(x, y) &&
  !inBoat(x, y);
const earth: Brush[] = Array.from({ length: 8 }, (_, k) => ({
  tool: 'mop',
  sizeMm: 8,
  mixture: { PY43: 4 - 0.25 * k, PBr7BU: 0.7 + 0.32 * k, PB29: 0.3 + 0.05 * k },
  amount: 0.36 + 0.05 * k,
  water: 0.74,
}));
lay(
  mud,
  { tool: 'wash-round', sizeMm: 3, mixture: { PY43: 4, PBr7BU: 1.2, PB29: 0.3 }, amount: 0.42, water: 0.7 },
  (y) => earth[Math.max(0, Math.min(7, Math.round(((y - 64) / 60) * 7)))],
  { speed: 320 },
);
const wetter: Brush = { tool: 'mop', sizeMm: 7, mixture: { PBr7BU: 3, PB29: 1.3 }, amount: 0.75, water: 0.5 };
for (const [x, y, to] of [
  [12, 104, 46],
  [20, 88, 60],
  [60, 111, 92],
  [118, 116, 150],
  [142, 100, 170],
  [84, 82, 76],
] as const)
  if (mud(x, y) && mud((x + to) / 2, y))
    line(
      wetter,
      [
        [x, y],
        [(x + to) / 2, y + 1],
        [to, y],
      ],
      (s) => 0.25 + 0.5 * Math.sin(Math.PI * s),
      200,
      2,
    );
wait(5);
dry();
// headland, water and pools
const land: Brush = {
  tool: 'wash-round',
  sizeMm: 2.6,
  mixture: { PB29: 2, PBr7BU: 1.7, PG7: 0.02 },
  amount: 0.62,
  water: 0.64,
};
const shore = (x: number, y: number) =>
  y > along(HEADLAND, x / W) * W + 0.4 && y < HORIZON * W + 2.2 && (x < 123 || x > 139);
lay(shore, land, { ...land, sizeMm: 3.4 });
const sea: Brush = {
  tool: 'wash-flat',
  sizeMm: 4,
  mixture: { PB29: 2, PBr7BU: 0.9, PG7: 0.03 },
  amount: 0.3,
  water: 0.7,
};
line(
  sea,
  [
    [-6, 58.6],
    [50, 58.8],
    [112, 58.4],
  ],
  0.9,
  200,
  0.4,
);
line(
  sea,
  [
    [64, 61.6],
    [120, 61.4],
    [W + 6, 61.2],
  ],
  0.9,
  200,
  0.4,
);
const pool: Brush = { tool: 'wash-round', sizeMm: 2.4, mixture: { PB29: 2.2, PBr7BU: 1.4 }, amount: 0.34, water: 0.68 };
POOLS.slice(2).forEach((p) => {
  // the far half of each: its near half stays white
  const half = (x: number, y: number) =>
    ((x / W - p.x) / (p.rx * 0.86)) ** 2 + ((y / W - p.y - p.slope * (x / W - p.x) + 0.3 * p.ry) / (p.ry * 0.62)) ** 2 <
    1;
  lay(half, pool, pool);
});
dry();
// the dinghy: two colours that meet wet on its side, its inside darker
const between = (a: typeof DINGHY.near, b: typeof DINGHY.near, from: number, to: number) => (x: number, y: number) => {
  const u = x / W;
  if (u < DINGHY.left + 0.006 || u > DINGHY.right - 0.004) return false;
  const [p, q] = [along(a, u) * W, along(b, u) * W];
  return y > p + (q - p) * from + 0.4 && y < p + (q - p) * to - 0.3;
};
const green: Brush = {
  tool: 'wash-round',
  sizeMm: 3.4,
  mixture: { PG7: 0.14, PY43: 2, PBr7BS: 0.6, PB29: 0.3 },
  amount: 0.85,
  water: 0.72,
};
lay(between(DINGHY.near, DINGHY.keel, 0, 0.74), green, { ...green, sizeMm: 5 });
const rust: Brush = {
  tool: 'wash-round',
  sizeMm: 3,
  mixture: { PBr7BS: 2, PR188: 0.25, PBr7BU: 0.7 },
  amount: 1,
  water: 0.64,
};
line(
  { ...rust, sizeMm: 2.2 },
  Array.from({ length: 15 }, (_, i): Place => {
    const u = 0.462 + 0.0235 * i;
    return mm(u, along(DINGHY.near, u) * 0.13 + along(DINGHY.keel, u) * 0.87);
  }),
  (s) => 0.35 + 0.6 * Math.sin(Math.PI * s),
  90,
  0.2,
);
wait(2);
const shade: Brush = {
  tool: 'wash-round',
  sizeMm: 3.4,
  mixture: { PB29: 2, PBr7BU: 1.6, PG7: 0.06 },
  amount: 0.8,
  water: 0.46,
};
line(
  shade,
  Array.from({ length: 9 }, (_, i): Place => {
    const u = 0.6 + 0.02 * i;
    return mm(u, along(DINGHY.near, u) * 0.45 + along(DINGHY.keel, u) * 0.55);
  }),
  0.7,
  90,
  0.4,
);
dry();
const inner: Brush = { tool: 'wash-round', sizeMm: 2.8, mixture: { PBr7BU: 2.6, PB29: 1.2 }, amount: 0.8, water: 0.68 };
const thwart = (x: number) => Math.abs(x / W - 0.545 - 0.006) < 0.012 || Math.abs(x / W - 0.655 - 0.006) < 0.012;
lay((x, y) => between(DINGHY.far, DINGHY.near, 0.12, 0.92)(x, y) && !thwart(x), inner, { ...inner, sizeMm: 4 });
dry();
// posts: one stroke each, charged dark on the shadow side; their soluble hatching runs
for (const p of POSTS) {
  const wood: Brush = {
    tool: 'wash-flat',
    sizeMm: Math.max(1.8, p.width * W * 0.95),
    mixture: { PBr7BU: 2, PB29: 0.8, PBr7BS: 0.5 },
    amount: vary(0.8, 0.1),
    water: 0.66,
  };
  line(
    wood,
    [mm(p.x + p.lean, p.top + 0.003), mm(p.x + p.lean / 2, (p.top + p.foot) / 2), mm(p.x, p.foot)],
    0.95,
    80,
    0.2,
  );
  const lost: Brush = {
    tool: 'wash-round',
    sizeMm: p.width * W,
    mixture: { PBr7BU: 2, PB29: 1.2 },
    amount: 0.42,
    water: 0.7,
  };
  line(
    lost,
    [mm(p.x, p.foot), mm(p.x + 0.004, p.foot + 0.05), mm(p.x + 0.008, p.foot + 0.095)],
    (s) => 0.7 - 0.5 * s,
    60,
    1.2,
  );
}
wait(4);
// shadow under the boat, lost towards the right; the soluble lines give it their dark
const under = (x: number, y: number) => {
  const u = x / W;
  return (
    u > 0.452 &&
    u < 0.82 &&
    y > along(DINGHY.keel, u) * W + 0.2 &&
    y < along(DINGHY.keel, Math.min(0.8, u)) * W + 5.5 * Math.sin(Math.PI * Math.min(1, (u - 0.44) / 0.36)) ** 0.6 + 1
  );
};
const dark: Brush = { tool: 'wash-round', sizeMm: 2.8, mixture: { PB29: 2, PBr7BU: 1.8 }, amount: 0.85, water: 0.68 };
lay(under, dark, { ...dark, sizeMm: 3.6 });
line(
  { tool: 'wash-round', sizeMm: 6, mixture: {}, water: 0.5 },
  [mm(0.8, 0.585), mm(0.88, 0.588), mm(0.95, 0.592)],
  0.7,
  80,
  0.3,
);
dry();
// the roof, a dry brush on the mud, a few drops
const roof: Brush = { tool: 'wash-round', sizeMm: 1.8, mixture: { PB29: 1, PBr7BS: 1.6 }, amount: 1, water: 0.6 };
lay(polygon([mm(left - 0.004, eaves), mm((left + right) / 2, ridge + 0.002), mm(right + 0.004, eaves)]), roof);
const dragged: Brush = { tool: 'dry-brush', sizeMm: 6, mixture: { PBr7BU: 3, PB29: 1 }, amount: 0.8, water: 0.08 };
for (const [x, y, to] of [
  [14, 98, 56],
  [100, 113, 150],
  [34, 118, 84],
  [128, 84, 160],
] as const) {
  load(dragged);
  stroke(
    [
      [x, y],
      [(x + to) / 2, y + 1],
      [to, y + 2],
    ],
    (s) => 0.2 + 0.3 * Math.sin(Math.PI * s),
    130,
    1.5,
  );
}
take('splatter', 0.7, { distanceMm: 110 });
entries.push({ do: 'load', mixture: { PBr7BU: 2, PB29: 1 }, amount: 1.3 });
stroke(
  [
    [36, 106],
    [60, 112],
  ],
  0.25,
  60,
);
stroke(
  [
    [130, 108],
    [146, 112],
  ],
  0.2,
  60,
);
dry();
save('demo/studies/ink-and-wash.json', 'paper-cold', 'cream');
