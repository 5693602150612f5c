import { TILE_CELLS } from '@/core/film/cells';
import type { Painting } from '@/core/film/painting';
import { DRY_SHRINK, type Tile } from '@/core/film/tile';
import { SHEEN } from '@/core/kernels/relight';
import type { FilmStep, TilePlan } from './layerStack';

/** Tiles that are kept at most: 13 MB. */
const MOST = 640;

/** Gloss of dry paint, codes: it keeps part of what it had wet. */
export const dryGloss = (um: number): number => Math.min(55, um * 1.5);

/** Whether a film has nothing but dry paint that was not thinned, and all of it is seen. */
export const isPlainlyDry = ({ tile, shares }: { tile: Tile; shares: Float32Array | undefined }): boolean =>
  !tile.volume && !tile.dryLean && !tile.rubbing && !shares;

/** What the dry layers below the one in hand add to a tile: height, um, and how the surface takes the light. */
export interface KeptRelief {
  readonly key: string;
  readonly um: Float32Array;
  readonly sheen: Uint8Array;
  /** The steps that are in it. */
  steps: ReadonlySet<FilmStep>;
}

/** Relief of dry layers below the one that is painted on: the same for every stroke until one of them changes. */
export class ReliefCache {
  private readonly kept = new Map<number, KeptRelief>();

  constructor(private readonly painting: Painting) {}

  /** What is kept of the lowest films of a tile, as many as are plainly dry; undefined where that is none. */
  below(plan: TilePlan, films: readonly FilmStep[]): KeptRelief | undefined {
    const end = films.findIndex(
      ({ film, shares }) =>
        film.layer === this.painting.active || film.wash || !isPlainlyDry({ tile: film.tile, shares }),
    );
    const dry = films.slice(0, end < 0 ? films.length : end);
    if (dry.length < 2) return undefined;
    const key = dry.map(({ film, opacity }) => `${film.layer.id}.${film.tile.version}.${opacity}`).join(' ');
    const { index } = plan;
    let found = this.kept.get(index);
    if (found?.key !== key) {
      found = this.make(key, dry);
      this.kept.delete(index);
      if (this.kept.size >= MOST) this.kept.delete(this.kept.keys().next().value!);
      this.kept.set(index, found);
    }
    found.steps = new Set(dry);
    return found;
  }

  private make(key: string, dry: readonly FilmStep[]): KeptRelief {
    const { f32 } = this.painting.arena;
    const um = new Float32Array(TILE_CELLS);
    const sheen = new Uint8Array(TILE_CELLS).fill(SHEEN);
    for (const { film, opacity } of dry) {
      if (!film.tile.sealed) continue;
      const at = film.tile.sealed >> 2;
      const share = opacity * DRY_SHRINK;
      for (let i = 0; i < TILE_CELLS; i++) {
        const own = f32[at + i] * share;
        if (own <= 0) continue;
        um[i] += own;
        sheen[i] = SHEEN + dryGloss(own);
      }
    }
    return { key, um, sheen, steps: new Set() };
  }
}
