/** A mussel shell in glazes on hot-pressed paper: one clear colour after another, each on dry paper, the edge found. */
import { noise2 } from '@/core/surface/noise';
import { type Inside } from '../shapes';
import { waterHand, type Brush, type Place } from '../waterHand';

const { take, stroke, line, load, lay, drop, wait, dry, save } = waterHand(58, 150, 115);

const TURN = -0.2;
const HINGE: Place = [24, 74];
const LONG = 108;

/** A place on the shell: a share of the way from hinge to rim, and of the way across, -1 above .. 1 below. */
function at(t: number, across: number, grow = 1): Place {
  const swell = Math.sin(Math.PI * Math.pow(t, 0.78)) ** 0.72;
  const half = across < 0 ? 21 * swell * (0.62 + 0.55 * t) : 23 * swell * (0.5 + 0.25 * t);
  const bow = -7 * Math.sin(Math.PI * t * 0.9) * (across < 0 ? 1 : 0.6);
  const [x, y] = [t * LONG * grow, (bow + across * half) * grow];
  return [HINGE[0] + x * Math.cos(TURN) - y * Math.sin(TURN), HINGE[1] + x * Math.sin(TURN) + y * Math.cos(TURN)];
}
/** The same the other way round. */
function within(x: number, y: number, grow = 1): { t: number; across: number } | undefined {
  const [dx, dy] = [x - HINGE[0], y - HINGE[1]];
  const t = (dx * Math.cos(TURN) + dy * Math.sin(TURN)) / (LONG * grow);
  if (t < 0.004 || t > 0.996) return undefined;
  const v = (-dx * Math.sin(TURN) + dy * Math.cos(TURN)) / grow;
  const swell = Math.sin(Math.PI * Math.pow(t, 0.78)) ** 0.72;
  const up = (v + 7 * Math.sin(Math.PI * t * 0.9)) / (21 * swell * (0.62 + 0.55 * t));
  const down = (v + 4.2 * Math.sin(Math.PI * t * 0.9)) / (23 * swell * (0.5 + 0.25 * t));
  const across = up < 0 ? up : down > 0 ? down : 0;
  return Math.abs(across) <= 1 ? { t, across } : undefined;
}
const shell: Inside = (x, y) => within(x, y) !== undefined;
const where =
  (test: (t: number, across: number) => boolean): Inside =>
  (x, y) => {
    const place = within(x, y);
    return place !== undefined && test(place.t, place.across);
  };
/** A growth line: the rim of the shell of an earlier year, smaller about the same hinge. */
const year = (grow: number, from = 0.3): Place[] => [
  ...Array.from({ length: 16 }, (_, i) => at(from + ((1 - from) * i) / 16, -1, grow)),
  ...Array.from({ length: 17 }, (_, i) => at(1 - ((1 - from) * i) / 16, 1, grow)),
];

// a light pencil outline
take('graphite', 0.4);
stroke(Array.from({ length: 30 }, (_, i) => at(i / 29, -1)), 0.2, 70, 0.15); // prettier-ignore
stroke(Array.from({ length: 30 }, (_, i) => at(i / 29, 1)), 0.2, 70, 0.15); // prettier-ignore

// the shadow on the table: found where the shell touches, let down with water away from it
const cast: Inside = (x, y) => !shell(x, y) && shell(x - 5 - 3 * noise2(x / 20, 1, 2), y - 6.5);
const shadow: Brush = {
  tool: 'wash-round',
  sizeMm: 3,
  mixture: { PB29: 2.4, PBr7BS: 1, PV19: 0.2 },
  amount: 0.5,
  water: 0.66,
};
lay(cast, shadow, { ...shadow, sizeMm: 4 });
const water: Brush = { tool: 'mop', sizeMm: 7, mixture: {}, water: 0.5 };
line(water, Array.from({ length: 14 }, (_, i): Place => { const [x, y] = at(0.12 + 0.066 * i, 1); return [x + 7, y + 10.5]; }), 0.8, 160, 0.4); // prettier-ignore
wait(5);
dry();

const glaze = (mixture: Record<string, number>, amount: number): [Brush, Brush] => [
  { tool: 'wash-round', sizeMm: 3, mixture, amount, water: 0.7 },
  { tool: 'mop', sizeMm: 8, mixture, amount, water: 0.74 },
];
/** The light along the back, kept through every glaze. */
const light = (t: number, across: number, wide: number) => Math.abs(across + 0.5 - 0.12 * Math.sin(t * 5)) < wide * Math.sin(Math.PI * Math.min(1, Math.max(0, (t - 0.16) / 0.66))); // prettier-ignore

// first glaze: a pale grey-blue all over but the light, warmed towards the hinge while it is wet
lay(where((t, a) => !light(t, a, 0.11)), ...glaze({ PB29: 2.4, PBr7BS: 0.8 }, 0.26)); // prettier-ignore
const umber: Brush = { tool: 'wash-round', sizeMm: 5, mixture: { PBr7RS: 2, PY43: 1.2 }, amount: 0.5, water: 0.6 };
line(umber, [at(0.07, 0.1), at(0.16, -0.1), at(0.3, -0.2)], (s) => 0.8 - 0.5 * s, 80, 0.4);
wait(3);
dry();
// second: violet-blue, kept off the light, darker blue run into its lower half
lay(where((t, a) => !light(t, a, 0.2) && t > 0.01), ...glaze({ PB29: 2, PV19: 0.45, PBr7BU: 0.5 }, 0.4)); // prettier-ignore
const hinge: Brush = {
  tool: 'wash-round',
  sizeMm: 6,
  mixture: { PBr7BU: 2.4, PBr7RS: 1, PB29: 1.2 },
  amount: 0.95,
  water: 0.5,
};
line(hinge, [at(0.03, 0), at(0.08, 0.1), at(0.14, 0.4)], (s) => 0.9 - 0.4 * s, 70, 0.3);
const deep: Brush = {
  tool: 'mop',
  sizeMm: 8,
  mixture: { PB29: 2.4, PV19: 0.4, PBr7BU: 1.2 },
  amount: 0.75,
  water: 0.55,
};
line(deep, Array.from({ length: 12 }, (_, i) => at(0.14 + 0.068 * i, 0.5)), (s) => 0.3 + 0.6 * Math.sin(Math.PI * s), 160, 0.6); // prettier-ignore
line(deep, Array.from({ length: 10 }, (_, i) => at(0.3 + 0.066 * i, 0.78)), (s) => 0.3 + 0.5 * Math.sin(Math.PI * s), 160, 0.6); // prettier-ignore
wait(3);
dry();
// bands of growth: thin glazes that end at a line, each year a little darker to the rim
for (const [k, [inner, outer]] of (
  [
    [0.86, 0.93],
    [0.7, 0.77],
    [0.955, 0.985],
    [0.55, 0.6],
  ] as const
).entries()) {
  const band: Inside = (x, y) => within(x, y, outer) !== undefined && within(x, y, inner) === undefined && (within(x, y)?.t ?? 0) > 0.34 + 0.05 * k; // prettier-ignore
  const tone: Brush = {
    tool: 'wash-round',
    sizeMm: 1.8,
    mixture: { PB29: 2, PBr7BU: 1.3, PV19: 0.2 },
    amount: 0.42,
    water: 0.6,
  };
  lay(band, tone, { ...tone, sizeMm: 2.6 });
}
dry();
const hair: Brush = { tool: 'wash-rigger', sizeMm: 0.5, mixture: { PB29: 2, PBr7BU: 1.6 }, amount: 0.7, water: 0.45 };
for (const grow of [0.985, 0.93, 0.895, 0.84, 0.77, 0.735, 0.67, 0.6, 0.5, 0.4]) {
  line(hair, year(grow, 0.36), (s) => 0.05 + 0.4 * Math.sin(Math.PI * s) ** 2 * (0.7 + 0.3 * Math.sin(s * 23)), 80, 0.25); // prettier-ignore
}
dry();
// third: the form turns away below; its upper side is lost into clear water
line(
  { ...water, sizeMm: 9 },
  Array.from({ length: 12 }, (_, i) => at(0.12 + 0.07 * i, 0.22)),
  0.9,
  200,
  0.3,
);
const turned: Brush = {
  tool: 'wash-round',
  sizeMm: 5,
  mixture: { PB29: 2, PBr7BU: 1.7, PV19: 0.25 },
  amount: 0.8,
  water: 0.64,
};
lay(
  where((t, a) => a > 0.52 && t > 0.05 && t < 0.97),
  { ...turned, sizeMm: 3 },
  turned,
);
wait(6);
dry();
// a last thin violet over the back
lay(where((t, a) => a < -0.66 - 0.1 * noise2(t * 9, 1, 3) && t > 0.12), ...glaze({ PB29: 2.2, PV19: 0.7 }, 0.26)); // prettier-ignore
dry();
// the edge found again below, a rim of nacre in body colour at the right, two drops beside the shell
line({ ...hair, sizeMm: 0.8, amount: 1.4 }, Array.from({ length: 24 }, (_, i) => at(0.03 + (0.94 * i) / 23, 0.985)), (s) => 0.15 + 0.5 * Math.sin(Math.PI * s), 70, 0.15); // prettier-ignore
const white: Brush = { tool: 'gouache', sizeMm: 0.9, mixture: { PW6: 8, PB29: 0.2 }, amount: 1, water: 0.32 };
line(white, Array.from({ length: 14 }, (_, i) => at(0.62 + (0.36 * i) / 13, -0.97)), (s) => 0.1 + 0.5 * Math.sin(Math.PI * s), 60, 0.12); // prettier-ignore
load({ tool: 'dropper', sizeMm: 2.4, mixture: { PB29: 2.4, PBr7BS: 1 }, amount: 0.4, water: 0.6 });
for (const [x, y] of [
  [128, 98],
  [133, 94.5],
] as const)
  drop(x, y, 0.4);
dry();
save('demo/studies/mussel.json', 'paper-hot', 'white');
