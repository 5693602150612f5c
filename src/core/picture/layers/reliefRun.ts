import { PLANE_BYTES, TILE, TILE_CELLS } from '@/core/film/cells';
import type { Painting } from '@/core/film/painting';
import { leanness, SOLVENT } from '@/core/film/packing/stratum';
import { DRY_SHRINK } from '@/core/film/tile';
import type { Kernels } from '@/core/kernels/kernels';
import { SHEEN } from '@/core/kernels/relight';
import type { Block } from './block';
import type { FilmStep, TilePlan } from './layerPlan';

/** Tiles that are kept at most: 21 MB. */
const MOST = 640;

/** What the dry layers below the one in hand add to a tile. */
export interface KeptRelief {
  readonly key: string;
  /** Word addresses of planes: height, um; how the surface takes the light, in the high byte. */
  readonly um: number;
  readonly codes: number;
  /** The steps that are in it. */
  steps: ReadonlySet<FilmStep>;
}

/** Where a part of a tile lies in the rasters of relief and codes: word addresses of its first cell, and of its rows. */
export interface Rasters {
  readonly relief: number;
  readonly picture: number;
  readonly row: number;
}

/**
 * The relief of films and how they take the light. What dry layers below the one that is painted on add is kept: it is
 * the same for every stroke until one of them changes.
 */
export class ReliefRun {
  private readonly kept = new Map<number, KeptRelief>();
  /** Word addresses of planes in passing: in what share each cell is seen, and how lean it was laid. */
  private readonly shares: number;
  private readonly lean: number;

  constructor(
    private readonly painting: Painting,
    private readonly kernels: Kernels,
  ) {
    this.shares = painting.arena.allocate(PLANE_BYTES) >> 2;
    this.lean = painting.arena.allocate(PLANE_BYTES) >> 2;
  }

  /** Gives its memory back. */
  dispose(): void {
    const { arena } = this.painting;
    for (const { um, codes } of this.kept.values()) for (const at of [um, codes]) arena.free(at << 2, PLANE_BYTES);
    this.kept.clear();
    for (const at of [this.shares, this.lean]) arena.free(at << 2, PLANE_BYTES);
  }

  /** Adds a part of the film of a tile to the relief, and says how it takes the light. */
  lay(
    { film: { tile }, shares, opacity }: FilmStep,
    { cell: first, count, rows }: Block,
    { relief, picture, row }: Rasters,
  ): void {
    if (!tile.volume && !tile.sealed) return;
    const { f32 } = this.painting.arena;
    if (shares) f32.set(shares, this.shares);
    const newest = tile.dryLean ? tile.strata.at(-1) : undefined;
    if (newest) {
      for (let y = 0; y < rows; y++) {
        const from = first + y * TILE;
        for (let x = 0; x < count; x++) f32[this.lean + from + x] = leanness(newest, from + x);
      }
    }
    const plane = (address: number) => address && (address >> 2) + first;
    const solvent = tile.pigments.indexOf(SOLVENT);
    this.kernels.filmSurface(
      count,
      rows,
      opacity * DRY_SHRINK,
      opacity,
      plane(tile.sealed),
      plane(tile.volume),
      solvent < 0 ? 0 : plane(tile.mass[solvent]),
      newest ? this.lean + first : 0,
      tile.rubbing ? plane(tile.laid) : 0,
      shares ? this.shares + first : 0,
      TILE,
      relief,
      picture,
      row,
    );
  }

  /** What is kept of the lowest films of a tile, as many as are dry and seen as they are; undefined where that is few. */
  below({ index }: TilePlan, films: readonly FilmStep[]): KeptRelief | undefined {
    const end = films.findIndex(
      ({ film: { layer, tile, wash }, shares }) =>
        layer === this.painting.active || wash || shares || tile.volume || tile.rubbing,
    );
    const dry = films.slice(0, end < 0 ? films.length : end);
    if (dry.length < 2) return undefined;
    const key = dry.map(({ film, opacity }) => `${film.layer.id}.${film.tile.version}.${opacity}`).join(' ');
    let found = this.kept.get(index);
    if (found?.key !== key) {
      found = this.make(index, key, dry);
      this.kept.set(index, found);
    }
    found.steps = new Set(dry);
    return found;
  }

  private make(index: number, key: string, dry: readonly FilmStep[]): KeptRelief {
    const { um, codes } = this.room(index);
    const { f32, u32 } = this.painting.arena;
    f32.fill(0, um, um + TILE_CELLS);
    u32.fill(SHEEN << 24, codes, codes + TILE_CELLS);
    for (const step of dry)
      this.lay(step, { cell: 0, count: TILE, rows: TILE }, { relief: um, picture: codes, row: TILE });
    return { key, um, codes, steps: new Set() };
  }

  /** Planes for a tile: its own, those kept longest, or new ones. */
  private room(index: number): Pick<KeptRelief, 'um' | 'codes'> {
    const { arena } = this.painting;
    const whose = this.kept.has(index) ? index : this.kept.size < MOST ? undefined : this.kept.keys().next().value!;
    if (whose !== undefined) {
      const room = this.kept.get(whose)!;
      this.kept.delete(whose);
      return room;
    }
    return { um: arena.allocate(PLANE_BYTES) >> 2, codes: arena.allocate(PLANE_BYTES) >> 2 };
  }
}
