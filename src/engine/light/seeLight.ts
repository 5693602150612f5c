import type { Outlines } from '@/core/study/light/bounce';
import { firstLook, fullLook, type LightMap } from '@/core/study/light/lightMap';
import {
  exposureOf,
  FULL_LIGHT,
  lightPicture,
  litShares,
  shownAs,
  type LightLook,
} from '@/core/study/light/lightPicture';
import { borderLines, simplified, type BorderLine } from '@/core/study/light/shadowBorders';
import { EXTREME, type BoardGrid } from '@/core/study/light/shareMap';
import { sceneOf } from '@/core/study/light/scene';
import type { LightSeen, LightWanted, SourceBorders } from './lightMessages';

/** Points of a first look, so few that it is there at once. */
const FIRST_POINTS = 22_000;
/** Lines keep what lies further than this beside them, pixels. */
const FINE_PX = 0.35;

const gridOf = (study: LightWanted['study'], width: number, height: number): BoardGrid => ({
  width,
  height,
  mmPerPx: study.widthMm / width,
});

const inShares = (lines: readonly BorderLine[], width: number): BorderLine[] =>
  lines.map((line) => simplified(line, FINE_PX).map(([x, y]) => [x / width, y / width] as const));

function bordersOf(map: LightMap): SourceBorders[] {
  return map.scene.sources.map(({ id }, s) => ({
    source: id,
    umbra: inShares(borderLines(map.shares[s], map, EXTREME), map.width),
    penumbra: inShares(borderLines(map.shares[s], map, 1 - EXTREME), map.width),
  }));
}

/** Closed lines round where less light is than a level: outside of the board there is light. */
function shadeLines(map: LightMap, levels: readonly number[]): BorderLine[][] {
  if (levels.length === 0) return [];
  const { width, height } = map;
  const lit = litShares(map);
  const framed = new Float32Array((width + 2) * (height + 2)).fill(1);
  for (let y = 0; y < height; y++) framed.set(lit.subarray(y * width, (y + 1) * width), (y + 1) * (width + 2) + 1);
  const grid = { width: width + 2, height: height + 2, mmPerPx: map.mmPerPx };
  return levels.map((level) =>
    borderLines(framed, grid, level).map((line) =>
      simplified(line, FINE_PX).map(
        ([x, y]) =>
          [Math.max(0, Math.min(width, x - 1)) / width, Math.max(0, Math.min(height, y - 1)) / width] as const,
      ),
    ),
  );
}

/** How outlines are seen: what falls on them, by itself as washes are, or of the colour that they give back. */
function outlineColours(
  { count, colours, direct, bounced }: Outlines,
  look: LightLook,
  bright: number,
): Uint8ClampedArray {
  const out = new Uint8ClampedArray(3 * count);
  const light = new Float64Array(3);
  for (let i = 0; i < count; i++) {
    const at = 3 * i;
    for (let c = 0; c < 3; c++) light[c] = direct[at + c] + bounced[at + c];
    if (look === 'shadow') {
      const lit = light[1] / (light[1] + 0.5 * bright);
      for (let c = 0; c < 3; c++) out[at + c] = DARK_SIDE[c] + lit * (FULL_LIGHT[c] - DARK_SIDE[c]);
    } else {
      for (let c = 0; c < 3; c++) light[c] *= colours[at + c];
      shownAs(light, 0, bright, out, at);
    }
  }
  return out;
}
/** Of what no light falls on, in a board of washes. */
const DARK_SIDE = [70, 80, 100];

const NO_OUTLINES = { ends: new Float64Array(0), colours: new Uint8ClampedArray(0) };

/** A board at first sight, coarse. */
export function lightAtFirst({ serial, study, width, height, look }: LightWanted): LightSeen {
  const part = Math.min(1, Math.sqrt(FIRST_POINTS / (width * height)));
  const few = { width: Math.max(1, Math.round(width * part)), height: Math.max(1, Math.round(height * part)) };
  const map = firstLook(sceneOf(study), gridOf(study, few.width, few.height));
  const rgba = lightPicture(map, look, exposureOf(map));
  return { serial, whole: false, ...few, rgba, borders: [], outlines: NO_OUTLINES, shades: [] };
}

/** All of a board. */
export function lightInFull({ serial, study, width, height, look, shades = [] }: LightWanted): LightSeen {
  const map = fullLook(sceneOf(study), gridOf(study, width, height));
  const bright = exposureOf(map);
  return {
    serial,
    whole: true,
    width,
    height,
    rgba: lightPicture(map, look, bright),
    borders: bordersOf(map),
    outlines: { ends: map.outlines!.ends, colours: outlineColours(map.outlines!, look, bright) },
    shades: shadeLines(map, shades),
  };
}
