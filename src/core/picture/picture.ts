import { BANDS } from '@/core/colour/bands';
import { encodeSrgb, decodeSrgb, linearToLab, type Triple } from '@/core/colour/colorimetry';
import { K1, K2, VEIL } from '@/core/colour/kubelkaMunk';
import { bandsToLinear } from '@/core/colour/mixture';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import type { PixelRect } from '@/core/film/pixelRect';
import { COAT_UM, leanness, SOLVENT } from '@/core/film/stratum';
import { isColoured } from '@/core/colour/pigments';
import { DRY_SHRINK, PLANE_BYTES, TILE, TILE_CELLS, type Tile } from '@/core/film/tile';
import { CLOSED_UM, CODE_STEPS } from '@/core/kernels/colour';
import { kernelsFor, type Kernels } from '@/core/kernels/kernels';
import { WashFilm, type LaidWash } from './washFilm';
import { aimLamp, RELIGHT, RELIGHT_REACH, SHEEN, type Light } from '@/core/kernels/relight';

export type { Light };
export const STUDIO_LIGHT: Light = { azimuth: 320, elevation: 35, room: 0.42, finish: 0.5, warmth: 0 };

const codes = Uint8Array.from({ length: CODE_STEPS + 1 }, (_, i) => Math.round(255 * encodeSrgb(i / CODE_STEPS)));
const linear = Float32Array.from({ length: 256 }, (_, i) => decodeSrgb(i / 255));
/** Saunderson's numerator folded into the matrix: kernels work with R / (1 - K2 R). */
const matrix = Float32Array.from({ length: BANDS.count * 3 }, (_, j) => {
  const band = Math.floor(j / 3);
  return (1 - K1) * (1 - K2) * BANDS.toRgb[(j % 3) * BANDS.count + band];
});

/** What a visible layer has at a tile. */
interface SeenTile {
  readonly layer: Layer;
  readonly tile: Tile;
  readonly wash: LaidWash | undefined;
}

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
  private readonly run: number;
  private readonly scratch: number;
  /** Word address of packed steps on their way to `scratch`. */
  private readonly steps: number;
  /** Word address of the list of a film's mass planes. */
  private readonly massList: number;
  /** The same of what lies on top. */
  private readonly skinList: number;
  /** Word addresses of the bands' matrix and, in bytes, of the table of sRGB codes. */
  private readonly matrix: number;
  private readonly codes: number;
  /** Word addresses of K and S for sets of pigments; the sets of a painting are few. */
  private readonly tables = new Map<string, number>();
  /** Word address of the parameters of the light. */
  private readonly lamp: number;
  private readonly kernels: Kernels;
  private readonly washes: WashFilm;

  constructor(readonly painting: Painting) {
    const { arena, width, height } = painting;
    const cells = width * height;
    this.albedo = arena.allocate(cells * 4) >> 2;
    this.relief = arena.allocate(cells * 4) >> 2;
    this.lit = arena.allocate(cells * 4) >> 2;
    this.run = arena.allocate(TILE * 4 * BANDS.count) >> 2;
    this.scratch = arena.allocate(TILE * 4 * 64) >> 2;
    this.steps = arena.allocate(TILE * 2) >> 2;
    this.massList = arena.allocate(64 * 4) >> 2;
    this.skinList = arena.allocate(64 * 4) >> 2;
    this.matrix = arena.allocate(matrix.byteLength) >> 2;
    this.codes = arena.allocate(codes.byteLength);
    arena.f32.set(matrix, this.matrix);
    arena.u8.set(codes, this.codes);
    this.kernels = kernelsFor(arena);
    this.washes = new WashFilm(painting, this.kernels, (pigments) => this.tablesFor(pigments));
    const table = arena.allocate(256 * 4) >> 2;
    arena.f32.set(linear, table);
    this.lamp = arena.allocate(RELIGHT.words * 4) >> 2;
    arena.i32.set([width, height, this.albedo, this.relief, this.lit, table, this.codes], this.lamp);
    arena.f32.set([CODE_STEPS, 0.001 / painting.mmPerPx], this.lamp + RELIGHT.steps);
  }

  /** Recolours and relights what changed in the paint. @returns the cells whose lit picture is new. */
  update(rect: PixelRect): PixelRect {
    const { width, height } = this.painting;
    const r = clip(rect, width, height);
    if (r.right <= r.left || r.bottom <= r.top) return r;
    this.recolour(r);
    const wide = clip(
      {
        left: r.left - RELIGHT_REACH,
        top: r.top - RELIGHT_REACH,
        right: r.right + RELIGHT_REACH,
        bottom: r.bottom + RELIGHT_REACH,
      },
      width,
      height,
    );
    this.relight(wide);
    return wide;
  }

  /** Albedo and relief of a rectangle from the paint. */
  recolour(r: PixelRect): void {
    const { tilesX } = this.painting;
    for (let ty = r.top >> 6; ty <= (r.bottom - 1) >> 6; ty++) {
      for (let tx = r.left >> 6; tx <= (r.right - 1) >> 6; tx++) {
        const left = Math.max(r.left, tx * TILE);
        const right = Math.min(r.right, (tx + 1) * TILE);
        const top = Math.max(r.top, ty * TILE);
        const bottom = Math.min(r.bottom, (ty + 1) * TILE);
        this.recolourTile(ty * tilesX + tx, left, top, right, bottom);
      }
    }
  }

  /** Lit picture of a rectangle from albedo and relief. */
  relight(r: PixelRect): void {
    const { f32, i32 } = this.painting.arena;
    aimLamp(f32, i32, this.lamp, this.light);
    this.kernels.relight(this.lamp, r.left, r.top, r.right, r.bottom);
  }

  /** Linear sRGB of the unlit paint at a cell, from the film itself and not from its 8-bit picture. */
  linearAt(x: number, y: number): Triple {
    return bandsToLinear(this.reflectanceAt(x, y));
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
    const { tilesX, arena } = this.painting;
    const index = (y >> 6) * tilesX + (x >> 6);
    const cell = (y & 63) * TILE + (x & 63);
    this.layRun(index, cell, 1);
    return Float64Array.from({ length: BANDS.count }, (_, b) => arena.f32[this.run + b * TILE]);
  }

  private recolourTile(index: number, left: number, top: number, right: number, bottom: number): void {
    const { painting } = this;
    const { arena, width, surface } = painting;
    const tiles = this.visibleTiles(index);
    const bare = tiles.length === 0;
    const count = right - left;
    for (let y = top; y < bottom; y++) {
      const cell = (y & 63) * TILE + (left & 63);
      const out = y * width + left;
      if (!bare || y === top) {
        this.layRun(index, cell, count, tiles);
        this.kernels.bandsToCodes(
          count, this.run, TILE, BANDS.count, this.matrix, VEIL, K2, this.codes, CODE_STEPS, this.albedo + out,
        ); // prettier-ignore
      } else {
        arena.u32.copyWithin(this.albedo + out, this.albedo + out - width, this.albedo + out - width + count);
      }
      const { f32, u32 } = arena;
      const row = (y % surface.size) * surface.size;
      for (let x = 0; x < count; x++) f32[this.relief + out + x] = surface.shading * surface.um[row + ((left + x) % surface.size)]; // prettier-ignore
      if (bare) {
        for (let x = 0; x < count; x++) u32[this.albedo + out + x] = withSheen(u32[this.albedo + out + x], SHEEN);
        continue;
      }
      for (const { tile, wash } of tiles) {
        this.addRelief(tile, cell, count, out);
        if (wash) this.washes.surface(wash, index, cell, count, this.relief + out, this.albedo + out);
      }
    }
  }

  /** Adds a tile's paint to the relief, and says how its surface takes the light. */
  private addRelief(tile: Tile, cell: number, count: number, out: number): void {
    const { f32, u32 } = this.painting.arena;
    if (!tile.volume && !tile.sealed) {
      for (let x = 0; x < count; x++) u32[this.albedo + out + x] = withSheen(u32[this.albedo + out + x], SHEEN);
      return;
    }
    const solvent = tile.pigments.indexOf(SOLVENT);
    const newest = tile.dryLean ? tile.strata.at(-1) : undefined;
    for (let x = 0; x < count; x++) {
      const at = cell + x;
      const keep = tile.rubbing && tile.sealed ? 1 - f32[(tile.laid >> 2) + at] : 1;
      const dry = tile.sealed ? f32[(tile.sealed >> 2) + at] * DRY_SHRINK * keep : 0;
      const wet = tile.volume ? f32[(tile.volume >> 2) + at] : 0;
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

  private visibleTiles(index: number): SeenTile[] {
    const found: SeenTile[] = [];
    for (const layer of this.painting.layers) {
      const tile = layer.tiles[index];
      if (!tile || !layer.visible) continue;
      found.push({ layer, tile, wash: tile.wash && this.washes.prepare(layer, tile.wash, index) });
    }
    return found;
  }

  /** Reflectance of a run of cells of one row of a tile into `run`: from the ground up through every layer. */
  private layRun(index: number, cell: number, count: number, tiles = this.visibleTiles(index)): void {
    const { arena, ground } = this.painting;
    for (let b = 0; b < BANDS.count; b++) {
      arena.f32.fill(ground[b], this.run + b * TILE, this.run + b * TILE + count);
    }
    tiles.forEach(({ layer, tile, wash }, k) => {
      const { opacity } = layer;
      const beneath = opacity < 1 ? arena.f32.slice(this.run, this.run + BANDS.count * TILE) : undefined;
      if (tile.strata.length > 0) {
        if (tile.rubbing) this.layStrata(tile, cell, count, true);
        else {
          this.refreshSubstrate(tiles.slice(0, k + 1), index);
          const { f32 } = arena;
          for (let b = 0; b < BANDS.count; b++) {
            const from = (tile.substrate >> 2) + b * TILE_CELLS + cell;
            f32.copyWithin(this.run + b * TILE, from, from + count);
          }
        }
      }
      if (wash) this.washes.lay(wash, index, cell, count, this.run, TILE);
      if (tile.volume) this.layWet(tile, cell, count);
      if (beneath) beneath.forEach((v, i) => (arena.f32[this.run + i] = v + opacity * (arena.f32[this.run + i] - v)));
    });
  }

  /** Brings the cache of what lies under the top tile's wet film up to date. */
  private refreshSubstrate(tiles: readonly SeenTile[], index: number): void {
    const { arena, ground } = this.painting;
    const { tile } = tiles[tiles.length - 1];
    const below = tiles.slice(0, -1);
    const key =
      below.map((t) => `${t.layer.id}.${t.tile.version}${t.layer.opacity < 1 ? `.${t.layer.opacity}` : ''}`).join(' ') +
      ' on';
    if (tile.substrate && tile.substrateKey === key) return;
    tile.substrate ||= arena.allocate(PLANE_BYTES * BANDS.count);
    for (let row = 0; row < TILE_CELLS; row += TILE) {
      if (below.length > 0) this.layRun(index, row, TILE, [...below]);
      else
        for (let b = 0; b < BANDS.count; b++) arena.f32.fill(ground[b], this.run + b * TILE, this.run + (b + 1) * TILE);
      this.layStrata(tile, row, TILE, false);
      const { f32 } = arena;
      for (let b = 0; b < BANDS.count; b++) {
        const from = this.run + b * TILE;
        f32.copyWithin((tile.substrate >> 2) + b * TILE_CELLS + row, from, from + TILE);
      }
    }
    tile.substrateKey = key;
  }

  /** Lays the dry films of a tile over `run`, oldest first; `thinned` looks through what is being rubbed out. */
  private layStrata(tile: Tile, cell: number, count: number, thinned: boolean): void {
    for (const stratum of tile.strata) {
      const { arena } = this.painting;
      const tables = this.tablesFor(stratum.pigments);
      const unpack = (steps: Uint16Array, unit: number, to: number) => {
        arena.u16.set(steps.subarray(cell, cell + count), this.steps << 1);
        this.kernels.unpackSteps(this.steps << 1, count, unit, to);
        if (!thinned) return;
        const { f32 } = arena;
        for (let x = 0; x < count; x++) f32[to + x] *= 1 - f32[(tile.laid >> 2) + cell + x];
      };
      const thickness = this.scratch;
      unpack(stratum.thickness, stratum.thicknessStep, thickness);
      let planes = 0;
      stratum.pigments.forEach((pigment, i) => {
        if (!isColoured(pigment)) return;
        const to = thickness + (planes + 1) * TILE;
        unpack(stratum.mass[i], stratum.massStep[i], to);
        arena.i32[this.massList + planes++] = to;
      });
      this.kernels.filmOver(count, this.massList, 0, planes, thickness, 0, tables, BANDS.count, this.run, TILE);
    }
  }

  private layWet(tile: Tile, cell: number, count: number): void {
    const tables = this.tablesFor(tile.pigments);
    const { i32 } = this.painting.arena;
    let planes = 0;
    for (let i = 0; i < tile.mass.length; i++) {
      if (!isColoured(tile.pigments[i])) continue;
      i32[this.massList + planes] = (tile.mass[i] >> 2) + cell;
      if (tile.skinVolume) i32[this.skinList + planes] = (tile.skin[i] >> 2) + cell;
      planes++;
    }
    const { kernels, massList, skinList, run } = this;
    const thickness = (tile.volume >> 2) + cell;
    if (!tile.skinVolume) {
      kernels.filmOver(count, massList, 0, planes, thickness, 0, tables, BANDS.count, run, TILE);
      return;
    }
    // what is below, then what lies on top
    const top = (tile.skinVolume >> 2) + cell;
    kernels.filmOver(count, massList, skinList, planes, thickness, top, tables, BANDS.count, run, TILE);
    kernels.filmOver(count, skinList, 0, planes, top, 0, tables, BANDS.count, run, TILE);
  }

  /** K and S of a set of pigments, laid out for the kernel. */
  private tablesFor(all: readonly number[]): number {
    const pigments = all.filter(isColoured);
    const key = pigments.join();
    const known = this.tables.get(key);
    if (known !== undefined) return known;
    const { arena } = this.painting;
    const at = arena.allocate(Math.max(1, pigments.length * BANDS.count) * 8) >> 2;
    let j = at;
    for (let b = 0; b < BANDS.count; b++) {
      for (const pigment of pigments) {
        arena.f32[j++] = BANDS.K[pigment * BANDS.count + b];
        arena.f32[j++] = BANDS.S[pigment * BANDS.count + b];
      }
    }
    this.tables.set(key, at);
    return at;
  }
}

const withSheen = (code: number, sheen: number) => ((code & 0x00ffffff) | (sheen << 24)) >>> 0;

function clip(r: PixelRect, width: number, height: number): PixelRect {
  return {
    left: Math.max(0, Math.floor(r.left)),
    top: Math.max(0, Math.floor(r.top)),
    right: Math.min(width, Math.ceil(r.right)),
    bottom: Math.min(height, Math.ceil(r.bottom)),
  };
}
