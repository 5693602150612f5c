/**
 * What all painters of the demo share: the piles on their slab, and hands that load, stroke and tremble a little.
 * Points are in units of the picture's width.
 */
import { writeFileSync } from 'node:fs';
import type { Mixture } from '@/core/colour/mixture';
import type { CommandInput } from '@/core/commands/commands';
import { readJournal } from '@/core/journal/replay';
import type { ToolSettings } from '@/core/tools/tools';
import { noise1, randomFrom } from '@/core/surface/noise';
import { along, DINGHY } from './scene';

export const WIDTH_MM = 240;
export const HEIGHT_MM = 180;

/** Piles on the slab. Tubes: white, ochre, burnt sienna, burnt umber, ultramarine, phthalo green, scarlet. */
export const PILE = {
  wash: { PBr7BU: 2, PB29: 1, PBr7BS: 1 },
  skyDark: { PW6: 7, PB29: 1, PBr7BU: 1.15, PY43: 0.7, PG7: 0.035 },
  skyMid: { PW6: 15, PB29: 1, PBr7BU: 0.95, PY43: 1.1, PG7: 0.035 },
  skyLight: { PW6: 30, PB29: 0.55, PBr7BS: 0.6, PY43: 1.6 },
  rift: { PW6: 40, PY43: 2.2, PBr7BS: 0.25 },
  headland: { PB29: 1, PBr7BU: 1.3, PW6: 3.2, PY43: 0.7, PG7: 0.06 },
  headlandFar: { PB29: 1, PBr7BU: 1, PW6: 6, PY43: 0.5 },
  water: { PW6: 26, PB29: 0.8, PBr7BU: 0.8, PY43: 0.4 },
  waterDark: { PW6: 9, PB29: 1, PBr7BU: 1, PY43: 0.3 },
  mudFar: { PY43: 4, PBr7BU: 1.2, PW6: 6, PB29: 0.4 },
  mud: { PBr7BU: 2, PY43: 4, PW6: 3, PB29: 0.4 },
  mudWarm: { PBr7BS: 0.8, PY43: 4, PBr7BU: 1.2, PW6: 3 },
  mudDark: { PBr7BU: 3, PB29: 0.7, PY43: 2.6, PW6: 0.9 },
  weed: { PY43: 4, PG7: 0.05, PBr7BU: 1.6, PW6: 1.6 },
  pool: { PW6: 15, PB29: 0.9, PBr7BU: 0.9, PY43: 0.2 },
  poolLight: { PW6: 30, PB29: 0.5, PBr7BU: 0.45, PY43: 0.8 },
  shingle: { PW6: 9, PY43: 2.6, PBr7BS: 0.7, PB29: 0.25 },
  post: { PBr7BU: 2, PB29: 1.2, PBr7BS: 0.3 },
  postFar: { PBr7BU: 1.6, PB29: 1.1, PW6: 3 },
  postLight: { PW6: 3.2, PY43: 1.2, PBr7BU: 1.2, PB29: 0.4 },
  postWeed: { PG7: 0.2, PY43: 1.6, PBr7BU: 1.5, PB29: 0.4 },
  hull: { PG7: 0.55, PY43: 2.2, PBr7BS: 0.6, PW6: 2.2 },
  hullLight: { PG7: 0.36, PY43: 2, PW6: 5, PBr7BS: 0.25 },
  hullDark: { PG7: 0.6, PBr7BU: 1.7, PB29: 0.4, PW6: 0.4 },
  bottom: { PBr7BS: 3, PR188: 0.8, PBr7BU: 0.3, PW6: 1.1 },
  bottomDark: { PBr7BS: 2.4, PBr7BU: 1.2, PR188: 0.2, PW6: 0.2 },
  inside: { PBr7BU: 2.4, PB29: 0.7, PBr7BS: 0.8 },
  insideLight: { PBr7BU: 1.6, PY43: 1.8, PW6: 1.8, PG7: 0.06 },
  thwart: { PW6: 4.2, PY43: 2, PBr7BS: 0.8, PBr7BU: 0.4 },
  rail: { PW6: 12, PY43: 1.9, PBr7BS: 0.15 },
  railFar: { PW6: 5, PY43: 1.8, PBr7BU: 0.8 },
  slate: { PB29: 1, PBr7BU: 1.35, PW6: 5, PY43: 0.4 },
  wall: { PW6: 9, PY43: 1.5, PBr7BS: 0.5, PB29: 0.3 },
  rope: { PW6: 4, PY43: 2, PBr7BU: 1 },
} satisfies Record<string, Mixture>;
export type Pile = keyof typeof PILE;

export type Point = readonly [x: number, y: number];

/** Points along a curve of the scene. */
export const trace = (curve: readonly (readonly [number, number])[], from: number, to: number, lower = 0): Point[] =>
  Array.from({ length: 9 }, (_, i) => {
    const x = from + ((to - from) * i) / 8;
    return [x, along(curve, x) + lower] as const;
  });
/** Points between near rail and keel of the dinghy, a share of the way down. */
export const strake = (share: number, from: number, to: number): Point[] =>
  Array.from({ length: 9 }, (_, i) => {
    const x = from + ((to - from) * i) / 8;
    return [x, along(DINGHY.near, x) * (1 - share) + along(DINGHY.keel, x) * share] as const;
  });

/** A painter with a hand of their own. */
export function painter(seed: number) {
  const random = randomFrom(seed);
  const vary = (v: number, by: number) => v * (1 + by * (2 * random() - 1));
  const entries: CommandInput[] = [];

  /** A pile is never quite mixed: each load takes a little more of this or that. */
  function fromPile(pile: Pile, between?: Pile, share = 0): Record<string, number> {
    const mixture: Record<string, number> = {};
    const total = (m: Mixture) => Object.values(m).reduce((a, b) => a + b, 0);
    const add = (m: Mixture, weight: number) => {
      for (const [id, part] of Object.entries(m)) mixture[id] = (mixture[id] ?? 0) + (part / total(m)) * weight;
    };
    const other = between ? Math.max(0, Math.min(1, share)) : 0;
    add(PILE[pile], 1 - other);
    if (between && other > 0) add(PILE[between], other);
    for (const id of Object.keys(mixture)) mixture[id] = Math.round(vary(mixture[id], 0.1) * 1e4) / 1e4;
    return mixture;
  }

  function take(tool: ToolSettings['tool'], sizeMm: number, held: Partial<ToolSettings> = {}): void {
    entries.push({ do: 'tool', tool, sizeMm: Math.round(sizeMm * 10) / 10, strength: 1, ...held });
  }

  let loads = 0;
  /** Loads the brush; what was on it is wiped off, and now and then rinsed. */
  function load(mixture: Record<string, number>, amount = 1): void {
    entries.push(
      { do: loads++ % 3 === 0 ? 'rinse' : 'wipe' },
      { do: 'load', mixture, amount: Math.round(amount * 100) / 100 },
    );
  }

  /** A stroke through points of the picture (units of its width), with a hand's unsteadiness. */
  function stroke(points: readonly Point[], pressure: number | ((s: number) => number) = 0.6): void {
    const p =
      typeof pressure === 'number' ? (s: number) => pressure * Math.min(1, 0.45 + s * 5, 0.35 + (1 - s) * 4) : pressure;
    const lengths = points.slice(1).map(([x, y], i) => Math.hypot(x - points[i][0], y - points[i][1]));
    const total = lengths.reduce((a, b) => a + b, 0);
    const count = Math.max(3, Math.ceil((total * WIDTH_MM) / 5));
    const wobble = Math.floor(random() * 1e6);
    const samples: number[][] = [];
    for (let k = 0; k <= count; k++) {
      const s = k / count;
      let far = s * total;
      let i = 0;
      while (i < lengths.length - 1 && far > lengths[i]) far -= lengths[i++];
      const t = lengths[i] > 0 ? Math.min(1, far / lengths[i]) : 0;
      const x = points[i][0] + (points[i + 1][0] - points[i][0]) * t;
      const y = points[i][1] + (points[i + 1][1] - points[i][1]) * t;
      const shake = 0.7; // mm
      samples.push([
        Math.round(s * total * WIDTH_MM * 4),
        Math.round((x * WIDTH_MM + shake * (noise1(s * 4, wobble) - 0.5)) * 100) / 100,
        Math.round((y * WIDTH_MM + shake * (noise1(s * 4, wobble + 1) - 0.5)) * 100) / 100,
        Math.round(Math.max(0.05, Math.min(1, p(s) * (0.92 + 0.16 * noise1(s * 5, wobble + 2)))) * 1000) / 1000,
      ]);
    }
    entries.push({ do: 'stroke', samples });
  }

  const dry = () => entries.push({ do: 'dry' });

  /** Writes what was done as a journal. */
  function save(
    path: string,
    ground: { seed: number; surface: 'linen-fine' | 'linen-coarse' | 'panel'; tone: Mixture },
  ): void {
    const journal = {
      format: 'stigmos-journal',
      version: 1,
      painting: {
        widthMm: WIDTH_MM,
        heightMm: HEIGHT_MM,
        ppi: 120,
        seed: ground.seed,
        surface: { kind: ground.surface, scale: 1, depth: 1 },
        tone: { mixture: ground.tone },
      },
      entries,
    };
    readJournal(journal);
    writeFileSync(path, `${JSON.stringify(journal).replaceAll('{"do"', '\n{"do"')}\n`);
    console.log(`${path}: ${entries.filter((e) => e.do === 'stroke').length} strokes`);
  }

  return { entries, random, vary, fromPile, take, load, stroke, dry, save };
}
