/**
 * "Low tide" with the painting knife only: slabs from the far sky forwards, each laid once and left, then smaller
 * touches with the tip, and lines with the edge.
 */
import { along, BOATHOUSE, DINGHY, HEADLAND, HORIZON, POOLS, POSTS, SHINGLE, WATER_EDGE } from '../scene';
import { painter, strake, trace, WIDTH_MM, type Pile, type Point } from '../painter';

const { random, vary, fromPile, take, load, stroke, dry, save } = painter(77);

type Hold = 'flat' | 'edge' | 'tip';
const knife = (sizeMm: number, hold: Hold = 'flat', body = 0.8) =>
  take('knife', sizeMm, { hold, body, blend: 0.06, thin: 0 });
/** Evenly pressed, as a slab wants it. */
const lay = (points: readonly Point[], pressure = 0.5) => stroke(points, (s) => pressure * Math.min(1, 0.7 + 3 * s));

// sky: broad slabs, dark above, a bright rift over the water; drawn this way and that
const SKY: readonly [y: number, size: number, pile: Pile, other: Pile, share: number][] = [
  [0.03, 26, 'skyDark', 'headland', 0.25],
  [0.085, 24, 'skyDark', 'skyMid', 0.3],
  [0.135, 22, 'skyMid', 'skyDark', 0.3],
  [0.18, 20, 'skyLight', 'skyMid', 0.5],
  [0.222, 15, 'skyLight', 'rift', 0.5],
  [0.255, 12, 'rift', 'skyLight', 0.4],
  [0.281, 9, 'skyLight', 'skyMid', 0.5],
];
for (const [y, size, pile, other, share] of SKY) {
  knife(size);
  let x = -0.05;
  let forth = random() < 0.5;
  while (x < 1) {
    const to = x + vary(0.21, 0.35);
    const tilt = 0.012 * (random() - 0.5);
    load(fromPile(pile, other, share * vary(1, 0.9)), vary(0.45, 0.3));
    const a: Point = [x, y + 0.012 * (random() - 0.5)];
    const b: Point = [to, a[1] + tilt];
    lay(forth ? [a, b] : [b, a], vary(0.6, 0.12));
    x = to - 0.02;
    forth = !forth || random() < 0.3;
  }
}
// far shore and headland: one drag each, its foot cut by the water
knife(7);
for (const [from, to, pile] of [
  [0.0, 0.2, 'headlandFar'],
  [0.18, 0.42, 'headlandFar'],
  [0.4, 0.6, 'headland'],
  [0.56, 0.8, 'headland'],
  [0.76, 1.02, 'headland'],
] as const) {
  load(fromPile(pile, 'skyMid', 0.25 * random()), 0.35);
  lay(trace(HEADLAND, from, to, (HORIZON - along(HEADLAND, (from + to) / 2)) * 0.45 + 0.002), 0.6);
}
// water: long flat slabs, light where the rift stands in it
knife(8);
for (let y = HORIZON + 0.012; y < WATER_EDGE + 0.01; y += 0.015) {
  for (let x = -0.03; x < 1; x += vary(0.24, 0.3)) {
    load(fromPile(random() < 0.35 ? 'poolLight' : 'water', 'waterDark', 0.5 * random()), 0.4);
    lay(
      [
        [x, y + 0.003 * random()],
        [x + vary(0.25, 0.3), y + 0.003 * random()],
      ],
      0.62,
    );
  }
}
// shingle
knife(6);
for (let x = 0; x < 0.36; x += 0.07) {
  load(fromPile('shingle', 'mudFar', 0.5 * random()), 0.35);
  lay(
    [
      [x, along(SHINGLE, x) + 0.012],
      [x + 0.08, along(SHINGLE, x + 0.08) + 0.013],
    ],
    0.55,
  );
}
// mud: slabs grow towards the front, some dragged slantwise
for (let y = 0.385; y < 0.78;) {
  const near = (y - 0.37) / 0.38;
  const size = 10 + 16 * near;
  knife(size);
  for (let x = -0.05; x < 1;) {
    const to = x + vary(0.13 + 0.12 * near, 0.35);
    const pile: Pile = near < 0.25 ? 'mudFar' : random() < 0.3 ? 'mudWarm' : random() < 0.3 ? 'mudDark' : 'mud';
    load(fromPile(pile, random() < 0.2 ? 'weed' : 'mud', 0.4 * random()), vary(0.42, 0.3));
    const slant = (0.02 + 0.03 * near) * (random() - 0.4);
    lay(
      [
        [x, y + 0.01 * (random() - 0.5)],
        [to, y + slant],
      ],
      vary(0.6, 0.1),
    );
    x = to - 0.015;
  }
  y += (size / WIDTH_MM) * 0.72;
}
// pools: the sky's colours laid flat into the mud
for (const p of POOLS) {
  knife(Math.max(4, p.ry * WIDTH_MM * 1.1));
  for (const v of p.ry > 0.018 ? [-0.55, 0, 0.55] : [0]) {
    const half = p.rx * Math.sqrt(1 - v * v) * 0.9;
    for (let x = p.x - half; x < p.x + half - 0.04; x += vary(0.16, 0.3)) {
      if (x < -0.1 || x > 1) continue;
      load(fromPile('pool', v < 0 ? 'poolLight' : 'waterDark', 0.5 * random()), 0.3);
      lay(
        [
          [x, p.y + v * p.ry + p.slope * (x - p.x)],
          [Math.min(x + 0.17, p.x + half), p.y + v * p.ry + p.slope * (x + 0.16 - p.x)],
        ],
        0.55,
      );
    }
  }
}
// posts: drawn down in one go with the tip, the light side with the edge
for (const p of POSTS) {
  const far = p.width < 0.012;
  knife(Math.max(3, (p.width * WIDTH_MM) / 0.3), 'tip', 0.7);
  const at = (t: number, aside = 0): Point => [p.x + p.lean * t + aside * p.width, p.foot + (p.top - p.foot) * t];
  for (const [from, to] of [
    [1, 0.6],
    [0.65, 0.28],
    [0.32, 0],
  ] as const) {
    load(fromPile(far ? 'postFar' : 'post', 'postWeed', to === 0 ? 0.4 : 0.1), 0.8);
    lay([at(from), at(to)], 0.5);
  }
  if (far) continue;
  knife(12, 'edge', 0.85);
  load(fromPile('postLight'), 0.5);
  lay([at(0.97, -0.35), at(0.45, -0.32)], 0.5);
  // and what the wet mud gives back, smeared down with a clean blade
  knife(5, 'flat');
  load(fromPile('post', 'mud', 0.5), 0.15);
  lay([at(-0.02), [p.x + 0.004, p.foot + 0.3 * (p.foot - p.top)]], 0.75);
}
// the dinghy: shadow, inside, planking in planes, rail with the edge
knife(9);
load(fromPile('mudDark', 'inside', 0.5), 0.5);
lay(
  [
    [0.48, 0.578],
    [0.6, 0.61],
    [0.74, 0.605],
    [0.86, 0.58],
  ],
  0.6,
);
knife(11);
for (const [from, to] of [
  [0.47, 0.62],
  [0.58, 0.7],
  [0.68, 0.79],
] as const) {
  load(fromPile('inside', 'insideLight', 0.25 * random()), 0.5);
  const mid = (x: number): Point => [x, (along(DINGHY.near, x) + along(DINGHY.far, x)) / 2];
  lay([mid(from), mid((from + to) / 2), mid(to)], 0.55);
}
knife(7);
for (const [share, from, to, pile, other] of [
  [0.2, 0.44, 0.56, 'hull', 'hullLight'],
  [0.2, 0.55, 0.68, 'hullLight', 'hull'],
  [0.2, 0.67, 0.825, 'hull', 'hullLight'],
  [0.5, 0.452, 0.58, 'hull', 'hullDark'],
  [0.5, 0.56, 0.7, 'hull', 'hullDark'],
  [0.5, 0.68, 0.815, 'hullDark', 'hull'],
  [0.82, 0.465, 0.62, 'bottom', 'bottomDark'],
  [0.82, 0.6, 0.73, 'bottom', 'bottomDark'],
  [0.82, 0.71, 0.81, 'bottomDark', 'bottom'],
] as const) {
  load(fromPile(pile, other, 0.5 * random()), 0.45);
  lay(strake(share, from, to), 0.52);
}
knife(18, 'edge', 0.9);
for (const [from, to] of [
  [0.432, 0.55],
  [0.54, 0.68],
  [0.67, 0.832],
] as const) {
  load(fromPile('rail'), 0.7);
  lay(trace(DINGHY.near, from, to, -0.002), 0.42);
}
for (const [from, to] of [
  [0.436, 0.6],
  [0.6, 0.826],
] as const) {
  load(fromPile('railFar'), 0.4);
  lay(trace(DINGHY.far, from, to), 0.5);
}
knife(9, 'tip');
for (const q of [0.2, 0.46, 0.72]) {
  const x = DINGHY.left + q * (DINGHY.right - DINGHY.left);
  load(fromPile('thwart'), 0.4);
  lay(
    [
      [x - 0.004, along(DINGHY.far, x) + 0.014],
      [x + 0.01, along(DINGHY.near, x) - 0.014],
    ],
    0.5,
  );
}
// boathouse: two touches
knife(10, 'tip');
const b = BOATHOUSE;
load(fromPile('wall'), 0.4);
lay(
  [
    [b.left, (b.eaves + b.foot) / 2],
    [b.right, (b.eaves + b.foot) / 2],
  ],
  0.5,
);
load(fromPile('slate'), 0.4);
lay(
  [
    [b.left - 0.004, (b.ridge + b.eaves) / 2 + 0.002],
    [b.right + 0.004, (b.ridge + b.eaves) / 2 + 0.002],
  ],
  0.5,
);
// last lights: thick, few, with the tip
knife(8, 'tip', 0.95);
for (const [x, y, w] of [
  [0.08, 0.392, 0.05],
  [0.5, 0.364, 0.07],
  [0.14, 0.642, 0.06],
  [0.33, 0.652, 0.04],
  [0.62, 0.655, 0.05],
  [0.2, 0.318, 0.07],
  [0.6, 0.312, 0.06],
] as const) {
  load(fromPile('rift'), 0.4);
  lay(
    [
      [x, y],
      [x + w, y - 0.001],
    ],
    0.45,
  );
}
knife(14, 'edge', 0.7);
load(fromPile('rope'), 0.6);
lay(
  [
    [0.432, 0.431],
    [0.38, 0.469],
    [0.31, 0.487],
    [0.24, 0.467],
    [0.2, 0.433],
  ],
  0.5,
);

dry();
save('demo/studies/knife.json', { seed: 21, surface: 'linen-coarse', tone: { PW6: 3, PY43: 2, PBr7BS: 2.2 } });
