/**
 * What tests need to paint and to measure: journals in a line, readings of the film, and the usual statistics.
 */
import type { Mixture } from '@/core/colour/mixture';
import { linearToLab, type Triple } from '@/core/colour/colorimetry';
import { findPigment } from '@/core/colour/pigments';
import { TILE } from '@/core/film/tile';
import type { CommandInput } from '@/core/commands/commands';
import { commandSchema } from '@/core/commands/commands';
import { paintingSchema } from '@/core/journal/journalSchema';
import { Studio } from '@/core/journal/studio';
import type { ToolId, ToolSettings } from '@/core/tools/tools';
import { Picture } from '@/core/picture/picture';

export type Area = readonly [x: number, y: number, width: number, height: number];

/** A studio on an empty ground; sizes in mm. */
export function studioFor(
  widthMm: number,
  heightMm: number,
  more: Partial<Parameters<typeof paintingSchema.parse>[0] & object> = {},
): Studio {
  return new Studio(paintingSchema.parse({ widthMm, heightMm, ppi: 101.6, seed: 2, ...more }));
}

/** Applies commands, given as they may be written. */
export function paint(studio: Studio, ...commands: CommandInput[]): void {
  for (const command of commands) studio.apply(commandSchema.parse(command));
}

/** A straight stroke with an even hand that comes on and lifts quickly. */
export const line = (x0: number, y0: number, x1: number, y1: number, pressure = 0.6): CommandInput => ({
  do: 'stroke',
  samples: Array.from({ length: 25 }, (_, i) => {
    const s = i / 24;
    return [i * 40, x0 + (x1 - x0) * s, y0 + (y1 - y0) * s, pressure * Math.min(1, 0.3 + s * 16, 0.3 + (1 - s) * 14)];
  }),
});

type Held = { amount?: number } & Partial<Omit<ToolSettings, 'tool' | 'sizeMm'>>;

/** Takes a clean brush full of a mixture. */
export const loaded = (
  tool: ToolId,
  sizeMm: number,
  mixture: Mixture,
  { amount = 1, ...held }: Held = {},
): CommandInput[] => [
  { do: 'tool', tool, sizeMm, body: 0.6, thin: 0, blend: 0.3, strength: 1, ...held },
  { do: 'rinse' },
  { do: 'load', mixture: { ...mixture }, amount },
];

/** Covers an area with strokes side by side, loading for each. */
export function field([x, y, w, h]: Area, mixture: Mixture, sizeMm = 15, body = 0.5): CommandInput[] {
  const commands: CommandInput[] = [];
  for (let at = y + sizeMm / 2; at < y + h - sizeMm * 0.2; at += sizeMm * 0.62) {
    commands.push(...loaded('flat', sizeMm, mixture, { body, amount: 1.2 }), line(x, at, x + w, at));
  }
  return commands;
}

/** Calls back for every cell of an area. */
export function eachCell(studio: Studio, [x, y, w, h]: Area, visit: (px: number, py: number) => void): void {
  const { mmPerPx, width, height } = studio.painting;
  for (let py = Math.max(0, Math.round(y / mmPerPx)); py < Math.min(height, Math.round((y + h) / mmPerPx)); py++) {
    for (let px = Math.max(0, Math.round(x / mmPerPx)); px < Math.min(width, Math.round((x + w) / mmPerPx)); px++)
      visit(px, py);
  }
}

/** A plane of the film at a cell of the layer that is painted on: `volume` (um), or the mass of a pigment (coats). */
export function filmAt(studio: Studio, plane: 'volume' | string, px: number, py: number): number {
  const { painting } = studio;
  const tile = painting.active.tiles[(py >> 6) * painting.tilesX + (px >> 6)];
  if (!tile?.volume) return 0;
  const address = plane === 'volume' ? tile.volume : tile.mass[tile.pigments.indexOf(findPigment(plane)!)];
  return address ? painting.arena.f32[(address >> 2) + (py & 63) * TILE + (px & 63)] : 0;
}

/** Values of a plane over an area. */
export function values(studio: Studio, plane: string, area: Area): number[] {
  const out: number[] = [];
  eachCell(studio, area, (px, py) => out.push(filmAt(studio, plane, px, py)));
  return out;
}

/** Height of the bare support over an area, um. */
export function grain(studio: Studio, area: Area): number[] {
  const { surface } = studio.painting;
  const out: number[] = [];
  eachCell(studio, area, (px, py) => out.push(surface.um[(py % surface.size) * surface.size + (px % surface.size)]));
  return out;
}

/** Share of an area with more than 3 um of wet paint. */
export const coverage = (studio: Studio, area: Area): number =>
  mean(values(studio, 'volume', area).map((v) => (v > 3 ? 1 : 0)));

/** Mean unlit colour of an area. */
export function meanLab(studio: Studio, area: Area, picture = new Picture(studio.painting)): Triple {
  const sum: Triple = [0, 0, 0];
  let n = 0;
  eachCell(studio, area, (px, py) => {
    picture.linearAt(px, py).forEach((v, c) => (sum[c] += v));
    n++;
  });
  return linearToLab(sum.map((v) => v / n) as Triple);
}

export const mean = (v: readonly number[]): number => v.reduce((a, b) => a + b, 0) / v.length;
export const deviation = (v: readonly number[]): number => {
  const m = mean(v);
  return Math.sqrt(mean(v.map((x) => (x - m) ** 2)));
};

/** Pearson's correlation. */
export function correlation(a: readonly number[], b: readonly number[]): number {
  const ma = mean(a);
  const mb = mean(b);
  let ab = 0;
  let aa = 0;
  let bb = 0;
  for (let i = 0; i < a.length; i++) {
    ab += (a[i] - ma) * (b[i] - mb);
    aa += (a[i] - ma) ** 2;
    bb += (b[i] - mb) ** 2;
  }
  return ab / Math.sqrt(aa * bb + 1e-30);
}

/** Width over which a profile passes from 10 to 90 % between its ends (samples). */
export function edgeWidth(profile: readonly number[], ends = 12): number {
  const median = (v: readonly number[]) => [...v].sort((a, b) => a - b)[v.length >> 1];
  const a = median(profile.slice(0, ends));
  const b = median(profile.slice(-ends));
  const f = profile.map((v) => (v - a) / (b - a));
  let middle = 0;
  f.forEach((v, i) => {
    if (Math.abs(v - 0.5) < Math.abs(f[middle] - 0.5)) middle = i;
  });
  let i = middle;
  while (i > 0 && f[i] > 0.1) i--;
  let j = middle;
  while (j < f.length - 1 && f[j] < 0.9) j++;
  const low = i + (0.1 - f[i]) / (f[i + 1] - f[i] + 1e-9);
  const high = j - 1 + (0.9 - f[j - 1]) / (f[j] - f[j - 1] + 1e-9);
  return high - low;
}
