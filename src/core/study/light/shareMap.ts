import { hypot } from '@/core/maths/maths';
import type { Scene, Source } from './scene';
import { Lookout } from './sightAngles';

/** A grid of points over a board: pixel (x, y) lies at ((x + 0.5) * mmPerPx, (y + 0.5) * mmPerPx). */
export interface BoardGrid {
  readonly width: number;
  readonly height: number;
  readonly mmPerPx: number;
}

/** Side of the blocks that are looked at first, pixels; a power of two. */
const BLOCK = 32;
/** And of those of a broad light, whose shares change slowly. */
const BROAD_BLOCK = 16;
/** How far a share may lie from what is interpolated. */
const TOLERANCE = 0.006;
/** Less than this of a light is shadow, more than one less this is all of it. */
export const EXTREME = 0.002;
const NARROW = Math.PI / 8;

/**
 * Share of a light that each point of a board sees, 0 to 1. For lamps and suns block after block is held against what may
 * stand in its way (shaft culling, Haines and Wallace 1991): blocks that see all of it or nothing are filled at once, and
 * only those at the border of a shadow are looked at point by point, so no shadow is too thin to be found. Skies and
 * windows are interpolated where that is within 0.006.
 */
export function shareMap(scene: Scene, source: Source, grid: BoardGrid, out?: Float32Array): Float32Array {
  const map = out ?? new Float32Array(grid.width * grid.height);
  if (source.kind === 'lamp' || (source.kind === 'sun' && source.half < NARROW))
    new Shafts(scene, source, grid, map).fill();
  else broadMap(scene, source, grid, map);
  return map;
}

/** As shareMap, with every point looked at: as a check, and for few points. */
export function everyShare(scene: Scene, source: Source, { width, height, mmPerPx }: BoardGrid): Float32Array {
  const lookout = new Lookout(scene);
  const map = new Float32Array(width * height);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) map[i] = lookout.share(source, (x + 0.5) * mmPerPx, (y + 0.5) * mmPerPx);
  return map;
}

class Shafts {
  private readonly lookout: Lookout;
  private readonly edgeCount: number;
  private readonly roundCount: number;
  /** What may stand in the way, level by level of blocks. */
  private readonly lists: Int32Array[];

  constructor(
    private readonly scene: Scene,
    private readonly source: Source,
    private readonly grid: BoardGrid,
    private readonly map: Float32Array,
  ) {
    this.lookout = new Lookout(scene);
    this.edgeCount = scene.edges.length / 4;
    this.roundCount = scene.rounds.length / 3;
    this.lists = Array.from({ length: 8 }, () => new Int32Array(this.edgeCount + this.roundCount));
  }

  fill(): void {
    const every = Int32Array.from({ length: this.edgeCount + this.roundCount }, (_, i) => i);
    for (let y = 0; y < this.grid.height; y += BLOCK)
      for (let x = 0; x < this.grid.width; x += BLOCK) this.block(x, y, BLOCK, every, every.length, 0);
  }

  private block(x: number, y: number, size: number, list: Int32Array, end: number, level: number): void {
    const { width, height, mmPerPx } = this.grid;
    if (x >= width || y >= height) return;
    if (size === 1) {
      const share = this.lookout.share(this.source, (x + 0.5) * mmPerPx, (y + 0.5) * mmPerPx, list, end);
      this.map[y * width + x] = share;
      return;
    }
    const left = this.inShaft(x, y, size, list, end, this.lists[level]);
    if (left <= 0) {
      const share = left < 0 ? 0 : 1;
      const right = Math.min(width, x + size);
      const bottom = Math.min(height, y + size);
      for (let row = y; row < bottom; row++) this.map.fill(share, row * width + x, row * width + right);
      return;
    }
    const half = size / 2;
    const next = this.lists[level];
    this.block(x, y, half, next, left, level + 1);
    this.block(x + half, y, half, next, left, level + 1);
    this.block(x, y + half, half, next, left, level + 1);
    this.block(x + half, y + half, half, next, left, level + 1);
  }

  /**
   * What of a list lies in the shaft from a block to the light.
   * @returns how many; -1 where one of them shuts the whole shaft
   */
  private inShaft(x: number, y: number, size: number, list: Int32Array, end: number, out: Int32Array): number {
    const { grid, source } = this;
    const { edges, rounds } = this.scene;
    const px = (x + size / 2) * grid.mmPerPx;
    const py = (y + size / 2) * grid.mmPerPx;
    // of the circle around the middles of its points
    const rb = (size - 1) * grid.mmPerPx * Math.SQRT1_2;
    let far = Infinity;
    let [cx, cy] = [source.ux, source.uy];
    let [sin, cos] = [source.sinHalf, source.cosHalf];
    if (source.kind === 'lamp') {
      const [dx, dy] = [source.x0 - px, source.y0 - py];
      far = hypot(dx, dy);
      // the light lies in the block: there is no shaft
      if (far <= rb + source.radius) {
        for (let i = 0; i < end; i++) out[i] = list[i];
        return Math.max(1, end);
      }
      [cx, cy] = [dx / far, dy / far];
      sin = (source.radius - rb) / far;
      cos = Math.sqrt(1 - sin * sin);
    }
    let count = 0;
    for (let i = 0; i < end; i++) {
      const k = list[i];
      if (k < this.edgeCount) {
        const e = 4 * k;
        const ax = edges[e] - px;
        const ay = edges[e + 1] - py;
        const bx = edges[e + 2] - px;
        const by = edges[e + 3] - py;
        const ua = ax * cx + ay * cy;
        const wa = ay * cx - ax * cy;
        const ub = bx * cx + by * cy;
        const wb = by * cx - bx * cy;
        // how far beyond the one border of the shaft, and beyond the other
        const overA = wa * cos - ua * sin - rb;
        const overB = wb * cos - ub * sin - rb;
        const underA = -wa * cos - ua * sin - rb;
        const underB = -wb * cos - ub * sin - rb;
        if ((overA >= 0 && overB >= 0) || (underA >= 0 && underB >= 0)) continue;
        if (ua < -rb && ub < -rb) continue;
        if (ua > far + source.radius && ub > far + source.radius) continue;
        const across = (overA >= 0 && underB >= 0) || (overB >= 0 && underA >= 0);
        if (across && Math.min(ua, ub) > rb && Math.max(ua, ub) < far - source.radius) return -1;
      } else {
        const r = 3 * (k - this.edgeCount);
        const [dx, dy, radius] = [rounds[r] - px, rounds[r + 1] - py, rounds[r + 2]];
        const u = dx * cx + dy * cy;
        const w = dy * cx - dx * cy;
        if (Math.abs(w) * cos - u * sin - rb >= radius) continue;
        if (u < -rb - radius || u - radius > far + source.radius) continue;
      }
      out[count++] = k;
    }
    return count;
  }
}

/** Whether something stands so near to a point, mm: there a share may change within a step. */
function near({ edges, rounds, openings }: Scene, x: number, y: number, within: number): boolean {
  for (const lines of [edges, openings]) {
    for (let k = 0; k < lines.length; k += 4) {
      const px = x - lines[k];
      const py = y - lines[k + 1];
      const dx = lines[k + 2] - lines[k];
      const dy = lines[k + 3] - lines[k + 1];
      const t = Math.max(0, Math.min(1, (px * dx + py * dy) / (dx * dx + dy * dy)));
      const ex = px - t * dx;
      const ey = py - t * dy;
      if (ex * ex + ey * ey < within * within) return true;
    }
  }
  for (let k = 0; k < rounds.length; k += 3) {
    const far = hypot(x - rounds[k], y - rounds[k + 1]);
    if (far < rounds[k + 2] + within && far > rounds[k + 2] - within) return true;
  }
  return false;
}

/** Block after block, halved where what lies between its corners cannot be told from them. */
function broadMap(scene: Scene, source: Source, { width, height, mmPerPx }: BoardGrid, map: Float32Array): void {
  const lookout = new Lookout(scene);
  // corners lie on a grid of their own that reaches over the last row and column
  const across = Math.ceil(width / BROAD_BLOCK) * BROAD_BLOCK + 1;
  const down = Math.ceil(height / BROAD_BLOCK) * BROAD_BLOCK + 1;
  const known = new Float32Array(across * down).fill(-1);
  const at = (x: number, y: number): number => {
    const i = y * across + x;
    if (known[i] < 0) known[i] = lookout.share(source, (x + 0.5) * mmPerPx, (y + 0.5) * mmPerPx);
    return known[i];
  };
  const block = (x: number, y: number, size: number): void => {
    if (x >= width || y >= height) return;
    const [a, b, c, d] = [at(x, y), at(x + size, y), at(x, y + size), at(x + size, y + size)];
    if (size > 1) {
      const half = size / 2;
      if (near(scene, (x + half + 0.5) * mmPerPx, (y + half + 0.5) * mmPerPx, size * mmPerPx)) {
        block(x, y, half);
        block(x + half, y, half);
        block(x, y + half, half);
        block(x + half, y + half, half);
        return;
      }
      const far = Math.max(
        Math.abs(at(x + half, y) - (a + b) / 2),
        Math.abs(at(x, y + half) - (a + c) / 2),
        Math.abs(at(x + size, y + half) - (b + d) / 2),
        Math.abs(at(x + half, y + size) - (c + d) / 2),
        Math.abs(at(x + half, y + half) - (a + b + c + d) / 4),
      );
      const middle = at(x + half, y + half);
      const least = Math.min(a, b, c, d, middle);
      const most = Math.max(a, b, c, d, middle);
      // where shadow or full light begins is drawn as a line: it is found exactly
      const begins = (least < EXTREME && most > EXTREME) || (least < 1 - EXTREME && most > 1 - EXTREME);
      if (far > TOLERANCE || begins) {
        block(x, y, half);
        block(x + half, y, half);
        block(x, y + half, half);
        block(x + half, y + half, half);
        return;
      }
    }
    const right = Math.min(width, x + size);
    const bottom = Math.min(height, y + size);
    for (let row = y; row < bottom; row++) {
      const t = (row - y) / size;
      const [from, to] = [a + (c - a) * t, b + (d - b) * t];
      for (let column = x; column < right; column++)
        map[row * width + column] = from + ((to - from) * (column - x)) / size;
    }
  };
  for (let y = 0; y < height; y += BROAD_BLOCK) for (let x = 0; x < width; x += BROAD_BLOCK) block(x, y, BROAD_BLOCK);
}
