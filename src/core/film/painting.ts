import { groundBands, type Mixture } from '@/core/colour/mixture';
import { knowPaint, type OwnPaint } from '@/core/colour/ownPaints';
import {
  isSheet,
  makeHeightField,
  PAPER_TINTS,
  placedField,
  type HeightField,
  type SurfaceSpec,
} from '@/core/surface/heightField';
import { Arena } from './arena';
import { ArenaScope } from './arenaScope';
import { Basin, WASH_UM, type SaltGrain } from './basin';
import { Layer, type LayerKind } from './layer';
import { TABLE_COUNT } from '@/core/colour/pigments';
import { Ledger } from './ledger';
import { stratumMass } from '@/core/film/packing/stratum';
import { TILE, TILE_CELLS } from './tile';

/** Id of the layer whose mask is the selection. */
export const SELECTION = 'selection';

/** What a painting is begun with. Lengths in mm. */
export interface PaintingSpec {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly ppi: number;
  readonly seed: number;
  readonly surface: SurfaceSpec;
  readonly tone?: { readonly mixture: Mixture };
  /** Paints of the painter's own, in the order in which they came into this painting. */
  readonly paints?: readonly OwnPaint[];
  /** Where its cells lie on the canvas it was begun with, once it was cut, turned or mirrored (see `placedField`). */
  readonly placed?: readonly number[];
}

/** Cells and tiles of a painting of a size. */
export function gridOf({ widthMm, heightMm, ppi }: Pick<PaintingSpec, 'widthMm' | 'heightMm' | 'ppi'>) {
  const mmPerPx = 25.4 / ppi;
  const width = Math.max(1, Math.round(widthMm / mmPerPx));
  const height = Math.max(1, Math.round(heightMm / mmPerPx));
  return { mmPerPx, width, height, tilesX: Math.ceil(width / TILE), tilesY: Math.ceil(height / TILE) };
}

/** What the water of a painting has in common. Never changed in place but for the count of steps. */
export interface FlowState {
  steps: number;
  tilt: readonly [x: number, y: number];
  salt: readonly SaltGrain[];
}

/** What is worked out from a painting and kept beside it: its water's bed, tables of its colours. It takes `memory`. */
type Service<T> = new (painting: Painting) => T;

/** A support with a ground and layers of paint: plain state, changed only by the studio. */
export class Painting {
  readonly arena: Arena;
  readonly width: number;
  readonly height: number;
  readonly tilesX: number;
  readonly tilesY: number;
  readonly mmPerPx: number;
  readonly surface: HeightField;
  /** Internal reflectance of priming and tone, in the engine's bands. */
  readonly ground: Float64Array;
  /** Bottom to top. */
  layers: Layer[] = [];
  /** Id of the layer that is painted on, and whether it or its mask is. */
  activeLayer = '';
  part: 'layer' | 'mask' = 'layer';
  /** What is selected: the mask of a layer that is in no stack. Nothing is held back where it has no tiles. */
  readonly selection: Layer;
  /** Changes whenever layers are added, removed, ordered, hidden or shown. */
  order = 0;
  /** Of the water on all layers: steps made so far, the tilt of the board (degrees, right and lower side down), salt. */
  flow: FlowState = { steps: 0, tilt: [0, 0], salt: [] };
  /** Memory of what is derived from the painting. */
  readonly memory: ArenaScope;
  private readonly services = new Map<Service<unknown>, unknown>();
  private layerCount = 0;

  /**
   * @param arena memory to lie in, @param ledger book to enter paint in: those of another painting when both share tools
   * @throws RangeError when there is no room for its own paints
   */
  constructor(
    public spec: PaintingSpec,
    arena = new Arena(),
    readonly ledger = new Ledger(),
  ) {
    this.arena = arena;
    this.memory = new ArenaScope(arena);
    spec.paints?.forEach(knowPaint);
    ({
      mmPerPx: this.mmPerPx,
      width: this.width,
      height: this.height,
      tilesX: this.tilesX,
      tilesY: this.tilesY,
    } = gridOf(spec));
    const field = makeHeightField(spec.surface, spec.ppi, spec.seed);
    this.surface = spec.placed ? placedField(field, spec.placed) : field;
    const { kind, tint = 'natural' } = spec.surface;
    this.ground = groundBands(spec.tone?.mixture, isSheet(kind) ? PAPER_TINTS[tint] : undefined);
    this.selection = new Layer(SELECTION, 'Selection', 'selection', this.tilesX * this.tilesY);
    this.addLayer('drawing', 'Sketch');
    this.activeLayer = this.addLayer('paint', 'Paint').id;
  }

  /** Chooses the layer that is painted on. */
  choose(id: string, part: 'layer' | 'mask' = 'layer'): void {
    this.activeLayer = id;
    this.part = part;
  }

  /** Whether a part is selected. */
  get selected(): boolean {
    return this.selection.tiles.some((tile) => tile?.mask);
  }

  /** Adds an empty layer on top. */
  addLayer(kind: LayerKind, name: string): Layer {
    const layer = new Layer(`L${++this.layerCount}`, name, kind, this.tilesX * this.tilesY);
    this.layers.push(layer);
    this.order++;
    return layer;
  }

  /** Brings one more own paint to the painting. @throws RangeError when there is no room for it */
  bringPaint(paint: OwnPaint): void {
    knowPaint(paint);
    const paints = this.spec.paints ?? [];
    if (!paints.some((p) => p.id === paint.id)) this.spec = { ...this.spec, paints: [...paints, paint] };
  }

  /** How many layers were ever made: the next one's number follows from it. */
  get layersMade(): number {
    return this.layerCount;
  }
  set layersMade(count: number) {
    this.layerCount = count;
  }

  layer(id: string): Layer | undefined {
    return this.layers.find((l) => l.id === id);
  }

  /** The layer that is painted on. */
  get active(): Layer {
    return this.layer(this.activeLayer)!;
  }

  /** Area of a cell, mm2. */
  get cellArea(): number {
    return this.mmPerPx * this.mmPerPx;
  }

  /** Pigment lying wet and dry on all layers, coats times mm2. */
  massOnCanvas(): { film: Float64Array; settled: Float64Array; strata: Float64Array } {
    const film = new Float64Array(TABLE_COUNT);
    const settled = new Float64Array(TABLE_COUNT);
    const strata = new Float64Array(TABLE_COUNT);
    const { f32 } = this.arena;
    for (const layer of this.layers) {
      layer.forEachTile((tile) => {
        tile.wash?.forEach((plane, pigment, coat) => {
          let sum = 0;
          for (let k = plane >> 2, end = k + TILE_CELLS; k < end; k++) sum += f32[k];
          (coat === 'suspended' ? film : settled)[pigment] += sum * this.cellArea;
        });
        tile.pigments.forEach((pigment, i) => {
          const at = tile.mass[i] >> 2;
          let sum = 0;
          for (let k = at; k < at + TILE_CELLS; k++) sum += f32[k];
          film[pigment] += sum * this.cellArea;
        });
        for (const stratum of tile.strata) {
          stratum.pigments.forEach((pigment, i) => (strata[pigment] += stratumMass(stratum, i) * this.cellArea));
        }
      });
    }
    return { film, settled, strata };
  }

  /** Water lying on the layers and in the paper, microlitres. */
  waterOnCanvas(): number {
    let sum = 0;
    for (const { basin } of this.layers) {
      if (!basin) continue;
      const cell = (basin.factor * this.mmPerPx) ** 2 * (WASH_UM / 1000);
      basin.state.forEach((state, index) => {
        if (state !== 0) sum += (basin.sum('water', index) + basin.sum('moisture', index)) * cell;
      });
    }
    return sum;
  }

  /** A fresh basin for the water of a layer. */
  newBasin(): Basin {
    return new Basin(this.arena, this.tilesX, this.tilesY, this.mmPerPx, this);
  }

  /** A service of the painting, made when it is first asked for. It goes with the painting. */
  derived<T>(service: Service<T>): T {
    let made = this.services.get(service) as T | undefined;
    if (!made) this.services.set(service, (made = new service(this)));
    return made;
  }

  /** Gives back what is derived from the painting: it is not on the easel any more. What lies on it stays. */
  disposeDerived(): void {
    this.services.clear();
    this.memory.dispose();
  }

  /** Gives the memory of a layer back. */
  disposeLayer(layer: Layer): void {
    layer.basin?.dispose();
    layer.basin = undefined;
    layer.forEachTile((tile, index) => {
      tile.dispose();
      layer.tiles[index] = undefined;
    });
  }
}
