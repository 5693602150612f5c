/** The photo of the estuary: the place of scene.ts in late autumn light. */
import type { Triple } from '@/core/colour/colorimetry';
import { fractalNoise, noise2 } from '@/core/surface/noise';
import { hex, mix } from './camera';
import { along, BOATHOUSE, DINGHY, HEADLAND, HORIZON, POOLS, POSTS, SHINGLE, WATER_EDGE } from './scene';

const C = {
  skyTop: hex('646d75'),
  skyMid: hex('8e979b'),
  skyLow: hex('c6c5bb'),
  cloud: hex('4f5963'),
  rift: hex('dedbd0'),
  far: hex('5b6a70'),
  headland: hex('454f4c'),
  water: hex('b4bbbb'),
  waterDark: hex('87929a'),
  shingle: hex('a89b86'),
  mudFar: hex('8b7d68'),
  mud: hex('6f5d48'),
  mudDark: hex('463b30'),
  weed: hex('50552f'),
  poolEdge: hex('73787a'),
  post: hex('2b2623'),
  postLight: hex('85786a'),
  weedPost: hex('38412c'),
  slate: hex('4a525c'),
  wall: hex('b7ab98'),
  door: hex('3b3a38'),
  hull: hex('2f7459'),
  hullLight: hex('6aa283'),
  hullDark: hex('1b4838'),
  bottom: hex('75392a'),
  bottomDark: hex('4a261d'),
  inside: hex('41362c'),
  insideLight: hex('7d6e5c'),
  thwart: hex('a18a68'),
  rail: hex('e8dcc0'),
  railDark: hex('a0937a'),
  shadow: hex('29241f'),
};

function sky(x: number, y: number): Triple {
  const f = y / HORIZON;
  const n = fractalNoise(x * 4.2 + y * 2, y * 14 + x, 11, 4);
  let c = f < 0.55 ? mix(C.skyTop, C.skyMid, f / 0.55) : mix(C.skyMid, C.skyLow, (f - 0.55) / 0.45);
  c = mix(c, C.cloud, 3 * Math.max(0, n - 0.5) * (1.3 - f));
  const rift =
    Math.exp(-(((x - 0.36) / 0.28) ** 2) - ((y - 0.205 - 0.06 * (x - 0.36)) / 0.034) ** 2) +
    0.6 * Math.exp(-(((x - 0.78) / 0.2) ** 2) - ((y - 0.24) / 0.016) ** 2);
  return mix(c, C.rift, rift * (0.35 + 0.9 * fractalNoise(x * 10, y * 33, 29, 3)));
}

function ground(x: number, y: number): Triple {
  const d = (y - WATER_EDGE) / (0.75 - WATER_EDGE);
  const n = fractalNoise(x * (24 - 16 * d), y * (150 - 110 * d), 15, 4);
  const w = fractalNoise(x * (10 - 4 * d), y * (60 - 40 * d), 33, 3);
  let c = mix(mix(C.mudFar, C.mud, d * 1.7), C.mudDark, 2.4 * (n - 0.5) + 0.35 * d);
  c = mix(c, C.weed, 3 * (w - 0.58));
  for (const p of POOLS) {
    const dx = x - p.x;
    const dy = y - p.y - p.slope * dx;
    const wobble = 1 + 0.6 * (fractalNoise(x * 22, y * 90, 91, 2) - 0.5);
    const q = (dx / p.rx) ** 2 + (dy / p.ry) ** 2;
    if (q < wobble) {
      const mirrored = sky(
        Math.abs(x + 0.01 * noise2(x * 60, y * 300, 5)) % 1,
        Math.max(0.01, HORIZON - (y - HORIZON) * 0.55),
      );
      c = mix(
        mirrored,
        C.poolEdge,
        (q > wobble * 0.75 ? 0.55 : 0) + 1.1 * (fractalNoise(x * 14, y * 260, 17, 2) - 0.5),
      );
    }
  }
  if (x < 0.4 && y < along(SHINGLE, x) + 0.024 * (1 - x / 0.4) + 0.004 * noise2(x * 40, 3, 9)) {
    c = mix(C.shingle, C.mudDark, 1.6 * (noise2(x * 300, y * 700, 8) - 0.45));
  }
  return c;
}

export function estuary(x: number, y: number): Triple {
  let c = y < HORIZON ? sky(x, y) : C.water;
  const hill = along(HEADLAND, x) - 0.006 * fractalNoise(x * 30, 3, 71, 3);
  if (y >= hill && y < HORIZON + 0.006)
    c = mix(C.far, C.headland, (x - 0.45) * 1.6 + 0.6 * (fractalNoise(x * 40, y * 160, 5, 2) - 0.4));
  const b = BOATHOUSE;
  if (x > b.left && x < b.right) {
    if (y > b.eaves && y < b.foot)
      c = x > b.left + 0.03 && x < b.left + 0.05 ? C.door : mix(C.wall, C.far, 0.35 + (x - b.left) * 3);
  }
  const roof = (y - b.ridge) / (b.eaves - b.ridge);
  if (roof > 0 && roof < 1 && x > b.left - 0.006 * roof && x < b.right + 0.006 * roof)
    c = mix(C.slate, C.skyLow, 0.18 * noise2(x * 200, y * 300, 4));
  const edge = WATER_EDGE + 0.008 * (fractalNoise(x * 8, 9, 81, 2) - 0.5);
  if (y >= HORIZON + 0.006 && y < edge)
    c = mix(C.water, C.waterDark, 1.9 * (fractalNoise(x * 9, y * 320, 6, 3) - 0.42));
  if (y >= edge) c = ground(x, y);
  // the shadow of the dinghy
  if (x > DINGHY.left + 0.02 && x < 0.87) {
    const keel = x < 0.81 ? along(DINGHY.keel, x) : 0.566 + 0.02 * (x - 0.81);
    const t = (y - keel + 0.014) / (0.034 * Math.min(1, (0.87 - x) / 0.06));
    if (t > 0 && t < 1) c = mix(C.shadow, c, t * t);
  }
  for (const p of POSTS) {
    const t = (y - p.top) / (p.foot - p.top);
    const u = (x - p.x - p.lean * (1 - t)) / (p.width / 2);
    if (t >= 0 && t <= 1 && Math.abs(u) < 1 + 0.15 * (noise2(y * 160, p.x * 90, 3) - 0.5)) {
      c = mix(C.postLight, C.post, (u + 0.75) / 0.7 + 0.4 * (noise2(x * 500, y * 40, 6) - 0.5));
      if (t > 0.66) c = mix(c, C.weedPost, 0.75 * Math.min(1, (t - 0.66) * 6));
      if (p.width < 0.012) c = mix(c, C.far, 0.35);
    }
    const down = (y - p.foot) / ((p.foot - p.top) * 0.4);
    const side = (x - p.x - 0.004 * Math.sin(y * 190)) / (p.width / 2);
    if (down > 0 && down < 1 && Math.abs(side) < 1) c = mix(mix(C.post, C.mudDark, 0.3), c, 0.25 + 0.7 * down);
  }
  return dinghy(x, y) ?? c;
}

function dinghy(x: number, y: number): Triple | undefined {
  if (x < DINGHY.left || x > DINGHY.right) return undefined;
  const near = along(DINGHY.near, x);
  const far = along(DINGHY.far, x);
  const keel = along(DINGHY.keel, x);
  const s = (x - DINGHY.left) / (DINGHY.right - DINGHY.left);
  if (Math.abs(y - near) < 0.0042)
    return mix(C.rail, C.railDark, 0.3 + 60 * (y - near) + 0.6 * (noise2(x * 60, 4, 7) - 0.5));
  if (Math.abs(y - far) < 0.003) return mix(C.railDark, C.rail, 0.5 * noise2(x * 40, 7, 8));
  if (y > near && y < keel) {
    const t = (y - near) / (keel - near);
    const n = fractalNoise(x * 40, y * 140, 41, 3);
    if (t < 0.7)
      return mix(
        mix(C.hullLight, C.hull, 0.1 + t * 1.1 + 0.5 * (s - 0.3)),
        C.hullDark,
        ((t * 4.2) % 1 < 0.13 ? 0.7 : 0) + 1.1 * (n - 0.5) + (s > 0.93 ? 0.5 : 0),
      );
    return mix(
      mix(C.bottom, C.bottomDark, (t - 0.7) * 2.4 + 0.5 * s),
      C.shadow,
      (t > 0.9 ? (t - 0.9) * 7 : 0) + 0.9 * (n - 0.5),
    );
  }
  if (y > far && y < near) {
    const t = (y - far) / Math.max(0.001, near - far);
    for (const q of [0.2, 0.46, 0.72]) {
      const d = s - q - (t - 0.5) * 0.035;
      if (Math.abs(d) < 0.036 && t > 0.12 && t < 0.94)
        return d > 0.022 ? C.inside : mix(C.thwart, C.rail, d < -0.014 ? 0.3 : 0.1);
    }
    return t < 0.34
      ? mix(C.insideLight, C.hullDark, 0.35 + 0.4 * noise2(x * 50, y * 90, 43))
      : mix(C.inside, C.shadow, (t - 0.3) * 1.3);
  }
  return undefined;
}
