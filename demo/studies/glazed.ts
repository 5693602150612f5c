/**
 * "Low tide" glazed in layers: values first, in umber and white, modelled and dried; then colour in transparent films
 * with much medium, each dried before the next; a scumble over the far shore; a few opaque lights at the end.
 */
import type { Mixture } from '@/core/colour/mixture';
import { along, BOATHOUSE, DINGHY, HEADLAND, HORIZON, POOLS, POSTS, SHINGLE, WATER_EDGE } from '../scene';
import { painter, strake, trace, WIDTH_MM, type Point } from '../painter';

const { entries, random, vary, fromPile, take, load, stroke, dry, save } = painter(53);

/** A grey of the dead layer: 0 dark .. 1 light, warm in the dark. */
const grey = (value: number): Record<string, number> => {
  const v = Math.max(0, Math.min(1, value * vary(1, 0.04)));
  return { PW6: Math.round(1e3 * (0.15 + 16 * v ** 2.2)) / 1e3, PBr7BU: 1, PB29: 0.25, PBk9: 0.05 };
};
const soft = { hair: 'soft' as const };

// --- dead layer: opaque, in values; broad to small
for (let y = 0.02; y < HORIZON; y += 0.034) {
  take('flat', y < 0.2 ? 17 : 12, { body: 0.5, thin: 0.1, blend: 0.35 });
  for (let x = -0.04; x < 1;) {
    const to = x + vary(0.24, 0.3);
    const light = 0.56 + 1.4 * Math.max(0, y - 0.06) - 3.5 * Math.max(0, y - 0.262);
    load(grey(light + 0.07 * (random() - 0.5)), 0.9);
    stroke(
      [
        [x, y + 0.01 * (random() - 0.5)],
        [(x + to) / 2, y + 0.016 * (random() - 0.5)],
        [to, y],
      ],
      0.5,
    );
    x = to - 0.03;
  }
}
take('blender-soft', 22, {});
for (const y of [0.05, 0.11, 0.17, 0.225, 0.27])
  stroke(
    Array.from({ length: 26 }, (_, i): Point => [i * 0.04, y + (i % 2 ? 0.014 : -0.014)]),
    0.35,
  );
entries.push({ do: 'rinse' });
take('filbert', 7, { body: 0.5, thin: 0.1, blend: 0.3 });
for (const [from, to, v] of [
  [0, 0.3, 0.62],
  [0.28, 0.55, 0.56],
  [0.53, 0.8, 0.42],
  [0.76, 1.02, 0.4],
] as const) {
  for (const lower of [0.007, 0.015]) {
    load(grey(v), 1);
    stroke(trace(HEADLAND, from, to, lower), 0.5);
  }
}
for (let y = HORIZON + 0.01; y < 0.76;) {
  const water = y < WATER_EDGE + 0.012;
  const near = Math.max(0, (y - 0.36) / 0.39);
  const size = water ? 8 : 11 + 8 * near;
  take('flat', size, { body: 0.5, thin: 0.1, blend: 0.3 });
  for (let x = -0.04; x < 1;) {
    const to = x + vary(0.2, 0.35);
    load(grey(water ? 0.82 + 0.1 * (random() - 0.5) : 0.58 - 0.16 * near + 0.07 * (random() - 0.5)), 0.9);
    stroke(
      [
        [x, y],
        [to, y + 0.012 * near * (random() - 0.4)],
      ],
      0.5,
    );
    x = to - 0.02;
  }
  y += (size / WIDTH_MM) * 0.62;
}
for (const p of POOLS) {
  take('filbert', Math.max(4, Math.min(9, p.ry * WIDTH_MM)), { body: 0.6, thin: 0.05, blend: 0.2 });
  for (const v of p.ry > 0.016 ? [-0.5, 0, 0.5] : [0]) {
    const half = p.rx * Math.sqrt(1 - v * v) * 0.9;
    for (let x = p.x - half; x < p.x + half - 0.05; x += 0.17) {
      load(grey(0.9 - 0.14 * v), 1.1);
      const at = (q: number) => p.y + v * p.ry * 0.8 + p.slope * (q - p.x);
      stroke(
        [
          [x, at(x)],
          [Math.min(x + 0.18, p.x + half), at(x + 0.18)],
        ],
        (s) => 0.45 * Math.min(1, 0.4 + 4 * s, 0.2 + 3 * (1 - s)),
      );
    }
  }
}
dry();
// dark and light shapes of the boat and posts, over the dry ground tones
for (const p of POSTS) {
  take('filbert', p.width * WIDTH_MM * 1.1, { body: 0.5, thin: 0.05, blend: 0.2 });
  const at = (t: number): Point => [p.x + p.lean * t, p.foot + (p.top - p.foot) * t];
  for (const [from, to] of [
    [0, 0.4],
    [0.32, 0.72],
    [0.62, 1],
  ] as const) {
    load(grey(p.width < 0.012 ? 0.22 : 0.06), 1.4);
    stroke([at(from), at(to)], 0.62);
  }
}
take('filbert', 9, { body: 0.5, thin: 0.05, blend: 0.25 });
load(grey(0.12), 1.2);
stroke(
  [
    [0.47, 0.57],
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
  for (const q of [0.35, 0.75]) {
    load(grey(0.08), 1.2);
    const mid = (x: number): Point => [x, along(DINGHY.near, x) * q + along(DINGHY.far, x) * (1 - q)];
    stroke([mid(from), mid((from + to) / 2), mid(to)], 0.55);
  }
}
take('flat', 8, { body: 0.6, thin: 0, blend: 0.25 });
for (const [share, v] of [
  [0.14, 0.8],
  [0.38, 0.66],
  [0.6, 0.5],
  [0.86, 0.3],
] as const) {
  for (const [from, to] of [
    [0.445, 0.64],
    [0.62, 0.82],
  ] as const) {
    load(grey(v - (from > 0.6 ? 0.06 : 0)), 1.3);
    stroke(strake(share, from, to), 0.5);
  }
}
take('round', 3, { body: 0.8, thin: 0, blend: 0.1 });
for (const [from, to] of [
  [0.432, 0.56],
  [0.54, 0.69],
  [0.67, 0.832],
] as const) {
  load(grey(0.98), 2);
  stroke(trace(DINGHY.near, from, to, -0.002), 0.5);
}
for (const [from, to] of [
  [0.436, 0.62],
  [0.62, 0.826],
] as const) {
  load(grey(0.75), 1.3);
  stroke(trace(DINGHY.far, from, to), 0.4);
}
take('bright', 5.5, { body: 0.7, thin: 0, blend: 0.15 });
for (const q of [0.2, 0.46, 0.72]) {
  const x = DINGHY.left + q * (DINGHY.right - DINGHY.left);
  load(grey(0.7), 1.1);
  stroke(
    [
      [x - 0.006, along(DINGHY.far, x) + 0.012],
      [x + 0.008, along(DINGHY.near, x) - 0.012],
    ],
    0.45,
  );
}
const b = BOATHOUSE;
load(grey(0.74), 1);
stroke(
  [
    [b.left, (b.eaves + b.foot) / 2],
    [b.right, (b.eaves + b.foot) / 2],
  ],
  0.45,
);
load(grey(0.32), 1);
stroke(
  [
    [b.left - 0.003, (b.ridge + b.eaves) / 2],
    [b.right + 0.003, (b.ridge + b.eaves) / 2],
  ],
  0.42,
);
dry();

// --- glazes: transparent, much medium, soft hair
const glaze = (sizeMm: number, mixture: Mixture, thin: number, lines: readonly (readonly Point[])[], amount = 0.5) => {
  take('flat', sizeMm, { ...soft, body: 0.05, thin, blend: 0.3 });
  for (const points of lines) {
    entries.push({ do: 'rinse' });
    load({ ...mixture }, amount);
    stroke(points, 0.5);
  }
};
const across = (from: number, to: number, step: number, x0 = -0.03, x1 = 1.03): Point[][] => {
  const lines: Point[][] = [];
  for (let y = from; y <= to; y += step)
    lines.push([
      [x0, y],
      [(x0 + x1) / 2, y + 0.006 * (random() - 0.5)],
      [x1, y],
    ]);
  return lines;
};
/** Softens wet glazes along heights of the picture. */
const lose = (sizeMm: number, heights: readonly number[]) => {
  take('blender-soft', sizeMm, {});
  for (const y of heights)
    stroke(
      Array.from({ length: 26 }, (_, i): Point => [i * 0.04, y + (i % 2 ? 0.016 : -0.016)]),
      0.3,
    );
  entries.push({ do: 'rinse' });
};
// a cool film over the sky that thins towards the light, ochre in the light, green-brown over the mud
glaze(24, { PB29: 1, PG7: 0.05, PBr7BU: 0.6 }, 0.985, across(0.02, 0.17, 0.05), 0.35);
glaze(20, { PB29: 1, PBr7BU: 0.6 }, 0.992, across(0.19, 0.24, 0.05), 0.3);
glaze(16, { PY43: 1, PR101T: 0.1 }, 0.985, across(0.225, 0.285, 0.03), 0.3);
glaze(9, { PB29: 1, PBr7BU: 0.3, PG7: 0.05 }, 0.982, across(0.312, 0.345, 0.02), 0.3);
lose(22, [0.05, 0.1, 0.15, 0.2, 0.25, 0.29]);
glaze(22, { PBr7RS: 1, PY43: 0.7, PBr7BU: 0.5 }, 0.965, across(0.39, 0.75, 0.055), 0.4);
lose(22, [0.4, 0.5, 0.6, 0.7]);
dry();
// the mud again, warm in front; water in the pools; then what is green and what is red
glaze(24, { PBr7BS: 1, PR101T: 0.2, PBr7BU: 0.8 }, 0.975, across(0.52, 0.74, 0.06), 0.35);
lose(24, [0.5, 0.58, 0.68]);
dry();
glaze(
  5,
  { PB29: 1, PBr7BU: 0.2 },
  0.98,
  POOLS.map((p): Point[] => [
    [p.x - p.rx * 0.8, p.y - p.slope * p.rx * 0.8],
    [p.x + p.rx * 0.8, p.y + p.slope * p.rx * 0.8],
  ]),
  0.3,
);
glaze(6, { PB29: 1, PG7: 0.2, PBr7BU: 0.8 }, 0.97, [trace(HEADLAND, 0.45, 1, 0.011)], 0.3);
glaze(
  9,
  { PG7: 1, PY150: 0.35, PBr7BS: 0.5 },
  0.965,
  [strake(0.16, 0.445, 0.82), strake(0.38, 0.45, 0.815), strake(0.6, 0.46, 0.81)],
  0.4,
);
glaze(7, { PR188: 0.8, PBr7BS: 1 }, 0.93, [strake(0.87, 0.47, 0.805)], 0.45);
glaze(4, { PY43: 1, PBr7BS: 0.3 }, 0.95, [trace(DINGHY.near, 0.43, 0.83, -0.002), trace(DINGHY.far, 0.44, 0.82)], 0.3);
dry();
glaze(
  8,
  { PB29: 1, PBr7BU: 1.4 },
  0.965,
  [
    strake(0.7, 0.58, 0.815),
    strake(0.95, 0.5, 0.8),
    [
      [0.5, 0.6],
      [0.66, 0.618],
      [0.86, 0.585],
    ],
  ],
  0.4,
);
dry();
// --- scumble of light over the far shore, and opaque lights last
take('filbert', 10, { body: 0.7, thin: 0.5, blend: 0.3, strength: 0.4 });
load(fromPile('skyLight'), 0.1);
stroke(trace(HEADLAND, 0, 0.5, 0.006), 0.16);
take('filbert', 2.4, { body: 0.8, thin: 0, blend: 0.1 });
for (const [x, y, w] of [
  [0.08, 0.39, 0.08],
  [0.47, 0.364, 0.1],
  [0.13, 0.645, 0.08],
  [0.6, 0.658, 0.07],
  [0.2, 0.318, 0.1],
] as const) {
  load(fromPile('rift'), 1.1);
  stroke(
    [
      [x, y],
      [x + w, y - 0.001],
    ],
    0.36,
  );
}
take('filbert', 4, { body: 0.85, thin: 0, blend: 0.1 });
for (let x = 0.02; x < 0.34; x += 0.05) {
  load(fromPile('shingle'), 0.7);
  stroke(
    [
      [x, along(SHINGLE, x) + 0.01],
      [x + 0.03, along(SHINGLE, x + 0.03) + 0.011],
    ],
    0.35,
  );
}
take('rigger', 1.4, { body: 0.4, thin: 0.2, blend: 0.1 });
load(fromPile('rope'), 1.2);
stroke(
  [
    [0.432, 0.431],
    [0.38, 0.469],
    [0.31, 0.487],
    [0.24, 0.467],
    [0.2, 0.433],
  ],
  0.4,
);
dry();

save('demo/studies/glazed.json', { seed: 13, surface: 'linen-fine', tone: { PW6: 4, PY43: 2, PBr7BU: 1 } });
