import type { Arena } from '@/core/film/arena';
import { WET, type Basin } from '@/core/film/basin';
import { TILE, TILE_CELLS } from '@/core/film/cells';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import type { Wash } from '@/core/film/wash';
import { CARRIED, SETTLED } from '@/core/kernels/carry';
import type { Kernels } from '@/core/kernels/kernels';
import { WATER } from '@/core/kernels/water';
import type { Bed } from './bed';
import { saltPush } from './salt';
import { FLOW, STEP_SECONDS, washRates } from './washRates';

/** Most pigments that one tile can carry at once. */
const MOST_CARRIED = 48;
/** Suspended paint below this many coats does not cross into a tile that has none of it. */
const CROSSES = 1e-9;
/** Each tile settles once in so many steps. */
const TURNS = 8;

/** A tile whose paint moves now, and the steps that it has waited. */
interface Due {
  readonly index: number;
  readonly steps: number;
}

/** Address of a pigment's suspended plane in a wash, or 0. */
function floating(wash: Wash | undefined, pigment: number): number {
  const k = wash ? wash.pigments.indexOf(pigment) : -1;
  return k < 0 ? 0 : wash!.coats.suspended[k];
}

/** Paint in the water of a painting: it is carried, rolls and spreads as often as it is fast, settles and is lifted. */
export class PaintInWater {
  private readonly arena: Arena;
  /** Word addresses: lists of pigments; far borders of tiles, saved for the next. */
  private readonly list: number;
  private readonly edges = new Map<number, number>();
  /** 1 for tiles whose paint moves in this step. */
  private moving = new Uint8Array(0);

  /** @param block word address of the kernels' parameters, @param fine cells for a reference cell */
  constructor(
    private readonly painting: Painting,
    private readonly kernels: Kernels,
    private readonly bed: Bed,
    private readonly block: number,
    private readonly fine: number,
  ) {
    const { arena, memory } = painting;
    this.arena = arena;
    this.list = memory.allocate(MOST_CARRIED * 16 * 4) >> 2;
    const rows = memory.allocate((8 + MOST_CARRIED) * 80 * 4) >> 2;
    arena.i32[block + WATER.rows] = rows;
  }

  /**
   * Tiles whose paint moves now, with the steps it has waited. In each patch of wet tiles that hang together it moves
   * as often as the fastest paint there needs.
   */
  due(basin: Basin, wet: readonly number[], k: number): Due[] {
    const { tilesX, tilesY, state, film, paint, waited } = basin;
    const seen = new Set<number>();
    const out: Due[] = [];
    for (const start of wet) {
      if (seen.has(start)) continue;
      const patch = [start];
      seen.add(start);
      let fastest = 0;
      let waits = 0;
      for (let n = 0; n < patch.length; n++) {
        const index = patch[n];
        const tx = index % tilesX;
        fastest = Math.max(fastest, Math.min(FLOW.fastest, film[index] + paint[index]));
        waits = Math.max(waits, waited[index]);
        const near = [tx > 0 ? index - 1 : -1, tx < tilesX - 1 ? index + 1 : -1, index - tilesX, index + tilesX];
        for (const next of near) {
          if (next < 0 || next >= tilesX * tilesY || state[next] !== WET || seen.has(next)) continue;
          seen.add(next);
          patch.push(next);
        }
      }
      waits += k;
      // velocities are for a step of length k
      const go = waits + k > FLOW.mostWaited || ((waits + k) * fastest * this.fine) / k > FLOW.mostTravel;
      for (const index of patch) {
        waited[index] = go ? 0 : waits;
        if (go) out.push({ index, steps: waits });
      }
    }
    return out.sort((a, b) => a.index - b.index);
  }

  /** Tiles with suspended paint and those around them: elsewhere the water is clear. */
  private carrying(layer: Layer, { tilesX, tilesY }: Basin, due: readonly Due[]): Due[] {
    const near = new Set<number>();
    for (const { index } of due) {
      if (!layer.tiles[index]?.wash?.coats.suspended.some((plane) => plane)) continue;
      const tx = index % tilesX;
      const ty = (index - tx) / tilesX;
      for (let y = Math.max(0, ty - 1); y <= Math.min(tilesY - 1, ty + 1); y++) {
        for (let x = Math.max(0, tx - 1); x <= Math.min(tilesX - 1, tx + 1); x++) near.add(y * tilesX + x);
      }
    }
    return due.filter(({ index }) => near.has(index));
  }

  move(layer: Layer, basin: Basin, waiting: readonly Due[]): void {
    const due = this.carrying(layer, basin, waiting);
    if (due.length === 0) return;
    const { kernels, arena, bed, block, list } = this;
    const { i32, f32 } = arena;
    const rows = this.inRows(basin, due);
    for (let r = 0; r < basin.tilesY + 1; r++) {
      for (const { index } of rows[r] ?? []) {
        const wash = layer.tiles[index]?.wash;
        let count = 0;
        wash?.pigments.forEach((pigment, n) => {
          const plane = wash.coats.suspended[n];
          if (!plane) return;
          i32[list + 2 * count] = plane >> 2;
          f32[list + 2 * count++ + 1] = 1 / washRates(pigment).unit;
        });
        kernels.weighPaint(block, basin.first(index), bed.coarse(index), list, count);
      }
      for (const { index } of rows[r - 1] ?? []) kernels.adoptLoad(block, basin.first(index));
      for (const { index } of rows[r - 1] ?? [])
        basin.paint[index] = kernels.pushPaint(block, basin.first(index), bed.coarse(index));
    }
    saltPush(this.painting, layer, basin, due, f32[block + WATER.step], f32[block + WATER.fastest]);
    this.openBorders(layer, basin, due);
    // how far paint may go at once is bounded; fast paint in small cells moves in several goes
    const fastest = due.reduce(
      (most, { index }) => Math.max(most, Math.min(FLOW.fastest, basin.film[index] + basin.paint[index])),
      0,
    );
    const steps = due[0].steps;
    const k = arena.f32[block + WATER.step];
    const goes = Math.max(
      1,
      Math.ceil((due.reduce((m, d) => Math.max(m, d.steps), steps) * fastest * this.fine) / k / 0.46 - 1e-9),
    );
    for (let go = 0; go < goes; go++) {
      if ((this.painting.flow.steps + go) & 1) {
        // a row goes down when the one below it has gone across
        for (let r = 0; r < basin.tilesY + 1; r++) {
          this.carry(layer, basin, rows[r], goes, true);
          this.carry(layer, basin, rows[r - 1], goes, false);
        }
      } else {
        for (const row of rows) {
          this.carry(layer, basin, row, goes, false);
          this.carry(layer, basin, row, goes, true);
        }
      }
    }
    for (const { index } of due) this.moving[index] = 0;
  }

  /** Tiles that are due by rows of tiles; they are marked as moving. */
  private inRows(basin: Basin, due: readonly Due[]): Due[][] {
    if (this.moving.length !== basin.state.length) this.moving = new Uint8Array(basin.state.length);
    const rows: Due[][] = Array.from({ length: basin.tilesY }, () => []);
    for (const tile of due) {
      rows[Math.floor(tile.index / basin.tilesX)].push(tile);
      this.moving[tile.index] = 1;
    }
    return rows;
  }

  /** Where paint has come to the border of a tile, the tile beyond is made ready for it. */
  private openBorders(layer: Layer, basin: Basin, due: readonly Due[]): void {
    const { tilesX, tilesY } = basin;
    const ready = new Set(due.map((d) => d.index));
    for (const { index } of due) {
      const wash = layer.tiles[index]?.wash;
      if (!wash) continue;
      const tx = index % tilesX;
      const ty = (index - tx) / tilesX;
      const sides = [
        { to: index - 1, at: 0, along: TILE, there: tx > 0 },
        { to: index + 1, at: TILE - 1, along: TILE, there: tx < tilesX - 1 },
        { to: index - tilesX, at: 0, along: 1, there: ty > 0 },
        { to: index + tilesX, at: TILE_CELLS - TILE, along: 1, there: ty < tilesY - 1 },
      ];
      for (const { to, at, along, there } of sides) {
        if (!there || !ready.has(to)) continue;
        const other = layer.tiles[to]!.wash!;
        wash.pigments.forEach((pigment, n) => {
          const plane = wash.coats.suspended[n] >> 2;
          const known = other.pigments.indexOf(pigment);
          if (!plane || (known >= 0 && other.coats.suspended[known])) return;
          for (let i = 0; i < TILE; i++) {
            // making a plane ready can move the memory: it is read afresh
            if (this.arena.f32[plane + at + i * along] <= CROSSES) continue;
            other.plane('suspended', pigment);
            other.plane('settled', pigment);
            return;
          }
        });
      }
    }
  }

  /** Moves paint along one axis in a row of tiles, in order, with what lay at the far border of each saved. */
  private carry(layer: Layer, basin: Basin, row: readonly Due[] | undefined, goes: number, across: boolean): void {
    const { kernels, bed, block, list, fine } = this;
    const { tilesX } = basin;
    const next = across ? 1 : tilesX;
    for (const { index, steps } of row ?? []) {
      const wash = layer.tiles[index]?.wash;
      if (!wash) continue;
      const tx = index % tilesX;
      const ty = (index - tx) / tilesX;
      const n = steps / goes;
      const before = (across ? tx : ty) > 0 && this.moving[index - next] ? layer.tiles[index - next]?.wash : undefined;
      const behind =
        (!across || tx < tilesX - 1) && this.moving[index + next] ? layer.tiles[index + next]?.wash : undefined;
      const roll = 0.5 * bed.relief * fine * fine * n;
      let count = 0;
      for (let k = 0; k < wash.pigments.length; k++) {
        const plane = wash.coats.suspended[k];
        if (!plane) continue;
        const pigment = wash.pigments[k];
        const rates = washRates(pigment);
        const e = list + count++ * CARRIED.words;
        const saved = this.edge(pigment, tilesX) + (across ? 0 : (1 + tx) * 2 * TILE);
        const place = across ? tx : ty;
        const { i32, f32 } = this.arena;
        i32[e + CARRIED.plane] = plane >> 2;
        i32[e + CARRIED.before] = floating(before, pigment) ? saved + ((place + 1) & 1) * TILE : 0;
        i32[e + CARRIED.behind] = floating(behind, pigment) >> 2;
        i32[e + CARRIED.save] = saved + (place & 1) * TILE;
        f32[e + CARRIED.mobile] = rates.mobile;
        f32[e + CARRIED.rollA] = rates.rollA * roll;
        f32[e + CARRIED.rollB] = rates.rollB * roll;
        f32[e + CARRIED.diffuse] = rates.diffusion * fine * fine * n;
      }
      if (count === 0) continue;
      const carry = across ? kernels.carryX : kernels.carryY;
      carry(block, basin.first(index), basin.firstCover(index), bed.fine(index), list, count, n);
    }
  }

  /** Room for the far borders of tiles, for two in turn: in a row of tiles, then in each of its columns. */
  private edge(pigment: number, tilesX: number): number {
    let at = this.edges.get(pigment);
    if (at === undefined)
      this.edges.set(pigment, (at = this.painting.memory.allocate(2 * TILE * 4 * (1 + tilesX)) >> 2));
    return at;
  }

  settle(layer: Layer, basin: Basin, active: readonly number[], k: number): void {
    const { kernels, bed, block, list } = this;
    const turn = this.painting.flow.steps;
    const seconds = TURNS * k * STEP_SECONDS;
    for (const index of active) {
      const row = Math.floor(index / basin.tilesX);
      if ((index + row + turn) % TURNS !== 0) continue;
      const wash = layer.tiles[index]?.wash;
      if (!wash) continue;
      let count = 0;
      [...wash.pigments].forEach((pigment) => {
        const n = wash.pigments.indexOf(pigment);
        if (!wash.coats.suspended[n]) return;
        const settled = wash.plane('settled', pigment);
        const rates = washRates(pigment);
        const e = list + count++ * SETTLED.words;
        const { i32, f32 } = this.arena;
        i32[e + SETTLED.suspended] = wash.coats.suspended[n] >> 2;
        i32[e + SETTLED.settled] = settled >> 2;
        i32[e + SETTLED.under] = wash.coats.under[n] >> 2;
        i32[e + SETTLED.soluble] = wash.coats.soluble[n] >> 2;
        f32[e + SETTLED.settle] = rates.settle * seconds;
        f32[e + SETTLED.valley] = rates.valley * Math.min(1, bed.relief);
        f32[e + SETTLED.lift] = rates.lift * seconds;
        f32[e + SETTLED.floor] = rates.floor;
        f32[e + SETTLED.liftUnder] = rates.lift * seconds * FLOW.underLift;
        f32[e + SETTLED.liftInk] = FLOW.lift * FLOW.inkLift * seconds;
      });
      if (count === 0) continue;
      kernels.settlePaint(
        block,
        basin.first(index),
        basin.firstCover(index),
        bed.fine(index),
        list,
        count,
        seconds,
        FLOW.rimSettle,
      );
    }
  }
}
