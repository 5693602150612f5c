import { decodeSrgb, linearToLab, type Triple } from '@/core/colour/colorimetry';
import type { Painting } from '@/core/film/painting';
import { clipRect, widened, type PixelRect } from '@/core/film/pixelRect';
import { COAT_UM, leanness, SOLVENT } from '@/core/film/stratum';
import { DRY_SHRINK, TILE, type Tile } from '@/core/film/tile';
import { CLOSED_UM, CODE_STEPS } from '@/core/kernels/colour';
import { albedoOf, type Albedo } from './albedo';
import type { FilmStep } from './layerStack';
import { dryGloss, isPlainlyDry, ReliefCache, type KeptRelief } from './reliefCache';
import { aimLamp, RELIGHT, RELIGHT_REACH, SHEEN, type Light } from '@/core/kernels/relight';

export type { Light };
export const STUDIO_LIGHT: Light = { azimuth: 320, elevation: 35, room: 0.42, finish: 0.5, warmth: 0 };

const linear = Float32Array.from({ length: 256 }, (_, i) => decodeSrgb(i / 255));

/**
 * The picture of a painting: a pure function of its paint and the light. Albedo is kept apart from light, so
 * sampling never sees a shadow. Rasters are as large as the painting, in the same memory as the paint.
 */
export class Picture {
  /** Word addresses: unlit sRGB codes with the sheen in the high byte; total relief as light shows it, um; lit sRGB codes. */
  readonly albedo: number;
  readonly relief: number;
  readonly lit: number;
  light: Light = STUDIO_LIGHT;
  private readonly colours: Albedo;
  private readonly reliefs: ReliefCache;
  /** Word address of the parameters of the light. */
  private readonly lamp: number;

  constructor(readonly painting: Painting) {
    const { arena, width, height } = painting;
    const cells = width * height;
    this.albedo = arena.allocate(cells * 4) >> 2;
    this.relief = arena.allocate(cells * 4) >> 2;
    this.lit = arena.allocate(cells * 4) >> 2;
    this.colours = albedoOf(painting);
    this.reliefs = new ReliefCache(painting);
    const table = arena.allocate(256 * 4) >> 2;
    arena.f32.set(linear, table);
    this.lamp = arena.allocate(RELIGHT.words * 4) >> 2;
    arena.i32.set([width, height, this.albedo, this.relief, this.lit, table, this.colours.codes], this.lamp);
    arena.f32.set([CODE_STEPS, 0.001 / painting.mmPerPx], this.lamp + RELIGHT.steps);
  }

  /** Gives its rasters back: the painting has another canvas now. */
  dispose(): void {
    const { arena, width, height } = this.painting;
    for (const raster of [this.albedo, this.relief, this.lit]) arena.free(raster << 2, width * height * 4);
  }

  /** Recolours and relights what changed in the paint. @returns the cells whose lit picture is new. */
  update(rect: PixelRect): PixelRect {
    const { width, height } = this.painting;
    const r = clipRect(rect, width, height);
    if (r.right <= r.left || r.bottom <= r.top) return r;
    const wide = clipRect(widened(this.recolour(r), RELIGHT_REACH), width, height);
    this.relight(wide);
    return wide;
  }

  /** Albedo and relief of a rectangle from the paint. @returns the cells that it has reached: more, where a layer blurs */
  recolour(rect: PixelRect): PixelRect {
    const { colours } = this;
    const r = colours.prepare(rect);
    colours.eachTile(r, (index, whole) => {
      const part = { left: Math.max(r.left, whole.left), top: Math.max(r.top, whole.top), right: Math.min(r.right, whole.right), bottom: Math.min(r.bottom, whole.bottom) }; // prettier-ignore
      this.recolourTile(index, part);
    });
    return r;
  }

  /** Makes a tile ready for being painted on: what lies under the layer in hand is laid before. */
  warm(index: number): void {
    this.colours.stack.warm(index);
  }

  /** Lit picture of a rectangle from albedo and relief. */
  relight(r: PixelRect): void {
    const { f32, i32 } = this.painting.arena;
    aimLamp(f32, i32, this.lamp, this.light);
    this.colours.kernels.relight(this.lamp, r.left, r.top, r.right, r.bottom);
  }

  /** Linear sRGB of the unlit paint at a cell, from the film itself and not from its 8-bit picture. */
  linearAt(x: number, y: number): Triple {
    return this.colours.linearAt(x, y);
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
    return this.colours.reflectanceAt(x, y);
  }

  private recolourTile(index: number, { left, top, right, bottom }: PixelRect): void {
    const { painting, colours } = this;
    const { stack } = colours;
    const { arena, width } = painting;
    const plan = stack.plan(index);
    const films = stack.filmsOf(plan);
    const below = this.reliefs.below(plan, films);
    const bare = plan.steps.length === 0;
    const count = right - left;
    for (let y = top; y < bottom; y++) {
      const cell = (y & 63) * TILE + (left & 63);
      const out = y * width + left;
      if (!bare || y === top) {
        colours.row(plan, cell, count, this.albedo + out);
      } else {
        arena.u32.copyWithin(this.albedo + out, this.albedo + out - width, this.albedo + out - width + count);
      }
      this.layGround(left, y, cell, count, out, below);
      for (const step of films) {
        if (below && below.steps.has(step)) continue;
        const { tile, wash } = step.film;
        this.addRelief(step, tile, cell, count, out);
        if (wash) stack.films.washes.surface(wash, index, cell, count, this.relief + out, this.albedo + out);
      }
    }
  }

  /** Relief and sheen of the surface, with what is kept of the dry layers on it. */
  private layGround(left: number, y: number, cell: number, count: number, out: number, below?: KeptRelief): void {
    const { arena, surface } = this.painting;
    const { f32, u32 } = arena;
    const { um, size, shading } = surface;
    const [relief, albedo] = [this.relief + out, this.albedo + out];
    const row = (y % size) * size;
    for (let x = 0, column = left % size; x < count; x++, column++) {
      if (column === size) column = 0;
      f32[relief + x] = shading * um[row + column];
      u32[albedo + x] = withSheen(u32[albedo + x], SHEEN);
    }
    if (!below) return;
    for (let x = 0; x < count; x++) {
      f32[relief + x] += below.um[cell + x];
      u32[albedo + x] = withSheen(u32[albedo + x], below.sheen[cell + x]);
    }
  }

  /** Adds a tile's paint to the relief, and says how its surface takes the light. */
  private addRelief({ shares, opacity }: FilmStep, tile: Tile, cell: number, count: number, out: number): void {
    const { f32, u32 } = this.painting.arena;
    if (!tile.volume && !tile.sealed) return;
    if (isPlainlyDry({ tile, shares })) {
      this.addDryRelief(tile.sealed >> 2, opacity * DRY_SHRINK, cell, count, out);
      return;
    }
    const solvent = tile.pigments.indexOf(SOLVENT);
    const newest = tile.dryLean ? tile.strata.at(-1) : undefined;
    for (let x = 0; x < count; x++) {
      const at = cell + x;
      const keep = tile.rubbing && tile.sealed ? 1 - f32[(tile.laid >> 2) + at] : 1;
      const seen = shares ? opacity * shares[at] : opacity;
      const dry = tile.sealed ? f32[(tile.sealed >> 2) + at] * DRY_SHRINK * keep * seen : 0;
      const wet = tile.volume ? f32[(tile.volume >> 2) + at] * seen : 0;
      if (dry + wet <= 0) continue;
      f32[this.relief + out + x] += dry + wet;
      let lean = 0;
      if (wet > 1) lean = solvent < 0 ? 0 : (f32[(tile.mass[solvent] >> 2) + at] * COAT_UM) / wet;
      else if (newest) lean = leanness(newest, at);
      const matte = Math.min(1, Math.max(0, lean - 0.25) / 0.5);
      // a dry oil film keeps part of its gloss; bare ground has none
      const gloss = Math.min(127, wet * 3 + Math.min(55, dry * 1.5)) * (1 - matte);
      const sheen = SHEEN + gloss - (matte > 0 ? 127 * matte * Math.min(1, (wet + dry) / CLOSED_UM) : 0);
      u32[this.albedo + out + x] = withSheen(u32[this.albedo + out + x], sheen);
    }
  }

  /** The same for paint that is dry and was not thinned: it keeps part of its gloss. */
  private addDryRelief(sealed: number, share: number, cell: number, count: number, out: number): void {
    const { f32, u32 } = this.painting.arena;
    const [from, relief, albedo] = [sealed + cell, this.relief + out, this.albedo + out];
    for (let x = 0; x < count; x++) {
      const dry = f32[from + x] * share;
      if (dry <= 0) continue;
      f32[relief + x] += dry;
      u32[albedo + x] = withSheen(u32[albedo + x], SHEEN + dryGloss(dry));
    }
  }
}

const withSheen = (code: number, sheen: number) => ((code & 0x00ffffff) | (sheen << 24)) >>> 0;
