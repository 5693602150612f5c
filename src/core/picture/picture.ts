import { decodeSrgb, linearToLab, type Triple } from '@/core/colour/colorimetry';
import type { Painting } from '@/core/film/painting';
import { clipRect, widened, type PixelRect } from '@/core/film/pixelRect';
import { TILE } from '@/core/film/tile';
import { CODE_STEPS } from '@/core/kernels/colour';
import { aimLamp, RELIGHT, relightRow, RELIGHT_REACH, type Light } from '@/core/kernels/relight';
import { layRow } from '@/core/surface/heightField';
import type { Ageing } from '@/core/colour/ageing';
import { agedAlbedoOf } from '@/core/picture/layers/agedAlbedo';
import { albedoOf, type Albedo } from '@/core/picture/layers/albedo';
import { eachBlock } from '@/core/picture/layers/block';
import type { TilePlan } from '@/core/picture/layers/layerPlan';
import { ReliefRun } from '@/core/picture/layers/reliefRun';
import { PLAIN_VIEW } from './viewOptions';

export type { Light };
export const STUDIO_LIGHT: Light = { azimuth: 320, elevation: 35, room: 0.42, finish: 0.5, warmth: 0 };

const linear = Float32Array.from({ length: 256 }, (_, i) => decodeSrgb(i / 255));

/**
 * The picture of a painting: a pure function of its paint, the light and how it is looked at. Albedo is kept apart from
 * light, so sampling never sees a shadow; what is read at a cell is read of the painting as it is. Rasters are as large as the painting, in the same memory as the paint.
 */
export class Picture {
  /** Word addresses: unlit sRGB codes with the sheen in the high byte; total relief as light shows it, um; lit sRGB codes. */
  readonly albedo: number;
  readonly relief: number;
  readonly lit: number;
  light: Light = STUDIO_LIGHT;
  /** Whether `lit` shows the colours of the paint by themselves, without light and relief: for looking at colours alone. */
  unlit = false;
  options = PLAIN_VIEW;
  private readonly colours: Albedo;
  private readonly reliefs: ReliefRun;
  /** Word addresses of the parameters of the light, and of linear light by code. */
  private readonly lamp: number;
  private readonly table: number;

  /** @param ageing shows it after some years; what is read at a cell is of the painting as it is */
  constructor(
    readonly painting: Painting,
    ageing?: Ageing,
  ) {
    const { arena, width, height } = painting;
    const cells = width * height;
    this.albedo = arena.allocate(cells * 4) >> 2;
    this.relief = arena.allocate(cells * 4) >> 2;
    this.lit = arena.allocate(cells * 4) >> 2;
    this.colours = ageing ? agedAlbedoOf(painting, ageing) : albedoOf(painting);
    this.reliefs = new ReliefRun(painting, this.colours.kernels);
    const table = (this.table = arena.allocate(256 * 4) >> 2);
    arena.write(table << 2, linear);
    this.lamp = arena.allocate(RELIGHT.words * 4) >> 2;
    arena.write(
      this.lamp << 2,
      Int32Array.of(width, height, this.albedo, this.relief, this.lit, table, this.colours.codes),
    );
    arena.write((this.lamp + RELIGHT.steps) << 2, Float32Array.of(CODE_STEPS, 0.001 / painting.mmPerPx));
  }

  /** Gives its rasters back: the painting has another canvas now. */
  dispose(): void {
    const { arena, width, height } = this.painting;
    for (const raster of [this.albedo, this.relief, this.lit]) arena.free(raster << 2, width * height * 4);
    arena.free(this.table << 2, 256 * 4);
    arena.free(this.lamp << 2, RELIGHT.words * 4);
    this.reliefs.dispose();
  }

  /**
   * Recolours and relights what changed in the paint.
   * @param inPassing nobody is painting there: what is kept for strokes elsewhere is not given up for it
   * @returns the cells whose lit picture is new
   */
  update(rect: PixelRect, inPassing = false): PixelRect {
    const { width, height } = this.painting;
    const r = clipRect(rect, width, height);
    if (r.right <= r.left || r.bottom <= r.top) return r;
    const wide = clipRect(widened(this.recolour(r, inPassing), RELIGHT_REACH), width, height);
    this.relight(wide);
    return wide;
  }

  /** Albedo and relief of a rectangle from the paint. @returns the cells that it has reached: more, where a layer blurs */
  recolour(rect: PixelRect, inPassing = false): PixelRect {
    const { colours } = this;
    const r = colours.prepare(rect, this.options);
    colours.eachTile(r, (index, whole) => {
      const part = {
        left: Math.max(r.left, whole.left),
        top: Math.max(r.top, whole.top),
        right: Math.min(r.right, whole.right),
        bottom: Math.min(r.bottom, whole.bottom),
      };
      this.recolourTile(colours.stack.plans.of(index, this.options, inPassing), part);
    });
    return r;
  }

  /** Makes a tile ready for being painted on: what lies under the layer in hand is laid before. */
  warm(index: number): void {
    this.colours.stack.warm(index, this.options);
  }

  /** Lit picture of a rectangle from albedo and relief. */
  relight(r: PixelRect): void {
    if (this.unlit) return this.copyAlbedo(r);
    const { f32, i32 } = this.painting.arena;
    aimLamp(f32, i32, this.lamp, this.light);
    this.colours.kernels.relight(this.lamp, r.left, r.top, r.right, r.bottom);
  }

  private copyAlbedo({ left, top, right, bottom }: PixelRect): void {
    const { arena, width } = this.painting;
    const { u32 } = arena;
    for (let y = top; y < bottom; y++) {
      const row = y * width;
      for (let x = left; x < right; x++) u32[this.lit + row + x] = (u32[this.albedo + row + x] | 0xff000000) >>> 0;
    }
  }

  /**
   * Linear sRGB of rows of cells from the film itself, three a cell: finer than the 8-bit picture.
   * @param lit whether in the light, else the paint by itself
   */
  linearRows(top: number, bottom: number, lit: boolean, out: Float32Array): void {
    const { arena, width } = this.painting;
    this.colours.linear({ left: 0, top, right: width, bottom }, out);
    if (!lit) return;
    const { f32, i32, u32 } = arena;
    aimLamp(f32, i32, this.lamp, this.light);
    for (let y = top; y < bottom; y++) {
      const row = out.subarray(3 * width * (y - top), 3 * width * (y - top + 1));
      relightRow(f32, i32, u32, this.lamp, y, 0, width, row);
    }
  }

  /** Linear sRGB of the unlit paint at a cell, from the film itself and not from its 8-bit picture. */
  linearAt(x: number, y: number): Triple {
    return albedoOf(this.painting).linearAt(x, y);
  }

  /** CIELAB of the unlit paint at a cell. */
  labAt(x: number, y: number): Triple {
    return linearToLab(this.linearAt(x, y));
  }

  /** Lit sRGB codes at a cell. */
  litAt(x: number, y: number): Triple {
    const v = this.painting.arena.u32[this.lit + y * this.painting.width + x];
    return [v & 255, (v >>> 8) & 255, (v >>> 16) & 255];
  }

  /** Internal reflectance of all visible layers at a cell, in bands. */
  reflectanceAt(x: number, y: number): Float64Array {
    return albedoOf(this.painting).reflectanceAt(x, y);
  }

  private recolourTile(plan: TilePlan, { left, top, right, bottom }: PixelRect): void {
    const { painting, colours } = this;
    const { stack } = colours;
    const { arena, width, surface } = painting;
    const films = stack.plans.filmsOf(plan);
    const bare = plan.steps.length === 0;
    const [columns, rows] = [right - left, bottom - top];
    const first = (top & 63) * TILE + (left & 63);
    const from = top * width + left;
    // bare ground is the same everywhere
    eachBlock(first, columns, bare ? 1 : rows, (block, row) =>
      colours.codesOf(plan, block, this.albedo + from + row * width, width),
    );
    for (let y = 1; bare && y < rows; y++) {
      const out = this.albedo + from + y * width;
      arena.u32.copyWithin(out, out - width, out - width + columns);
    }
    // the relief, and how the surface takes the light
    const [relief, picture] = [this.relief + from, this.albedo + from];
    for (let y = 0; y < rows; y++) layRow(surface, left, top + y, arena.f32, relief + y * width, columns);
    const kept = this.reliefs.below(plan, films);
    const [um, codes] = kept ? [kept.um + first, kept.codes + first] : [0, 0];
    colours.kernels.groundSurface(columns, rows, surface.shading, um, codes, TILE, relief, picture, width);
    const part = { cell: first, count: columns, rows };
    const rasters = { relief, picture, row: width };
    for (const step of films) {
      if (kept?.steps.has(step)) continue;
      this.reliefs.lay(step, part, rasters);
      const { wash } = step.film;
      if (!wash) continue;
      for (let y = 0; y < rows; y++) {
        const row = y * width;
        stack.films.washes.surface(wash, plan.index, first + y * TILE, columns, relief + row, picture + row);
      }
    }
  }
}
