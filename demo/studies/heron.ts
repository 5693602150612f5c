/**
 * A grey heron in pastel on toned laid paper: the drawing in charcoal, the ground let in by hard pastels and rubbed,
 * the bird in planes of soft pastel from dark to light, its edges found at beak and eye, lost down the neck.
 */
import { noise1, noise2 } from '@/core/surface/noise';
import { dryHand, type Stick } from '../dryHand';
import { BEAK, EYE, HEAD, inPolygon, NECK, onHead, onNeck, SHOULDER, STRIPE } from '../heron';
import type { Inside, Place } from '../shapes';

const W = 200;
const H = 150;
const { random, hatch, line, dab, fix, blow, save } = dryHand(83, W, H);
const mm = ([x, y]: readonly [number, number, ...number[]]): Place => [x * W, y * W];
const in1 =
  (points: readonly (readonly [number, number])[]): Inside =>
  (x, y) =>
    inPolygon(points, x / W, y / W);
const neck =
  (test: (down: number, across: number) => boolean): Inside =>
  (x, y) => {
    const at = onNeck(x / W, y / W);
    return at !== undefined && !onHead(x / W, y / W) && !in1(SHOULDER)(x, y) && test(at.down, at.across);
  };
const bird: Inside = (x, y) => {
  const [u, v] = [x / W, y / W];
  return (
    onHead(u, v) ||
    inPolygon(BEAK, u, v) ||
    inPolygon(STRIPE, u, v) ||
    inPolygon(SHOULDER, u, v) ||
    onNeck(u, v) !== undefined
  );
};
const soft = (mixture: Record<string, number>, sizeMm = 8, hold: Stick['hold'] = 'flat'): Stick => ({
  tool: 'pastel-soft',
  sizeMm,
  mixture,
  hold,
});
const hard = (mixture: Record<string, number>, sizeMm = 9, hold: Stick['hold'] = 'flat'): Stick => ({
  tool: 'pastel-hard',
  sizeMm,
  mixture,
  hold,
});
const finger = (sizeMm: number): Stick => ({ tool: 'finger', sizeMm });
const charcoal: Stick = { tool: 'charcoal', sizeMm: 5, hold: 'tip' };

const DEEP = { PG7: 0.5, PBr7BU: 3, PBk9: 0.8, PW6: 2 };
const REEDS = { PY43: 3, PBr7RU: 1.2, PW6: 3 };
const WATER = { PB29: 1, PBk9: 0.25, PBr7RU: 1, PW6: 9 };
const BLUE = { PB29: 1.6, PBr7BU: 0.7, PW6: 9 };
const SHADE = { PB29: 1, PBr7BU: 0.7, PW6: 5 };
const PALE = { PW6: 14, PB29: 0.5, PBr7RU: 0.4 };
const WHITE = { PW6: 24, PY43: 0.6 };
const INK = { PBk9: 3, PB29: 2, PBr7BU: 1 };

// the drawing: outline of the bird, light
line(
  charcoal,
  NECK.map(([x, y, h], i) => mm([x - h * (i < 2 ? 0.3 : 0.9), y + (i < 2 ? h * 0.8 : 0)])),
  (s) => 0.2 + 0.15 * Math.sin(9 * s),
);
line(
  charcoal,
  NECK.map(([x, y, h]) => mm([x + h * 0.9, y])),
  (s) => 0.2 + 0.15 * Math.sin(7 * s),
);
line(charcoal, [...BEAK, BEAK[0]].map(mm), 0.3, 0.1);
line(
  charcoal,
  Array.from({ length: 16 }, (_, i) =>
    mm([HEAD.x + HEAD.rx * Math.cos(i * 0.35 + 2.6), HEAD.y + HEAD.ry * Math.sin(i * 0.35 + 2.6)]),
  ),
  0.25,
);
line(charcoal, SHOULDER.slice(0, 6).map(mm), 0.3);

// behind: dark greens with the side, strokes leaning, denser to the left below; rubbed in; then reeds over it
const beside: Inside = (x, y) => !bird(x, y);
hatch(hard(DEEP, 13), beside, {
  angle: 68,
  every: 7.5,
  pressure: (x, y) => 0.3 + 0.4 * noise2(x / 46, y / 40, 5) + 0.12 * (y / H),
  ragged: 9,
  longest: 70,
});
hatch(hard(WATER, 12), (x, y) => beside(x, y) && y < 62 + 20 * noise2(x / 40, 2, 6), {
  angle: 12,
  every: 8,
  pressure: (x, y) => 0.4 * noise2(x / 34, y / 20, 7) + 0.14,
  ragged: 12,
  longest: 60,
});
hatch(finger(15), beside, { angle: 74, every: 9, pressure: 0.42, ragged: 10, longest: 48 });
blow();
hatch(hard(DEEP, 10), (x, y) => beside(x, y) && (x < 64 || y > 92), {
  angle: 82,
  every: 8,
  pressure: (x, y) => 0.5 * noise2(x / 30, y / 44, 9),
  ragged: 16,
  longest: 46,
});
for (const x of [14, 26, 31, 64, 70, 74, 128, 136, 141, 149, 168, 176, 190]) {
  const lean = 6 * (random() - 0.5);
  const top = 8 + 70 * random();
  const places = Array.from({ length: 9 }, (_, i): Place => [x + (lean * i) / 8, H + 4 - ((H + 4 - top) * i) / 8]);
  const free = places.filter(([px, py]) => beside(px, py) && beside(px + 2, py) && beside(px - 2, py));
  if (free.length > 2)
    line(soft(REEDS, 6 + 5 * random(), random() < 0.5 ? 'edge' : 'tip'), free, (s) => 0.65 - 0.4 * s, 1.2);
}

// darks of the bird: the shadow side of the neck, the shoulder, under the head
hatch(
  hard(SHADE, 7),
  neck((d, a) => a > 0.1 || d < 0.16),
  { angle: 68, every: 3.4, pressure: 0.62, ragged: 2, longest: 22 },
);
hatch(hard({ PB29: 2, PBr7BU: 2, PBk9: 0.4, PW6: 2.4 }, 10), in1(SHOULDER), {
  angle: 24,
  every: 3.4,
  pressure: 0.85,
  ragged: 3,
  longest: 40,
});
hatch(
  finger(7),
  neck((_, a) => a > -0.2 && a < 0.7),
  { angle: 80, every: 5, pressure: 0.4, ragged: 3, longest: 20 },
);
fix();

// half tones and lights: short strokes down the neck, turning with it
hatch(
  soft(BLUE, 6),
  neck((_, a) => a > -0.3 && a < 0.62),
  { angle: 76, every: 3, pressure: (x, y) => 0.28 + 0.3 * noise2(x / 7, y / 12, 3), ragged: 3, longest: 14 },
);
hatch(
  soft(PALE, 5),
  neck((d, a) => a < 0.28 && d > 0.1),
  { angle: 72, every: 2.5, pressure: (x, y) => 0.3 + 0.42 * noise2(x / 6, y / 11, 4), ragged: 3, longest: 13 },
);
hatch(
  soft(WHITE, 4.5),
  neck((d, a) => a < -0.12 - 0.12 * Math.sin(d * 9) && d > 0.06),
  { angle: 74, every: 2.3, pressure: (x, y) => 0.5 + 0.4 * noise2(x / 5, y / 9, 8), ragged: 2.4, longest: 12 },
);
// the head: shade below, white on crown and cheek
hatch(soft(SHADE, 4), (x, y) => onHead(x / W, y / W) && y / W > HEAD.y + 0.35 * HEAD.ry, {
  angle: 14,
  every: 1.9,
  pressure: 0.5,
  ragged: 1.4,
  longest: 12,
});
hatch(soft(PALE, 4), (x, y) => onHead(x / W, y / W) && y / W > HEAD.y - 0.1 * HEAD.ry, {
  angle: 8,
  every: 1.9,
  pressure: 0.5,
  ragged: 1.4,
  longest: 11,
});
hatch(soft(WHITE, 4), (x, y) => onHead(x / W, y / W) && y / W < HEAD.y + 0.3 * HEAD.ry && !in1(STRIPE)(x, y), {
  angle: 4,
  every: 1.7,
  pressure: 0.75,
  ragged: 1,
  longest: 10,
});

// shoulder: plumes, dark between, pale edges, long strokes that follow them
hatch(soft(BLUE, 8), in1(SHOULDER), {
  angle: 26,
  every: 4.4,
  pressure: (x, y) => 0.2 + 0.4 * noise2(x / 9, y / 7, 14),
  ragged: 5,
  longest: 24,
});
for (let k = 0; k < 26; k++) {
  const x = 132 + 64 * random();
  const y = 121 + 26 * random();
  if (!in1(SHOULDER)(x, y)) continue;
  const far = 10 + 12 * random();
  const dark = k % 3 === 0;
  line(
    soft(dark ? INK : PALE, 9, 'edge'),
    [
      [x, y],
      [x + far * 0.5, y + far * 0.18],
      [x + far, y + far * 0.44],
    ],
    (s) => (dark ? 0.8 : 0.9) * Math.sin(Math.PI * (0.15 + 0.8 * s)),
    0.6,
  );
}

// the tooth is full: fixed, it takes accents again
fix();

// the black: stripe and plume, then the streaks of the throat, broken
hatch(soft(INK, 4, 'tip'), in1(STRIPE), {
  angle: 28,
  every: 0.9,
  pressure: 0.85,
  ragged: 0.4,
  longest: 26,
  shake: 0.15,
});
line(
  soft(INK, 4, 'edge'),
  [
    [133, 60],
    [144, 69],
    [151, 77],
  ],
  (s) => 0.9 - 0.7 * s,
  0.4,
);
for (let k = 0; k < 30; k++) {
  const down = 0.32 + 0.62 * (k / 30) + 0.02 * random();
  const i = Math.min(NECK.length - 2, Math.floor(down * (NECK.length - 1)));
  const t = down * (NECK.length - 1) - i;
  const [x, y, half] = NECK[i].map((v, j) => v + (NECK[i + 1][j] - v) * t);
  const across = -0.28 - 0.24 * noise1(k * 0.7, 31) + 0.1 * (k % 2);
  const [px, py] = [(x + across * half) * W, y * W];
  line(
    soft(INK, 9, 'edge'),
    [
      [px, py],
      [px - 0.8 + 0.6 * random(), py + 2.4 + 3.4 * random()],
    ],
    (s) => 0.95 - 0.5 * s,
    0.2,
  );
}

// the beak: ochre over grey, a light along its ridge, the gape dark; the eye last
hatch(soft({ PBr7RU: 2, PY43: 1, PW6: 3 }, 3), in1(BEAK), {
  angle: -8,
  every: 1.2,
  pressure: 0.7,
  ragged: 0.6,
  longest: 30,
  shake: 0.1,
});
const below: Inside = (x, y) => in1(BEAK)(x, y) && y / W > 0.262 - 0.1 * (x / W - 0.16);
hatch(soft({ PY37: 2, PY43: 2, PW6: 3 }, 3), below, {
  angle: -4,
  every: 1,
  pressure: 0.8,
  ragged: 0.4,
  longest: 30,
  shake: 0.1,
});
line(
  soft({ PW6: 8, PY43: 1.4 }, 3, 'edge'),
  [
    [81, 40.8],
    [67, 44],
    [44, 50],
  ],
  (s) => 0.8 - 0.5 * s,
  0.15,
);
line(
  soft(INK, 7, 'edge'),
  [
    [33, 52.3],
    [50, 50.6],
    [66, 49],
    [83, 47.4],
  ],
  (s) => 0.4 + 0.5 * s,
  0.12,
);
line(
  soft(INK, 2.4, 'edge'),
  [
    [58, 45.2],
    [63, 44.6],
  ],
  0.7,
  0.1,
);
const [ex, ey] = [EYE.x * W, EYE.y * W];
hatch(soft(INK, 3, 'tip'), (x, y) => Math.hypot(x - ex, y - ey) < 3.4, {
  angle: 20,
  every: 0.6,
  pressure: 0.8,
  ragged: 0,
  shake: 0.05,
});
fix();
hatch(soft({ PY37: 4, PW6: 1 }, 3, 'tip'), (x, y) => Math.hypot(x - ex, y - ey) < 2.5, {
  angle: 70,
  every: 0.5,
  pressure: 0.95,
  ragged: 0,
  shake: 0.05,
});
fix();
for (let k = 0; k < 3; k++) dab(soft(INK, 6, 'tip'), ex - 0.2, ey + 0.1 * k, 1);
fix();
for (let k = 0; k < 3; k++) dab(soft({ PW6: 1 }, 2.4, 'tip'), ex - 0.9, ey - 0.8, 1);
// lights found again: brow, throat, a rim on the plume and the back of the neck
line(
  soft(WHITE, 5, 'edge'),
  [
    [83.5, 38.3],
    [92, 34.6],
    [103, 33.4],
  ],
  (s) => 0.85 - 0.4 * s,
  0.2,
);
line(
  soft(WHITE, 5, 'edge'),
  [
    [85, 50.4],
    [92, 54.6],
    [101, 57.4],
  ],
  (s) => 0.6 * Math.sin(Math.PI * s) + 0.1,
  0.3,
);
line(
  soft(PALE, 5, 'edge'),
  NECK.slice(4, 8).map(([x, y, h]) => mm([x - h * 0.93, y])),
  (s) => 0.75 * Math.sin(Math.PI * s),
  0.4,
);
save('demo/studies/heron.json', 'paper-laid', 'moss');
