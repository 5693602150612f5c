import { BANDS } from '@/core/colour/bands';
import { linearToLab, type Triple } from '@/core/colour/colorimetry';
import { filmReflectance } from '@/core/colour/kubelkaMunk';
import { bandsToLinear, normalise, type Mixture } from '@/core/colour/mixture';
import { isColoured, pigmentId } from '@/core/colour/pigments';
import type { Dried } from '@/core/film/packing/stratum';
import type { Tile } from '@/core/film/tile';
import { TILE } from '@/core/film/tile';
import { COAT_UM } from '@/core/film/packing/stratum';
import { dustUm, washRates } from '@/core/flow/washRates';
import { waterAtCell, washFilmsAt } from '@/core/picture/layers/washFilm';
import { CLOSED_UM, GRAINS_UM } from '@/core/kernels/colour';
import { hypot } from '@/core/maths/maths';
import type { Picture } from './picture';

/** Paint thinner than this is none, um. */
export const TRACE_UM = 3;

/** Less of a pigment than this is no line, coats. */
const LINE_COATS = 0.01;

/** What is at one spot of the painting. */
export interface SpotReading {
  /** CIELAB of the unlit paint, D65, 2 degree observer. */
  lab: Triple;
  /** Lit colour, sRGB codes. */
  srgb: Triple;
  /** All paint above the ground, wet and dry, um. */
  thicknessUm: number;
  /** 1 where the topmost paint is wet, 0 where it is dry or there is none; between, for a film that does not close. */
  wetness: number;
  waterUm: number;
  /** Parts (sum 1) of the topmost film that hides at least half of what is under it; of the tone where none does. */
  mixture: Mixture;
  /** Layer of that film, or `ground`. */
  layer: string;
}

/** One film of the stack at a cell. */
export interface FilmAtCell {
  readonly layer: string;
  /** Dry; a wash or dust; wet; or wet too, but laid on top and not worked in. */
  readonly state: 'dry' | 'grains' | 'wet' | 'top';
  readonly masses: readonly (readonly [pigment: number, coats: number])[];
  readonly um: number;
  /** When it dried, where that is known. */
  readonly dried?: Dried;
}

/** Reads a spot. @param x cell, @param y cell, both inside the painting @param only id of the one layer to look at */
export function readSpot(picture: Picture, x: number, y: number, only?: string): SpotReading {
  const { painting } = picture;
  const films = filmsAt(picture, x, y, only);
  const index = (y >> 6) * painting.tilesX + (x >> 6);
  const cell = (y & 63) * TILE + (x & 63);
  let wet = 0;
  let waterUm = 0;
  let thicknessUm = 0;
  for (const layer of painting.layers) {
    const tile = layer.tiles[index];
    if (!tile || !layer.visible) continue;
    const wetUm = plane(picture, tile.volume, cell);
    thicknessUm += wetUm + plane(picture, tile.sealed, cell) + washAt(picture, tile, cell).um;
    const water = waterAtCell(painting, layer, x, y);
    waterUm += water.um;
    if (layer.kind === 'paint') wet = Math.max(wet, Math.min(1, wetUm / CLOSED_UM), water.looks);
  }
  const hides = films.findLast((film) => hiding(film) >= 0.5);
  // one layer alone is asked for what it has, also where that is a thin line
  const found = hides ?? (only ? films.findLast(({ masses }) => masses.some(([, m]) => m > LINE_COATS)) : undefined);
  const mixture = found
    ? normalise(Object.fromEntries(found.masses.map(([p, m]) => [pigmentId(p), m])))
    : normalise(painting.spec.tone?.mixture ?? {});
  return {
    lab: picture.labAt(x, y),
    srgb: picture.litAt(x, y),
    thicknessUm,
    wetness: wet,
    waterUm,
    mixture,
    layer: found?.layer ?? 'ground',
  };
}

/** Cells of a spot that are read at most: a large spot is read on a grid. */
const SPOT_CELLS = 160;

/**
 * Reads a round spot and averages: its mixture is the mean of the mixtures of its cells, its colour the mean of their
 * light; whose layer it is and whether it is wet are those of its middle.
 * @param radius cells; under one, a single cell
 */
export function readAround(picture: Picture, x: number, y: number, radius: number, only?: string): SpotReading {
  const middle = readSpot(picture, x, y, only);
  if (radius < 1) return middle;
  const { width, height } = picture.painting;
  const step = Math.max(1, Math.sqrt((Math.PI * radius * radius) / SPOT_CELLS));
  const parts: Record<string, number> = {};
  const light: Triple = [0, 0, 0];
  let count = 0;
  for (let dy = -radius; dy <= radius; dy += step) {
    for (let dx = -radius; dx <= radius; dx += step) {
      const [cx, cy] = [Math.round(x + dx), Math.round(y + dy)];
      if (hypot(dx, dy) > radius || cx < 0 || cy < 0 || cx >= width || cy >= height) continue;
      const { mixture } = readSpot(picture, cx, cy, only);
      for (const [id, part] of Object.entries(mixture)) parts[id] = (parts[id] ?? 0) + part;
      picture.linearAt(cx, cy).forEach((v, c) => (light[c] += v));
      count++;
    }
  }
  return { ...middle, mixture: normalise(parts), lab: linearToLab(light.map((v) => v / Math.max(1, count)) as Triple) };
}

const plane = (picture: Picture, address: number, cell: number) =>
  address ? picture.painting.arena.f32[(address >> 2) + cell] : 0;

/** Films of the visible paint layers at a cell, lowest first, the drawing looked through; or of one layer alone, whatever it is. */
export function filmsAt(picture: Picture, x: number, y: number, only?: string): FilmAtCell[] {
  const { painting } = picture;
  const index = (y >> 6) * painting.tilesX + (x >> 6);
  const cell = (y & 63) * TILE + (x & 63);
  const films: FilmAtCell[] = [];
  for (const layer of painting.layers) {
    const tile: Tile | undefined = layer.tiles[index];
    if (!tile || !layer.visible || (only ? layer.id !== only : layer.kind === 'drawing')) continue;
    for (const s of tile.strata) {
      films.push({
        layer: layer.id,
        state: 'dry',
        masses: coloured(s.pigments, (i) => s.mass[i][cell] * s.massStep[i]),
        um: s.thickness[cell] * s.thicknessStep,
        dried: s.dried,
      });
    }
    if (tile.wash) {
      for (const { masses, cover } of washFilmsAt(painting.arena, tile.wash, cell)) {
        films.push({ layer: layer.id, state: 'grains', masses, um: cover * GRAINS_UM });
      }
    }
    if (tile.volume) {
      const top = (i: number) => plane(picture, tile.skin[i] ?? 0, cell);
      const onTop = plane(picture, tile.skinVolume, cell);
      films.push({
        layer: layer.id,
        state: 'wet',
        masses: coloured(tile.pigments, (i) => Math.max(0, plane(picture, tile.mass[i], cell) - top(i))),
        um: plane(picture, tile.volume, cell) - onTop,
      });
      if (onTop > 0) films.push({ layer: layer.id, state: 'top', masses: coloured(tile.pigments, top), um: onTop });
    }
  }
  return films;
}

/** Pigments of a film with what there is of each; medium and the like have no colour. */
const coloured = (pigments: readonly number[], coats: (place: number) => number) =>
  pigments.map((p, i) => [p, coats(i)] as const).filter(([p]) => isColoured(p));

/** How much of black against white a film hides, 0..1, by luminance. */
function hiding(film: FilmAtCell): number {
  if (film.um <= 0 || film.masses.every(([, m]) => m <= 0)) return 0;
  const cover = Math.min(1, film.um / GRAINS_UM);
  const over = (Rg: number) =>
    Float64Array.from({ length: BANDS.count }, (_, b) => {
      let A = 0;
      let S = 0;
      for (const [p, m] of film.masses) {
        A += (m / cover) * BANDS.K[p * BANDS.count + b];
        S += (m / cover) * BANDS.S[p * BANDS.count + b];
      }
      return Rg + (filmReflectance(A, S, Rg) - Rg) * cover;
    });
  const luminance = (R: Float64Array) => {
    const [r, g, b] = bandsToLinear(R);
    return 0.2126 * r + 0.7152 * g + 0.0722 * b;
  };
  const flat = (R: number) => new Float64Array(BANDS.count).fill(R);
  const bare = luminance(flat(0.9)) - luminance(flat(0.02));
  return 1 - (luminance(over(0.9)) - luminance(over(0.02))) / bare;
}

/** What a wash amounts to at a cell: thickness of its pigment, um; how strong it is, in washes of full strength. */
function washAt({ painting }: Picture, { wash }: Tile, cell: number): { um: number; strength: number } {
  let um = 0;
  let strength = 0;
  wash?.forEach((plane, pigment, coat) => {
    const coats = painting.arena.f32[(plane >> 2) + cell];
    um += coats * (coat === 'loose' || coat === 'pressed' ? dustUm(pigment) : COAT_UM);
    strength += coats / washRates(pigment).unit;
  });
  return { um, strength };
}

/** A wash weaker than this is none, washes of full strength. */
const TRACE_WASH = 0.02;

/** Means over an area of the painting. */
export interface RegionReading {
  meanLab: Triple;
  /** Share of cells with paint (more than 3 um, or more of a wash than a trace). */
  coverage: number;
  thicknessUm: { mean: number; sd: number; p95: number };
  /** Mean wetness, 0..1. */
  wetness: number;
  /** Depth of the relief's shading: standard deviation of the lit over the unlit luminance. */
  shading: number;
}

/** Reads cells [x0, x1) x [y0, y1). */
export function readRegion(picture: Picture, x0: number, y0: number, x1: number, y1: number): RegionReading {
  const { painting } = picture;
  const sum: Triple = [0, 0, 0];
  const thickness: number[] = [];
  let covered = 0;
  let wetness = 0;
  let shade = 0;
  let shade2 = 0;
  for (let y = y0; y < y1; y++) {
    for (let x = x0; x < x1; x++) {
      const rgb = picture.linearAt(x, y);
      for (let c = 0; c < 3; c++) sum[c] += rgb[c];
      const { dry, wet, washed, water } = thicknessAt(picture, x, y);
      thickness.push(dry + wet);
      if (dry + wet > TRACE_UM || washed) covered++;
      wetness += Math.max(water, Math.min(1, wet / CLOSED_UM));
      const at = y * painting.width + x;
      const { u32 } = painting.arena;
      const green = (v: number) => ((v >>> 8) & 255) / 255;
      const ratio = green(u32[picture.lit + at]) / Math.max(0.02, green(u32[picture.albedo + at]));
      shade += ratio;
      shade2 += ratio * ratio;
    }
  }
  const n = Math.max(1, thickness.length);
  const mean = thickness.reduce((a, b) => a + b, 0) / n;
  const variance = thickness.reduce((a, b) => a + (b - mean) ** 2, 0) / n;
  thickness.sort((a, b) => a - b);
  return {
    meanLab: linearToLab(sum.map((v) => v / n) as Triple),
    coverage: covered / n,
    thicknessUm: { mean, sd: Math.sqrt(variance), p95: thickness[Math.floor((thickness.length - 1) * 0.95)] ?? 0 },
    wetness: wetness / n,
    shading: Math.sqrt(Math.max(0, shade2 / n - (shade / n) ** 2)),
  };
}

/** Wet and dry paint at a cell over all visible layers, um; whether a wash is there, and how wet it looks, 0..1. */
export function thicknessAt(
  picture: Picture,
  x: number,
  y: number,
): { dry: number; wet: number; washed: boolean; water: number } {
  const { painting } = picture;
  const index = (y >> 6) * painting.tilesX + (x >> 6);
  const cell = (y & 63) * TILE + (x & 63);
  let dry = 0;
  let wet = 0;
  let washed = false;
  let water = 0;
  for (const layer of painting.layers) {
    const tile = layer.tiles[index];
    if (!tile || !layer.visible) continue;
    const wash = washAt(picture, tile, cell);
    dry += plane(picture, tile.sealed, cell) + wash.um;
    wet += plane(picture, tile.volume, cell);
    washed ||= wash.strength > TRACE_WASH;
    water = Math.max(water, waterAtCell(painting, layer, x, y).looks);
  }
  return { dry, wet, washed, water };
}
