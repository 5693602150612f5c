import { isColoured, pigmentIndex, tubeAt } from '@/core/colour/pigments';
import type { Arena } from '@/core/film/arena';
import { COAT_UM, SOLVENT, stratumOf, unitFor, type Stratum } from '@/core/film/packing/stratum';
import { PLANE_BYTES, TILE_CELLS, type Tile } from '@/core/film/tile';
import { kernelsFor } from '@/core/kernels/kernels';
import { maths } from '@/core/maths/maths';
import { washStratum } from './glazing';

/**
 * How paint dries. Oil dries by taking up oxygen, from the surface down: slowly, the slower the thicker the film and
 * the slower its pigment (data of the tubes). Acrylic dries as its water leaves: in minutes. A film is wet, then
 * tacky, then dry to the touch; then it is sealed: it becomes the newest stratum.
 */
const MEDIUM = pigmentIndex('medium');
const ACRYLIC = pigmentIndex('acrylic');
const RETARDER = pigmentIndex('retarder');

/** A film as thick as this takes the times below to dry to the touch, um. */
const USUAL_UM = 60;
const OIL_SECONDS = 2 * 86400;
const ACRYLIC_SECONDS = 10 * 60;
/** A wait shorter than this leaves oil open, seconds. */
export const OIL_OPEN_SECONDS = 3600;
/** A film that has dried this far is tacky, and no longer wet. */
export const TACKY = 0.5;

/**
 * Share of its drying that one second brings a film.
 * @param dryFactor of its pigments by mass, ultramarine = 1
 * @param shares of medium, solvent, acrylic and retarder in its volume, 0..1
 */
export function dryingRate(
  um: number,
  dryFactor: number,
  shares: { medium: number; solvent: number; acrylic: number; retarder: number },
): { oil: number; acrylic: number } {
  const thick = um / USUAL_UM;
  const oilSeconds =
    OIL_SECONDS *
    dryFactor *
    (1 + 0.5 * shares.medium) *
    (1 - 0.6 * shares.solvent) *
    maths.pow(Math.max(0.15, thick), 0.7);
  const acrylicSeconds =
    ACRYLIC_SECONDS * (1 + 4 * shares.retarder) * (1 + 0.5 * shares.solvent) * maths.pow(Math.max(0.15, thick), 0.85);
  return { oil: (1 - shares.acrylic) / oilSeconds, acrylic: shares.acrylic / acrylicSeconds };
}

/** Whether a wait of some seconds changes the wet film of a tile. */
export const driesIn = (tile: Tile, seconds: number): boolean =>
  tile.volume !== 0 && (seconds >= OIL_OPEN_SECONDS || tile.pigments.includes(ACRYLIC));

/** Lets a tile's wet film dry for some seconds; cells that are dry then are sealed. */
export function dryTile(arena: Arena, tile: Tile, seconds: number): void {
  if (!driesIn(tile, seconds)) return;
  tile.curing();
  const { f32 } = arena;
  const share = (pigment: number) => {
    const k = tile.pigments.indexOf(pigment);
    return k < 0 ? 0 : tile.mass[k] >> 2;
  };
  const planes = { medium: share(MEDIUM), solvent: share(SOLVENT), acrylic: share(ACRYLIC), retarder: share(RETARDER) };
  const coloured = tile.pigments.flatMap((p, i) =>
    isColoured(p) ? [{ at: tile.mass[i] >> 2, factor: tubeAt(p)?.dryFactor ?? 1 }] : [],
  );
  const oilOpen = seconds < OIL_OPEN_SECONDS;
  let sealed = false;
  for (let cell = 0; cell < TILE_CELLS; cell++) {
    const um = f32[(tile.volume >> 2) + cell];
    if (um <= 0) continue;
    let mass = 0;
    let weighted = 0;
    for (const { at, factor } of coloured) {
      mass += f32[at + cell];
      weighted += f32[at + cell] * factor;
    }
    const of = (at: number) => (at ? Math.min(1, (f32[at + cell] * COAT_UM) / um) : 0);
    const rate = dryingRate(um, mass > 0 ? weighted / mass : 1, {
      medium: of(planes.medium),
      solvent: of(planes.solvent),
      acrylic: of(planes.acrylic),
      retarder: of(planes.retarder),
    });
    const dried = f32[(tile.cure >> 2) + cell] + seconds * (rate.acrylic + (oilOpen ? 0 : rate.oil));
    f32[(tile.cure >> 2) + cell] = Math.min(1, dried);
    if (dried >= 1) sealed = true;
  }
  if (sealed) seal(arena, tile, true);
  tile.version++;
}

/**
 * Dries the wet film of a tile at once: it becomes the newest stratum.
 * @returns whether there was anything to dry.
 */
export function sealTile(arena: Arena, tile: Tile): boolean {
  if (!tile.volume) return false;
  seal(arena, tile, false);
  tile.version++;
  return true;
}

/** Makes the newest stratum of the wet film, or of those of its cells that have dried. */
function seal(arena: Arena, tile: Tile, onlyDry: boolean): void {
  const kernels = kernelsFor(arena);
  const scratch = arena.allocate(PLANE_BYTES + TILE_CELLS * 2);
  const at = scratch >> 2;
  const steps = (scratch + PLANE_BYTES) >> 1;
  const { f32, u16 } = arena;
  const cure = tile.cure >> 2;
  let left = false;
  const take = (plane: number) => {
    f32.copyWithin(at, plane >> 2, (plane >> 2) + TILE_CELLS);
    if (onlyDry) {
      for (let i = 0; i < TILE_CELLS; i++) {
        if (f32[cure + i] < 1) {
          left ||= f32[at + i] > 0;
          f32[at + i] = 0;
        } else f32[(plane >> 2) + i] = 0;
      }
    }
    const unit = unitFor(kernels.highest(at, TILE_CELLS));
    kernels.packSteps(at, TILE_CELLS, unit, steps);
    return { steps: u16.slice(steps, steps + TILE_CELLS), unit };
  };
  // what lies on top dries on what is below
  const strata: Stratum[] = [];
  if (tile.skinVolume) {
    const below = (plane: number, top: number) => {
      for (let i = 0; i < TILE_CELLS; i++) {
        f32[(plane >> 2) + i] = Math.max(0, f32[(plane >> 2) + i] - f32[(top >> 2) + i]);
      }
    };
    tile.mass.forEach((plane, k) => below(plane, tile.skin[k]));
    below(tile.volume, tile.skinVolume);
    strata.push(stratumOf(tile.pigments, tile.mass.map(take), take(tile.volume)));
    strata.push(stratumOf(tile.pigments, tile.skin.map(take), take(tile.skinVolume)));
    // the film holds again all that stays wet
    const whole = (plane: number, top: number) => {
      for (let i = 0; i < TILE_CELLS; i++) f32[(plane >> 2) + i] += f32[(top >> 2) + i];
    };
    tile.mass.forEach((plane, k) => whole(plane, tile.skin[k]));
    whole(tile.volume, tile.skinVolume);
  } else strata.push(stratumOf(tile.pigments, tile.mass.map(take), take(tile.volume)));
  arena.free(scratch, PLANE_BYTES + TILE_CELLS * 2);
  // a wash under what has dried is shut in with it
  if (tile.wash) {
    const where = new Uint8Array(TILE_CELLS);
    for (const { thickness } of strata) thickness.forEach((t, i) => (where[i] |= t > 0 ? 1 : 0));
    const dust = washStratum(arena, tile.wash, ['pressed', 'loose'], where, true);
    if (dust) strata.unshift(dust);
    const shutIn = washStratum(arena, tile.wash, ['under', 'fast', 'settled', 'soluble'], where);
    if (shutIn) strata.unshift(shutIn);
  }
  if (!onlyDry || !left) tile.dropWet();
  else for (let i = 0; i < TILE_CELLS; i++) if (f32[cure + i] >= 1) f32[cure + i] = 0;
  tile.setStrata([...tile.strata, ...strata.filter((s) => s.thickness.some((t) => t > 0))]);
}
