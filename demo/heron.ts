/** A grey heron at the water's edge, head and neck: its shape, shared by the photo and by whoever draws it. */
import type { Triple } from '@/core/colour/colorimetry';
import { fractalNoise, noise1, noise2 } from '@/core/surface/noise';
import { hex, mix } from './camera';
import { polygon } from './shapes';

type Place = readonly [x: number, y: number];

/** Middle of the neck from the head down, with half its width. Units of the picture's width. */
export const NECK: readonly (readonly [x: number, y: number, half: number])[] = [
  [0.53, 0.24, 0.052],
  [0.585, 0.28, 0.045],
  [0.622, 0.335, 0.041],
  [0.62, 0.395, 0.041],
  [0.585, 0.45, 0.045],
  [0.54, 0.505, 0.053],
  [0.51, 0.57, 0.066],
  [0.505, 0.65, 0.085],
  [0.52, 0.76, 0.115],
];
export const HEAD = { x: 0.487, y: 0.222, rx: 0.088, ry: 0.054, turn: -0.06 };
export const EYE = { x: 0.441, y: 0.212, r: 0.0135 };
export const BEAK: readonly Place[] = [
  [0.42, 0.194],
  [0.33, 0.215],
  [0.16, 0.262],
  [0.33, 0.266],
  [0.415, 0.252],
];
/** The dark stripe over the eye, and the plume that it runs out into. */
export const STRIPE: readonly Place[] = [
  [0.425, 0.187],
  [0.47, 0.17],
  [0.53, 0.172],
  [0.58, 0.195],
  [0.66, 0.255],
  [0.735, 0.335],
  [0.64, 0.272],
  [0.565, 0.232],
  [0.505, 0.208],
  [0.452, 0.197],
];
export const SHOULDER: readonly Place[] = [
  [0.6, 0.76],
  [0.615, 0.66],
  [0.67, 0.6],
  [0.77, 0.575],
  [0.89, 0.6],
  [1.02, 0.66],
  [1.02, 0.76],
];

export const inPolygon = (points: readonly Place[], x: number, y: number): boolean => polygon(points)(x, y);

/** Where a place lies on the neck: how far down (0..1), and across (-1 its front .. 1 its back); undefined beside it. */
export function onNeck(x: number, y: number): { down: number; across: number } | undefined {
  let best: { down: number; across: number; far: number } | undefined;
  for (let i = 1; i < NECK.length; i++) {
    const [x0, y0, h0] = NECK[i - 1];
    const [x1, y1, h1] = NECK[i];
    const [dx, dy] = [x1 - x0, y1 - y0];
    const t = Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy)));
    const [ex, ey] = [x - x0 - dx * t, y - y0 - dy * t];
    const half = h0 + (h1 - h0) * t;
    const far = Math.hypot(ex, ey) / half;
    if (far > 1 || (best && far >= best.far)) continue;
    const side = dx * ey - dy * ex > 0 ? -1 : 1;
    best = { down: (i - 1 + t) / (NECK.length - 1), across: side * far, far };
  }
  return best;
}

export const onHead = (x: number, y: number): boolean => {
  const { turn, rx, ry } = HEAD;
  const [dx, dy] = [x - HEAD.x, y - HEAD.y];
  const u = dx * Math.cos(turn) + dy * Math.sin(turn);
  const v = -dx * Math.sin(turn) + dy * Math.cos(turn);
  return (u / rx) ** 2 + (v / ry) ** 2 < 1;
};

const C = {
  farDark: hex('3f4a44'),
  far: hex('6f7d72'),
  reed: hex('8c8a63'),
  reedPale: hex('b3a97f'),
  water: hex('8a969a'),
  white: hex('e9e7df'),
  grey: hex('a4aab0'),
  shade: hex('5d6672'),
  dark: hex('22242b'),
  blue: hex('6f7d8e'),
  deep: hex('39414d'),
  beak: hex('c79a3f'),
  beakTop: hex('7d7150'),
  beakLow: hex('d9a953'),
  eye: hex('e2b92f'),
  warm: hex('c9b49a'),
};

function behind(x: number, y: number): Triple {
  const blur = fractalNoise(x * 5 + 3, y * 3, 41, 3);
  let c = mix(C.farDark, C.far, 1.6 * blur - 0.1 + 0.5 * (0.4 - y));
  const stem = noise2(x * 26 + 0.8 * noise2(x * 3, y * 2, 8), y * 1.4, 42);
  c = mix(c, stem > 0.62 ? C.reedPale : C.reed, 1.6 * Math.max(0, stem - 0.52) * Math.min(1, 0.3 + y * 1.4));
  return mix(c, C.water, Math.max(0, 0.6 - y * 3) * 0.6);
}

function feather(down: number, across: number, seed: number): number {
  return fractalNoise(across * 5, down * 26 + 0.6 * noise1(across * 9, seed), seed, 3);
}

function bird(x: number, y: number): Triple | undefined {
  if (Math.hypot(x - EYE.x, y - EYE.y) < EYE.r) {
    const r = Math.hypot(x - EYE.x, y - EYE.y) / EYE.r;
    if (Math.hypot(x - EYE.x + 0.003, y - EYE.y + 0.004) < 0.0026) return C.white;
    return r < 0.52 ? C.dark : mix(C.eye, C.dark, r > 0.86 ? 0.8 : 0.1);
  }
  if (inPolygon(STRIPE, x, y))
    return mix(C.dark, C.shade, 0.55 * fractalNoise(x * 60, y * 90, 13, 2) * (x > 0.6 ? 0.5 : 0.8));
  if (inPolygon(BEAK, x, y)) {
    const along = (x - 0.16) / 0.26;
    const gape = 0.262 - 0.026 * along;
    if (Math.abs(y - gape) < 0.0018) return C.dark;
    const c =
      y < gape
        ? mix(C.beak, C.beakTop, 0.9 - 28 * (gape - y) * 0.4 + 0.5 * noise2(x * 60, y * 60, 3))
        : mix(C.beakLow, C.beak, 0.5 * along);
    return mix(c, C.deep, along > 0.93 ? 0.35 : 0);
  }
  if (onHead(x, y)) {
    const low = (y - HEAD.y) / HEAD.ry;
    const n = fractalNoise(x * 40, y * 70, 15, 3);
    return mix(mix(C.white, C.grey, 0.35 + 0.6 * low + 0.7 * (n - 0.5)), C.shade, Math.max(0, 0.9 * low - 0.4));
  }
  if (inPolygon(SHOULDER, x, y)) {
    const plume = fractalNoise((x - y) * 34, (x + y) * 8, 19, 3);
    const c = mix(C.blue, C.deep, 1.5 * (plume - 0.36) + 0.5 * (y - 0.6));
    return mix(c, C.grey, plume > 0.62 ? 0.5 : 0);
  }
  const neck = onNeck(x, y);
  if (!neck) return undefined;
  const { down, across } = neck;
  const n = feather(down, across, 17);
  const round = Math.sqrt(Math.max(0, 1 - across * across));
  let c = mix(C.shade, C.grey, 0.2 + 0.9 * round - 0.45 * across + 0.6 * (n - 0.5));
  c = mix(c, C.white, Math.max(0, 0.75 * round * (1 - Math.abs(across + 0.35)) + 0.3 * (n - 0.5)));
  c = mix(c, C.warm, 0.25 * Math.max(0, across));
  const streak = noise2(across * 10, down * 20, 23);
  if (down > 0.3 && across < -0.1 && across > -0.75 && streak > 0.6)
    c = mix(c, C.dark, 0.85 * Math.min(1, (streak - 0.6) * 9));
  return c;
}

/** Linear light at a place of the photo. */
export const heron = (x: number, y: number): Triple => bird(x, y) ?? behind(x, y);
