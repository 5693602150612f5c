/**
 * Two mussel shells in glazes on hot-pressed paper, as in a book of plants and shells: each glaze is laid into a form
 * wetted with clear water, so that it turns softly inside a found edge; lines of growth are hard outwards, let down inwards.
 */
import { noise1 } from '@/core/surface/noise';
import { INSIDE, onValve, OUTSIDE, valvePoint, type Valve } from '../shells';
import type { Inside } from '../shapes';
import { waterHand, type Brush, type Place } from '../waterHand';

const { take, stroke, line, lay, wait, dry, save } = waterHand(58, 150, 115);

// the valves as they are on the photo, drawn larger and nearer to each other, lengths in mm
const outer: Valve = { ...OUTSIDE, beak: [13, 86], long: 84, turn: -13 };
const inner: Valve = { ...INSIDE, beak: [142, 27], long: 54, turn: 161 };

const on =
  (v: Valve, test: (growth: number, side: number) => boolean = () => true): Inside =>
  (x, y) => {
    const place = onValve(v, x, y);
    return place !== undefined && test(place.growth, place.side);
  };
/** Along a rim of growth from one side to the other. */
const rim = (v: Valve, growth: number, from: number, to: number, n = 20): Place[] =>
  Array.from({ length: n + 1 }, (_, i) => valvePoint(v, growth, from + ((to - from) * i) / n));
/** From the beak outwards on one side. */
const ray = (v: Valve, side: number, from: number, to: number, n = 16): Place[] =>
  Array.from({ length: n + 1 }, (_, i) => valvePoint(v, from + ((to - from) * i) / n, side));
const swell = (s: number) => 0.15 + 0.7 * Math.sin(Math.PI * s);

const round = (sizeMm: number, mixture: Record<string, number>, amount: number, water = 0.66): Brush => ({
  tool: 'wash-round',
  sizeMm,
  mixture,
  amount,
  water,
});
const clear = (sizeMm: number, water = 0.6): Brush => ({ tool: 'mop', sizeMm, mixture: {}, water });

const SLATE = { PB29: 2.2, PBr7BS: 1.3 };
const BLUE = { PB29: 3, PBr7BU: 0.7, PB15_3: 0.05 };
const BLACK = { PB29: 2, PBr7BU: 1.9, PV19: 0.06 };
const VIOLET = { PB29: 2, PV19: 0.5, PBr7BU: 0.7 };
const RUST = { PBr7BS: 2, PBr7BU: 1, PY43: 0.5 };

// a light pencil outline
take('graphite', 0.35);
for (const v of [outer, inner]) {
  stroke(rim(v, 1, -0.995, 0.995, 44), (s) => 0.12 + 0.14 * noise1(s * 9, 3), 70, 0.12);
  for (const side of [-0.995, 0.995]) stroke(ray(v, side, 0.02, 0.5), 0.14, 70, 0.12);
}

// the shadows on the table: found where the shells touch it, let down away from them
for (const [v, dx, dy, q] of [
  [outer, 4.5, 5, 0.36],
  [inner, 3, 4.4, 0.3],
] as const) {
  const shape: Inside = (x, y) => !onValve(v, x, y) && onValve(v, x - dx, y - dy) !== undefined;
  lay(shape, round(2.2, { PB29: 2, PBr7BS: 1.5, PY43: 0.2 }, q), round(3, { PB29: 2, PBr7BS: 1.5, PY43: 0.2 }, q));
  const below = [...ray(v, -0.97, 0.12, 0.97), ...rim(v, 1, -0.97, v === outer ? 0.35 : -0.5).slice(1)];
  line(
    clear(4.4, 0.48),
    below.map(([x, y]): Place => [x + dx * 1.2, y + dy * 1.3]),
    0.75,
    140,
    0.5,
  );
  wait(6);
  dry();
}

/** Wets a valve with clear water up to its edge. */
const wet = (v: Valve) => lay(on(v), { ...clear(2.6), tool: 'wash-round' }, clear(6), { speed: 300 });

// outside, first glaze: a pale slate blue, the light along the shoulder left, rust run in at the beak
const shoulder = (growth: number, side: number) =>
  Math.exp(-(((side - 0.52 - 0.06 * Math.sin(9 * growth)) / 0.19) ** 2)) *
  Math.min(1, growth * 2.4) *
  (growth < 0.9 ? 1 : (1 - growth) * 10);
wet(outer);
lay(
  on(outer, (g, s) => shoulder(g, s) < 0.5),
  round(2.6, SLATE, 0.45, 0.6),
  { ...round(5.5, SLATE, 0.5, 0.6), tool: 'mop' },
  { speed: 320 },
);
line(
  round(4, RUST, 0.6, 0.5),
  [valvePoint(outer, 0.05, 0), valvePoint(outer, 0.17, 0.1), valvePoint(outer, 0.3, 0.15)],
  (s) => 0.8 - 0.5 * s,
  80,
  0.5,
);
wait(8);
dry();

// second: the form turns: blue along the straight side and the far end, drawn into the wet with less and less water
wet(outer);
for (const [side, from, to, size, amount] of [
  [-0.78, 0.06, 0.96, 4, 1.1],
  [-0.45, 0.12, 0.97, 5, 1],
  [-0.1, 0.22, 0.97, 5, 0.85],
  [0.16, 0.4, 0.95, 4, 0.6],
  [0.86, 0.24, 0.8, 2.4, 0.8],
] as const)
  line({ ...round(size, BLUE, amount, 0.5), tool: 'mop' }, ray(outer, side, from, to), swell, 150, 0.6);
line({ ...round(4.5, BLUE, 1, 0.5), tool: 'mop' }, rim(outer, 0.95, -0.7, 0.62), (s) => 0.35 + 0.5 * (1 - s), 150, 0.5);
line({ ...round(4, BLUE, 0.85, 0.5), tool: 'mop' }, rim(outer, 0.85, -0.6, 0.25), swell, 150, 0.5);
wait(10);
dry();

// third: years of growth, each a line of dark that is hard outwards and let down towards the beak while it is wet
for (const [growth, from, to, wide, amount] of [
  [0.34, -0.9, 0.6, 1.6, 0.8],
  [0.5, -0.9, 0.66, 2, 1],
  [0.64, -0.92, 0.5, 1.8, 0.8],
  [0.76, -0.93, 0.72, 2.6, 1.1],
  [0.86, -0.93, 0.6, 1.8, 0.9],
  [0.94, -0.94, 0.84, 2, 1],
] as const) {
  line(
    round(wide, BLACK, amount, 0.6),
    rim(outer, growth, from, to),
    (s) => 0.02 + 0.85 * Math.sin(Math.PI * s) ** 0.7 * (0.6 + 0.6 * noise1(s * 7, Math.round(growth * 99))),
    110,
    0.3,
  );
  line(
    { ...clear(wide * 1.9, 0.46), tool: 'wash-round' },
    rim(outer, growth - (0.62 * wide + 1) / 92, from + 0.06, to - 0.06),
    0.75,
    130,
    0.3,
  );
  wait(2);
}
dry();

// fourth: the darks of the straight side and the foot of the shell, wet into wet; a thin violet over the far end
wet(outer);
line(round(3.6, BLACK, 1.7, 0.46), ray(outer, -0.86, 0.05, 0.985), (s) => 0.35 + 0.5 * Math.sin(Math.PI * s), 120, 0.4);
line(round(4.6, BLACK, 1.5, 0.46), ray(outer, -0.6, 0.2, 0.97), swell, 130, 0.5);
line(round(4.2, BLACK, 1.35, 0.46), rim(outer, 0.965, -0.8, 0.2), (s) => 0.75 - 0.4 * s, 120, 0.4);
line(round(4.4, BLACK, 1.1, 0.46), ray(outer, -0.2, 0.45, 0.96), swell, 130, 0.6);
line({ ...round(5, VIOLET, 0.7, 0.5), tool: 'mop' }, rim(outer, 0.78, 0.7, -0.1), swell, 150, 0.5);
line(round(2.2, RUST, 0.9, 0.44), [valvePoint(outer, 0.04, -0.2), valvePoint(outer, 0.16, -0.5)], 0.7, 70, 0.2);
wait(10);
dry();

// hair lines of growth, found and lost
const hair: Brush = { tool: 'wash-rigger', sizeMm: 0.34, mixture: BLACK, amount: 0.6, water: 0.45 };
for (const [k, growth] of [0.22, 0.3, 0.4, 0.45, 0.56, 0.6, 0.69, 0.73, 0.81, 0.9, 0.97].entries()) {
  const from = -0.9 + 0.3 * noise1(k, 71);
  line(
    hair,
    rim(outer, growth, from, 0.3 + 0.5 * noise1(k, 72)),
    (s) => 0.5 * Math.max(0, Math.sin(Math.PI * s)) * (0.35 + 0.9 * noise1(s * 11, k)),
    70,
    0.2,
  );
}
dry();

// inside: nacre is nearly the paper; violet comes in from the rim, blue under the upper side, warm at the beak
wet(inner);
for (const [growth, from, to, size, amount] of [
  [0.97, -0.8, 0.92, 2.6, 0.9],
  [0.9, -0.6, 0.86, 3.4, 0.7],
  [0.78, -0.9, -0.3, 3, 0.4],
] as const)
  line(round(size, VIOLET, amount, 0.46), rim(inner, growth, from, to), (s) => 0.4 + 0.5 * noise1(s * 6, 14), 120, 0.4);
line(round(3, { PB29: 2, PB15_3: 0.06, PBr7BU: 0.4 }, 0.4, 0.46), ray(inner, 0.86, 0.2, 0.9), swell, 120, 0.4);
line(round(3.4, SLATE, 0.5, 0.46), ray(inner, 0.5, 0.3, 0.8), swell, 120, 0.4);
line(round(2.6, { PY43: 1, PBr7BS: 0.6 }, 0.3, 0.46), ray(inner, 0, 0.06, 0.36), (s) => 0.7 - 0.4 * s, 90, 0.4);
wait(10);
dry();
// the scar of the muscle, one edge found
const scar: Inside = on(inner, (g, s) => Math.hypot((g - 0.7) / 0.12, (s - 0.4) / 0.26) < 1);
lay(scar, round(1.8, SLATE, 0.3, 0.62), round(2.6, SLATE, 0.3, 0.62));
line({ ...clear(3, 0.44), tool: 'wash-round' }, rim(inner, 0.62, 0.1, 0.66, 8), 0.7, 90, 0.2);
wait(3);
dry();
// its rim: a dark lip, broken where the light strikes it
line(
  round(1.1, BLACK, 1.05, 0.56),
  rim(inner, 0.985, -0.94, 0.97, 30),
  (s) => Math.max(0.06, 0.2 + 0.7 * noise1(s * 5, 44) * Math.sin(Math.PI * (0.1 + 0.8 * s))),
  60,
  0.12,
);
line({ ...hair, sizeMm: 0.5 }, ray(inner, -0.985, 0.06, 0.85), (s) => 0.2 + 0.3 * noise1(s * 6, 45), 60, 0.12);
// the lower edge of the outside found again
line(
  { ...hair, sizeMm: 0.7, amount: 1 },
  ray(outer, -0.985, 0.03, 0.92),
  (s) => 0.2 + 0.5 * Math.sin(Math.PI * s),
  60,
  0.12,
);
dry();

// the colours as they were mixed, tried out at the foot of the sheet
for (const [k, mixture] of [SLATE, BLUE, VIOLET, RUST, BLACK].entries()) {
  const x = 14 + 11 * k;
  line(
    round(4.2, mixture, 0.8, 0.7),
    [
      [x, 102.5],
      [x + 5.5, 102.2],
    ],
    (s) => 0.9 - 0.2 * s,
    60,
    0.3,
  );
  line(
    { ...clear(3.6, 0.5), tool: 'wash-round' },
    [
      [x + 5, 103.8],
      [x + 1, 105.4],
    ],
    0.8,
    60,
    0.2,
  );
}
wait(6);
dry();
save('demo/studies/mussel.json', 'paper-hot', 'white');
