/**
 * Where a picture pulls the eye: contrast of centre against surround on several scales, each kind of it strengthened
 * where one place stands out and weakened where many do (Itti, Koch and Niebur 1998, A model of saliency-based visual
 * attention). Kinds are those that a painter can change: value, colour, sharp edges, detail, thick paint.
 */
import { blur } from './squint';
import type { CodeImage } from './image';
import { lostAndFound, measureFor } from './lostAndFound';
import type { Masses } from './masses';
import { between, coarser, finest, type Scale } from './scales';

export const PULL_KINDS = ['value', 'colour', 'edges', 'detail', 'thickness'] as const;
export type PullKind = (typeof PULL_KINDS)[number];

/** A map of pull. */
export interface Pull {
  readonly width: number;
  readonly height: number;
  /** Share of the whole pull at each place, row by row; sums to 1, or is 0 everywhere. */
  readonly map: Float32Array;
  /** Of which kind it is; together the map. */
  readonly kinds: Readonly<Record<PullKind, Float32Array>>;
}

/** Longest side of a map, places. */
const MOST = 128;
/** Centres and how many scales coarser their surroundings are. */
const CENTRES = [1, 2, 3] as const;
const SURROUNDS = [2, 3] as const;

/** Works out where a picture pulls. @param um thickness of the paint at each pixel, where it is known */
export function pullOf(image: CodeImage, um?: Float32Array): Pull {
  const scales: Scale[] = [];
  for (let s: Scale | undefined = image.width && image.height ? finest(image) : undefined; s; s = coarser(s)) {
    scales.push(s);
  }
  const step = Math.max(1, Math.max(image.width, image.height) / MOST);
  const width = Math.max(1, Math.round(image.width / step));
  const height = Math.max(1, Math.round(image.height / step));
  const kinds: Record<PullKind, Float32Array> = {
    value: new Float32Array(width * height),
    colour: new Float32Array(width * height),
    edges: edgesIn(image, width, height),
    detail: new Float32Array(width * height),
    thickness: new Float32Array(width * height),
  };
  const plane = (scale: Scale, c: number, x: number, y: number) =>
    between(
      scale.planes[c],
      scale.width,
      scale.height,
      ((x + 0.5) * image.width) / width / scale.px - 0.5,
      ((y + 0.5) * image.height) / height / scale.px - 0.5,
    );
  const one = new Float32Array(width * height);
  const add = (into: Float32Array, of: (x: number, y: number) => number) => {
    for (let i = 0; i < one.length; i++) one[i] = of(i % width, Math.floor(i / width));
    standOut(one, width, height);
    for (let i = 0; i < one.length; i++) into[i] += one[i];
  };
  for (const c of CENTRES) {
    for (const d of SURROUNDS) {
      const [centre, around] = [scales[c], scales[c + d]];
      if (!centre || !around) continue;
      add(kinds.value, (x, y) => Math.abs(plane(centre, 0, x, y) - plane(around, 0, x, y)));
      add(kinds.colour, (x, y) => {
        const a = plane(centre, 1, x, y) - plane(around, 1, x, y);
        const b = plane(centre, 2, x, y) - plane(around, 2, x, y);
        return Math.sqrt(a * a + b * b);
      });
    }
  }
  if (scales[1]) detailIn(scales[0], scales[1], width, height, kinds.detail);
  if (um) thicknessIn(image, um, kinds.thickness, width, height);
  for (const kind of ['edges', 'detail', 'thickness'] as const) standOut(kinds[kind], width, height);
  return evened(kinds, width, height);
}

/** Found and soft edges in each place: strong and narrow ones count most. */
function edgesIn(image: CodeImage, width: number, height: number): Float32Array {
  const out = new Float32Array(width * height);
  const none: Masses = { borders: [], of: [] };
  const measure = measureFor(image.width * image.mmPerPx, image.height * image.mmPerPx);
  const { edges, kinds } = lostAndFound(image, none, measure);
  for (let k = 0; k < edges.count; k++) {
    if (kinds[k] === 'faint') continue;
    const x = Math.min(width - 1, Math.floor((edges.x[k] * width) / image.width));
    const y = Math.min(height - 1, Math.floor((edges.y[k] * height) / image.height));
    out[y * width + x] += (edges.contrast[k] * edges.length[k]) / (edges.width[k] + measure.foundMm / 2);
  }
  blur(out, new Float32Array(out.length), width, height, 1.5);
  return out;
}

/** How much of a picture is finer than its next scale, in each place. */
function detailIn(fine: Scale, coarse: Scale, width: number, height: number, out: Float32Array): void {
  const counts = new Float32Array(out.length);
  const [L] = fine.planes;
  for (let y = 0; y < fine.height; y++) {
    const row = Math.min(height - 1, Math.floor((y * height) / fine.height)) * width;
    for (let x = 0; x < fine.width; x++) {
      const at = row + Math.min(width - 1, Math.floor((x * width) / fine.width));
      const around = between(coarse.planes[0], coarse.width, coarse.height, (x + 0.5) / 2 - 0.5, (y + 0.5) / 2 - 0.5);
      out[at] += Math.abs(L[y * fine.width + x] - around);
      counts[at]++;
    }
  }
  for (let i = 0; i < out.length; i++) out[i] /= Math.max(1, counts[i]);
}

/** How far the paint stands above what lies around it, in each place; what is thinner than a coat does not count. */
function thicknessIn(image: CodeImage, um: Float32Array, out: Float32Array, width: number, height: number): void {
  const counts = new Float32Array(out.length);
  for (let y = 0; y < image.height; y++) {
    const row = Math.min(height - 1, Math.floor((y * height) / image.height)) * width;
    for (let x = 0; x < image.width; x++) {
      const at = row + Math.min(width - 1, Math.floor((x * width) / image.width));
      out[at] += um[y * image.width + x];
      counts[at]++;
    }
  }
  for (let i = 0; i < out.length; i++) out[i] /= Math.max(1, counts[i]);
  const around = Float32Array.from(out);
  blur(around, new Float32Array(out.length), width, height, Math.max(width, height) / 16);
  for (let i = 0; i < out.length; i++) out[i] = Math.max(0, out[i] - around[i] - COAT_UM);
}
/** Relief that nobody sees, um. */
const COAT_UM = 40;

/** Scales a map to its largest, then by how far that stands above the mean of its other peaks, squared. */
function standOut(map: Float32Array, width: number, height: number): void {
  let most = 0;
  for (const v of map) if (v > most) most = v;
  if (most < LEAST) {
    map.fill(0);
    return;
  }
  let [sum, count] = [0, 0];
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const v = map[y * width + x];
      if (v < PEAK * most || v === most) continue;
      let peak = true;
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++) if (map[(y + dy) * width + x + dx] > v) peak = false;
      if (!peak) continue;
      sum += v / most;
      count++;
    }
  }
  const others = count > 0 ? sum / count : 0;
  const weight = ((1 - others) * (1 - others)) / most;
  for (let i = 0; i < map.length; i++) map[i] *= weight;
}
/** Differences that nobody sees, CIELAB; and what of the largest is a peak at all. */
const LEAST = 0.5;
const PEAK = 0.05;

/** How much each kind counts. Relief is seen after the others: it pulls where light falls on it, and by itself little. */
const WEIGHTS: Record<PullKind, number> = { value: 1, colour: 1, edges: 1, detail: 1, thickness: 0.3 };

/**
 * Each kind counts by its weight; all of them together are 1. The eye goes to the few strongest places rather than to all in
 * proportion: what stands over the rest counts by its square.
 */
function evened(kinds: Record<PullKind, Float32Array>, width: number, height: number): Pull {
  const map = new Float32Array(width * height);
  const there = PULL_KINDS.filter((kind) => kinds[kind].some((v) => v > 0));
  const all = there.reduce((sum, kind) => sum + WEIGHTS[kind], 0);
  for (const kind of there) {
    const sum = kinds[kind].reduce((a, b) => a + b, 0);
    const by = WEIGHTS[kind] / (sum * all);
    for (let i = 0; i < map.length; i++) map[i] += kinds[kind][i] *= by;
  }
  const squares = map.reduce((sum, v) => sum + v * v, 0);
  for (let i = 0; i < map.length; i++) {
    const by = squares > 0 ? map[i] / squares : 0;
    map[i] *= by;
    for (const kind of there) kinds[kind][i] *= by;
  }
  return { width, height, map, kinds };
}

/** A place that pulls. Shares of width and height, 0..1. */
export interface PullPlace {
  readonly x: number;
  readonly y: number;
  /** Share of the whole pull that lies around it. */
  readonly share: number;
  /** What it is that pulls, the most first: those that make at least a quarter of it. */
  readonly by: readonly PullKind[];
}

/** Radius around a place that belongs to it, share of the longer side. */
const AROUND = 0.07;

/** The pull around a place. */
export function pullAt({ width, height, map, kinds }: Pull, x: number, y: number): PullPlace {
  const reach = AROUND * Math.max(width, height);
  const parts = { value: 0, colour: 0, edges: 0, detail: 0, thickness: 0 };
  let share = 0;
  for (let py = 0; py < height; py++) {
    for (let px = 0; px < width; px++) {
      const [dx, dy] = [px + 0.5 - x * width, py + 0.5 - y * height];
      if (dx * dx + dy * dy > reach * reach) continue;
      share += map[py * width + px];
      for (const kind of PULL_KINDS) parts[kind] += kinds[kind][py * width + px];
    }
  }
  const by = PULL_KINDS.filter((kind) => share > 0 && parts[kind] >= share / 4).sort((p, q) => parts[q] - parts[p]);
  return { x, y, share, by };
}

/** The places that pull most, apart from each other, the strongest first. */
export function strongest(pull: Pull, most = 5): PullPlace[] {
  const { width, height } = pull;
  const soft = Float32Array.from(pull.map);
  blur(soft, new Float32Array(soft.length), width, height, (AROUND * Math.max(width, height)) / 2);
  const reach = 2 * AROUND * Math.max(width, height);
  const out: PullPlace[] = [];
  while (out.length < most) {
    let best = 0;
    for (let i = 1; i < soft.length; i++) if (soft[i] > soft[best]) best = i;
    if (!(soft[best] > 0)) break;
    const [x, y] = [best % width, Math.floor(best / width)];
    out.push(pullAt(pull, (x + 0.5) / width, (y + 0.5) / height));
    for (let i = 0; i < soft.length; i++) {
      const [dx, dy] = [(i % width) - x, Math.floor(i / width) - y];
      if (dx * dx + dy * dy < reach * reach) soft[i] = 0;
    }
  }
  return out.sort((p, q) => q.share - p.share);
}

/** Share of the pull at the rim: what leads out of the picture. An even spread would give some 30 %. */
export function pullAtRim({ width, height, map }: Pull): number {
  const rim = 0.07 * Math.max(width, height);
  let sum = 0;
  for (let i = 0; i < map.length; i++) {
    const [x, y] = [(i % width) + 0.5, Math.floor(i / width) + 0.5];
    if (Math.min(x, y, width - x, height - y) < rim) sum += map[i];
  }
  return sum;
}

const NAMES: Record<PullKind, string> = {
  value: 'contrast of value',
  colour: 'contrast of colour',
  edges: 'sharp edges',
  detail: 'detail',
  thickness: 'thick paint',
};
export const byWords = (by: readonly PullKind[]): string => by.map((kind) => NAMES[kind]).join(' and ');
