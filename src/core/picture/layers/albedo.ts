import { tileRect, tilesIn } from '@/core/film/tilesIn';
import { BANDS } from '@/core/colour/bands';
import { encodeSrgb, type Triple } from '@/core/colour/colorimetry';
import { K2, VEIL } from '@/core/colour/kubelkaMunk';
import { bandsToLinear } from '@/core/colour/mixture';
import { TILE } from '@/core/film/cells';
import type { Painting } from '@/core/film/painting';
import { clipRect, widened, type PixelRect } from '@/core/film/pixelRect';
import { CODE_STEPS } from '@/core/kernels/colour';
import { kernelsFor, type Kernels } from '@/core/kernels/kernels';
import { FOLDED_MATRIX } from './colourRun';
import { BLOCK, eachBlock, type Block } from './block';
import type { TilePlan } from './layerPlan';
import { FRESH } from './filmTables';
import { LayerStack } from './layerStack';
import { PLAIN_VIEW } from '@/core/picture/viewOptions';

const codes = Uint8Array.from({ length: CODE_STEPS + 1 }, (_, i) => Math.round(255 * encodeSrgb(i / CODE_STEPS)));

/** The unlit picture of a painting, block by block: what all layers together look like. */
export class Albedo {
  readonly stack: LayerStack;
  readonly kernels: Kernels;
  /** Byte address of the table of sRGB codes. */
  readonly codes: number;
  /** Word addresses of a block in bands, of its codes in passing, of the bands' matrix. */
  protected readonly run: number;
  private readonly spare: number;
  private readonly matrix: number;

  /** @param optics of its paint */
  constructor(
    protected readonly painting: Painting,
    optics = FRESH,
  ) {
    const { arena, memory } = painting;
    this.run = memory.allocate(BLOCK * 4 * BANDS.count) >> 2;
    this.spare = memory.allocate(BLOCK * 4) >> 2;
    this.matrix = memory.allocate(FOLDED_MATRIX.byteLength) >> 2;
    this.codes = memory.allocate(codes.byteLength);
    arena.write(this.matrix << 2, FOLDED_MATRIX);
    arena.write(this.codes, codes);
    this.kernels = kernelsFor(arena);
    this.stack = new LayerStack(painting, this.kernels, this.run, optics);
  }

  /**
   * Prepares a rectangle: layers that blur look at what lies below them.
   * @returns the cells that are to be coloured: more than asked for, where a layer blurs
   */
  prepare(rect: PixelRect, options = PLAIN_VIEW): PixelRect {
    const { width, height } = this.painting;
    const { stack } = this;
    let r = clipRect(rect, width, height);
    for (const layer of stack.blurs.visible(options)) {
      const stage = stack.blurs.stageOf(layer, options);
      const { under, keys } = stage;
      let changed = false;
      this.eachTile(r, (index, whole) => {
        const plan = stack.plans.of(index, options);
        const key = stack.plans.keyBelow(plan, layer);
        if (keys[index] === key) return;
        keys[index] = key;
        changed = true;
        const count = whole.right - whole.left;
        eachBlock(0, count, whole.bottom - whole.top, (block, row) => {
          stack.lay(plan, block, layer);
          this.toCodes(block, this.spare, TILE);
          this.takeSpare(block, under, (whole.top + row) * width + whole.left, width);
        });
      });
      if (!changed) continue;
      r = clipRect(widened(r, stack.blurs.reach(stage)), width, height);
      stack.blurs.blur(stage, r);
    }
    return r;
  }

  /** Codes (0xffBBGGRR) of a block of cells of a tile. @param out word address; its rows are `outRow` apart */
  codesOf(plan: TilePlan, block: Block, out: number, outRow: number): void {
    this.stack.lay(plan, block);
    this.layOver(block);
    this.toCodes(block, out, outRow);
  }

  /** What lies over all of the paint of a block that was laid; nothing, where it is as it was painted. */
  protected layOver(_block: Block): void {}

  /** Brings the codes in passing to a raster. */
  private takeSpare({ count, rows }: Block, to: Uint32Array, at: number, row: number): void {
    const { u32 } = this.painting.arena;
    for (let y = 0; y < rows; y++) {
      const from = this.spare + y * TILE;
      to.set(u32.subarray(from, from + count), at + y * row);
    }
  }

  /** Codes of a rectangle. */
  raster(rect: PixelRect, options = PLAIN_VIEW): Uint32Array<ArrayBuffer> {
    const { width, height } = this.painting;
    const r = clipRect(rect, width, height);
    this.prepare(r, options);
    const wide = r.right - r.left;
    const out = new Uint32Array(wide * (r.bottom - r.top));
    this.eachTile(r, (index, whole) => {
      const plan = this.stack.plans.of(index, options);
      const [left, right] = [Math.max(r.left, whole.left), Math.min(r.right, whole.right)];
      const [top, bottom] = [Math.max(r.top, whole.top), Math.min(r.bottom, whole.bottom)];
      eachBlock((top & 63) * TILE + (left & 63), right - left, bottom - top, (block, row) => {
        this.codesOf(plan, block, this.spare, TILE);
        this.takeSpare(block, out, (top + row - r.top) * wide + left - r.left, wide);
      });
    });
    return out;
  }

  /**
   * Linear sRGB of a rectangle, from the film itself, three a cell row by row; channels may lie outside 0..1.
   * @param out has room for it
   */
  linear(rect: PixelRect, out: Float32Array, options = PLAIN_VIEW): void {
    const r = clipRect(rect, this.painting.width, this.painting.height);
    this.prepare(r, options);
    const wide = r.right - r.left;
    const bands = new Float64Array(BANDS.count);
    this.eachTile(r, (index, whole) => {
      const plan = this.stack.plans.of(index, options);
      const [left, right] = [Math.max(r.left, whole.left), Math.min(r.right, whole.right)];
      const [top, bottom] = [Math.max(r.top, whole.top), Math.min(r.bottom, whole.bottom)];
      eachBlock((top & 63) * TILE + (left & 63), right - left, bottom - top, (block, row) => {
        this.stack.lay(plan, block);
        this.layOver(block);
        this.stack.settle(block);
        const { f32 } = this.painting.arena;
        for (let y = 0; y < block.rows; y++) {
          const from = this.run + y * TILE;
          const to = (top + row + y - r.top) * wide + left - r.left;
          for (let x = 0; x < block.count; x++) {
            for (let b = 0; b < BANDS.count; b++) bands[b] = f32[from + b * BLOCK + x];
            out.set(bandsToLinear(bands), 3 * (to + x));
          }
        }
      });
    });
  }

  /** Internal reflectance of all visible layers at a cell, in bands. */
  reflectanceAt(x: number, y: number): Float64Array {
    const { tilesX, arena } = this.painting;
    const index = (y >> 6) * tilesX + (x >> 6);
    const block = { cell: (y & 63) * TILE + (x & 63), count: 1, rows: 1 };
    this.stack.lay(this.stack.plans.of(index), block);
    this.stack.settle(block);
    return Float64Array.from({ length: BANDS.count }, (_, b) => arena.f32[this.run + b * BLOCK]);
  }

  /** Linear sRGB of the unlit paint at a cell, from the film itself and not from its 8-bit picture. */
  linearAt(x: number, y: number): Triple {
    return bandsToLinear(this.reflectanceAt(x, y));
  }

  /** Calls back for the tiles in a rectangle, with the cells of each that lie on the painting. */
  eachTile(r: PixelRect, visit: (index: number, whole: PixelRect) => void): void {
    for (const { index } of tilesIn(r, this.painting.tilesX)) visit(index, tileRect(this.painting, index));
  }

  private toCodes(block: Block, out: number, outRow: number): void {
    if (this.stack.asColours) {
      this.stack.toCodes(block, out, outRow);
      return;
    }
    this.kernels.bandsToCodes(
      block.count,
      block.rows,
      this.run,
      BLOCK,
      BANDS.count,
      this.matrix,
      VEIL,
      K2,
      this.codes,
      CODE_STEPS,
      out,
      outRow,
    );
  }
}

/** The unlit picture of a painting. */
export const albedoOf = (painting: Painting): Albedo => painting.derived(Albedo);
