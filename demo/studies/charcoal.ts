/** "Low tide" in charcoal on velour paper: masses with the side, rubbed; lights lifted with the dough; blacks last. */
import { noise2 } from '@/core/surface/noise';
import { along, BOATHOUSE, DINGHY, HEADLAND, HORIZON, POOLS, POSTS } from '../scene';
import { dryHand, type Stick } from '../dryHand';
import type { Inside, Place } from '../shapes';

const W = 200;
const { random, hatch, line, dab, fix, blow, save } = dryHand(61, W, 150);
const mm = (x: number, y: number): Place => [x * W, y * W];
const willow = (sizeMm: number, hold: Stick['hold'] = 'flat'): Stick => ({ tool: 'charcoal', sizeMm, hold });
const black = (sizeMm: number, hold: Stick['hold'] = 'tip'): Stick => ({ tool: 'charcoal-pressed', sizeMm, hold });
const finger = (sizeMm: number): Stick => ({ tool: 'finger', sizeMm });
const dough = (sizeMm: number): Stick => ({ tool: 'eraser-kneaded', sizeMm });
const chalk = (sizeMm: number, hold: Stick['hold'] = 'edge'): Stick => ({ tool: 'chalk', sizeMm, hold });

const inBoat: Inside = (x, y) => {
  const u = x / W;
  return u > DINGHY.left && u < DINGHY.right && y / W > along(DINGHY.far, u) && y / W < along(DINGHY.keel, u);
};
const hull: Inside = (x, y) => inBoat(x, y) && y / W > along(DINGHY.near, x / W);
const well: Inside = (x, y) =>
  inBoat(x, y) && y / W < along(DINGHY.near, x / W) - 0.002 && y / W > along(DINGHY.far, x / W) + 0.004;
const inPool: Inside = (x, y) =>
  POOLS.some((p) => ((x / W - p.x) / p.rx) ** 2 + ((y / W - p.y - p.slope * (x / W - p.x)) / (p.ry * 1.15)) ** 2 < 1);

// the whole in three tones: sky light and rubbed, land a half tone, mud darker in front
hatch(willow(18), (_, y) => y < HORIZON * W, {
  angle: -7,
  every: 8,
  pressure: (x, y) => 0.06 + 0.4 * noise2(x / 60, y / 16, 3) * (1 - y / 110),
  ragged: 14,
  longest: 80,
});
hatch(finger(18), (_, y) => y < HORIZON * W - 2, { angle: -5, every: 6, pressure: 0.6, ragged: 12, longest: 70 });
blow();
hatch(willow(14), (x, y) => y > 0.352 * W && !inPool(x, y) && !inBoat(x, y), {
  angle: 3,
  every: 5.5,
  pressure: (x, y) => 0.12 + 0.26 * noise2(x / 30, y / 9, 4) + (0.16 * (y - 70)) / 80,
  ragged: 9,
  longest: 60,
});
hatch(finger(12), (x, y) => y > 0.36 * W && !inPool(x, y) && !inBoat(x, y), {
  angle: 4,
  every: 6,
  pressure: 0.55,
  ragged: 12,
  longest: 60,
});
hatch(willow(10), (x, y) => y > 0.36 * W && !inPool(x, y) && !inBoat(x, y), {
  angle: 1,
  every: 6,
  pressure: (x, y) => 0.5 * noise2(x / 16, y / 5, 6) - 0.06,
  ragged: 10,
  longest: 36,
});
// headland and boathouse
const land: Inside = (x, y) =>
  y / W > along(HEADLAND, x / W) - 0.004 * noise2(x / 6, 1, 2) &&
  y < HORIZON * W + 0.6 &&
  !(x / W > BOATHOUSE.left && x / W < BOATHOUSE.right && y / W > BOATHOUSE.eaves);
hatch(black(7, 'flat'), land, { angle: 2, every: 2, pressure: (x) => 0.28 + 0.25 * (x / W), ragged: 2, longest: 40 });
hatch(
  black(4),
  (x, y) => {
    const b = BOATHOUSE;
    const r = (y / W - b.ridge) / (b.eaves - b.ridge);
    return r > 0 && r < 1 && x / W > b.left - 0.006 * r && x / W < b.right + 0.006 * r;
  },
  { angle: 0, every: 1, pressure: 0.6, ragged: 0.3, shake: 0.1 },
);
fix();

// water: left light, its edge and ripples with the point
for (let k = 0; k < 26; k++) {
  const y = (HORIZON + 0.006 + 0.036 * random()) * W;
  const x = W * random();
  line(
    willow(4, 'edge'),
    [
      [x, y],
      [x + 8 + 16 * random(), y + 0.3],
    ],
    (s) => 0.35 * Math.sin(Math.PI * s),
    0.2,
  );
}
for (const p of POOLS.slice(2)) {
  const edge = (k: number): Place =>
    mm(p.x + p.rx * Math.cos(k), p.y + p.slope * p.rx * Math.cos(k) + p.ry * Math.sin(k));
  line(
    black(4, 'edge'),
    Array.from({ length: 12 }, (_, i) => edge(Math.PI + (Math.PI * i) / 11)),
    (s) => 0.5 * Math.sin(Math.PI * s) + 0.1,
    0.4,
  );
}

// the dinghy: planes, then planks
hatch(willow(9), hull, {
  angle: 14,
  every: 3,
  pressure: (x, y) => 0.12 + 0.5 * ((y / W - along(DINGHY.near, x / W)) / 0.09) + 0.25 * (x / W - 0.5),
  ragged: 1.5,
  longest: 34,
});
hatch(finger(7), hull, { angle: 12, every: 5, pressure: 0.4, ragged: 4, longest: 20 });
hatch(black(6, 'flat'), well, {
  angle: 8,
  every: 1.8,
  pressure: (_, y) => 0.55 + 0.01 * (y - 85),
  ragged: 1,
  longest: 26,
});
for (const share of [0.24, 0.48, 0.72]) {
  line(
    black(4, 'edge'),
    Array.from({ length: 14 }, (_, i): Place => {
      const u = 0.437 + (0.385 * i) / 13;
      return mm(u, along(DINGHY.near, u) * (1 - share) + along(DINGHY.keel, u) * share);
    }),
    (s) => 0.25 + 0.35 * Math.sin(Math.PI * s),
    0.3,
  );
}
const under: Inside = (x, y) => {
  const u = x / W;
  return (
    u > 0.45 &&
    u < 0.85 &&
    y / W > along(DINGHY.keel, Math.min(u, 0.81)) - 0.002 &&
    y / W < along(DINGHY.keel, Math.min(u, 0.81)) + 0.03 * Math.sin(Math.PI * Math.min(1, (u - 0.43) / 0.42)) ** 0.5
  );
};
hatch(black(7, 'flat'), under, { angle: 3, every: 1.8, pressure: 0.75, ragged: 2, longest: 40 });
for (const c of [DINGHY.near, DINGHY.keel])
  line(
    black(4, 'edge'),
    Array.from({ length: 18 }, (_, i): Place => {
      const u = DINGHY.left + ((DINGHY.right - DINGHY.left) * i) / 17;
      return mm(u, along(c, u));
    }),
    (s) => 0.5 + 0.35 * Math.sin(5 * s),
    0.2,
  );
line(
  black(3, 'edge'),
  Array.from({ length: 14 }, (_, i): Place => {
    const u = DINGHY.left + ((DINGHY.right - DINGHY.left) * i) / 13;
    return mm(u, along(DINGHY.far, u));
  }),
  0.4,
  0.2,
);

// posts, dark at the left, their reflections dragged down
for (const p of POSTS) {
  const shape: Inside = (x, y) => {
    const t = (y / W - p.top) / (p.foot - p.top);
    return t > 0 && t < 1 && Math.abs(x / W - p.x - p.lean * (1 - t)) < p.width / 2;
  };
  hatch(black(5), shape, {
    angle: 89,
    every: 0.9,
    pressure: (x) => 0.6 + 0.35 * Math.sign(x / W - p.x),
    ragged: 1.5,
    longest: 40,
    shake: 0.2,
  });
  line(
    willow(p.width * W * 1.6, 'flat'),
    [mm(p.x, p.foot), mm(p.x + 0.004, p.foot + 0.04), mm(p.x + 0.002, p.foot + 0.085)],
    (s) => 0.55 - 0.45 * s,
    1,
  );
  line(finger(5), [mm(p.x, p.foot + 0.01), mm(p.x + 0.004, p.foot + 0.08)], 0.5, 0.4);
}

// lights lifted: a rift in the sky, the water's run, gunwale and thwarts; a few found with chalk
for (let k = 0; k < 9; k++)
  line(
    dough(5 + 4 * random()),
    [
      [40 + 9 * k, 42 - 1.6 * k + 3 * random()],
      [52 + 9 * k, 40.6 - 1.6 * k],
    ],
    (s) => 0.55 * Math.sin(Math.PI * s),
    1,
  );
for (const p of POOLS)
  line(
    dough(p.ry * W * 1.6),
    [mm(p.x - p.rx * 0.8, p.y - p.slope * p.rx * 0.8), mm(p.x, p.y), mm(p.x + p.rx * 0.8, p.y + p.slope * p.rx * 0.8)],
    0.85,
    0.4,
  );
line(
  dough(2),
  Array.from({ length: 12 }, (_, i): Place => {
    const u = 0.44 + (0.37 * i) / 11;
    return mm(u, along(DINGHY.near, u) - 0.002);
  }),
  0.9,
  0.1,
);
line(
  chalk(5),
  Array.from({ length: 12 }, (_, i): Place => {
    const u = 0.46 + (0.3 * i) / 11;
    return mm(u, along(DINGHY.near, u) - 0.0015);
  }),
  (s) => 0.8 * Math.sin(Math.PI * s),
  0.1,
);
for (const q of [0.2, 0.46, 0.72]) {
  const u = DINGHY.left + q * (DINGHY.right - DINGHY.left);
  line(chalk(8, 'tip'), [mm(u, along(DINGHY.far, u) + 0.006), mm(u + 0.012, along(DINGHY.near, u) - 0.008)], 0.55, 0.2);
}
for (const p of POOLS.slice(2, 4))
  line(
    chalk(6),
    [mm(p.x - p.rx * 0.5, p.y + p.ry * 0.3), mm(p.x + p.rx * 0.3, p.y + p.ry * 0.5)],
    (s) => 0.7 * Math.sin(Math.PI * s),
    0.5,
  );
for (let k = 0; k < 18; k++) dab(black(3), 20 + 160 * random(), 104 + 42 * random() ** 1.5, 0.3 + 0.5 * random());
save('demo/studies/charcoal.json', 'paper-velour', 'cream');
