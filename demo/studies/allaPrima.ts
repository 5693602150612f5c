/**
 * "Low tide" alla prima: everything wet into wet, in one go. A thin lay-in wiped out with a rag, planes with large
 * brushes, then smaller ones with thicker paint; edges lost with a clean blender, found again with a last touch.
 */
import { along, BOATHOUSE, DINGHY, HEADLAND, HORIZON, POOLS, POSTS, SHINGLE, WATER_EDGE } from '../scene';
import { painter, strake, trace, WIDTH_MM, type Pile, type Point } from '../painter';

const { entries, random, vary, fromPile, take, load, stroke, dry, save } = painter(31);

// lay-in: thin darks with solvent, lights wiped out
take('house', 34, { body: 0.3, solvent: 0.6, thin: 0, blend: 0.3 });
for (const y of [0.06, 0.44, 0.56, 0.68]) {
  load(fromPile('wash'), 0.45);
  stroke(
    [
      [-0.02, y],
      [0.5, y + 0.01],
      [1.02, y],
    ],
    0.5,
  );
}
take('flat', 10, { body: 0.3, solvent: 0.5, thin: 0, blend: 0.3 });
load(fromPile('wash', 'inside', 0.5), 0.8);
stroke(
  [
    [0.45, 0.45],
    [0.6, 0.5],
    [0.8, 0.48],
  ],
  0.6,
);
stroke(
  [
    [0.47, 0.55],
    [0.6, 0.595],
    [0.8, 0.57],
  ],
  0.6,
);
take('rag', 12, { solvent: 0.8 });
for (const p of POOLS.slice(0, 5))
  stroke(
    [
      [p.x - p.rx * 0.7, p.y - p.slope * p.rx * 0.7],
      [p.x + p.rx * 0.7, p.y + p.slope * p.rx * 0.7],
    ],
    0.6,
  );
stroke(trace(DINGHY.near, 0.45, 0.82, 0.03), 0.6);
entries.push({ do: 'rinse' });

// sky: large flat, criss-cross, colours meeting wet
const skyAt = (y: number): [Pile, Pile, number] =>
  y < 0.1
    ? ['skyDark', 'skyMid', y * 5]
    : y < 0.19
      ? ['skyMid', 'skyLight', (y - 0.1) * 8]
      : ['skyLight', 'rift', Math.max(0, 0.9 - Math.abs(y - 0.245) * 18)];
for (let y = 0.02; y < HORIZON + 0.004; y += 0.031) {
  take('flat', y < 0.18 ? 15 : 11, { body: 0.55, blend: 0.25, thin: 0 });
  for (let x = -0.04; x < 1;) {
    const to = x + vary(0.2, 0.4);
    const [pile, other, share] = skyAt(y + 0.012 * (random() - 0.5));
    load(fromPile(pile, other, Math.min(1, share * vary(1, 0.5))), vary(0.9, 0.2));
    const dip = 0.02 * (random() - 0.5);
    stroke(
      [
        [x, y],
        [(x + to) / 2, y + dip],
        [to, y + 0.012 * (random() - 0.5)],
      ],
      vary(0.52, 0.1),
    );
    x = to - 0.025;
  }
}
// clouds: a few darker drags, their lower edges lost
take('filbert', 13, { body: 0.6, blend: 0.35, thin: 0 });
for (const [x, y, w] of [
  [0.06, 0.09, 0.2],
  [0.34, 0.06, 0.26],
  [0.66, 0.1, 0.22],
  [0.48, 0.155, 0.2],
] as const) {
  load(fromPile('skyDark', 'headland', 0.3), 0.7);
  stroke(
    [
      [x, y],
      [x + w * 0.5, y - 0.014],
      [x + w, y + 0.004],
    ],
    0.5,
  );
}
take('blender-soft', 18, {});
for (const y of [0.11, 0.175])
  stroke(
    Array.from({ length: 22 }, (_, i): Point => [0.05 + i * 0.043, y + (i % 2 ? 0.012 : -0.012)]),
    0.35,
  );
entries.push({ do: 'rinse' });

// headland and far shore, into the wet sky: the far end lost
take('filbert', 7, { body: 0.5, blend: 0.3, thin: 0 });
for (const [from, to, pile, other, share] of [
  [0, 0.22, 'headlandFar', 'skyLight', 0.4],
  [0.2, 0.45, 'headlandFar', 'skyMid', 0.3],
  [0.42, 0.66, 'headland', 'headlandFar', 0.5],
  [0.62, 0.84, 'headland', 'headlandFar', 0.2],
  [0.8, 1.02, 'headland', 'headlandFar', 0.3],
] as const) {
  load(fromPile(pile, other, share), 1);
  stroke(trace(HEADLAND, from, to, 0.008), 0.5);
  stroke(trace(HEADLAND, from, to, 0.016), 0.5);
}
take('blender-soft', 9, {});
stroke(trace(HEADLAND, 0, 0.4, 0.001), 0.3);
entries.push({ do: 'rinse' });

// water and mud: horizontal, growing towards the front
take('flat', 8, { body: 0.5, blend: 0.25, thin: 0 });
for (let y = HORIZON + 0.008; y < WATER_EDGE + 0.014; y += 0.014) {
  for (let x = -0.03; x < 1; x += vary(0.22, 0.3)) {
    load(fromPile('water', random() < 0.5 ? 'waterDark' : 'poolLight', 0.6 * random()), 0.9);
    stroke(
      [
        [x, y],
        [x + 0.26, y + 0.003 * (random() - 0.5)],
      ],
      0.48,
    );
  }
}
for (let y = 0.372; y < 0.77;) {
  const near = (y - 0.36) / 0.39;
  const size = 10 + 10 * near;
  take(random() < 0.5 ? 'flat' : 'filbert', size, { body: 0.6, blend: 0.25, thin: 0 });
  for (let x = -0.04; x < 1;) {
    const to = x + vary(0.15 + 0.08 * near, 0.4);
    const boat = x > 0.4 && x < 0.72 && y > 0.44 && y < 0.57;
    if (!boat) {
      const pile: Pile = near < 0.2 ? 'mudFar' : random() < 0.35 ? 'mudWarm' : random() < 0.3 ? 'mudDark' : 'mud';
      load(fromPile(pile, random() < 0.25 ? 'weed' : 'mud', 0.5 * random()), vary(0.85, 0.25));
      stroke(
        [
          [x, y],
          [(x + to) / 2, y + 0.012 * (random() - 0.5)],
          [to, y + 0.02 * near * (random() - 0.4)],
        ],
        vary(0.5, 0.15),
      );
    }
    x = to - 0.02;
  }
  y += (size / WIDTH_MM) * 0.62;
}
take('filbert', 5, { body: 0.65, blend: 0.2, thin: 0 });
for (let x = 0; x < 0.36; x += 0.05) {
  load(fromPile('shingle', 'mudFar', 0.4 * random()), 0.8);
  stroke(
    [
      [x, along(SHINGLE, x) + 0.008 + 0.008 * random()],
      [x + 0.06, along(SHINGLE, x + 0.06) + 0.01],
    ],
    0.4,
  );
}
// pools: sky colour drawn into the wet mud, thick enough to stay clean
for (const p of POOLS) {
  take('flat', Math.max(4, Math.min(10, p.ry * WIDTH_MM)), { body: 0.7, blend: 0.12, thin: 0 });
  for (const v of p.ry > 0.016 ? [-0.6, 0, 0.6] : [0]) {
    const half = p.rx * Math.sqrt(1 - v * v) * 0.9;
    for (let x = p.x - half; x < p.x + half - 0.05; x += vary(0.17, 0.2)) {
      if (x < -0.1 || x > 1) continue;
      load(fromPile('pool', v < 0 ? 'poolLight' : 'waterDark', 0.45 * random()), 1.3);
      const at = (q: number) => p.y + v * p.ry * 0.8 + p.slope * (q - p.x);
      stroke(
        [
          [x, at(x)],
          [Math.min(x + 0.18, p.x + half), at(x + 0.18)],
        ],
        (s) => 0.42 * Math.min(1, 0.4 + 4 * s, 0.2 + 3 * (1 - s)),
      );
    }
  }
}
// posts: one loaded stroke each way, wiped between
for (const p of POSTS) {
  const far = p.width < 0.012;
  take('filbert', p.width * WIDTH_MM * 1.15, { body: 0.6, blend: 0.12, thin: 0 });
  const at = (t: number, aside = 0): Point => [p.x + p.lean * t + aside * p.width, p.foot + (p.top - p.foot) * t];
  for (const [from, to] of [
    [0, 0.4],
    [0.3, 0.72],
    [0.64, 1],
  ] as const) {
    load(fromPile(far ? 'postFar' : 'post'), 1.6);
    stroke([at(from), at((from + to) / 2), at(to)], (s) => 0.62 - 0.05 * s);
  }
  take('filbert', p.width * WIDTH_MM, { body: 0.4, blend: 0.45, thin: 0 });
  load(fromPile(far ? 'postFar' : 'post', 'mud', 0.4), 0.5);
  stroke(
    [
      [p.x, p.foot + 0.004],
      [p.x + 0.003, p.foot + (p.foot - p.top) * 0.3],
    ],
    (s) => 0.45 - 0.3 * s,
  );
  if (far) continue;
  take('bright', 3, { body: 0.8, blend: 0.1, thin: 0 });
  load(fromPile('postLight'), 0.9);
  stroke([at(0.96, -0.32), at(0.6, -0.3)], 0.35);
}
// the dinghy
take('filbert', 9, { body: 0.55, blend: 0.2, thin: 0 });
load(fromPile('mudDark', 'inside', 0.4), 1.2);
stroke(
  [
    [0.47, 0.568],
    [0.6, 0.607],
    [0.72, 0.61],
    [0.86, 0.578],
  ],
  0.5,
);
for (const [from, to] of [
  [0.46, 0.64],
  [0.6, 0.79],
] as const) {
  load(fromPile('inside', 'insideLight', 0.2 * random()), 1.3);
  const mid = (x: number, q: number): Point => [x, along(DINGHY.near, x) * q + along(DINGHY.far, x) * (1 - q)];
  stroke([mid(from, 0.4), mid((from + to) / 2, 0.4), mid(to, 0.4)], 0.55);
  stroke([mid(from, 0.75), mid((from + to) / 2, 0.75), mid(to, 0.75)], 0.5);
}
take('flat', 8, { body: 0.65, blend: 0.12, thin: 0 });
for (const [share, from, to, pile, other] of [
  [0.14, 0.438, 0.62, 'hull', 'hullLight'],
  [0.14, 0.6, 0.825, 'hullLight', 'hull'],
  [0.38, 0.447, 0.63, 'hull', 'hullDark'],
  [0.38, 0.61, 0.82, 'hull', 'hullDark'],
  [0.6, 0.456, 0.64, 'hullDark', 'hull'],
  [0.6, 0.62, 0.815, 'hullDark', 'hull'],
  [0.86, 0.465, 0.64, 'bottom', 'bottomDark'],
  [0.86, 0.62, 0.81, 'bottomDark', 'bottom'],
] as const) {
  load(fromPile(pile, other, 0.35 * random()), 1.4);
  stroke(strake(share, from, to), 0.48);
}
take('round', 3.2, { body: 0.85, blend: 0.08, thin: 0 });
for (const [from, to] of [
  [0.432, 0.56],
  [0.54, 0.69],
  [0.67, 0.832],
] as const) {
  load(fromPile('rail'), 2.2);
  stroke(trace(DINGHY.near, from, to, -0.002), (s) => 0.45 + 0.2 * Math.sin(Math.PI * s));
}
for (const [from, to] of [
  [0.436, 0.62],
  [0.62, 0.826],
] as const) {
  load(fromPile('railFar'), 1.4);
  stroke(trace(DINGHY.far, from, to), 0.4);
}
take('bright', 5.5, { body: 0.75, blend: 0.1, thin: 0 });
for (const q of [0.2, 0.46, 0.72]) {
  const x = DINGHY.left + q * (DINGHY.right - DINGHY.left);
  load(fromPile('thwart'), 1.2);
  stroke(
    [
      [x - 0.006, along(DINGHY.far, x) + 0.012],
      [x + 0.008, along(DINGHY.near, x) - 0.012],
    ],
    0.45,
  );
}
// boathouse, rope, last lights
const b = BOATHOUSE;
take('bright', 5, { body: 0.7, blend: 0.1, thin: 0 });
load(fromPile('wall'), 1.2);
stroke(
  [
    [b.left, (b.eaves + b.foot) / 2],
    [b.right, (b.eaves + b.foot) / 2],
  ],
  0.45,
);
load(fromPile('slate'), 1.2);
stroke(
  [
    [b.left - 0.003, (b.ridge + b.eaves) / 2],
    [b.right + 0.003, (b.ridge + b.eaves) / 2],
  ],
  0.42,
);
take('rigger', 1.6, { body: 0.4, thin: 0.2, blend: 0.1 });
load(fromPile('post'), 1.2);
stroke(
  [
    [0.432, 0.434],
    [0.38, 0.472],
    [0.31, 0.49],
    [0.24, 0.47],
    [0.2, 0.436],
  ],
  0.45,
);
load(fromPile('hullDark'), 1);
for (const share of [0.27, 0.5]) stroke(strake(share, 0.45, 0.8), 0.35);
take('flat', 3, { body: 0.9, blend: 0.05, thin: 0 });
for (const [x, y, w] of [
  [0.08, 0.39, 0.08],
  [0.47, 0.364, 0.1],
  [0.13, 0.645, 0.08],
  [0.32, 0.654, 0.05],
  [0.6, 0.658, 0.07],
  [0.2, 0.318, 0.1],
  [0.57, 0.312, 0.08],
] as const) {
  load(fromPile('rift'), 1.4);
  stroke(
    [
      [x, y],
      [x + w, y - 0.001],
    ],
    vary(0.36, 0.15),
  );
}
take('spatter', 0.7, { distanceMm: 50, body: 0.3 });
load(fromPile('shingle'), 0.5);
stroke(
  [
    [0.05, 0.37],
    [0.3, 0.375],
  ],
  0.4,
);

dry();
save('demo/studies/alla-prima.json', { seed: 12, surface: 'linen-fine', tone: { PW6: 3, PY43: 3, PBr7BS: 1.4 } });
