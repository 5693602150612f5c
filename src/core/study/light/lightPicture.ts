import { encodeSrgb } from '@/core/colour/colorimetry';
import { lampAt } from './bounce';
import { bouncedRow, type LightMap } from './lightMap';
import type { Source } from './scene';

/** What a board shows: how much of the lights is seen, as washes; or the light itself, with its colours. */
export type LightLook = 'shadow' | 'light';

/** Pale yellow and blue-grey: full light and shadow, sRGB 0 to 255. */
export const FULL_LIGHT = [255, 246, 214];
export const FULL_SHADOW = [146, 158, 178];
/** What is dark, sRGB 0 to 255: a drawing has no holes. */
const DARK = [24, 26, 32];
/** How many points of a board lie under the light that is shown as bright, and how bright that is. */
const BRIGHTEST = 0.75;
const BRIGHT = 0.6;
/** Light that is shown half as bright as white, in shares of that. */
const HALF = (1 - BRIGHT) / BRIGHT;

/** Bytes of linear values, 0 to 1 in so many steps: a board has millions of points. */
const STEPS = 4095;
const BYTES = Uint8ClampedArray.from({ length: STEPS + 1 }, (_, i) => 255 * encodeSrgb(i / STEPS));

/** Light of a source along a row of points that see all of it, in units of an even sky all round. */
function unhinderedRow(source: Source, y: number, mmPerPx: number, out: Float64Array): void {
  const { kind, strength, x0, y0, x1, y1 } = source;
  if (kind === 'sun' || kind === 'sky') {
    out.fill((strength * (kind === 'sky' ? source.half : 1)) / Math.PI);
    return;
  }
  const ay = y0 - y;
  const by = y1 - y;
  for (let x = 0; x < out.length; x++) {
    const ax = x0 - (x + 0.5) * mmPerPx;
    if (kind === 'lamp') {
      out[x] = lampAt(source, Math.sqrt(ax * ax + ay * ay)) / Math.PI;
      continue;
    }
    const bx = x1 - (x + 0.5) * mmPerPx;
    if (ax * by - ay * bx <= 0) out[x] = 0;
    else {
      const cosine = (ax * bx + ay * by) / Math.sqrt((ax * ax + ay * ay) * (bx * bx + by * by));
      // the sine of half the angle for half the angle: as exact as light needs to be drawn
      out[x] = (strength * Math.sqrt(Math.max(0, (1 - cosine) / 2))) / Math.PI;
    }
  }
}

/** Light along the rows of a board, into the same arrays row after row. */
class Rows {
  /** Three numbers a point: light that is there, straight and bounced, linear. */
  readonly light: Float64Array;
  /** How much would be there if nothing stood in its way, and how much of that is seen. */
  readonly all: Float64Array;
  readonly seen: Float64Array;
  private readonly one: Float64Array;

  constructor(private readonly map: LightMap) {
    this.light = new Float64Array(3 * map.width);
    this.all = new Float64Array(map.width);
    this.seen = new Float64Array(map.width);
    this.one = new Float64Array(map.width);
  }

  at(y: number): void {
    const { map, light, all, seen, one } = this;
    const { width, scene, shares, mmPerPx } = map;
    all.fill(0);
    seen.fill(0);
    bouncedRow(map, y, light);
    for (let s = 0; s < shares.length; s++) {
      const source = scene.sources[s];
      const share = shares[s];
      const [red, green, blue] = source.colour;
      unhinderedRow(source, (y + 0.5) * mmPerPx, mmPerPx, one);
      for (let x = 0, i = y * width; x < width; x++, i++) {
        const here = one[x] * share[i];
        all[x] += one[x];
        seen[x] += here;
        light[3 * x] += here * red;
        light[3 * x + 1] += here * green;
        light[3 * x + 2] += here * blue;
      }
    }
  }
}

/** Share of the lights that each point sees, each by how strong it would be; 1 where there is no light at all. */
export function litShares(map: LightMap): Float32Array {
  const { width, height, scene } = map;
  const rows = new Rows(map);
  const out = new Float32Array(width * height);
  const dark = scene.sources.length > 0 ? 0 : 1;
  for (let y = 0, i = 0; y < height; y++) {
    rows.at(y);
    for (let x = 0; x < width; x++, i++) out[i] = rows.all[x] > 0 ? rows.seen[x] / rows.all[x] : dark;
  }
  return out;
}

/**
 * The light that is shown as bright: what all but a quarter of the board lies under.
 * @param map a coarse one is enough
 */
export function exposureOf(map: LightMap): number {
  const rows = new Rows(map);
  const values: number[] = [];
  const step = Math.max(1, Math.floor(Math.max(map.width, map.height) / 120));
  for (let y = 0; y < map.height; y += step) {
    rows.at(y);
    for (let x = 0; x < map.width; x += step)
      values.push(Math.max(rows.light[3 * x], rows.light[3 * x + 1], rows.light[3 * x + 2]));
  }
  values.sort((a, b) => a - b);
  return values[Math.floor(BRIGHTEST * values.length)] || 1;
}

/** How light is shown: it rolls off towards white and keeps its hue, as the eye gets used to it. @param at of both arrays */
export function shownAs(light: Float64Array, from: number, bright: number, out: Uint8ClampedArray, at: number): void {
  const most = Math.max(light[from], light[from + 1], light[from + 2]);
  const scale = most > 0 ? 1 / (most + HALF * bright) : 0;
  for (let c = 0; c < 3; c++) {
    const byte = BYTES[Math.round(STEPS * Math.min(1, light[from + c] * scale))];
    out[at + c] = DARK[c] + (byte * (255 - DARK[c])) / 255;
  }
}

/** A picture of a board, opaque RGBA. @param bright what exposureOf says */
export function lightPicture(map: LightMap, look: LightLook, bright: number): Uint8ClampedArray<ArrayBuffer> {
  const { width, height } = map;
  const out = new Uint8ClampedArray(4 * width * height);
  const rows = new Rows(map);
  const dark = map.scene.sources.length > 0 ? 0 : 1;
  for (let y = 0, i = 0; y < height; y++) {
    rows.at(y);
    for (let x = 0; x < width; x++, i += 4) {
      if (look === 'shadow') {
        const lit = rows.all[x] > 0 ? rows.seen[x] / rows.all[x] : dark;
        for (let c = 0; c < 3; c++) out[i + c] = FULL_SHADOW[c] + lit * (FULL_LIGHT[c] - FULL_SHADOW[c]);
      } else {
        shownAs(rows.light, 3 * x, bright, out, i);
      }
      out[i + 3] = 255;
    }
  }
  return out;
}
