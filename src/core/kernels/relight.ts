import { hypot, maths } from '@/core/maths/maths';

/**
 * Light on the relief: one lamp from the side, light of the room from everywhere, short soft shadows, the gloss of wet
 * and rich paint, and the veil over lean paint, whose matte surface scatters light that a varnish would let in. Heights
 * are in um, turned into cells by `scale`. Plain loops; the compiled twin works on cells that lie at least RELIGHT_REACH
 * from the picture's edges.
 */

/** Layout of the parameter block, in 4-byte words: integers, then floats. */
export const RELIGHT = {
  width: 0,
  height: 1,
  albedo: 2, // word address of unlit sRGB codes, 0xAABBGGRR; alpha = SHEEN: above 128 gloss, below it matte
  relief: 3, // word address of total heights, um
  lit: 4, // word address of the result
  linear: 5, // word address of the linear values of the 256 codes
  codes: 6, // byte address of the table back
  steps: 7, // last index of that table (float)
  scale: 8, // cells for each um
  lampX: 9, // unit vector towards the lamp (y down)
  lampY: 10,
  lampZ: 11,
  halfX: 12, // half way between lamp and eye
  halfY: 13,
  halfZ: 14,
  room: 15, // share of the light that comes from the room
  shadow: 16, // darkness of cast shadows
  gloss: 17, // strength of the gloss
  flat: 18, // gloss of a flat surface, halfZ^32
  towards: 19, // four pairs of integers: cells to look at for shadow, dx, dy
  rise: 27, // four floats: height (cells) from which something there hides a part of the lamp
  hides: 31, // four floats: share of the lamp that each cell of height above that hides
  glossGain: 35, // finish: gloss and matte become gain * own + lift
  glossLift: 36,
  matteGain: 37,
  matteLift: 38,
  veil: 39, // light that a matte surface scatters
  tint: 40, // three floats: colour of the light
  words: 43,
} as const;

/** Cells beyond its own that a cell's light depends on. */
export const RELIGHT_REACH = 9;

/** Where shadows are looked for, cells towards the lamp. */
const TOWARDS = [1, 2, 4, 8];
/**
 * The lamp is not a point: shadows begin where its upper rim is hidden, at this share of the height that hides its middle,
 * and grow until that height and some more is reached (cells: the ground between two cells is not flat).
 */
const RIM = 0.65;
const GROUND = 0.6;

/** Alpha of a surface that is neither glossy nor matte. */
export const SHEEN = 128;
/** Linear light that a wholly matte film scatters from its surface. */
const VEIL = 0.03;

/** Where the light comes from, and how the painting's surface takes it. */
export interface Light {
  /** Direction of the lamp, degrees clockwise from the top of the painting. */
  readonly azimuth: number;
  /** Height of the lamp above the painting, degrees. */
  readonly elevation: number;
  /** Share of the light that comes from the room, 0..1; 1 leaves no relief. */
  readonly room: number;
  /** Finish of the surface: 0 all matte, 0.5 as it was painted, 1 varnished. */
  readonly finish: number;
  /** Colour of the light: -1 cool north light, 0 neutral, 1 a warm lamp. */
  readonly warmth: number;
}

/** Fills in everything that follows from the light. */
export function aimLamp(
  f32: Float32Array,
  i32: Int32Array,
  block: number,
  { azimuth, elevation, room, finish, warmth }: Light,
): void {
  const az = (azimuth * Math.PI) / 180;
  const el = (elevation * Math.PI) / 180;
  const flat = maths.cos(el);
  const x = maths.sin(az) * flat;
  const y = -maths.cos(az) * flat;
  const z = maths.sin(el);
  const norm = hypot(x, y, z + 1);
  const lamp = Math.min(1, (1 - room) * 2);
  f32.set(
    [x, y, z, x / norm, y / norm, (z + 1) / norm, room, 0.55 * lamp, 0.1 * lamp, maths.pow((z + 1) / norm, 32)],
    block + RELIGHT.lampX,
  );
  const dull = Math.max(0, 1 - 2 * finish);
  const varnish = Math.max(0, 2 * finish - 1);
  f32.set(
    [
      (1 - dull) * (1 - varnish),
      0.9 * varnish,
      (1 - 0.6 * dull) * (1 - varnish),
      0.6 * dull,
      VEIL * lamp,
      1 + 0.1 * warmth,
      1,
      1 - 0.2 * warmth,
    ],
    block + RELIGHT.glossGain,
  );
  const length = hypot(x, y) || 1;
  TOWARDS.forEach((far, k) => {
    const rise = Math.min(1e6, (far * z) / length);
    i32[block + RELIGHT.towards + 2 * k] = Math.round((x / length) * far);
    i32[block + RELIGHT.towards + 2 * k + 1] = Math.round((y / length) * far);
    f32[block + RELIGHT.rise + k] = RIM * rise;
    f32[block + RELIGHT.hides + k] = 1 / (rise + GROUND);
  });
}

/** What light does to a cell, into `out`: linear albedo a becomes a * d + shine, with d by `litShare`. */
function lightAt(
  f32: Float32Array,
  i32: Int32Array,
  u32: Uint32Array,
  block: number,
  x: number,
  y: number,
  out: Float64Array,
): void {
  const width = i32[block + RELIGHT.width];
  const height = i32[block + RELIGHT.height];
  const relief = i32[block + RELIGHT.relief];
  const scale = f32[block + RELIGHT.scale];
  const lz = f32[block + RELIGHT.lampZ];
  const room = f32[block + RELIGHT.room];
  const up = y > 0 ? -width : 0;
  const down = y < height - 1 ? width : 0;
  const cell = y * width + x;
  const h = relief + cell;
  const l = x > 0 ? -1 : 0;
  const r = x < width - 1 ? 1 : 0;
  const gx =
    ((f32[h + r] - f32[h + l]) * 0.375 +
      (f32[h + down + r] - f32[h + down + l] + f32[h + up + r] - f32[h + up + l]) * 0.0625) *
    scale;
  const gy =
    ((f32[h + down] - f32[h + up]) * 0.375 +
      (f32[h + down + r] - f32[h + up + r] + f32[h + down + l] - f32[h + up + l]) * 0.0625) *
    scale;
  const inverse = 1 / Math.sqrt(gx * gx + gy * gy + 1);
  const facing = Math.max(0, (lz - gx * f32[block + RELIGHT.lampX] - gy * f32[block + RELIGHT.lampY]) * inverse);
  let hidden = 0;
  for (let k = 0; k < 4; k++) {
    const sx = x + i32[block + RELIGHT.towards + 2 * k];
    const sy = y + i32[block + RELIGHT.towards + 2 * k + 1];
    if (sx < 0 || sy < 0 || sx >= width || sy >= height) break;
    const above = (f32[relief + sy * width + sx] - f32[h]) * scale - f32[block + RELIGHT.rise + k];
    hidden = Math.max(hidden, above * f32[block + RELIGHT.hides + k]);
  }
  const open = 1 - f32[block + RELIGHT.shadow] * Math.min(1, hidden);
  const diffuse = room * (0.5 + 0.5 * inverse) + (1 - room) * (facing / lz) * open;
  // (n.h)^32, less what a flat surface shows
  let s = Math.max(
    0,
    (f32[block + RELIGHT.halfZ] - gx * f32[block + RELIGHT.halfX] - gy * f32[block + RELIGHT.halfY]) * inverse,
  );
  for (let k = 0; k < 5; k++) s *= s;
  const sheen = (u32[i32[block + RELIGHT.albedo] + cell] >>> 24) - SHEEN;
  const glossy = f32[block + RELIGHT.glossGain] * Math.max(0, sheen / 127) + f32[block + RELIGHT.glossLift];
  const matte = f32[block + RELIGHT.matteGain] * Math.max(0, -sheen / 128) + f32[block + RELIGHT.matteLift];
  out[0] = diffuse;
  out[1] =
    f32[block + RELIGHT.gloss] * glossy * Math.max(0, s - f32[block + RELIGHT.flat]) * open +
    f32[block + RELIGHT.veil] * matte * diffuse;
}

/** How much light linear albedo shows: bright paint lightens its own shadows. */
const litShare = (diffuse: number, a: number): number => (diffuse < 1 ? diffuse + (1 - diffuse) * 0.18 * a : diffuse);

const atCell = new Float64Array(2);

/** Relights cells [x0, x1) x [y0, y1). `block` is the word address of the parameters. */
export function relight(
  f32: Float32Array,
  i32: Int32Array,
  u32: Uint32Array,
  u8: Uint8Array,
  block: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): void {
  const width = i32[block + RELIGHT.width];
  const albedo = i32[block + RELIGHT.albedo];
  const lit = i32[block + RELIGHT.lit];
  const linear = i32[block + RELIGHT.linear];
  const codes = i32[block + RELIGHT.codes];
  const steps = f32[block + RELIGHT.steps];
  for (let y = y0; y < y1; y++) {
    for (let x = x0; x < x1; x++) {
      const cell = y * width + x;
      lightAt(f32, i32, u32, block, x, y, atCell);
      const v = u32[albedo + cell];
      let code = 0xff000000;
      for (let c = 0; c < 24; c += 8) {
        const a = f32[linear + ((v >>> c) & 255)] * f32[block + RELIGHT.tint + c / 8];
        const out = a * litShare(atCell[0], a) + atCell[1];
        code |= u8[codes + (out >= 1 ? steps : (out * steps + 0.5) | 0)] << c;
      }
      u32[lit + cell] = code >>> 0;
    }
  }
}

/** Relights linear colours of one row, three a cell, in place: the same light, in steps as fine as numbers have. */
export function relightRow(
  f32: Float32Array,
  i32: Int32Array,
  u32: Uint32Array,
  block: number,
  y: number,
  x0: number,
  x1: number,
  linear: Float32Array,
): void {
  for (let x = x0, at = 0; x < x1; x++) {
    lightAt(f32, i32, u32, block, x, y, atCell);
    for (let c = 0; c < 3; c++, at++) {
      const a = Math.max(0, linear[at]) * f32[block + RELIGHT.tint + c];
      linear[at] = a * litShare(atCell[0], a) + atCell[1];
    }
  }
}
