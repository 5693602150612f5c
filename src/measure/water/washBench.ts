/** What tests of watercolour need: washes laid as a painter lays them, and the pigment that lies at each cell. */
import type { Mixture } from '@/core/colour/mixture';
import { findPigment } from '@/core/colour/pigments';
import { TILE } from '@/core/film/tile';
import type { CommandInput } from '@/core/commands/commands';
import type { Studio } from '@/core/journal/studio';
import type { ToolId } from '@/core/tools/tools';
import { flowOf } from '@/core/flow/flowing';
import { eachCell, mean, paint, type Area } from '@/measure/bench';

type Points = readonly (readonly [x: number, y: number])[];

/** A stroke through points at a speed of the hand, mm/s. */
export function through(points: Points, speed = 60, pressure = 1): CommandInput {
  let t = 0;
  const samples = points.map(([x, y], i) => {
    if (i > 0) t += (Math.hypot(x - points[i - 1][0], y - points[i - 1][1]) / speed) * 1000;
    return [t, x, y, pressure];
  });
  return { do: 'stroke', samples };
}

/** The same way with points close to its corners, so that the curve through them does not swing out. */
function cornered(points: Points): [number, number][] {
  const out: [number, number][] = [];
  points.forEach(([x, y], i) => {
    const towards = (to: Points[number] | undefined) => {
      if (!to) return;
      const length = Math.hypot(to[0] - x, to[1] - y);
      const near = Math.min(0.4, length / 3) / Math.max(1e-6, length);
      out.push([x + (to[0] - x) * near, y + (to[1] - y) * near]);
    };
    towards(points[i - 1]);
    out.push([x, y]);
    towards(points[i + 1]);
  });
  return out;
}

interface Wet {
  readonly amount?: number;
  readonly water?: number;
  readonly strength?: number;
  readonly speed?: number;
}

/** Takes a watercolour brush full of a mixture, or of clear water. */
export const dipped = (
  tool: ToolId,
  sizeMm: number,
  mixture: Mixture,
  { amount = 1, water = 0.75, strength = 0.5 }: Wet = {},
): CommandInput[] => [
  { do: 'tool', tool, sizeMm, strength, blend: 0 },
  { do: 'load', mixture: { ...mixture }, amount, water },
];

/** Lays a wash to and fro over an area without lifting, with straight sides. */
export function washed([x, y, w, h]: Area, sizeMm: number, mixture: Mixture, wet: Wet = {}): CommandInput[] {
  const r = sizeMm / 2;
  const points: [number, number][] = [];
  for (let row = 0, at = y + r; ; row++, at += sizeMm * 0.62) {
    const yy = Math.min(at, y + h - r);
    const ends: [number, number][] = [
      [x + r, yy],
      [x + w - r, yy],
    ];
    points.push(...(row & 1 ? ends.reverse() : ends));
    if (yy >= y + h - r) break;
  }
  const edge = r / 2;
  const round: Points = [
    [x + edge, y + edge],
    [x + w - edge, y + edge],
    [x + w - edge, y + h - edge],
    [x + edge, y + h - edge],
    [x + edge, y + edge],
  ];
  return [
    ...dipped('mop', r, mixture, wet),
    through(cornered(round), 2 * (wet.speed ?? 90)),
    ...dipped('mop', sizeMm, mixture, wet),
    through(cornered(points), wet.speed ?? 90),
  ];
}

/** Coats of a pigment at a cell of the layer that is painted on, however it lies there. */
export function coatsAt(studio: Studio, id: string, px: number, py: number): number {
  const { painting } = studio;
  const tile = painting.active.tiles[(py >> 6) * painting.tilesX + (px >> 6)];
  if (!tile) return 0;
  const pigment = findPigment(id)!;
  const cell = (py & 63) * TILE + (px & 63);
  let sum = 0;
  const k = tile.wash?.pigments.indexOf(pigment) ?? -1;
  if (k >= 0) {
    for (const planes of Object.values(tile.wash!.coats))
      if (planes[k]) sum += painting.arena.f32[(planes[k] >> 2) + cell];
  }
  for (const s of tile.strata) {
    const n = s.pigments.indexOf(pigment);
    if (n >= 0) sum += s.mass[n][cell] * s.massStep[n];
  }
  return sum;
}

/** Coats of a pigment over an area, row by row. */
export function coats(studio: Studio, id: string, area: Area): number[] {
  const out: number[] = [];
  eachCell(studio, area, (px, py) => out.push(coatsAt(studio, id, px, py)));
  return out;
}

export const meanCoats = (studio: Studio, id: string, area: Area): number => mean(coats(studio, id, area));

/** Depth of the paper's tooth over an area, 1 = deepest. */
export function depths(studio: Studio, area: Area): number[] {
  const { painting } = studio;
  const { bed } = flowOf(painting);
  const out: number[] = [];
  eachCell(studio, area, (px, py) => out.push(1 - painting.arena.f32[bed.tooth + bed.cell(px, py)]));
  return out;
}

/** Lets everything dry by waiting. @returns seconds */
export function waitTillDry(studio: Studio): number {
  let seconds = 0;
  for (; studio.time.hasWater && seconds < 3600; seconds += 5) paint(studio, { do: 'wait', seconds: 5 });
  return seconds;
}

/** Mean depth of the film over an area, washes. */
export function filmOver(studio: Studio, area: Area): number {
  const { painting } = studio;
  const { basin } = painting.active;
  if (!basin) return 0;
  const values: number[] = [];
  eachCell(studio, area, (px, py) => values.push(painting.arena.f32[basin.coarseOf('water', px, py)]));
  return mean(values);
}

/** Waits until the shine has gone from an area: the film is thinner than a depth. */
export function waitForFilm(studio: Studio, area: Area, depth: number): void {
  for (let i = 0; i < 4000 && filmOver(studio, area) > depth; i++) paint(studio, { do: 'wait', seconds: 0.25 });
}

/** Largest share by which mass of any pigment is not accounted for. */
export function massError(studio: Studio): number {
  return Math.max(
    0,
    ...Object.values(studio.massBalance()).map(
      (b) =>
        Math.abs(b.loaded - b.film - b.settled - b.strata - b.tool - b.slab - b.removed) / Math.max(1e-9, b.loaded),
    ),
  );
}

/** Share of the water that is not accounted for. */
export function waterError(studio: Studio): number {
  const { loaded, canvas, tool, removed, evaporated } = studio.waterBalance();
  return Math.abs(loaded - canvas - tool - removed - evaporated) / Math.max(1e-9, loaded);
}
