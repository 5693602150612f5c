import { BANDS } from '@/core/colour/bands';
import { FRAME, WASH_UM, type Basin } from '@/core/film/basin';
import { TILE } from '@/core/film/cells';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import type { Arena } from '@/core/film/arena';
import type { Coat, Wash } from '@/core/film/wash';
import { dustCovers, dustLies, dustUm } from '@/core/flow/washRates';
import { sheetOf } from '@/core/flow/bed';
import { GRAINS_UM } from '@/core/kernels/colour';
import type { Kernels } from '@/core/kernels/kernels';
import { SHEEN } from '@/core/kernels/relight';
import { WET_LOOK } from '@/core/kernels/wetLook';
import { GRAPHITE, isColoured, pigmentIndex } from '@/core/colour/pigments';
import { AmongFibres, coatsOf, type WashCoats } from './amongFibres';
import type { FilmTables } from './filmTables';

/**
 * Washes in the picture: two films (what lay before, and what came after), darker while they are wet; over them the dust
 * of sticks, what was there last on top.
 */

/** Coats of each film, lowest first: those of washes, those of dust. */
const WASHES: readonly (readonly Coat[])[] = [
  ['under', 'fast'],
  ['settled', 'suspended', 'soluble'],
];
const DUST: readonly (readonly Coat[])[] = [['pressed'], ['loose']];
/** Wet, light passes pigment more often, for no air lies between the grains; and the paper is a little darker. */
const WET_DEEPENS = 0.06;
const WET_PAPER = 0.04;
/** How damp paper looks against wet paper. */
const DAMP_LOOKS = 0.5;
/** A film as deep as this (washes) looks wet through. */
const LOOKS_WET = 0.1;
/** Reflectance of masking fluid in the bands, and how well it hides. */
const MASKING = Float64Array.from({ length: BANDS.count }, (_, b) => 0.52 - 0.2 * (b / (BANDS.count - 1)));
const MASKING_HIDES = 0.7;
/** Shine of a sheet that graphite has closed, of 127 for wet paint. */
const FLAKES_SHINE = 100;
const FLAKES = pigmentIndex(GRAPHITE);

/** A wash made ready to be laid row by row: its films, lower first. */
export interface LaidWash {
  readonly wash: Wash;
  readonly basin: Basin | undefined;
  readonly films: readonly LaidFilm[];
  /** Those of them that lie among the fibres. */
  readonly older: LaidFilm | undefined;
  readonly later: LaidFilm | undefined;
}

interface LaidFilm {
  readonly tables: number;
  /** Planes of each pigment's coats. */
  readonly pigments: readonly (readonly number[])[];
  /** Dust: how often a coat of each pigment would cover its cell. */
  readonly lies?: readonly number[];
  /** A wash among the fibres; and of the later one, the planes of the older one that are seen together with it. */
  readonly coats?: WashCoats;
  readonly older?: readonly (readonly number[])[];
}

/** Washes of tiles into runs of reflectance (see Picture). */
export class WashFilm {
  /** Word addresses: a row of how much dust covers, a row of the fibres' scattering, rows of summed masses, the list of them, a list of planes. */
  private readonly covers: number;
  private readonly fibre: number;
  private readonly rows: number;
  private readonly list: number;
  private readonly planes: number;
  /** Parameters of the water of a run, and its rows: how wet it looks, depth of its film. */
  private readonly block: number;
  private readonly looks: number;
  private readonly depth: number;
  private readonly fibres = new AmongFibres();

  constructor(
    private readonly painting: Painting,
    private readonly kernels: Kernels,
    private readonly tables: FilmTables,
  ) {
    const { arena, memory } = painting;
    const row = (count = 1) => memory.allocate(TILE * 4 * count) >> 2;
    this.covers = row();
    this.fibre = row();
    this.rows = row(96);
    this.list = memory.allocate(96 * 4) >> 2;
    this.planes = memory.allocate(16 * 4) >> 2;
    this.block = memory.allocate(WET_LOOK.words * 4) >> 2;
    this.looks = row();
    this.depth = row();
    arena.f32[this.block + WET_LOOK.wetOver] = 1 / LOOKS_WET;
    arena.f32[this.block + WET_LOOK.dampOver] = DAMP_LOOKS / sheetOf(painting).capacity;
  }

  /** Makes the wash of a tile ready. */
  prepare(layer: Layer, wash: Wash, index: number): LaidWash {
    const films: LaidFilm[] = [];
    const planesOf = (pigment: number, coats: readonly Coat[]) =>
      coats.map((coat) => wash.coats[coat][wash.pigments.indexOf(pigment)] >> 2).filter(Boolean);
    const presentIn = (coats: readonly Coat[]) =>
      wash.pigments.filter((pigment) => isColoured(pigment) && planesOf(pigment, coats).length > 0);
    const [under, over] = WASHES.map(presentIn);
    const among = (
      own: readonly number[],
      coats: readonly Coat[],
      beneath: readonly number[],
    ): LaidFilm | undefined => {
      if (own.length === 0) return undefined;
      const all = [...own, ...beneath.filter((pigment) => !own.includes(pigment))];
      const pigments = all.map((pigment) => planesOf(pigment, coats));
      const older = beneath.length > 0 ? all.map((pigment) => planesOf(pigment, WASHES[0])) : undefined;
      const film = { tables: this.tables.of(all, 'fibres'), pigments, coats: coatsOf(all, pigments), older };
      films.push(film);
      return film;
    };
    const older = among(under, WASHES[0], []);
    const later = among(over, WASHES[1], under);
    for (const coats of DUST) {
      const own = presentIn(coats);
      if (own.length === 0) continue;
      const pigments = own.map((pigment) => planesOf(pigment, coats));
      films.push({ tables: this.tables.of(own, 'air'), pigments, lies: own.map(dustLies) });
    }
    return { wash, basin: layer.basin?.state[index] ? layer.basin : undefined, films, older, later };
  }

  /** Works out how wet a run of cells is. @returns whether there is any water */
  private water(basin: Basin | undefined, index: number, cell: number, count: number): boolean {
    if (!basin) return false;
    const { i32 } = this.painting.arena;
    const { block } = this;
    const { factor } = basin;
    const x0 = (index % basin.tilesX) * TILE + (cell & 63);
    const y = Math.floor(index / basin.tilesX) * TILE + (cell >> 6);
    const coarse = (Math.floor(y / factor) + 1) * basin.stride + FRAME + Math.floor(x0 / factor);
    i32[block + WET_LOOK.share] = basin.at.share + coarse;
    i32[block + WET_LOOK.water] = basin.at.water + coarse;
    i32[block + WET_LOOK.moisture] = basin.at.moisture + coarse;
    i32[block + WET_LOOK.cover] = basin.cover + (y + 1) * basin.coverStride + x0 + FRAME;
    i32[block + WET_LOOK.looks] = this.looks;
    i32[block + WET_LOOK.film] = this.depth;
    i32[block + WET_LOOK.shift] = 31 - Math.clz32(factor);
    i32[block + WET_LOOK.phase] = x0 % factor;
    this.kernels.waterLooks(block, count);
    return true;
  }

  /** Lays the washes of a tile over a run of reflectance. */
  lay(
    { wash, basin, films, older, later }: LaidWash,
    index: number,
    cell: number,
    count: number,
    run: number,
    stride: number,
  ): void {
    const { kernels } = this;
    const { f32, i32 } = this.painting.arena;
    const wet = this.water(basin, index, cell, count);
    if (wet) kernels.dampen(count, this.looks, WET_PAPER, BANDS.count, run, stride);
    const looks = wet ? this.looks : 0;
    const { fibres } = this;
    const { together } = fibres;
    fibres.measure(f32, older?.coats, later?.coats, cell, count);
    for (const film of films) {
      film.pigments.forEach((planes, k) => {
        const row = this.rows + k * TILE;
        planes.forEach((plane, n) => (i32[this.planes + n] = plane));
        kernels.sumCoats(count, this.planes, planes.length, cell, looks, WET_DEEPENS, row);
        i32[this.list + k] = row;
        if (film === older && later) for (let x = 0; x < count; x++) f32[row + x] *= 1 - together[x];
        for (const plane of film.older?.[k] ?? []) {
          for (let x = 0; x < count; x++) f32[row + x] += together[x] * f32[plane + cell + x];
        }
      });
      let planes = film.pigments.length;
      if (film.lies) this.coverOf(film.lies, count);
      else {
        fibres.lay(f32, film === later, count, looks, this.fibre, this.covers);
        i32[this.list + planes++] = this.fibre;
      }
      kernels.filmOver(count, 1, this.list, 0, planes, this.covers, 0, film.tables, BANDS.count, run, stride);
    }
    const masking = wash.resist.masking >> 2;
    if (!masking) return;
    for (let x = 0; x < count; x++) {
      const hides = MASKING_HIDES * f32[masking + cell + x];
      if (hides === 0) continue;
      for (let b = 0; b < BANDS.count; b++)
        f32[run + b * stride + x] += hides * (MASKING[b] - f32[run + b * stride + x]);
    }
  }

  /** How much of each cell of a run the dust covers whose coats stand in the rows, as a film that does not close. */
  private coverOf(lies: readonly number[], count: number): void {
    const { f32 } = this.painting.arena;
    const { covers, rows } = this;
    for (let x = 0; x < count; x++) {
      let times = 0;
      for (let k = 0; k < lies.length; k++) times += lies[k] * f32[rows + k * TILE + x];
      f32[covers + x] = GRAINS_UM * dustCovers(times);
    }
    // the kernel may work on up to three cells more
    f32.fill(0, covers + count, covers + Math.min(TILE, count + 4));
  }

  /** Dust, water and wax of a run in the relief and in the shine of the picture: word addresses of the run in both. */
  surface({ wash, basin }: LaidWash, index: number, cell: number, count: number, relief: number, codes: number): void {
    const wax = wash.resist.wax >> 2;
    const { f32 } = this.painting.arena;
    for (const { plane, pigment } of wash.dust()) {
      const um = dustUm(pigment);
      for (let x = 0; x < count; x++) f32[relief + x] += um * f32[plane + cell + x];
      if (pigment === FLAKES) this.flakesShine(plane + cell, count, codes);
    }
    const wet = this.water(basin, index, cell, count);
    if (!wet && !wax) return;
    if (!wet) this.painting.arena.f32.fill(0, this.depth, this.depth + count);
    this.kernels.wetSurface(count, this.depth, wax && wax + cell, relief, codes, SHEEN);
  }

  /** Flakes of graphite lie flat under the hand and mirror the lamp: the more of the sheet they close, the more it shines. */
  private flakesShine(plane: number, count: number, codes: number): void {
    const { f32, u32 } = this.painting.arena;
    const lies = dustLies(FLAKES);
    for (let x = 0; x < count; x++) {
      const cover = dustCovers(lies * f32[plane + x]);
      const code = u32[codes + x];
      const sheen = Math.max(code >>> 24, SHEEN + Math.round(FLAKES_SHINE * cover * cover));
      u32[codes + x] = ((code & 0x00ffffff) | (sheen << 24)) >>> 0;
    }
  }
}

/** Water at a cell of a layer: depth of film and moisture, um; how wet it looks, 0..1. */
export function waterAtCell(
  { arena, tilesX }: Painting,
  { basin }: Layer,
  x: number,
  y: number,
): { um: number; looks: number } {
  if (!basin?.state[(y >> 6) * tilesX + (x >> 6)]) return { um: 0, looks: 0 };
  const { f32 } = arena;
  const share = f32[basin.coarseOf('share', x, y)];
  const water = f32[basin.coarseOf('water', x, y)];
  const moisture = f32[basin.coarseOf('moisture', x, y)];
  const depth = share > 0 ? water / share : 0;
  return {
    um: (water + moisture) * WASH_UM,
    looks: Math.min(1, Math.max(share * Math.min(1, depth / LOOKS_WET), 2 * DAMP_LOOKS * moisture)),
  };
}

/** Films of a wash at a cell, lower first: pigments and their coats, and the share of the cell that is covered. */
export function washFilmsAt(
  { f32 }: Arena,
  wash: Wash,
  cell: number,
): { masses: (readonly [pigment: number, coats: number])[]; cover: number }[] {
  return [...WASHES, ...DUST].map((coats) => {
    const masses = wash.pigments
      .map((pigment, n) => {
        const sum = coats.reduce(
          (s, coat) => s + (wash.coats[coat][n] ? f32[(wash.coats[coat][n] >> 2) + cell] : 0),
          0,
        );
        return [pigment, sum] as const;
      })
      .filter(([pigment, sum]) => sum > 0 && isColoured(pigment));
    const dust = coats[0] === 'pressed' || coats[0] === 'loose';
    return { masses, cover: dust ? dustCovers(masses.reduce((s, [p, m]) => s + m * dustLies(p), 0)) : 1 };
  });
}

/** How wet a layer is at a cell: depth of its film, um; moisture in the paper, 0..1 of what it holds. */
export function paperAt(painting: Painting, { basin }: Layer, x: number, y: number): { filmUm: number; damp: number } {
  if (!basin?.state[(y >> 6) * painting.tilesX + (x >> 6)]) return { filmUm: 0, damp: 0 };
  const { f32 } = painting.arena;
  const share = f32[basin.coarseOf('share', x, y)];
  return {
    filmUm: share > 0.3 ? (f32[basin.coarseOf('water', x, y)] / share) * WASH_UM : 0,
    damp: Math.min(1, f32[basin.coarseOf('moisture', x, y)] / sheetOf(painting).capacity),
  };
}
