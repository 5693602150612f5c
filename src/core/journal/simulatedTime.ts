import type { Layer } from '@/core/film/layer';
import { growRect, noRect } from '@/core/film/pixelRect';
import { driesIn, dryTile, sealTile } from '@/core/flow/drying';
import { Flow, flowOf } from '@/core/flow/flowing';
import { STEP_SECONDS } from '@/core/flow/washRates';
import { noChange, type Change } from '@/core/commands/change';
import { tileRect } from '@/core/film/tilesIn';
import type { TimeThatPasses } from '@/core/commands/workplace';
import type { StudioState } from './state';

/** Keeps a tile before it is changed. */
type Keep = (layer: Layer, index: number) => void;

/** Time that passes on a painting: water flows and dries, wet paint dries by what it is made of and how thick it lies. */
export class SimulatedTime implements TimeThatPasses {
  /** Steps that water has flowed by the clock and that are not yet written down as a wait. */
  private waited = 0;
  /** Tiles in which water has moved since they were last taken. */
  private flowed = new Set<number>();

  /** @param keep for a step that is open, @param keepForAll for time that is no step of its own */
  constructor(
    private readonly state: StudioState,
    private readonly keep: Keep,
    private readonly keepForAll: Keep,
  ) {}

  pass(seconds: number): Change {
    const flowed = new Set<number>();
    this.flow(Flow.steps(seconds), flowed);
    return { ...this.age(seconds), flowed };
  }

  dry(): Change {
    const { painting } = this.state;
    const rect = noRect();
    const flowed = new Set<number>();
    if (this.hasWater) {
      flowOf(painting).dry((layer, index) => {
        this.keep(layer, index);
        flowed.add(index);
      });
    }
    for (const layer of painting.layers) {
      if (layer.kind !== 'paint') continue;
      layer.forEachTile((tile, index) => {
        if (!tile.volume) return;
        this.keep(layer, index);
        if (sealTile(painting.arena, tile)) growRect(rect, tileRect(painting, index));
      });
    }
    return { ...noChange(), rect, flowed };
  }

  /** Lets water flow by the clock for some steps, as a wait that is not over yet. */
  advance(steps: number): void {
    this.flow(steps, this.flowed);
    this.waited += steps;
  }

  /** Ends the wait that `advance` began. @returns its seconds, and what they changed; undefined when no time has passed */
  endWait(): { seconds: number; change: Change } | undefined {
    if (!this.waiting) return undefined;
    const seconds = Math.round(this.waited * STEP_SECONDS * 100) / 100;
    this.waited = 0;
    return { seconds, change: this.age(seconds) };
  }

  /** Whether a wait is not over yet. */
  get waiting(): boolean {
    return this.waited > 0;
  }

  /** Notes tiles in which water has moved otherwise. */
  note(flowed: ReadonlySet<number>): void {
    flowed.forEach((index) => this.flowed.add(index));
  }

  /** Tiles in which water has moved since this was last asked. */
  takeFlowed(): ReadonlySet<number> {
    const { flowed } = this;
    this.flowed = new Set();
    return flowed;
  }

  /** Whether time passes in strokes of the tool in hand, as their readings tell it. */
  get passesInStrokes(): boolean {
    const { tools, painting } = this.state;
    const { wash, blots } = tools.definition;
    return wash !== undefined || (blots === true && painting.active.basin !== undefined);
  }

  /** Tiles under a film of water. */
  get wetTiles(): number {
    return this.state.painting.layers.reduce((sum, layer) => sum + (layer.basin?.wetTiles ?? 0), 0);
  }

  /** Whether there is water on any layer. */
  get hasWater(): boolean {
    return this.state.painting.layers.some((layer) => layer.basin);
  }

  /** Whether there is paint that dries in minutes. */
  get driesByTheClock(): boolean {
    return this.state.painting.layers.some(
      (layer) => layer.kind === 'paint' && layer.tiles.some((tile) => tile && driesIn(tile, 0)),
    );
  }

  /** Lets water flow for some steps, as far as there is any. */
  private flow(steps: number, flowed: Set<number>): void {
    if (!this.hasWater) return;
    const water = flowOf(this.state.painting);
    const keep = (layer: Layer, index: number) => {
      this.keepForAll(layer, index);
      flowed.add(index);
    };
    for (let i = 0; i < steps && water.active; i++) water.step(keep);
  }

  /** Oil and acrylic dry for some seconds. */
  private age(seconds: number): Change {
    const { painting } = this.state;
    this.state.clock += seconds;
    const rect = noRect();
    for (const layer of painting.layers) {
      if (layer.kind !== 'paint') continue;
      layer.forEachTile((tile, index) => {
        if (!driesIn(tile, seconds)) return;
        this.keepForAll(layer, index);
        const { strata } = tile;
        dryTile(painting.arena, tile, seconds);
        this.state.dateTile(layer, index, strata);
        growRect(rect, tileRect(painting, index));
      });
    }
    return { ...noChange(), rect };
  }
}
