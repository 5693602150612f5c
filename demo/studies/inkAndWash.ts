/** "Low tide" in waterproof and soluble ink with loose washes: lines first, then water over them, whites left. */
import { along, BOATHOUSE, DINGHY, HEADLAND, HORIZON, POOLS, POSTS, SHINGLE } from '../scene';
import { waterHand, type Place } from '../waterHand';

const W = 180;
const { random, vary, dip, take, stroke, fill, drop, wait, dry, save, entries } = waterHand(31, W, 135);
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
  stroke(Array.from({ length: 12 }, (_, i): Place => {
    const x = 0.45 + (0.36 * i) / 11;
    return mm(x, along(DINGHY.near, x) * (1 - share) + along(DINGHY.keel, x) * share);
  }), (s) => 0.1 + 0.2 * Math.sin(s * 9) ** 2, 70); // prettier-ignore
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

// a loose sky: wet first, greys and a warm light let run, white paper left at the right
const inSky = (x: number, y: number) => y < 0.275 * W && x > -14 && x < W + 14;
dip('hake', 26, {}, 1, 0.55);
fill(inSky, 26, [-14, -8, W + 14, 0.28 * W], 420);
dip('mop', 16, { PB29: 3, PBr7BU: 1.6 }, 0.6, 0.66);
stroke([[-6, 6], [40, 4], [86, 9]], 0.9, 130, 5); // prettier-ignore
stroke([[10, 17], [50, 15], [110, 20]], 0.75, 130, 6); // prettier-ignore
stroke([[128, 8], [160, 6], [190, 10]], 0.7, 130, 5); // prettier-ignore
dip('mop', 14, { PY43: 2, PBr7BS: 0.5 }, 0.2, 0.62);
stroke([[-6, 42], [60, 41], [120, 42], [190, 41]], 0.8, 170, 3); // prettier-ignore
dip('dropper', 4, { PB29: 2, PBr7BU: 2 }, 1.5, 0.9);
for (const [x, y] of [
  [28, 16],
  [52, 13],
  [80, 18],
  [150, 12],
  [164, 20],
] as const)
  drop(x, y, 0.5);
wait(14);
// mud: one wash from the water's edge to the front, ochre turning umber, pools left white
const inPool = (x: number, y: number) =>
  POOLS.some((p) => ((x / W - p.x) / p.rx) ** 2 + ((y / W - p.y - p.slope * (x / W - p.x)) / (p.ry * 1.15)) ** 2 < 1);
const inBoat = (x: number, y: number) => {
  const u = x / W;
  return (
    u > DINGHY.left && u < DINGHY.right && y / W > along(DINGHY.far, u) - 0.004 && y / W < along(DINGHY.keel, u) + 0.004
  );
};
const inMud = (x: number, y: number) =>
  y > 0.372 * W && y < 126 && x > 6 && x < W - 6 && !inPool(x, y) && !inBoat(x, y);
dip('mop', 9, { PY43: 4, PBr7BU: 0.8, PB29: 0.3 }, 0.42, 0.8);
fill(inMud, 7, [-8, 0.37 * W, W + 8, 98], 260);
dip('mop', 12, { PBr7BU: 3, PY43: 3, PB29: 0.6 }, 0.7, 0.8);
fill(inMud, 9, [-8, 97, W + 8, 142], 260);
dip('dropper', 5, { PBr7BU: 2, PB29: 1 }, 1.1, 0.9);
for (let k = 0; k < 12; k++) {
  const [x, y] = [10 + 160 * random(), 82 + 40 * random()];
  if (inMud(x, y)) drop(x, y, 0.3 + 0.5 * random());
}
dry();
// headland and water
dip('wash-round', 5, { PB29: 2, PBr7BU: 2, PG7: 0.02 }, 0.85, 0.65);
stroke(
  curve(HEADLAND, 0.03, 0.4).map(([x, y]): Place => [x, y + 1.2]),
  0.5,
  80,
);
stroke(
  curve(HEADLAND, 0.44, 0.68).map(([x, y]): Place => [x, y + 1.6]),
  0.6,
  80,
);
stroke(
  curve(HEADLAND, 0.78, 0.97).map(([x, y]): Place => [x, y + 3]),
  0.8,
  80,
);
for (const way of [
  [
    [-4, 57],
    [70, 57.5],
    [122, 57],
  ],
  [
    [96, 61],
    [184, 60.5],
  ],
] as Place[][]) {
  dip('wash-flat', 6, { PB29: 2, PBr7BU: 1, PG7: 0.02 }, 0.35, 0.75);
  stroke(way, 0.8, 150, 1);
}
for (const p of POOLS.slice(2)) {
  dip('wash-flat', Math.max(3, p.ry * W), { PB29: 2, PBr7BU: 2 }, 0.3, 0.75);
  stroke([mm(p.x - p.rx * 0.6, p.y), mm(p.x + p.rx * 0.5, p.y + p.slope * 0.3)], 0.8, 110, 1);
}
// the dinghy in two greens that meet wet, its inside darker
const side = (share: number, from: number, to: number): Place[] => Array.from({ length: 9 }, (_, i) => {
  const x = from + ((to - from) * i) / 8;
  return mm(x, along(DINGHY.near, x) * (1 - share) + along(DINGHY.keel, x) * share);
}); // prettier-ignore
dip('wash-round', 7, { PG7: 0.1, PY43: 2, PBr7BS: 0.7, PBr7BU: 0.4 }, 1, 0.75);
for (const share of [0.22, 0.5]) stroke(side(share, 0.45, 0.79), 0.8, 80, 0.4);
dip('wash-round', 6, { PBr7BS: 2, PR188: 0.3, PBr7BU: 0.5 }, 1.2, 0.7);
stroke(side(0.82, 0.455, 0.8), 0.7, 80, 0.4);
dip('wash-round', 7, { PBr7BU: 3, PB29: 1 }, 1.2, 0.75);
for (const [x, to] of [
  [0.46, 0.54],
  [0.565, 0.65],
  [0.675, 0.78],
] as const) {
  stroke(Array.from({ length: 6 }, (_, i): Place => {
    const u = x + ((to - x) * i) / 5;
    return mm(u, (along(DINGHY.far, u) * 0.45 + along(DINGHY.near, u) * 0.55));
  }), 0.75, 60, 0.3); // prettier-ignore
}
// posts: one stroke each, charged dark below; their soluble hatching runs
for (const p of POSTS) {
  dip('wash-round', p.width * W * 1.25, { PBr7BU: 2, PB29: 0.8, PBr7BS: 0.5 }, vary(0.9, 0.1), 0.7);
  stroke([mm(p.x + p.lean, p.top + 0.006), mm(p.x, p.foot)], 0.8, 60, 0.3);
  dip('wash-round', p.width * W * 1.1, { PBr7BU: 2, PB29: 1 }, 0.5, 0.8);
  stroke(
    [mm(p.x, p.foot), mm(p.x + 0.004, p.foot + 0.05), mm(p.x + 0.008, p.foot + 0.095)],
    (s) => 0.7 - 0.4 * s,
    60,
    1.2,
  );
}
wait(6);
// shadow under the boat, lost towards the right
dip('wash-round', 7, { PB29: 2, PBr7BU: 2 }, 1.2, 0.75);
stroke(
  Array.from({ length: 9 }, (_, i): Place =>
    mm(0.47 + 0.36 * (i / 8), along(DINGHY.keel, Math.min(0.829, 0.47 + 0.36 * (i / 8))) + 0.014),
  ),
  0.7,
  70,
  0.4,
);
dip('wash-round', 8, {}, 1, 0.5);
stroke([mm(0.78, 0.605), mm(0.9, 0.6), mm(0.95, 0.602)], 0.7, 60);
dry();
// roof, dry brush on the mud, a few drops
dip('wash-round', 3, { PB29: 1, PBr7BU: 1.3 }, 1.2, 0.6);
stroke([mm(left, eaves), mm((left + right) / 2, ridge + 0.006), mm(right, eaves)], 0.8, 50, 0.2);
dip('dry-brush', 9, { PBr7BU: 3, PB29: 1 }, 0.9, 0.08);
for (const [x, y, to] of [[12, 92, 60], [96, 116, 160], [30, 122, 90]] as const) stroke([[x, y], [to, y + 2]], 0.5, 110, 2); // prettier-ignore
take('splatter', 0.9, { distanceMm: 90 });
entries.push({ do: 'load', mixture: { PBr7BU: 2, PB29: 1 }, amount: 1.5 });
stroke([[40, 104], [70, 112]], 0.4, 60); // prettier-ignore
dry();
save('demo/studies/ink-and-wash.json', 'paper-cold', 'cream');
