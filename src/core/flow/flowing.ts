import type { Arena } from '@/core/film/arena';
import { DAMP, DRY, flowFactor, WASH_UM, WET, REFERENCE_MM, type Basin } from '@/core/film/basin';
import { TILE_CELLS } from '@/core/film/cells';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { Wash } from '@/core/film/wash';
import type { BeforeTile } from '@/core/film/window/windowPlanes';
import { kernelsFor, type Kernels } from '@/core/kernels/kernels';
import { WATER } from '@/core/kernels/water';
import { makeBed, type Bed } from './bed';
import { aimWater } from './flowParameters';
import { Front, type WetTiles } from './front';
import { PaintInWater } from './paintInWater';
import { FLOW, STEP_SECONDS } from './washRates';

export type { BeforeTile };

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

/** Lets water on the layers of a painting flow, settle and dry, in fixed steps. Only tiles with water are stepped. */
export class Flow implements WetTiles {
  readonly bed: Bed;
  private readonly arena: Arena;
  /** Word address of the kernels' parameters. */
  private readonly block: number;
  private readonly paint: PaintInWater;
  private readonly front: Front;
  private readonly watered = new TileRows();
  private readonly filmed = new TileRows();
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
    this.fine = REFERENCE_MM / painting.mmPerPx;
    const flowMm = flowFactor(painting.mmPerPx) * painting.mmPerPx;
    this.coarse = (2 * REFERENCE_MM) / flowMm;
    // the speed of waves is bounded by the step and the flow cell
    this.gravity = Math.min(FLOW.gravity * this.coarse, 0.36 / this.coarse);
    this.paint = new PaintInWater(painting, kernels, this.bed, this.block, this.fine);
    this.front = new Front(painting, kernels, this.bed, this.block, this);
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
      const wave = (k: number) =>
        (this.gravity * this.coarse * k * k * Math.min(deepest, 1.5)) /
        (2 * (1 + (FLOW.drag * k) / (deepest * deepest + 1e-6)));
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
    const { painting, fine, coarse, gravity } = this;
    aimWater(block, { painting, bed, basin, fine, coarse, gravity }, k, calm);
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
    const due = this.paint.due(basin, wet.all, k);
    if (due.length > 0) this.paint.move(layer, basin, due);
    this.paint.settle(layer, basin, active.all, k);
    this.front.advance(layer, basin, active.all, before);
    if (!basin.active) this.drain(layer);
  }

  /** Everything has dried. */
  drain(layer: Layer): void {
    layer.basin?.dispose();
    layer.basin = undefined;
    this.painting.flow.salt = this.painting.flow.salt.filter((grain) => grain.layer !== layer.id);
  }

  /** A tile has dried through: what still lies loose is fixed. */
  finish(layer: Layer, basin: Basin, index: number): void {
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
