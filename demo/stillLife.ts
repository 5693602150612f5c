/** The photo of a still life from the same place: an enamel mug, a coil of tarred rope, two mussel shells on a plank. */
import type { Triple } from '@/core/colour/colorimetry';
import { fractalNoise, noise2 } from '@/core/surface/noise';
import { hex, mix } from './camera';
import { dome, INSIDE, onValve, OUTSIDE, type Valve } from './shells';

const C = {
  wallDark: hex('4d4a45'),
  wall: hex('85806f'),
  wood: hex('a08f78'),
  woodDark: hex('5d5041'),
  woodPale: hex('c2b49b'),
  gap: hex('1f1a16'),
  enamel: hex('2b5c96'),
  enamelDark: hex('12294a'),
  enamelLight: hex('86b1dd'),
  white: hex('e4e2da'),
  rim: hex('1c2638'),
  chip: hex('2a2422'),
  rope: hex('4b3a28'),
  ropeDark: hex('17110d'),
  ropeLight: hex('8d7350'),
  shell: hex('20253a'),
  shellBlue: hex('4a5f8c'),
  shellBrown: hex('5e4431'),
  shellLight: hex('c9d4e4'),
  shellDark: hex('0b0c14'),
  nacre: hex('b9bcc8'),
  nacreBlue: hex('7f8cab'),
  nacreViolet: hex('564a68'),
  nacreWhite: hex('f1efec'),
  scar: hex('8a8798'),
  shadow: hex('1a1612'),
};

const TABLE = 0.24;
const MUG = { x: 0.27, top: 0.1, foot: 0.4, half: 0.108, flat: 0.3 };
const ROPE = { x: 0.68, y: 0.33, half: 0.17, flat: 0.42, strand: 0.024, turns: 3 };

/** Light from the left, above and before. */
const LIGHT = [-0.55, -0.5, 0.67] as const;
const lit = (nx: number, ny: number, nz: number): number => {
  const n = Math.hypot(nx, ny, nz);
  return Math.max(0, (nx * LIGHT[0] + ny * LIGHT[1] + nz * LIGHT[2]) / n);
};

function plank(x: number, y: number): Triple {
  if (y < TABLE)
    return mix(C.wall, C.wallDark, 0.35 + 1.3 * (x - 0.4) + 0.8 * (fractalNoise(x * 5, y * 5, 3, 3) - 0.5));
  const d = (y - TABLE) / (0.75 - TABLE);
  const board = Math.floor(Math.sqrt(d) * 3.2);
  const from = (board / 3.2) ** 2;
  const to = ((board + 1) / 3.2) ** 2;
  const across = (d - from) / (to - from);
  const grain = fractalNoise(x * 5 + board * 7, d * 60 + 3 * noise2(x * 3, board, 5), 17, 4);
  const fine = noise2(x * 14, d * 420, 19);
  let c = mix(C.wood, C.woodDark, 2.2 * (grain - 0.46) + 0.5 * (fine - 0.6) + 0.12 * board);
  c = mix(c, C.woodPale, 1.6 * (0.42 - grain) + 0.25 * (1 - x));
  if (across < 0.025 || across > 0.985) c = mix(c, C.gap, 0.85);
  return c;
}

/** What stands between a place on the plank and the light, 0..1. */
function shade(x: number, y: number): number {
  let s = 0;
  const under = (cx: number, cy: number, rx: number, ry: number, far: number) => {
    const q = ((x - cx - far * 0.5) / (rx + far * 0.5)) ** 2 + ((y - cy - far * 0.2) / (ry + far * 0.15)) ** 2;
    s = Math.max(s, Math.min(1, 2.4 * (1 - q)));
  };
  under(MUG.x, MUG.foot, MUG.half, MUG.half * MUG.flat, 0.16);
  under(ROPE.x, ROPE.y + 0.03, ROPE.half, ROPE.half * ROPE.flat, 0.04);
  for (const v of [OUTSIDE, INSIDE]) {
    for (const k of [0.3, 0.6, 1]) if (onValve(v, x - 0.022 * k, y - 0.02 * k)) s = Math.max(s, 1 - 0.25 * k);
  }
  return s;
}

function mug(x: number, y: number): Triple | undefined {
  const { half, flat } = MUG;
  const u = (x - MUG.x) / half;
  const round = (cy: number, r: number) => ((x - MUG.x) / r) ** 2 + ((y - cy) / (r * flat)) ** 2;
  const opening = round(MUG.top, half);
  if (opening < 1) {
    if (opening > 0.87) return mix(C.rim, C.enamelLight, u < -0.2 && y < MUG.top ? 0.5 : 0);
    const inside = (y - MUG.top) / (half * flat);
    return mix(C.white, C.wallDark, 0.2 + 0.55 * Math.max(0, -u * 0.7 + 0.25 - inside * 0.35));
  }
  const handle = Math.hypot((x - MUG.x + half * 1.02) / 0.052, (y - 0.235) / 0.085);
  if (u < -0.96 && handle > 0.72 && handle < 1.02) {
    const t = (handle - 0.87) / 0.15;
    return mix(C.enamel, t < -0.3 ? C.enamelDark : C.enamelLight, Math.abs(t) * 0.7);
  }
  if (Math.abs(u) > 1) return undefined;
  const bottom = MUG.foot + half * flat * Math.sqrt(1 - u * u) * 0.95;
  if (y < MUG.top || y > bottom) return undefined;
  const nx = u;
  const nz = Math.sqrt(1 - u * u);
  const light = lit(nx, -0.1, nz);
  let c = mix(C.enamelDark, C.enamel, 0.15 + 1.1 * light);
  c = mix(c, C.enamelLight, Math.exp(-(((u + 0.55) / 0.09) ** 2)) * 0.9 * (0.7 + 0.3 * noise2(3, y * 40, 4)));
  c = mix(c, C.woodDark, Math.max(0, u - 0.55) * 0.6 * Math.max(0, (y - 0.3) * 6));
  if (fractalNoise(x * 34, y * 34, 61, 2) > 0.79 || bottom - y < 0.006) c = mix(c, C.chip, 0.8);
  return c;
}

function rope(x: number, y: number): Triple | undefined {
  // the upper turns lie on the lower: the first that is met from above counts
  for (let k = 0; k < ROPE.turns; k++) {
    const lift = 0.034 * (ROPE.turns - 1 - k) + 0.01;
    const half = ROPE.half * (1 - 0.055 * ((k * 7) % 3));
    const dx = (x - ROPE.x - 0.006 * (k - 1)) / half;
    const dy = (y - ROPE.y + lift) / (half * ROPE.flat);
    const r = Math.hypot(dx, dy);
    const angle = Math.atan2(dy, dx);
    const thick = (ROPE.strand / half) * (1 + 0.7 * Math.abs(Math.sin(angle)));
    const t = (r - 1) / thick;
    if (Math.abs(t) > 1) continue;
    const lay = Math.sin(angle * 46 + t * 2.4 + k);
    const fuzz = noise2(x * 260, y * 260, 7 + k);
    const ny = t * Math.sin(angle);
    const nx = t * Math.cos(angle);
    const light = lit(nx * 0.9, ny * 0.9, Math.sqrt(Math.max(0.05, 1 - t * t)));
    return mix(
      mix(C.ropeDark, C.rope, 0.2 + 0.9 * light + 0.35 * (fuzz - 0.5)),
      C.ropeLight,
      0.75 * light * (lay - 0.15) + 0.2 * (fuzz - 0.6),
    );
  }
  return undefined;
}

/** Slope of a valve's dome at a place. */
function slope(v: Valve, x: number, y: number): [number, number] {
  const at = (px: number, py: number) => {
    const place = onValve(v, px, py);
    return place ? v.long * dome(place.growth, place.side) : 0;
  };
  const e = 0.0015;
  return [(at(x + e, y) - at(x - e, y)) / (2 * e), (at(x, y + e) - at(x, y - e)) / (2 * e)];
}

function outside(x: number, y: number): Triple | undefined {
  const place = onValve(OUTSIDE, x, y);
  if (!place) return undefined;
  const { growth, side } = place;
  const [sx, sy] = slope(OUTSIDE, x, y);
  const rings = 0.11 * Math.sin(growth * 68 + 5 * noise2(growth * 9, side * 2, 8)) * growth;
  const light = lit(-sx + rings * 0.5, -sy, 1);
  const year = Math.max(0, Math.sin(growth * 21 + 0.6 * side)) ** 6;
  let c = mix(C.shellDark, C.shell, 0.3 + 1.2 * light);
  c = mix(
    c,
    C.shellBlue,
    (0.75 * light + 0.25) * (0.25 + 0.9 * fractalNoise(growth * 16, side * 3, 9, 3)) * (growth > 0.2 ? 1 : growth * 5),
  );
  c = mix(c, C.shellBrown, Math.max(0, 0.42 - growth) * 1.8 * (0.4 + noise2(growth * 30, side * 6, 4)));
  c = mix(c, C.shellDark, 0.55 * year);
  const shine = Math.max(0, light - 0.78) / 0.22;
  return mix(c, C.shellLight, 0.95 * shine ** 1.6 * (0.75 + rings * 2));
}

function inside(x: number, y: number): Triple | undefined {
  const place = onValve(INSIDE, x, y);
  if (!place) return undefined;
  const { growth, side } = place;
  const [sx, sy] = slope(INSIDE, x, y);
  const light = lit(sx, sy, 1);
  let c = mix(C.nacreBlue, C.nacre, 1.5 * light - 0.2);
  c = mix(c, C.nacreWhite, 0.9 * Math.max(0, light - 0.72) * 3);
  const edge = growth ** 5 + 0.5 * Math.abs(side) ** 7;
  c = mix(c, C.nacreViolet, 1.15 * (edge - 0.35) + 0.3 * (fractalNoise(growth * 9, side * 5, 12, 3) - 0.5));
  if (Math.hypot((growth - 0.72) / 0.13, (side - 0.35) / 0.26) < 1) c = mix(c, C.scar, 0.5);
  if (growth > 0.965 || Math.abs(side) > 0.965) c = mix(c, C.shell, 0.85);
  return c;
}

/** Linear light at a place. */
export function stillLife(x: number, y: number): Triple {
  const thing = outside(x, y) ?? inside(x, y) ?? rope(x, y) ?? mug(x, y);
  if (thing) return thing;
  const c = plank(x, y);
  return y < TABLE ? c : mix(c, C.shadow, 0.78 * shade(x, y));
}
