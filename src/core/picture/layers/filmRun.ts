import { BANDS } from '@/core/colour/bands';
import { isColoured } from '@/core/colour/pigments';
import { TILE } from '@/core/film/cells';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import type { Tile } from '@/core/film/tile';
import type { Kernels } from '@/core/kernels/kernels';
import { BLOCK, type Block } from './block';
import { FilmTables, type PaintOptics } from './filmTables';
import { WashFilm, type LaidWash } from './washFilm';

/** A layer's tile with its wash made ready. */
export interface SeenTile {
  readonly layer: Layer;
  readonly tile: Tile;
  readonly wash: LaidWash | undefined;
}

/**
 * Lays the paint of one tile of one layer over blocks of cells: films over a substrate, in bands. A run is `BANDS.count`
 * planes of BLOCK words; what stands in it is what lies below, and is replaced by what is seen through the paint.
 */
export class FilmRun {
  readonly washes: WashFilm;
  private readonly scratch: number;
  /** Word address of packed steps on their way to `scratch`. */
  private readonly steps: number;
  /** Word addresses of the lists of a film's mass planes, and of what lies on top. */
  private readonly massList: number;
  private readonly skinList: number;
  readonly tables: FilmTables;
  /** Word addresses of tables by the lists of strata, which never change. */
  private readonly strataTables = new WeakMap<readonly number[], number>();

  constructor(
    private readonly painting: Painting,
    private readonly kernels: Kernels,
    optics: PaintOptics,
  ) {
    const { memory } = painting;
    this.scratch = memory.allocate(BLOCK * 4 * 64) >> 2;
    this.steps = memory.allocate(BLOCK * 2) >> 2;
    this.massList = memory.allocate(64 * 4) >> 2;
    this.skinList = memory.allocate(64 * 4) >> 2;
    this.tables = new FilmTables(memory, optics);
    this.washes = new WashFilm(painting, kernels, this.tables);
  }

  /** Makes a tile ready. */
  prepare(layer: Layer, tile: Tile, index: number): SeenTile {
    return { layer, tile, wash: tile.wash && this.washes.prepare(layer, tile.wash, index) };
  }

  /** Everything of a tile, oldest first. @param run word address */
  lay({ tile, wash }: SeenTile, index: number, block: Block, run: number): void {
    this.layStrata(tile, block, run);
    this.layOpen(tile, wash, index, block, run);
  }

  /** The dry films of a tile; what is being rubbed out is looked through. */
  layStrata(tile: Tile, { cell, count, rows }: Block, run: number): void {
    // whole rows are unpacked
    const first = cell & ~63;
    const words = rows * TILE;
    const thinned = tile.rubbing;
    for (const stratum of tile.strata) {
      const { arena } = this.painting;
      let tables = this.strataTables.get(stratum.pigments);
      if (tables === undefined) this.strataTables.set(stratum.pigments, (tables = this.tables.of(stratum.pigments)));
      const unpack = (steps: Uint16Array, unit: number, to: number) => {
        arena.write(this.steps << 2, steps.subarray(first, first + words));
        this.kernels.unpackSteps(this.steps << 1, words, unit, to);
        if (!thinned) return;
        const { f32 } = arena;
        for (let i = 0; i < words; i++) f32[to + i] *= 1 - f32[(tile.laid >> 2) + first + i];
      };
      const thickness = this.scratch;
      unpack(stratum.thickness, stratum.thicknessStep, thickness);
      let planes = 0;
      stratum.pigments.forEach((pigment, i) => {
        if (!isColoured(pigment)) return;
        const to = thickness + (planes + 1) * BLOCK;
        unpack(stratum.mass[i], stratum.massStep[i], to);
        arena.i32[this.massList + planes++] = to + cell - first;
      });
      const top = thickness + cell - first;
      if (this.tables.optics.binder) arena.i32[this.massList + planes++] = top;
      this.kernels.filmOver(count, rows, this.massList, 0, planes, top, 0, tables, BANDS.count, run, BLOCK);
    }
  }

  /** Washes, dust and the wet film. */
  layOpen(tile: Tile, wash: LaidWash | undefined, index: number, block: Block, run: number): void {
    for (let y = 0; wash && y < block.rows; y++) {
      this.washes.lay(wash, index, block.cell + y * TILE, block.count, run + y * TILE, BLOCK);
    }
    if (tile.volume) this.layWet(tile, block, run);
  }

  private layWet(tile: Tile, { cell, count, rows }: Block, run: number): void {
    const tables = this.tables.of(tile.pigments);
    const { i32 } = this.painting.arena;
    let planes = 0;
    for (let i = 0; i < tile.mass.length; i++) {
      if (!isColoured(tile.pigments[i])) continue;
      i32[this.massList + planes] = (tile.mass[i] >> 2) + cell;
      if (tile.skinVolume) i32[this.skinList + planes] = (tile.skin[i] >> 2) + cell;
      planes++;
    }
    const { kernels, massList, skinList } = this;
    const thickness = (tile.volume >> 2) + cell;
    if (this.tables.optics.binder) {
      i32[massList + planes] = thickness;
      if (tile.skinVolume) i32[skinList + planes] = (tile.skinVolume >> 2) + cell;
      planes++;
    }
    if (!tile.skinVolume) {
      kernels.filmOver(count, rows, massList, 0, planes, thickness, 0, tables, BANDS.count, run, BLOCK);
      return;
    }
    // what is below, then what lies on top
    const top = (tile.skinVolume >> 2) + cell;
    kernels.filmOver(count, rows, massList, skinList, planes, thickness, top, tables, BANDS.count, run, BLOCK);
    kernels.filmOver(count, rows, skinList, 0, planes, top, 0, tables, BANDS.count, run, BLOCK);
  }
}
