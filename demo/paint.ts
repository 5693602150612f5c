/**
 * Paints the demo study, "Low tide, study 1", as a painter would who has the photo on the board: toned linen, thin
 * dark lay-in, big planes, smaller touches, accents. Decisions (regions, planes, edges, mixtures from seven tubes) are
 * made here by hand; the photo's pixels are never read. Writes the journal that the app paints for itself.
 *   npm run demo:painting
 */
import { fractalNoise } from '@/core/surface/noise';
import { painter, PILE, strake, trace, WIDTH_MM, type Pile, type Point } from './painter';
import { along, BOATHOUSE, DINGHY, HEADLAND, HORIZON, POOLS, POSTS, SHINGLE, WATER_EDGE } from './scene';

const { random, vary, fromPile, take, load, stroke, dry, save } = painter(2026);

// --- pencil: horizon, posts, the dinghy's three lines
take('graphite', 0.8, { strength: 0.8 });
stroke([[0.01, HORIZON], [0.99, HORIZON]], 0.4); // prettier-ignore
for (const p of POSTS) stroke([[p.x + p.lean, p.top], [p.x, p.foot]], 0.5); // prettier-ignore
for (const curve of [DINGHY.near, DINGHY.far, DINGHY.keel]) stroke(trace(curve, DINGHY.left, DINGHY.right), 0.5);

// --- lay-in: thin and dark, masses only, the tone left open between
take('flat', 15, { blend: 0.3, body: 0.25, thin: 0.55 });
for (const [y, from, to] of [
  [0.05, 0.02, 0.7],
  [0.1, 0.35, 0.98],
  [0.15, 0.02, 0.5],
] as const) {
  load({ PB29: 1, PBr7BU: 1.2, PW6: 2 }, 0.7);
  stroke([[from, y], [(from + to) / 2, y - 0.012], [to, y + 0.01]], 0.55); // prettier-ignore
}
load({ PB29: 1, PBr7BU: 1.2 }, 0.6);
stroke(trace(HEADLAND, 0.45, 0.99, 0.016), 0.4);
for (const [y, from, to] of [
  [0.43, 0.02, 0.4],
  [0.47, 0.5, 0.98],
  [0.56, 0.02, 0.46],
  [0.6, 0.3, 0.9],
  [0.725, 0.05, 0.85],
] as const) {
  load(PILE.wash, 0.7);
  stroke([[from, y], [(from + to) / 2, y + 0.01], [to, y - 0.004]], 0.55); // prettier-ignore
}
take('flat', 7, { blend: 0.3, body: 0.3, thin: 0.4 });
load(PILE.wash, 1);
for (const share of [0.15, 0.5, 0.85]) stroke(strake(share, DINGHY.left + 0.015, DINGHY.right - 0.015), 0.6);
for (const p of POSTS) {
  load(PILE.wash, 0.8);
  stroke([[p.x + p.lean, p.top], [p.x, p.foot]], 0.5); // prettier-ignore
}
dry();

// --- big planes: the sky, dark above, broken open low on the left
take('flat', 19, { blend: 0.3, body: 0.55, thin: 0 });
const rift = (x: number, y: number) =>
  Math.exp(-(((x - 0.36) / 0.27) ** 2) - ((y - 0.205 - 0.06 * (x - 0.36)) / 0.036) ** 2);
for (let row = 0; row < 6; row++) {
  const y = 0.022 + row * 0.051;
  for (let x = -0.06 - 0.09 * (row % 2); x < 0.98;) {
    const length = 0.2 + 0.16 * random();
    const light =
      Math.max(0, (y - 0.03) / 0.28) + 0.5 * (fractalNoise(x * 5, y * 14, 3, 2) - 0.5) + 0.9 * rift(x + length / 2, y);
    const [pile, next, share] =
      light < 0.34 ? (['skyDark', 'skyMid', light / 0.34] as const)
      : light < 0.85 ? (['skyMid', 'skyLight', (light - 0.34) / 0.51] as const)
      : (['skyLight', 'rift', Math.min(1, (light - 0.85) / 0.5)] as const); // prettier-ignore
    load(fromPile(pile, next, share), vary(1.05, 0.2));
    const slope = -0.07 + 0.1 * (random() - 0.5);
    const bow = 0.012 * (random() - 0.3);
    stroke([[x, y], [x + length / 2, y + slope * length * 0.5 - bow], [x + length, y + slope * length]], vary(0.6, 0.12)); // prettier-ignore
    x += length * 0.8;
  }
}
// far shore, two planes, its lower edge lost in the water
take('flat', 6.5, { blend: 0.3, body: 0.55, thin: 0 });
for (const [from, to, pile] of [
  [-0.01, 0.26, 'headlandFar'],
  [0.2, 0.5, 'headlandFar'],
  [0.44, 0.72, 'headland'],
  [0.66, 1.01, 'headland'],
] as const) {
  load(fromPile(pile, 'headlandFar', 0.2 * random()), 1);
  stroke(trace(HEADLAND, from, to, 0.012), 0.55);
  if (from > 0.4) {
    load(fromPile(pile, 'weed', 0.12), 0.9);
    stroke(trace(HEADLAND, from + 0.05, to - 0.02, 0.024), 0.5);
  }
}
take('flat', 10, { blend: 0.3, body: 0.55, thin: 0 });
for (const [from, to] of [
  [-0.02, 0.36],
  [0.3, 0.68],
  [0.62, 1.02],
] as const) {
  load(fromPile('water', 'waterDark', 0.25 * random()), 1.1);
  stroke([[from, 0.325], [to, 0.326 + 0.003 * random()]], 0.6); // prettier-ignore
}
// the mud, from far to near in broader and warmer bands
for (let row = 0, y = 0.362; y < 0.77; row++) {
  const depth = (y - WATER_EDGE) / (0.75 - WATER_EDGE);
  const size = 10 + 8 * depth;
  take('flat', Math.round(size), { blend: 0.3, body: 0.6, thin: 0 });
  for (let x = -0.05 - 0.08 * (row % 2); x < 1;) {
    const length = 0.17 + 0.2 * random();
    const n = fractalNoise(x * 4 + 7, y * 16, 21, 2);
    const pile: Pile = n < 0.42 ? 'mudDark' : n > 0.66 ? 'weed' : random() < 0.3 ? 'mudWarm' : 'mud';
    load(fromPile(pile, 'mudFar', Math.max(0, 0.75 - depth * 1.4) * vary(1, 0.2)), vary(1, 0.25));
    const tilt = 0.012 * (random() - 0.5);
    stroke([[x, y], [x + length / 2, y + tilt + 0.004], [x + length, y + 2 * tilt]], vary(0.58, 0.15)); // prettier-ignore
    x += length * 0.82;
  }
  y += (size / WIDTH_MM) * 0.72;
}
dry();

// --- smaller: clouds worked wet over the dry sky, with their undersides
take('filbert', 12, { blend: 0.3, body: 0.65, thin: 0 });
for (const [x, y, w, pile] of [
  [0.5, 0.075, 0.2, 'skyDark'],
  [0.66, 0.1, 0.22, 'skyDark'],
  [0.05, 0.1, 0.16, 'skyDark'],
  [0.78, 0.045, 0.16, 'skyDark'],
  [0.28, 0.13, 0.14, 'skyMid'],
  [0.2, 0.195, 0.2, 'rift'],
  [0.36, 0.182, 0.18, 'rift'],
  [0.3, 0.222, 0.24, 'rift'],
  [0.47, 0.2, 0.12, 'skyLight'],
  [0.74, 0.225, 0.2, 'skyLight'],
  [0.55, 0.24, 0.16, 'rift'],
] as const) {
  load(fromPile(pile, 'skyMid', 0.2 * random()), 0.7);
  stroke([[x, y], [x + w * 0.4, y - 0.01], [x + w, y - 0.004 - 0.05 * w]], vary(0.45, 0.2)); // prettier-ignore
}
// boathouse: roof, wall, door, found edges
take('flat', 5, { blend: 0.3, body: 0.65, thin: 0 });
const b = BOATHOUSE;
load(fromPile('wall'), 0.9);
stroke([[b.left + 0.004, (b.eaves + b.foot) / 2 + 0.001], [b.right - 0.004, (b.eaves + b.foot) / 2]], 0.6); // prettier-ignore
load(fromPile('slate'), 0.9);
stroke([[b.left - 0.002, (b.ridge + b.eaves) / 2], [b.right + 0.003, (b.ridge + b.eaves) / 2 + 0.001]], 0.6); // prettier-ignore
// water: streaks of sky, and the line where it meets the mud
take('flat', 4, { blend: 0.3, body: 0.6, thin: 0 });
for (const [x, y, w, pile] of [
  [0.05, 0.317, 0.3, 'poolLight'],
  [0.42, 0.32, 0.25, 'poolLight'],
  [0.66, 0.333, 0.3, 'waterDark'],
  [0.1, 0.336, 0.2, 'waterDark'],
  [0.8, 0.315, 0.18, 'poolLight'],
  [0.34, 0.34, 0.3, 'poolLight'],
] as const) {
  load(fromPile(pile), 0.8);
  stroke([[x, y], [x + w, y + 0.002 * random()]], 0.45); // prettier-ignore
}
take('filbert', 5, { blend: 0.3, body: 0.75, thin: 0 });
for (const [from, to] of [
  [0, 0.13],
  [0.1, 0.24],
  [0.22, 0.36],
] as const) {
  load(fromPile('shingle'), 0.7);
  stroke(trace(SHINGLE, from, to, 0.01 * (1 - from * 2)), 0.4);
}
// pools: laid across with a filbert, each pass of its own length, lighter on the far side, ends drawn out to nothing
for (const p of POOLS) {
  const size = Math.max(3, Math.min(9, p.ry * WIDTH_MM * 1.1));
  take('filbert', Math.round(size * 10) / 10, { blend: 0.3, body: 0.5, thin: 0 });
  const rows = Math.max(2, Math.round((2 * p.ry * WIDTH_MM) / (size * 0.55)));
  for (let r = 0; r < rows; r++) {
    const v = (r / (rows - 1)) * 2 - 1;
    const half = p.rx * Math.sqrt(Math.max(0.12, 1 - v * v));
    const shift = 0.25 * half * (random() - 0.5);
    for (let from = p.x + shift - half * vary(1, 0.15); from < p.x + shift + half - 0.03; from += 0.2) {
      const to = Math.min(p.x + shift + half * vary(1, 0.15), from + 0.24);
      if (to < -0.02 || from > 1.02) continue;
      load(fromPile('pool', v < 0.1 ? 'poolLight' : 'waterDark', vary(0.5, 0.4) * Math.abs(v)), vary(0.8, 0.25));
      const at = (x: number) => p.y + v * p.ry * 0.75 + p.slope * (x - p.x);
      stroke([[from, at(from)], [(from + to) / 2, at((from + to) / 2) + 0.002 * (random() - 0.5)], [to, at(to)]], (k) => vary(0.5, 0.08) * Math.min(1, 0.25 + 4 * k, 0.15 + 3 * (1 - k))); // prettier-ignore
    }
  }
}
// weed and drag marks on the mud
take('filbert', 7, { blend: 0.3, body: 0.7, thin: 0 });
for (let i = 0; i < 16; i++) {
  const x = random();
  const y = 0.4 + 0.33 * random();
  if (x > 0.38 && x < 0.88 && y > 0.4 && y < 0.63) continue;
  load(fromPile(random() < 0.45 ? 'weed' : random() < 0.5 ? 'mudWarm' : 'mudDark'), 0.5);
  stroke([[x, y], [x + 0.05 + 0.06 * random(), y + 0.006 * (random() - 0.5)]], 0.4); // prettier-ignore
}
// posts, from the foot up, the light side scraped on afterwards
for (const p of POSTS) {
  const far = p.width < 0.012;
  take('filbert', Math.round(p.width * WIDTH_MM * 11) / 10, { blend: 0.3, body: 0.42, thin: 0.1 });
  const at = (t: number): Point => [p.x + p.lean * t, p.foot + (p.top - p.foot) * t];
  for (const [from, to] of [
    [0, 0.4],
    [0.32, 0.72],
    [0.62, 1],
    [0.3, 0],
    [0.98, 0.4],
  ] as const) {
    load(fromPile(far ? 'postFar' : 'post'), 1.5);
    stroke([at(from), at((from + to) / 2), at(to)], (s) => 0.8 - 0.08 * s);
  }
  load(fromPile('postWeed', 'post', 0.3), 0.7);
  stroke([at(0.01), at(0.3)], 0.5);
  // what the wet mud gives back
  take('filbert', Math.round(p.width * WIDTH_MM * 8) / 10, { blend: 0.5, body: 0.4, thin: 0 });
  load(fromPile(far ? 'postFar' : 'post', 'mud', 0.45), 0.5);
  stroke([[p.x, p.foot + 0.004], [p.x + 0.003, p.foot + (p.foot - p.top) * 0.28]], (s) => 0.5 - 0.35 * s); // prettier-ignore
}
// the dinghy: shadow first, then planes along the strakes
take('filbert', 8, { blend: 0.3, body: 0.5, thin: 0 });
load(fromPile('mudDark', 'inside', 0.4), 1);
stroke([[0.47, 0.562], [0.58, 0.6], [0.7, 0.608], [0.8, 0.59], [0.86, 0.575]], 0.5); // prettier-ignore
take('filbert', 9, { blend: 0.3, body: 0.6, thin: 0 });
load(fromPile('inside'), 1.2);
stroke([[0.46, 0.44], [0.55, 0.468], [0.68, 0.483], [0.79, 0.478]], 0.6); // prettier-ignore
load(fromPile('inside', 'insideLight', 0.25), 1);
stroke([[0.5, 0.455], [0.6, 0.487], [0.74, 0.49]], 0.55); // prettier-ignore
load(fromPile('insideLight', 'hullDark', 0.3), 0.9);
stroke([[0.47, 0.432], [0.56, 0.432], [0.66, 0.44], [0.77, 0.464]], 0.4); // prettier-ignore
for (const [share, from, to, pile, next] of [
  [0.12, 0.435, 0.63, 'hull', 'hullLight'],
  [0.12, 0.6, 0.82, 'hull', 'hullLight'],
  [0.36, 0.445, 0.64, 'hull', 'hull'],
  [0.36, 0.6, 0.815, 'hull', 'hullDark'],
  [0.58, 0.455, 0.65, 'hull', 'hullDark'],
  [0.58, 0.62, 0.81, 'hullDark', 'hull'],
] as const) {
  load(fromPile(pile, next, 0.4 * random() + 0.1), 1.1);
  stroke(strake(share, from, to), 0.5);
}
take('filbert', 6.5, { blend: 0.3, body: 0.6, thin: 0 });
for (const [share, from, to, pile] of [
  [0.8, 0.455, 0.66, 'bottom'],
  [0.8, 0.62, 0.81, 'bottom'],
  [0.93, 0.47, 0.68, 'bottomDark'],
  [0.93, 0.64, 0.805, 'bottomDark'],
] as const) {
  load(fromPile(pile, 'bottom', 0.25), 1);
  stroke(strake(share, from, to), 0.5);
}
dry();

// --- accents: last, thick, few
// thwarts
take('flat', 6, { blend: 0.3, body: 0.7, thin: 0 });
for (const q of [0.2, 0.46, 0.72]) {
  const x = DINGHY.left + q * (DINGHY.right - DINGHY.left);
  load(fromPile('thwart'), 0.8);
  stroke([[x - 0.006, along(DINGHY.far, x) + 0.012], [x + 0.008, along(DINGHY.near, x) - 0.012]], 0.5); // prettier-ignore
}
take('round', 2.6, { blend: 0.3, body: 0.85, thin: 0 });
for (const [from, to, pile] of [
  [0.432, 0.55, 'rail'],
  [0.535, 0.68, 'rail'],
  [0.67, 0.832, 'rail'],
] as const) {
  load(fromPile(pile), 2);
  stroke(trace(DINGHY.near, from, to, -0.001), (s) => 0.42 + 0.22 * Math.sin(Math.PI * s));
}
for (const [from, to] of [
  [0.436, 0.6],
  [0.62, 0.826],
] as const) {
  load(fromPile('railFar'), 1.2);
  stroke(trace(DINGHY.far, from, to), 0.35);
}
take('flat', 4, { blend: 0.3, body: 0.8, thin: 0 });
for (const [share, from, to] of [
  [0.1, 0.47, 0.6],
  [0.12, 0.58, 0.7],
  [0.3, 0.5, 0.62],
] as const) {
  load(fromPile('hullLight'), 0.4);
  stroke(strake(share, from, to), 0.32);
}
take('round', 1.6, { blend: 0.3, body: 0.5, thin: 0 });
for (const share of [0.27, 0.5]) {
  load(fromPile('hullDark'), 1);
  stroke(strake(share, 0.45, 0.62), 0.35);
  load(fromPile('hullDark'), 1);
  stroke(strake(share, 0.64, 0.81), 0.3);
}
load(fromPile('scarlet'), 1.2);
stroke(strake(0.72, 0.5, 0.6), 0.4);
// the mooring rope, dark under light
load(fromPile('post'), 1.2);
stroke([[0.432, 0.434], [0.38, 0.472], [0.31, 0.49], [0.24, 0.47], [0.2, 0.436]], 0.4); // prettier-ignore
load(fromPile('rope'), 1.3);
stroke([[0.432, 0.431], [0.38, 0.469], [0.31, 0.487], [0.24, 0.467], [0.2, 0.433]], 0.35); // prettier-ignore
// light on the posts, on the water, at the boathouse
take('flat', 2.6, { blend: 0.3, body: 0.85, thin: 0 });
for (const p of POSTS.slice(0, 2)) {
  for (const [from, to] of [
    [0.97, 0.72],
    [0.66, 0.42],
  ] as const) {
    load(fromPile('postLight'), 0.4);
    const at = (t: number): Point => [p.x + p.lean * t - p.width * 0.3, p.foot + (p.top - p.foot) * t];
    stroke([at(from), at(to)], 0.35);
  }
}
for (const [x, y, w] of [
  [0.08, 0.39, 0.1],
  [0.46, 0.366, 0.12],
  [0.12, 0.645, 0.1],
  [0.3, 0.655, 0.07],
  [0.6, 0.66, 0.09],
  [0.2, 0.319, 0.12],
  [0.56, 0.313, 0.1],
] as const) {
  load(fromPile('rift'), 0.9);
  stroke([[x, y], [x + w, y - 0.001]], vary(0.42, 0.2)); // prettier-ignore
}
take('round', 1.8, { blend: 0.3, body: 0.7, thin: 0 });
load(fromPile('inside'), 1);
stroke([[b.left + 0.035, b.eaves + 0.004], [b.left + 0.035, b.foot - 0.001]], 0.5); // prettier-ignore
load(fromPile('rail'), 0.8);
stroke([[b.left + 0.002, b.eaves + 0.0015], [b.right - 0.002, b.eaves + 0.0015]], 0.25); // prettier-ignore
take('round', 2.2, { blend: 0.3, body: 0.9, thin: 0 });
for (let i = 0; i < 14; i++) {
  load(fromPile(i % 3 === 0 ? 'post' : 'shingle', 'rift', 0.2 * random()), 1.2);
  const x = 0.02 + 0.32 * random();
  const y = along(SHINGLE, x) + 0.012 * random();
  stroke([[x, y], [x + 0.006, y + 0.001]], 0.4); // prettier-ignore
}
// a few thick touches of mud catching light in front
take('filbert', 5, { blend: 0.3, body: 0.95, thin: 0 });
for (const [x, y, w] of [
  [0.36, 0.705, 0.06],
  [0.5, 0.735, 0.08],
  [0.86, 0.635, 0.06],
  [0.03, 0.6, 0.06],
  [0.7, 0.73, 0.05],
] as const) {
  load(fromPile('mudFar', 'shingle', 0.4), 1.3);
  stroke([[x, y], [x + w, y + 0.004]], 0.4); // prettier-ignore
}
dry();

save('demo/low-tide.json', { seed: 11, surface: 'linen-fine', tone: { PW6: 3, PY43: 3, PBr7BS: 1.4 } });
