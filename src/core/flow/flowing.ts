import { maths } from '@/core/maths/maths';
import type { Arena } from '@/core/film/arena';
import { DAMP, DRY, flowFactor, WASH_UM, WET, REFERENCE_MM, type Basin, type CoarsePlane } from '@/core/film/basin';
import { PLANE_BYTES, TILE, TILE_CELLS } from '@/core/film/cells';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { Wash } from '@/core/film/wash';
import { CARRIED, SETTLED } from '@/core/kernels/carry';
import { kernelsFor, type Kernels } from '@/core/kernels/kernels';
import { WATER } from '@/core/kernels/water';
import { makeBed, type Bed } from './bed';
import { saltPush } from './salt';
import { FLOW, STEP_SECONDS, washRates } from './washRates';

/** Called before a tile is changed, so that it can be kept for undo. */
export type BeforeTile = (layer: Layer, index: number) => void;

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

/** Tiles of a step, all and by rows of tiles; its arrays are used again. */
class TileRows {
  readonly all: number[] = [];
  private readonly rows: number[][] = [];

  clear(): void {
    this.all.length = 0;
    for (const row of this.rows) row.length = 0;
  }
  add(index: number, tilesX: number): void {
    const r = Math.floor(index / tilesX);
    while (this.rows.length <= r) this.rows.push([]);
    this.rows[r].push(index);
    this.all.push(index);
  }
  row(r: number): readonly number[] {
    return this.rows[r] ?? NONE;
  }
}
const NONE: readonly number[] = [];

/** Most pigments that one tile can carry at once. */
const MOST_CARRIED = 48;
/** Suspended paint below this many coats does not cross into a tile that has none of it. */
const CROSSES = 1e-9;
/** Each tile settles once in so many steps. */
const TURNS = 8;

/** Lets water on the layers of a painting flow, settle and dry, in fixed steps. Only tiles with water are stepped. */
export class Flow {
  readonly bed: Bed;
  private readonly arena: Arena;
  /** Word addresses: parameters; lists of pigments; columns and rows saved for the next tile; gains of fronts. */
  private readonly block: number;
  private readonly list: number;
  private readonly edges = new Map<number, number>();
  private readonly gains: number[] = [];
  private readonly watered = new TileRows();
  private readonly filmed = new TileRows();
  /** 1 for tiles whose paint moves in this step. */
  private moving = new Uint8Array(0);
  /** Cells for a reference cell, and reference flow cells for a flow cell. */
  private readonly fine: number;
  private readonly coarse: number;
  private readonly gravity: number;

  constructor(
    private readonly painting: Painting,
    private readonly kernels: Kernels = kernelsFor(painting.arena),
  ) {
    this.arena = painting.arena;
    this.bed = makeBed(painting);
    const { memory } = painting;
    this.block = memory.allocate(WATER.words * 4) >> 2;
    this.list = memory.allocate(MOST_CARRIED * 16 * 4) >> 2;
    const rows = memory.allocate((8 + MOST_CARRIED) * 80 * 4) >> 2;
    this.arena.i32[this.block + WATER.rows] = rows;
    this.fine = REFERENCE_MM / painting.mmPerPx;
    const flowMm = flowFactor(painting.mmPerPx) * painting.mmPerPx;
    this.coarse = (2 * REFERENCE_MM) / flowMm;
    // the speed of waves is bounded by the step and the flow cell
    this.gravity = Math.min(FLOW.gravity * this.coarse, 0.36 / this.coarse);
  }

  /** The water of a layer, made when it is missing. */
  basin(layer: Layer): Basin {
    return (layer.basin ??= this.painting.newBasin());
  }

  /** Microlitres in one wash over one flow cell. */
  get microlitres(): number {
    return (((2 * REFERENCE_MM) / this.coarse) ** 2 * WASH_UM) / 1000;
  }

  /** Makes a tile ready to take water: what has dissolved in it needs somewhere to float. */
  wake(layer: Layer, index: number, before: BeforeTile): void {
    const basin = this.basin(layer);
    if (basin.state[index] === WET) return;
    before(layer, index);
    const tile = layer.ensureTile(index, this.arena);
    tile.wash ??= new Wash(this.arena);
    for (const pigment of tile.wash.pigments) {
      const k = tile.wash.pigments.indexOf(pigment);
      const { settled, under, soluble } = tile.wash.coats;
      if (settled[k] || under[k] || soluble[k]) {
        tile.wash.plane('suspended', pigment);
        tile.wash.plane('settled', pigment);
      }
    }
    basin.state[index] = WET;
    basin.paint[index] = FLOW.fastest;
  }

  /** Makes a tile ready to have damp paper. */
  dampen(layer: Layer, index: number): void {
    const basin = this.basin(layer);
    if (basin.state[index] !== DRY) return;
    const tile = layer.ensureTile(index, this.arena);
    tile.wash ??= new Wash(this.arena);
    basin.state[index] = DAMP;
  }

  /**
   * One step of all layers.
   * @param k length, in usual steps: up to 8 once the film is thin
   * @param calm takes that share of gravity, so that long steps stay stable
   * @param only the one layer that is stepped
   */
  step(before: BeforeTile, k = 1, calm = 1, only?: Layer): void {
    this.painting.flow.steps++;
    for (const layer of this.painting.layers) {
      if (layer.basin && (!only || layer === only)) this.stepLayer(layer, layer.basin, before, k, calm);
    }
  }

  /** Whether any water is left. */
  get active(): boolean {
    return this.painting.layers.some((layer) => layer.basin?.active);
  }

  /** Steps that a time takes. */
  static steps(seconds: number): number {
    return Math.round(seconds / STEP_SECONDS);
  }

  /**
   * Dries everything now: the same steps, longer ones as the film gets thinner.
   * @returns the seconds that this would have taken
   */
  dry(before: BeforeTile, only?: Layer): number {
    let seconds = 0;
    while (only ? only.basin?.active : this.active) {
      let deepest = 0;
      let film = false;
      for (const layer of this.painting.layers) {
        const { basin } = layer;
        if (!basin || (only && layer !== only)) continue;
        basin.state.forEach((state, index) => {
          if (state !== WET) return;
          film = true;
          deepest = Math.max(deepest, this.deepest(basin, index));
        });
      }
      const wave = (k: number) => (this.gravity * this.coarse * k * k * Math.min(deepest, 1.5)) / (2 * (1 + (FLOW.drag * k) / (deepest * deepest + 1e-6))); // prettier-ignore
      // the longest step that keeps levelling stable; from two usual ones on levelling is slowed instead
      let k = film ? 8 : 24;
      while (film && k > 2 && wave(k) > 0.22) k -= 0.5;
      const height = film ? wave(k) : 0;
      this.step(before, k, height > 0.22 ? 0.22 / height : 1, only);
      seconds += k * STEP_SECONDS;
    }
    return seconds;
  }

  private deepest(basin: Basin, index: number): number {
    const { f32 } = this.arena;
    let deepest = 0;
    for (let y = 0; y < basin.side; y++) {
      const row = basin.first(index) + y * basin.stride;
      for (let i = row; i < row + basin.side; i++) {
        const share = f32[basin.at.share + i];
        if (share > 0) deepest = Math.max(deepest, f32[basin.at.water + i] / share);
      }
    }
    return deepest;
  }

  // --- one step of one layer

  private stepLayer(layer: Layer, basin: Basin, before: BeforeTile, k: number, calm: number): void {
    const { kernels, bed, block } = this;
    this.aim(basin, k, calm);
    const { watered: active, filmed: wet } = this;
    active.clear();
    wet.clear();
    basin.state.forEach((state, index) => {
      if (state === DRY) return;
      before(layer, index);
      layer.ensureTile(index, this.arena).version++;
      active.add(index, basin.tilesX);
      if (state === WET) wet.add(index, basin.tilesX);
    });
    basin.closeEdges();
    let evaporated = 0;
    // a row of tiles after the other, as soon as those that it looks at are ready: what is worked on stays in the cache
    for (let r = 0; r < basin.tilesY + 2; r++) {
      for (const index of wet.row(r)) kernels.filmDepth(block, basin.first(index));
      for (const index of wet.row(r))
        basin.film[index] = kernels.pushWater(block, basin.first(index), bed.coarse(index));
      for (const index of wet.row(r - 1)) kernels.shiftWater(block, basin.first(index));
      for (const index of active.row(r - 1))
        evaporated += kernels.evaporate(block, basin.first(index), bed.coarse(index));
      for (const index of active.row(r - 2)) kernels.adoptWater(block, basin.first(index));
    }
    this.painting.ledger.water.evaporated += evaporated * this.microlitres;
    const due = this.due(basin, wet.all, k);
    if (due.length > 0) this.movePaint(layer, basin, due);
    this.settle(layer, basin, active.all, k);
    this.advance(layer, basin, active.all, before);
    if (!basin.active) this.drain(layer);
  }

  /** Everything has dried. */
  drain(layer: Layer): void {
    layer.basin?.dispose();
    layer.basin = undefined;
    this.painting.flow.salt = this.painting.flow.salt.filter((grain) => grain.layer !== layer.id);
  }

  /** Fills the parameter block for a basin and a step. */
  private aim(basin: Basin, k: number, calm: number): void {
    const { arena, bed, block, fine, coarse } = this;
    const { i32, f32 } = arena;
    const planes: CoarsePlane[] = [
      'water', 'moisture', 'rim', 'u', 'v', 'load', 'share', 'depth', 'open', 'fluxX', 'fluxY', 'mass', 'stream',
      'paintU', 'paintV', 'nextA', 'nextB',
    ]; // prettier-ignore
    planes.forEach((name) => (i32[block + WATER[name]] = basin.at[name]));
    const ints = {
      cover: basin.cover, permeable: bed.permeable, resistance: bed.resistance, lobes: bed.lobes, blotches: bed.blotches,
      currents: bed.currents, fallX: bed.fallX, fallY: bed.fallY, tooth: bed.tooth, bedA: bed.bedA, bedB: bed.bedB, stride: basin.stride,
      coverStride: basin.coverStride, bedStride: bed.bedStride, fineStride: bed.fineStride, factor: basin.factor,
      side: basin.side,
    }; // prettier-ignore
    for (const [name, v] of Object.entries(ints)) i32[block + WATER[name as keyof typeof ints]] = v;
    const seconds = k * STEP_SECONDS;
    // valleys of a rough sheet keep their water longer
    const dries = FLOW.evaporation * (1 - FLOW.humidity) * (1.15 - 0.16 * Math.min(1.4, bed.relief)) * seconds;
    const reach = FLOW.rimReach * coarse;
    const floats = {
      gravity: this.gravity * k * k * calm,
      drag: FLOW.drag * k,
      yielding: FLOW.yielding,
      yieldDepth: FLOW.yieldDepth,
      uneven: FLOW.uneven,
      fastest: FLOW.fastest / Math.max(1, coarse),
      tiltX: (FLOW.tiltPerDegree * this.painting.flow.tilt[0]) / coarse,
      tiltY: (FLOW.tiltPerDegree * this.painting.flow.tilt[1]) / coarse,
      transfer: 0.5 * coarse,
      openFrom: FLOW.openFrom,
      openOver: 1 / (FLOW.openTo - FLOW.openFrom),
      evaporation: dries,
      rimEvaporation: FLOW.rimEvaporation,
      blotchEvaporation: FLOW.blotchEvaporation,
      rimBlur: 1 / (1 + 4 * reach * reach),
      absorption: FLOW.absorption * (1 - 0.8 * bed.sizing) * seconds,
      capacity: bed.capacity,
      paperEvaporation: dries * FLOW.paperEvaporation,
      // in long steps moisture would swing to and fro, and grow
      capillary: Math.min(FLOW.capillaryMost, FLOW.capillary * coarse * coarse * k),
      breaks: FLOW.breaks,
      barrierDry: FLOW.barrierDry,
      barrierDamp: FLOW.barrierDamp,
      barrierRough: FLOW.barrierRough,
      frontRate: FLOW.frontRate * k * fine,
      frontMost: Math.min(1, FLOW.frontMost * fine),
      tension: FLOW.tension,
      relief: Math.min(1.2, bed.relief),
      loadBlur: FLOW.loadBlur,
      disperse: FLOW.disperse * k * coarse,
      traces: FLOW.traces,
      rimDrift: FLOW.rimDrift * k * coarse * Math.min(1, maths.pow(fine, -FLOW.rimFine)),
      step: k,
      cells: fine,
      rimUneven: FLOW.rimUneven,
      fingers: FLOW.fingers,
      curve: FLOW.curve,
      spreadMost: FLOW.spreadMost / Math.max(1, coarse),
      smear: Math.max(1, Math.min(FLOW.mostSmear, fine)),
    };
    for (const [name, v] of Object.entries(floats)) f32[block + WATER[name as keyof typeof floats]] = v;
  }

  // --- paint

  /**
   * Tiles whose paint moves now, with the steps it has waited. In each patch of wet tiles that hang together it moves
   * as often as the fastest paint there needs.
   */
  private due(basin: Basin, wet: readonly number[], k: number): Due[] {
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

  private movePaint(layer: Layer, basin: Basin, waiting: readonly Due[]): void {
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
    const fastest = due.reduce((most, { index }) => Math.max(most, Math.min(FLOW.fastest, basin.film[index] + basin.paint[index])), 0); // prettier-ignore
    const steps = due[0].steps;
    const k = arena.f32[block + WATER.step];
    const goes = Math.max(1, Math.ceil((due.reduce((m, d) => Math.max(m, d.steps), steps) * fastest * this.fine) / k / 0.46 - 1e-9)); // prettier-ignore
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
      const behind = (!across || tx < tilesX - 1) && this.moving[index + next] ? layer.tiles[index + next]?.wash : undefined; // prettier-ignore
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

  private settle(layer: Layer, basin: Basin, active: readonly number[], k: number): void {
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
      kernels.settlePaint(block, basin.first(index), basin.firstCover(index), bed.fine(index), list, count, seconds, FLOW.rimSettle); // prettier-ignore
    }
  }

  // --- the extent of the water

  private advance(layer: Layer, basin: Basin, active: readonly number[], before: BeforeTile): void {
    const { kernels, bed, block } = this;
    const gained = new Map<number, number>();
    let used = 0;
    for (const index of active) {
      if (basin.state[index] !== WET && !this.besideWet(basin, index)) continue;
      const gains = (this.gains[used] ??= this.painting.memory.allocate(PLANE_BYTES) >> 2);
      const resist = layer.tiles[index]?.wash?.resist;
      const any = kernels.advanceFront(
        block, basin.first(index), bed.coarse(index), basin.firstCover(index), bed.fine(index),
        (resist?.masking ?? 0) >> 2, (resist?.wax ?? 0) >> 2, gains,
      ); // prettier-ignore
      if (any) {
        this.keepOnSheet(basin, index, gains);
        gained.set(index, gains);
        used++;
      }
    }
    const { tilesX, tilesY } = basin;
    const reached: number[] = [];
    for (const index of active) {
      const gains = gained.get(index) ?? 0;
      if (gains && basin.state[index] !== WET) this.wake(layer, index, before);
      const found = kernels.coverFilm(block, basin.first(index), basin.firstCover(index), gains);
      if (found & 1) {
        if (basin.state[index] !== WET) this.wake(layer, index, before);
      } else if (found & 2) {
        if (basin.state[index] === WET) basin.still(index);
        basin.state[index] = DAMP;
      } else this.finish(layer, basin, index);
      const tx = index % tilesX;
      const ty = (index - tx) / tilesX;
      const near = [
        found & 4 && tx > 0 ? index - 1 : -1,
        found & 8 && tx < tilesX - 1 ? index + 1 : -1,
        found & 16 && ty > 0 ? index - tilesX : -1,
        found & 32 && ty < tilesY - 1 ? index + tilesX : -1,
      ];
      for (const next of near) if (next >= 0) reached.push(next);
    }
    // beyond a border that is wet the next tile takes part from now on, so that nothing creeps into nowhere
    for (const index of reached) {
      if (basin.state[index] !== DRY) continue;
      before(layer, index);
      this.dampen(layer, index);
    }
  }

  /** Nothing is gained beyond the flow cells at the right and the lower edge of the sheet. */
  private keepOnSheet({ sheet, factor, tilesX }: Basin, index: number, gains: number): void {
    const { f32 } = this.arena;
    const whole = (cells: number, tile: number) => Math.min(TILE, Math.ceil(cells / factor) * factor - tile * TILE);
    const wide = whole(sheet.width, index % tilesX);
    const high = whole(sheet.height, Math.floor(index / tilesX));
    if (wide < TILE) for (let row = gains; row < gains + TILE_CELLS; row += TILE) f32.fill(0, row + wide, row + TILE);
    if (high < TILE) f32.fill(0, gains + high * TILE, gains + TILE_CELLS);
  }

  private besideWet({ state, tilesX, tilesY }: Basin, index: number): boolean {
    const tx = index % tilesX;
    return (
      (tx > 0 && state[index - 1] === WET) ||
      (tx < tilesX - 1 && state[index + 1] === WET) ||
      state[index - tilesX] === WET ||
      (index + tilesX < tilesX * tilesY && state[index + tilesX] === WET)
    );
  }

  /** A tile has dried through: what still lies loose is fixed. */
  private finish(layer: Layer, basin: Basin, index: number): void {
    basin.clear(index);
    const tile = layer.tiles[index];
    const wash = tile?.wash;
    if (!wash) return;
    for (const pigment of [...wash.pigments]) {
      const n = wash.pigments.indexOf(pigment);
      const loose = wash.coats.suspended[n];
      if (!loose) continue;
      const settled = wash.plane('settled', pigment) >> 2;
      const { f32 } = this.arena;
      let most = 0;
      for (let i = 0; i < TILE_CELLS; i++) {
        f32[settled + i] += f32[(loose >> 2) + i];
        if (f32[settled + i] > most) most = f32[settled + i];
      }
      wash.drop('suspended', pigment);
      if (most === 0) wash.drop('settled', pigment);
    }
    for (const pigment of [...wash.pigments]) {
      for (const coat of ['under', 'soluble'] as const) {
        const plane = wash.coats[coat][wash.pigments.indexOf(pigment)];
        if (plane && !this.arena.f32.subarray(plane >> 2, (plane >> 2) + TILE_CELLS).some((v) => v > 0)) {
          wash.drop(coat, pigment);
        }
      }
    }
    if (wash.empty) {
      wash.dispose();
      tile.wash = undefined;
    }
  }
}

/** The water of a painting. */
export const flowOf = (painting: Painting): Flow => painting.derived(Flow);
