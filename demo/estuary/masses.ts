import type { Triple } from '@/core/colour/colorimetry';
import { noise2 } from '@/core/surface/noise';
import { Dinghy } from './dinghy';
import { clamp, Field, hill, Idea, inside, plus, smoothstep, torn, towards } from './idea';
import { curve, type Place } from './hand';

/** The estuary at low tide towards evening: masses and their values, decided before anything is painted. mm. */
export const WIDTH = 240;
export const HEIGHT = 180;
export const HORIZON = 66;
const GLOW: Place = [98, 60];

/** Clouds along the wind: middle, reach, turn (degrees), colour, and how far their lower edge is lit. */
const CLOUDS: readonly (readonly [Place, Place, number, Triple, number])[] = [
  [[196, 14], [98, 20], -13, [41, 0, -9], 0.6],
  [[36, 9], [74, 12], 8, [47, 1, -8], 0.5],
  [[216, 43], [66, 8.5], -8, [53, 2, -7], 0.8],
  [[16, 42], [46, 6.5], 5, [60, 5, 0], 0.9],
  [[124, 51], [38, 2.4], -4, [74, 9, 10], 1],
  [[70, 27], [38, 5], 6, [61, 3, -4], 0.8],
];

function sky(x: number, y: number): Triple {
  const t = clamp(y / HORIZON);
  let c = towards([50, -2, -10], [66, -1, -6], smoothstep(0, 0.6, t));
  c = towards(c, [78, 3, 9], smoothstep(0.5, 0.95, t));
  c = towards(c, [93, 8, 27], hill((x - GLOW[0]) / 58, (y - GLOW[1]) / 15));
  c = towards(c, [82, -4, -5], 0.75 * hill((x - 118 + 0.6 * (y - 30)) / 34, (y - 31) / 9));
  const tear = torn((x - 95) / 26, (y + 0.22 * (x - 95)) / 9, 4) - 0.5;
  for (const [[cx, cy], [rx, ry], turn, dark, lit] of CLOUDS) {
    const angle = (turn * Math.PI) / 180;
    const u = (x - cx) * Math.cos(angle) + (y - cy) * Math.sin(angle);
    const v = -(x - cx) * Math.sin(angle) + (y - cy) * Math.cos(angle);
    const d = 1 - Math.hypot(u / rx, v / ry) + 1.1 * tear;
    c = towards(c, dark, smoothstep(0, 0.42, d));
    // the lower edge towards the glow is lit warm
    const edge = smoothstep(-0.18, 0.05, d) * (1 - smoothstep(0.05, 0.45, d)) * smoothstep(-0.3, 0.9, v / ry);
    c = towards(c, [88, 9, 25], 0.8 * edge * lit * hill((x - GLOW[0]) / 110, 0));
  }
  return c;
}

export const headlandTop = (x: number): number =>
  65.6 -
  4.6 * smoothstep(118, 150, x) -
  9.5 * smoothstep(150, 236, x) -
  3.2 * smoothstep(130, 160, x) * (torn(x / 7, 2, 4) - 0.5);
const ridgeTop = (x: number): number =>
  65.6 - 2.6 * smoothstep(-30, 20, x) * (1 - smoothstep(40, 112, x)) - 1.2 * (torn(x / 11, 8, 4) - 0.5);
const onHeadland = (x: number, y: number) => x > 117 && y > headlandTop(x) && y < 66.4;
const onRidge = (x: number, y: number) => x < 118 && y > ridgeTop(x) && y < 66.2;

/** Banks of the run of water. */
const LEFT = curve(
  [
    [60, 69.5],
    [66, 72],
    [56, 78],
    [43, 86],
    [42, 95],
    [52, 103],
    [66, 108],
    [67, 114],
    [50, 122],
    [20, 133],
    [-10, 142],
  ],
  1,
);
export const RIGHT = curve(
  [
    [165, 69],
    [132, 72],
    [102, 77],
    [84, 84],
    [82, 92],
    [95, 99],
    [108, 106],
    [112, 114],
    [107, 124],
    [100, 137],
    [101, 152],
    [112, 166],
    [118, 184],
  ],
  1,
);
/** Wet places left on the mud: middle and reach. */
const WET: readonly (readonly [number, number, number, number])[] = [
  [206, 82, 34, 1.6],
  [168, 76, 30, 1.1],
  [228, 98, 24, 2],
  [226, 150, 22, 1.6],
  [20, 84, 26, 1.4],
];

const run = inside(WIDTH, HEIGHT, [...LEFT, [-10, 190], ...[...RIGHT].reverse()]);
const isRun = (x: number, y: number) => run.at(x, y) > 0.5 || (y > 66 && y < 70.2 + Math.sin(x / 23));
const isWet = (x: number, y: number) =>
  WET.some(
    ([px, py, rx, ry]) => ((x - px) / rx) ** 2 + ((y - py + 0.02 * (x - px) + 0.8 * Math.sin(x / 9)) / ry) ** 2 < 1,
  );

const isWater = (x: number, y: number) => isRun(x, y) || isWet(x, y);

export const boat = new Dinghy([160, 131], HORIZON, [-0.86, -0.5], 7, 1, 0.97);
export const hull = inside(WIDTH, HEIGHT, boat.outline);
const shade = inside(WIDTH, HEIGHT, [
  [120, 128],
  [126, 133],
  [150, 139],
  [182, 138],
  [206, 130],
  [226, 119],
  [230, 110],
  [216, 110],
  [208, 117],
]).blurred(6);

function mud(x: number, y: number): Triple {
  const t = (y - HORIZON) / (HEIGHT - HORIZON);
  let c = towards([59, 5, 11], [35, 8, 16], smoothstep(0, 0.55, t));
  c = towards(c, [25, 6, 9], smoothstep(0.5, 1, t));
  const sheen = smoothstep(0.52, 0.75, torn(x / 40, y / 6, 9)) * (1 - smoothstep(0.25, 0.9, t));
  c = towards(c, [68, 3, -2], 0.52 * sheen);
  c = plus(c, [-2, -5, 4], smoothstep(0.55, 0.8, torn(x / 30 + 5, y / 9, 4)));
  c = plus(c, [8, 3, 8], hill((x - 100) / 60, (y - 70) / 26));
  c = towards(c, [15, 3, -1], 0.72 * shade.at(x, y));
  return towards(c, [19, -5, 5], 0.5 * hill((x - 158) / 38, (y - 146) / 9));
}

const mirrored = Idea.of(WIDTH, HORIZON, sky).blurred(10);
/** The sky upside down, more of it from higher up towards us, darker and warmer by the mud that shows through. */
function water(x: number, y: number): Triple {
  const m = mirrored.at(x, clamp(HORIZON - (y - HORIZON) * 0.62, 0, HORIZON - 1));
  let c: Triple = [0.93 * m[0] - 2, m[1] + 0.5, m[2] + 2];
  c = towards(c, [38, 3, 6], 0.22 * smoothstep(70, 170, y));
  const light = hill((x - 84) / 34, 0) * smoothstep(78, 96, y) * (1 - smoothstep(118, 172, y));
  return towards(c, plus([80, 6, 10], [10, 1, 8], -smoothstep(100, 160, y)), 0.55 * light);
}

export const idea = Idea.of(WIDTH, HEIGHT, (x, y) => {
  if (onHeadland(x, y)) return towards([60, 1, -5], [41, -1, -7], smoothstep(118, 240, x));
  if (onRidge(x, y)) return [68, 1.5, -3];
  return y <= HORIZON ? sky(x, y) : isWater(x, y) ? water(x, y) : mud(x, y);
});

/** Posts: top and foot, width, how far the top leans, and how far off they are, 0..1. */
export const POSTS = [
  { x: 96.5, top: 56.5, foot: 73.3, width: 1.5, lean: 0, far: 0.85 },
  { x: 85, top: 47.5, foot: 80.5, width: 2.7, lean: 0.5, far: 0.6 },
  { x: 66.5, top: 33.5, foot: 93, width: 4.2, lean: -0.8, far: 0.3 },
  { x: 40, top: 14, foot: 109, width: 6.6, lean: 0.6, far: 0 },
] as const;

const broad = idea.blurred(16);
const where = (there: (x: number, y: number) => boolean) => Field.of(WIDTH, HEIGHT, (x, y) => (there(x, y) ? 1 : 0));
export const MASS = {
  sky: where((x, y) => y < (x > 117 ? headlandTop(x) + 4 : HORIZON)),
  above: where((_, y) => y < HORIZON),
  lit: where((x, y) => {
    const L = idea.at(x, y)[0];
    const stands = L > 70 && L - broad.at(x, y)[0] > 7 && Math.abs(x - 130) < 88;
    return (L > 81 || stands) && y > 31 && y < 65.5 && !onHeadland(x, y);
  }),
  headland: where(onHeadland),
  ridge: where(onRidge),
  haze: where((x, y) => y > 62.3 && y < 66 && x > 128),
  /** Mud with the wet places on it. */
  ground: where((x, y) => y > 67 && !isRun(x, y) && hull.at(x, y) < 0.5),
  mud: where((x, y) => y > 67 && !isWater(x, y) && hull.at(x, y) < 0.5),
  nearMud: where((x, y) => y > 90 && !isWater(x, y) && hull.at(x, y) < 0.5),
  farMud: where((x, y) => y > 67 && y < 108 && !isWater(x, y) && hull.at(x, y) < 0.5),
  water: where((x, y) => isRun(x, y) && hull.at(x, y) < 0.5),
  /** Thin wet places on the mud. */
  wet: where((x, y) => isWet(x, y) && !isRun(x, y) && hull.at(x, y) < 0.5),
  boat: hull,
};
/** Near posts, on which no light may break. */
export const aroundPosts = where((x, y) =>
  POSTS.some(
    (p) => Math.abs(x - p.x - (p.lean * (p.foot - y)) / (p.foot - p.top)) < p.width / 2 && y > p.top && y < p.foot,
  ),
).blurred(26);

/** How strokes lie. */
export const LIE = {
  /** A wind, and lines that open from a point under the glow. */
  sky: (x: number, y: number): Place => {
    const [dx, dy] = [x - 95, (y - 80) * 0.5];
    const k = Math.hypot(dx, 45);
    return [
      1,
      (dx > 0 ? -0.17 : 0.1) * Math.min(1, Math.abs(dx) / 60) +
        ((dy * dx) / (k * k)) * 0.55 +
        0.13 * (2 * noise2(x / 46, y / 26, 4) - 1),
    ];
  },
  /** Flat in the distance, fanning out of the vanishing point towards us. */
  mud: (x: number, y: number): Place => {
    const dx = x - 105;
    const w = 0.55 * clamp((y - 70) / 110) * Math.min(1, Math.abs(dx) / 50);
    const n = Math.hypot(dx, y - 62) || 1;
    return [
      1 - w + w * Math.abs(dx / n),
      ((dx > 0 ? 1 : -1) * w * (y - 62)) / n + 0.16 * (noise2(x / 25, y / 8, 9) - 0.5),
    ];
  },
  water: (x: number, y: number): Place => [1, 0.05 * Math.sin(x / 9) + 0.04 * (noise2(x / 9, y / 4, 9) - 0.5)],
  headland: (x: number, y: number): Place => [1, -0.1 + 0.4 * (noise2(x / 6, y / 5, 4) - 0.5)],
  level: (): Place => [1, 0],
} as const;
