/**
 * "Low tide" in layers: sketch, ground, far, near, figure, shade, glow and texture kept apart, so that each could be
 * mended late. The dinghy was painted too small and has been made larger; the far posts are one post, repeated.
 */
import { zlibSync } from 'fflate';
import type { CommandInput } from '@/core/commands/commands';
import { noise2 } from '@/core/surface/noise';
import { painter, strake, trace, WIDTH_MM, type Pile, type Point } from '../painter';
import { along, BOATHOUSE, DINGHY, HEADLAND, HORIZON, POOLS, POSTS, SHINGLE, WATER_EDGE } from '../scene';

const { entries, random, vary, fromPile, take, load, stroke, dry, save } = painter(57);
const act = (...commands: CommandInput[]) => entries.push(...commands);
const mm = ([x, y]: Point): [number, number] => [
  Math.round(x * WIDTH_MM * 100) / 100,
  Math.round(y * WIDTH_MM * 100) / 100,
];
const polygon = (points: readonly Point[]) => points.map(mm);
/** A new paint layer on top, chosen and named. Numbers follow the order in which layers are made. */
const paintLayer = (name: string) => act({ do: 'layer.add', kind: 'paint', name });

// sketch: horizon, headland, posts, dinghy
act({ do: 'tool', tool: 'graphite', sizeMm: 0.9, grade: 5 });
stroke(
  [
    [0, HORIZON],
    [0.5, HORIZON],
    [1, HORIZON],
  ],
  0.4,
);
stroke(trace(HEADLAND, 0, 1), 0.5);
for (const curve of [DINGHY.near, DINGHY.far, DINGHY.keel]) stroke(trace(curve, 0.432, 0.828), 0.6);
for (const p of POSTS)
  stroke(
    [
      [p.x, p.foot],
      [p.x + p.lean, p.top],
    ],
    0.55,
  );

// ground: a warm thin coat, brushed every way
act({ do: 'layer.choose', layer: 'L2' }, { do: 'layer.set', layer: 'L2', name: 'Ground' });
take('house', 32, { body: 0.3, solvent: 0.5, thin: 0, blend: 0.2 });
for (let k = 0; k < 26; k++) {
  load({ PBr7BS: vary(2, 0.4), PY43: vary(1.6, 0.4), PBr7BU: vary(0.7, 0.5) }, 0.6);
  const [x, y] = [random(), random() * 0.75];
  const lean = (random() - 0.5) * 0.1;
  stroke(
    [
      [x - 0.16, y - lean],
      [x + 0.16, y + lean],
    ],
    0.45,
  );
}
dry();

// far: sky, headland, boathouse
paintLayer('Far');
const skyAt = (y: number): [Pile, Pile, number] =>
  y < 0.12
    ? ['skyDark', 'skyMid', y * 4]
    : y < 0.2
      ? ['skyMid', 'skyLight', (y - 0.12) * 9]
      : ['skyLight', 'rift', Math.max(0, 1 - Math.abs(y - 0.25) * 16)];
for (let y = 0.018; y < HORIZON + 0.004; y += 0.03) {
  take('flat', y < 0.18 ? 16 : 11, { body: 0.5, blend: 0.28, thin: 0 });
  for (let x = -0.05; x < 1;) {
    const to = x + vary(0.22, 0.4);
    const [pile, other, share] = skyAt(y + 0.014 * (random() - 0.5));
    load(fromPile(pile, other, Math.min(1, share * vary(1, 0.4))), vary(0.85, 0.2));
    stroke(
      [
        [x, y],
        [(x + to) / 2, y + 0.02 * (random() - 0.5)],
        [to, y + 0.012 * (random() - 0.5)],
      ],
      vary(0.5, 0.12),
    );
    x = to - 0.03;
  }
}
take('filbert', 13, { body: 0.6, blend: 0.35, thin: 0 });
for (const [x, y, w] of [
  [-0.02, 0.07, 0.3],
  [0.3, 0.045, 0.34],
  [0.62, 0.09, 0.4],
  [0.4, 0.14, 0.26],
  [0.05, 0.15, 0.2],
] as const) {
  load(fromPile('skyDark', 'headland', 0.35 * random()), 0.7);
  stroke(
    [
      [x, y],
      [x + w * 0.5, y - 0.012],
      [x + w, y + 0.006],
    ],
    0.5,
  );
}
take('blender-soft', 18, {});
for (const y of [0.1, 0.17])
  stroke(
    Array.from({ length: 20 }, (_, i): Point => [0.04 + i * 0.048, y + (i % 2 ? 0.014 : -0.014)]),
    0.35,
  );
act({ do: 'rinse' });
take('filbert', 6.5, { body: 0.55, blend: 0.25, thin: 0 });
for (const [from, to] of [
  [-0.02, 0.24],
  [0.2, 0.46],
  [0.42, 0.68],
  [0.62, 0.86],
  [0.8, 1.02],
] as const) {
  for (const lower of [0.008, 0.017]) {
    load(fromPile('headland', 'headlandFar', 0.75 - 0.6 * from + 0.2 * random()), 1.1);
    stroke(trace(HEADLAND, from, to, lower), 0.5);
  }
}
take('bright', 4.6, { body: 0.7, blend: 0.08, thin: 0 });
load(fromPile('wall'), 1.2);
stroke(
  [
    [BOATHOUSE.left, 0.287],
    [BOATHOUSE.right, 0.287],
  ],
  0.45,
);
load(fromPile('slate'), 1.2);
stroke(
  [
    [BOATHOUSE.left - 0.003, 0.263],
    [BOATHOUSE.right + 0.003, 0.263],
  ],
  0.42,
);
dry();

// near: water, mud, pools, shingle
paintLayer('Near');
take('flat', 8, { body: 0.5, blend: 0.2, thin: 0 });
for (let y = HORIZON + 0.008; y < WATER_EDGE + 0.014; y += 0.0135) {
  for (let x = -0.03; x < 1; x += vary(0.22, 0.3)) {
    load(fromPile('water', random() < 0.5 ? 'waterDark' : 'rift', 0.5 * random()), 0.9);
    stroke(
      [
        [x, y],
        [x + 0.26, y + 0.003 * (random() - 0.5)],
      ],
      0.48,
    );
  }
}
for (let y = 0.37; y < 0.77;) {
  const near = (y - 0.36) / 0.39;
  const size = 9 + 12 * near;
  take(random() < 0.55 ? 'flat' : 'filbert', size, { body: 0.6, blend: 0.22, thin: 0 });
  for (let x = -0.05; x < 1;) {
    const to = x + vary(0.15 + 0.1 * near, 0.4);
    const warm = noise2(x * 4, y * 14, 8);
    const pile: Pile = near < 0.2 ? 'mudFar' : warm > 0.62 ? 'mudWarm' : warm < 0.36 ? 'mudDark' : 'mud';
    load(fromPile(pile, random() < 0.22 ? 'weed' : 'mudDark', 0.55 * random()), vary(0.8, 0.25));
    stroke(
      [
        [x, y],
        [(x + to) / 2, y + 0.012 * (random() - 0.5)],
        [to, y + 0.02 * near * (random() - 0.4)],
      ],
      vary(0.5, 0.15),
    );
    x = to - 0.02;
  }
  y += (size / WIDTH_MM) * 0.6;
}
// the light on wet mud: thin drags that leave gaps
take('fan', 12, { body: 0.5, blend: 0.15, thin: 0 });
for (let i = 0; i < 26; i++) {
  const [x, y] = [random() * 1.1 - 0.1, 0.4 + 0.33 * random()];
  load(fromPile('mudFar', 'shingle', 0.6 * random()), 0.5);
  stroke(
    [
      [x, y],
      [x + 0.1, y + 0.012 * (random() - 0.5)],
      [x + vary(0.2, 0.3), y + 0.02 * (random() - 0.5)],
    ],
    (s) => 0.3 * Math.min(1, 3 * s, 0.1 + 1.6 * (1 - s)),
  );
}
take('filbert', 5, { body: 0.65, blend: 0.2, thin: 0 });
for (let x = 0; x < 0.38; x += 0.045) {
  load(fromPile('shingle', 'mudFar', 0.4 * random()), 0.8);
  stroke(
    [
      [x, along(SHINGLE, x) + 0.006 + 0.01 * random()],
      [x + 0.06, along(SHINGLE, x + 0.06) + 0.01],
    ],
    0.4,
  );
}
for (const p of POOLS) {
  take('filbert', Math.max(3, Math.min(6.5, p.ry * WIDTH_MM * 0.7)), { body: 0.6, blend: 0.25, thin: 0 });
  for (const v of p.ry > 0.016 ? [-0.8, -0.4, 0, 0.4, 0.8] : [-0.4, 0.3]) {
    const half = p.rx * Math.sqrt(1 - v * v) * vary(0.92, 0.1);
    for (let x = p.x - half; x < p.x + half - 0.03; x += vary(0.11, 0.35)) {
      if (x < -0.1 || x > 1) continue;
      load(fromPile('pool', v < 0 ? 'rift' : 'waterDark', 0.5 * random()), 1.2);
      const at = (q: number) => p.y + v * p.ry * 0.85 + p.slope * (q - p.x);
      const to = Math.min(x + vary(0.19, 0.35), p.x + half * 1.04);
      const dip = 0.004 * (random() - 0.5);
      stroke(
        [
          [x, at(x) + dip],
          [(x + to) / 2, at((x + to) / 2)],
          [to, at(to) + dip],
        ],
        (s) => 0.46 * Math.min(1, 0.12 + 2.2 * s, 0.05 + 1.8 * (1 - s)),
      );
    }
  }
}
dry();

// posts, on a layer of their own: the third is the second again, smaller and paler
paintLayer('Posts');
for (const p of POSTS.slice(0, 2)) {
  take('filbert', p.width * WIDTH_MM * 1.1, { body: 0.6, blend: 0.1, thin: 0 });
  const at = (t: number, aside = 0): Point => [p.x + p.lean * t + aside * p.width, p.foot + (p.top - p.foot) * t];
  load(fromPile('post', 'postWeed', 0.06), 3);
  stroke([at(0), at(0.25), at(0.5), at(0.75), at(1)], (s) => 0.66 - 0.06 * s);
  load(fromPile('post', 'postWeed', 0.5), 1);
  stroke([at(0.02), at(0.3)], (s) => 0.5 - 0.35 * s);
  take('bright', 2.6, { body: 0.85, blend: 0.06, thin: 0 });
  for (const t of [0.96, 0.7, 0.46]) {
    load(fromPile('postLight', 'post', 0.25 * random()), 0.8);
    stroke([at(t, -0.34), at(t - 0.2 * vary(1, 0.3), -0.32)], 0.32);
  }
}
dry();
const second = POSTS[1];
act(
  {
    do: 'select',
    how: 'rectangle',
    from: mm([second.x - 0.02, second.top - 0.03]),
    to: mm([second.x + 0.03, second.foot + 0.03]),
  },
  { do: 'stamp', at: [mm([0.91, 0.302]), mm([0.955, 0.318])], size: 0.62, turnJitter: 3, sizeJitter: 0.12, seed: 4 },
  { do: 'select', how: 'none' },
);

// the dinghy: its silhouette filled, then worked only where there is paint
paintLayer('Dinghy');
const outline: Point[] = [...trace(DINGHY.far, 0.43, 0.83), ...trace(DINGHY.keel, 0.43, 0.83).reverse()];
act({ do: 'tool', tool: 'flat', sizeMm: 8, body: 0.6, blend: 0.12, thin: 0 });
act(
  {
    do: 'silhouette',
    outline: polygon(outline),
    mixture: fromPile('hullDark'),
    thicknessUm: 60,
    edgeMm: 0.6,
    streaks: 0.3,
  },
  { do: 'dry' },
);
act({ do: 'layer.set', layer: 'L6', onlyPaint: true });
for (const [from, to] of [
  [0.45, 0.64],
  [0.6, 0.8],
] as const) {
  take('filbert', 9, { body: 0.55, blend: 0.2, thin: 0 });
  load(fromPile('inside', 'insideLight', 0.25 * random()), 1.3);
  const mid = (x: number, q: number): Point => [x, along(DINGHY.near, x) * q + along(DINGHY.far, x) * (1 - q)];
  for (const q of [0.22, 0.5, 0.8]) stroke([mid(from, q), mid((from + to) / 2, q), mid(to, q)], 0.5);
}
take('flat', 8, { body: 0.65, blend: 0.12, thin: 0 });
for (const [share, from, to, pile, other] of [
  [0.14, 0.432, 0.62, 'hull', 'hullLight'],
  [0.14, 0.6, 0.828, 'hullLight', 'hull'],
  [0.38, 0.44, 0.63, 'hull', 'hullDark'],
  [0.38, 0.61, 0.826, 'hull', 'hullDark'],
  [0.6, 0.45, 0.64, 'hullDark', 'hull'],
  [0.6, 0.62, 0.822, 'hullDark', 'hull'],
  [0.86, 0.46, 0.64, 'bottom', 'bottomDark'],
  [0.86, 0.62, 0.815, 'bottomDark', 'bottom'],
] as const) {
  load(fromPile(pile, other, 0.35 * random()), 1.4);
  stroke(strake(share, from, to), 0.48);
}
take('bright', 5.5, { body: 0.75, blend: 0.1, thin: 0 });
for (const q of [0.2, 0.46, 0.72]) {
  const x = DINGHY.left + q * (DINGHY.right - DINGHY.left);
  load(fromPile('thwart', 'inside', 0.2 * random()), 1.2);
  stroke(
    [
      [x - 0.006, along(DINGHY.far, x) + 0.008],
      [x + 0.008, along(DINGHY.near, x) - 0.008],
    ],
    0.45,
  );
}
act({ do: 'layer.set', layer: 'L6', onlyPaint: false });
take('round', 3.2, { body: 0.85, blend: 0.08, thin: 0 });
for (const [from, to] of [
  [0.431, 0.56],
  [0.54, 0.69],
  [0.67, 0.832],
] as const) {
  load(fromPile('rail'), 2.2);
  stroke(trace(DINGHY.near, from, to, -0.002), (s) => 0.45 + 0.2 * Math.sin(Math.PI * s));
}
for (const [from, to] of [
  [0.434, 0.62],
  [0.62, 0.828],
] as const) {
  load(fromPile('railFar'), 1.4);
  stroke(trace(DINGHY.far, from, to), 0.4);
}
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
dry();
// too small for its place: larger, about the foot of the great post, and down a little
const k = 1.14;
const [fx, fy] = [0.2 * WIDTH_MM, 0.436 * WIDTH_MM];
act({ do: 'transform', matrix: [k, 0.012, -0.012, k, fx * (1 - k) + 0.012 * fy, fy * (1 - k) - 0.012 * fx + 2] });

// light on its planks, only where the dinghy is
paintLayer('Light on the hull');
act({ do: 'layer.set', layer: 'L7', clip: true });
take('flat', 4.5, { body: 0.8, blend: 0.05, thin: 0, strength: 0.8 });
const moved = (p: Point): Point => [
  k * p[0] - 0.012 * p[1] + (fx * (1 - k) + 0.012 * fy) / WIDTH_MM,
  0.012 * p[0] + k * p[1] + (fy * (1 - k) - 0.012 * fx + 2) / WIDTH_MM,
];
for (const [share, from, to] of [
  [0.1, 0.62, 0.74],
  [0.3, 0.6, 0.7],
  [0.1, 0.5, 0.58],
  [0.32, 0.74, 0.8],
] as const) {
  load(fromPile('hullLight', 'rail', 0.3 * random()), 0.6);
  stroke(strake(share, from, to).map(moved), 0.26);
}
dry();

// light, in a group: shade sprayed under things, glow where the sky opens
act({ do: 'layer.add', kind: 'group', name: 'Light' });
act({ do: 'layer.add', kind: 'tone', blend: 'multiply', name: 'Shade', group: 'L8' });
const spray = (
  mixture: Record<string, number>,
  sizeMm: number,
  strength: number,
  strokes: readonly (readonly Point[])[],
  pressure = 0.6,
) => {
  act({ do: 'tool', tool: 'spray', sizeMm, strength }, { do: 'load', mixture });
  for (const s of strokes) stroke(s, pressure);
};
const SHADOW = { PBr7BU: 2, PB29: 1.4, PW6: 2 };
spray(
  SHADOW,
  22,
  0.95,
  [strake(1, 0.47, 0.81), strake(0.96, 0.5, 0.79)].map((s) => s.map(moved).map(([x, y]): Point => [x, y + 0.012])),
);
spray(SHADOW, 10, 0.5, [
  [
    [0.19, 0.5],
    [0.25, 0.515],
    [0.31, 0.53],
  ],
  [
    [0.262, 0.425],
    [0.31, 0.432],
  ],
]);
spray(
  SHADOW,
  60,
  0.4,
  [
    [
      [-0.02, 0.02],
      [0.5, -0.02],
      [1.02, 0.02],
    ],
    [
      [-0.04, 0.5],
      [-0.02, 0.76],
    ],
    [
      [1.03, 0.5],
      [1.02, 0.76],
    ],
  ],
  0.5,
);
act({ do: 'layer.add', kind: 'tone', blend: 'screen', name: 'Glow', group: 'L8' });
const EVENING = { PW6: 6, PY43: 3, PR188: 0.9 };
spray(EVENING, 46, 0.42, [
  [
    [0.2, 0.255],
    [0.45, 0.245],
    [0.7, 0.25],
  ],
  [
    [0.3, 0.22],
    [0.5, 0.215],
  ],
]);
spray(
  EVENING,
  14,
  0.32,
  [
    [
      [0.3, 0.322],
      [0.55, 0.322],
    ],
    [
      [0.36, 0.37],
      [0.6, 0.366],
    ],
    [
      [0.14, 0.655],
      [0.3, 0.645],
    ],
  ],
  0.5,
);

// texture: weathered stone, laid over and over
const SIDE = 192;
const bytes = new Uint8Array(SIDE * SIDE * 4);
for (let y = 0; y < SIDE; y++) {
  for (let x = 0; x < SIDE; x++) {
    // octaves that close upon themselves, and pits
    const octave = (cells: number, seed: number) => noise2((x / SIDE) * cells, (y / SIDE) * cells, seed, cells, cells);
    const n = 0.4 * octave(5, 41) + 0.28 * octave(13, 42) + 0.18 * octave(32, 43) + 0.14 * octave(64, 44);
    const pit = octave(40, 17) * octave(9, 18);
    const v = Math.max(0, Math.min(255, 8 * Math.round((128 + 330 * (n - 0.5) - 260 * Math.max(0, pit - 0.5)) / 8)));
    bytes.set([v, v, v, 255], (y * SIDE + x) * 4);
  }
}
act({
  do: 'layer.picture',
  name: 'Stone',
  widthPx: SIDE,
  heightPx: SIDE,
  rgba: Buffer.from(zlibSync(bytes, { level: 9 })).toString('base64'),
  fit: 'tile',
  tileMm: 90,
  blend: 'soft-light',
  opacity: 0.4,
});
act({ do: 'layer.move', layer: 'L11', to: 99, group: null });

// last of all: warmer towards the rift, through a mask
act({ do: 'layer.add', kind: 'adjust', name: 'Warmer', adjust: { kind: 'warmth', warmth: 0.35, tint: 0.06 } });
act({ do: 'layer.mask', layer: 'L12', how: 'hide' });
act({ do: 'tool', tool: 'spray', sizeMm: 90, strength: 0.9, grey: 1 });
stroke(
  [
    [0.1, 0.3],
    [0.5, 0.28],
    [0.9, 0.32],
  ],
  0.6,
);
stroke(
  [
    [0.2, 0.36],
    [0.6, 0.38],
  ],
  0.5,
);
act({ do: 'layer.choose', layer: 'L6' });

save('demo/studies/layered.json', { seed: 21, surface: 'linen-fine', tone: { PW6: 3, PY43: 2, PBr7BS: 1.2 } });
