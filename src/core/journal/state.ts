import type { Arena } from '@/core/film/arena';
import type { Layer } from '@/core/film/layer';
import { Ledger } from '@/core/film/ledger';
import { Painting, type PaintingSpec } from '@/core/film/painting';
import { dated, type Stratum } from '@/core/film/packing/stratum';
import { growRect, noRect } from '@/core/film/pixelRect';
import { makeSlab, SLAB } from '@/core/film/slab';
import { Toolbox } from '@/core/tools/toolbox';
import { TOOLS, type ToolId } from '@/core/tools/tools';
import type { ToolSet } from '@/core/tools/toolSet';
import { noChange, type Change } from '@/core/commands/change';
import { tileRect, wholeRect } from '@/core/film/tilesIn';
import type { Moment, Structure } from './moment';

/** All that a studio is at one time: the painting, the slab beside it, the tools, the clock. */
export class StudioState {
  private canvas: Painting;
  /** The stone to mix on: a small painting beside the painting, with the same tools and the same book of paint. */
  readonly slab: Painting;
  readonly tools: Toolbox;
  /** Simulated seconds that have passed. */
  clock = 0;
  /** Strokes made so far; each has randomness of its own. */
  strokes = 0;

  constructor(
    private readonly begunAs: PaintingSpec,
    arena: Arena,
    private readonly toolSet: ToolSet<ToolId> = TOOLS,
  ) {
    this.canvas = new Painting(begunAs, arena);
    this.slab = makeSlab(this.painting);
    this.tools = new Toolbox(this.painting, toolSet);
  }

  /** The painting as it is now: another object once its canvas was cut, turned or extended. */
  get painting(): Painting {
    return this.canvas;
  }

  /** What the painting was begun with, and the own paints that came to it: where its journal starts. */
  get begun(): PaintingSpec {
    const { paints } = this.painting.spec;
    return paints ? { ...this.begunAs, paints } : this.begunAs;
  }

  /** Layers of the painting, the slab's, and the selection. */
  get allLayers(): readonly Layer[] {
    return [...this.painting.layers, ...this.slab.layers, this.painting.selection];
  }

  /** Puts another canvas on the easel. */
  setCanvas(painting: Painting): void {
    // an undo that brings the old one back works out anew what it needs
    if (painting !== this.canvas) this.canvas.disposeDerived();
    this.canvas = painting;
    this.tools.moveTo(painting);
  }

  /** Takes over a canvas that is laid out in another way, as a snapshot tells it; it is empty. */
  layOut(spec: PaintingSpec): void {
    this.setCanvas(new Painting(spec, this.painting.arena, this.painting.ledger));
  }

  /** Who is in the stack, and how they look. */
  get structure(): Structure {
    const { painting } = this;
    const { layers, activeLayer, part, layersMade } = painting;
    return { painting, layers: layers.map((layer) => ({ layer, look: layer.look })), activeLayer, part, layersMade };
  }

  /** A moment of the state as it is, in which nothing is kept yet. @param timeline how many commands led to it */
  moment(timeline: number): Moment {
    const { painting, structure, strokes, clock } = this;
    return {
      tiles: new Map(),
      structure,
      ledger: painting.ledger.clone(),
      tools: this.tools.capture(),
      strokes,
      clock,
      flow: { ...painting.flow },
      timeline,
    };
  }

  /** Goes back to a moment. */
  goTo(moment: Moment): Change {
    const now = this.structure;
    const canvas = moment.structure.painting !== this.painting;
    if (canvas) {
      for (const layer of [...this.painting.layers, this.painting.selection]) this.painting.disposeLayer(layer);
      this.setCanvas(moment.structure.painting);
    }
    const { painting } = this;
    const rect = noRect();
    const slab = noRect();
    const layersDiffer =
      now.layers.length !== moment.structure.layers.length ||
      now.layers.some((l, i) => {
        const m = moment.structure.layers[i];
        return l.layer !== m.layer || l.look !== m.look;
      });
    painting.layers = moment.structure.layers.map(({ layer, look }) => {
      layer.look = look;
      return layer;
    });
    painting.choose(moment.structure.activeLayer, moment.structure.part);
    painting.layersMade = moment.structure.layersMade;
    for (const [layer, tiles] of moment.tiles) {
      for (const [index, image] of tiles) {
        layer.restore(index, image, painting.arena, () => painting.newBasin());
        if (layer.id === SLAB) growRect(slab, tileRect(this.slab, index));
        else growRect(rect, tileRect(painting, index));
      }
    }
    for (const layer of painting.layers) {
      if (layer.basin?.active) continue;
      layer.basin?.dispose();
      layer.basin = undefined;
    }
    if (layersDiffer || canvas) growRect(rect, wholeRect(this.painting));
    painting.order++;
    painting.ledger.copyFrom(moment.ledger);
    this.tools.restore(moment.tools);
    this.strokes = moment.strokes;
    this.clock = moment.clock;
    painting.flow = { ...moment.flow };
    return { ...noChange(), rect, slab, layers: true, ...(canvas && { canvas }) };
  }

  /** Says of strata that were not there before when they dried: now. @param before tiles as they were */
  dateStrata(before: Moment['tiles']): void {
    for (const [layer, tiles] of before) {
      for (const [index, image] of tiles) this.dateTile(layer, index, image?.strata ?? []);
    }
  }

  /** The same of one tile. */
  dateTile(layer: Layer, index: number, before: readonly Stratum[]): void {
    const tile = layer.tiles[index];
    if (tile) tile.strata = dated(tile.strata, before, { strokes: this.strokes, clock: this.clock });
  }

  /** No stroke is in the air any more: what says what it laid goes. */
  dropLaid(): void {
    for (const layer of this.allLayers) layer.forEachTile((tile) => tile.dropLaid());
  }

  /** Back to the empty ground. */
  clear(): void {
    for (const layer of this.allLayers) this.painting.disposeLayer(layer);
    if (this.painting.spec.placed) this.layOut(this.begun);
    const { painting } = this;
    painting.layers = [];
    painting.layersMade = 0;
    painting.addLayer('drawing', 'Sketch');
    painting.choose(painting.addLayer('paint', 'Paint').id);
    painting.ledger.copyFrom(new Ledger());
    painting.flow = { steps: 0, tilt: [0, 0], salt: [] };
    this.tools.restore(new Toolbox(painting, this.toolSet).capture());
    this.clock = 0;
    this.strokes = 0;
  }

  /** Gives all memory back. */
  dispose(): void {
    for (const layer of this.allLayers) this.painting.disposeLayer(layer);
    this.painting.disposeDerived();
    this.slab.disposeDerived();
    this.tools.dispose();
  }
}
