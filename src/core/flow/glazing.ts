import { BANDS } from '@/core/colour/bands';
import type { Arena } from '@/core/film/arena';
import { TILE_CELLS } from '@/core/film/cells';
import { GRAINS_UM } from '@/core/kernels/colour';
import { dustCovers, dustLies } from './washRates';
import { packPlane, stratumOf, type Stratum } from '@/core/film/packing/stratum';
import type { Tile } from '@/core/film/tile';
import type { Coat, Wash } from '@/core/film/wash';

/** Dry washes as strata are this thick, um: pigment, and hardly any binder. */
const DRY_WASH_UM = 12;
/** The drop of fixative draws the finest dust a little apart: it covers so much more. */
const FIXED_SPREADS = 1.1;
/** A wash whose scattering is above this hides what is under it, so that the order of the two is seen. */
const HIDES = 1.2;

/**
 * Before a dry tile is painted on again: what lies under is still one film with what will come to lie there. Where the
 * wash on top hides, as body colour does, the one below is sealed first, so that the order of the two stays.
 */
export function glazeTile(arena: Arena, tile: Tile): void {
  const { wash } = tile;
  if (!wash || !has(arena, wash, 'under')) return;
  const where = hides(arena, wash);
  if (!where) return;
  const stratum = washStratum(arena, wash, ['under'], where);
  if (stratum) tile.setStrata([...tile.strata, stratum]);
  if (!has(arena, wash, 'under')) for (const pigment of [...wash.pigments]) wash.drop('under', pigment);
}

const has = ({ f32 }: Arena, wash: Wash, coat: Coat): boolean =>
  wash.coats[coat].some((plane) => {
    if (!plane) return false;
    for (let i = plane >> 2, end = i + TILE_CELLS; i < end; i++) if (f32[i] > 0) return true;
    return false;
  });

/** Cells in which what has settled on top is body colour that hides what lies under; what a brush only loosened does not. */
function hides({ f32 }: Arena, wash: Wash): Uint8Array | undefined {
  const scatter = new Float32Array(TILE_CELLS);
  wash.coats.settled.forEach((plane, n) => {
    if (!plane) return;
    let mean = 0;
    for (let b = 0; b < BANDS.count; b++) mean += BANDS.S[wash.pigments[n] * BANDS.count + b] / BANDS.count;
    for (let i = 0; i < TILE_CELLS; i++) scatter[i] += f32[(plane >> 2) + i] * mean;
  });
  let any = false;
  const where = new Uint8Array(TILE_CELLS);
  for (let i = 0; i < TILE_CELLS; i++) {
    if (scatter[i] <= HIDES) continue;
    where[i] = 1;
    any = true;
  }
  return any ? where : undefined;
}

/**
 * Seals coats of a wash as a stratum, in some of its cells, and takes them off the wash.
 * @param where 1 for each cell that is sealed
 * @param dust whether it is dust, which covers its share of a cell
 * @returns the stratum, or undefined when nothing lies there
 */
export function washStratum(
  arena: Arena,
  wash: Wash,
  coats: readonly Coat[],
  where: Uint8Array,
  dust = false,
): Stratum | undefined {
  const { f32 } = arena;
  const masses = wash.pigments.map((_, n) => {
    const sum = new Float32Array(TILE_CELLS);
    for (const coat of coats) {
      const plane = wash.coats[coat][n] >> 2;
      if (!plane) continue;
      for (let i = 0; i < TILE_CELLS; i++) {
        if (!where[i]) continue;
        sum[i] += f32[plane + i];
        f32[plane + i] = 0;
      }
    }
    return sum;
  });
  const thickness = new Float32Array(TILE_CELLS);
  if (dust) {
    // dust covers its share of a cell, fixed or not
    masses.forEach((mass, n) => {
      const lies = dustLies(wash.pigments[n]);
      for (let i = 0; i < TILE_CELLS; i++) thickness[i] += lies * mass[i];
    });
    for (let i = 0; i < TILE_CELLS; i++) thickness[i] = GRAINS_UM * dustCovers(FIXED_SPREADS * thickness[i]);
  } else {
    for (const mass of masses) for (let i = 0; i < TILE_CELLS; i++) if (mass[i] > 0) thickness[i] = DRY_WASH_UM;
  }
  if (!thickness.some((um) => um > 0)) return undefined;
  return stratumOf(wash.pigments, masses.map(packPlane), packPlane(thickness));
}
