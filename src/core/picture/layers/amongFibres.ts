import { BANDS } from '@/core/colour/bands';
import { TILE } from '@/core/film/cells';
import { washRates } from '@/core/flow/washRates';
import { GRAINS_UM } from '@/core/kernels/colour';
import { maths } from '@/core/maths/maths';

/**
 * Pigment of a wash lies among the fibres of a porous face, with air between. Light that it absorbs weakly wanders
 * longer there (Kubelka and Munk with the scattering of the fibres in the film), so that its loss goes with the root of
 * the absorption and tints turn duller and lighter. Water fills the air: a wet wash is darker and purer.
 * Loads are in washes of full strength.
 */

/** Scattering of dry fibres, what is left of it in water, and the load at which gum and pigment have filled half. */
const FIBRE = 1.05;
const FIBRE_WET = 0.35;
const FIBRE_FILLED = 1.8;
/** K and S of the fibres for a unit of their scattering: next to no absorption, so that bare paper stays as it is. */
export const FIBRE_TABLE = [0.001, 1] as const;
/** How much less of the fibres' light a later wash adds over a load of one wash: the fibres are shared. */
const SHARED = 1.5;
/**
 * Share of a cell that is bare between flocs and fibres: of thin washes, the load at which that falls to 1/e, and what a
 * dry matt face scatters whatever lies on it (an uneven absorber looks paler than an even one: Duysens 1956).
 */
const BARE = 0.13;
const BARE_LOAD = 0.6;
const MATT = 0.018;
/**
 * Washes lie in the same fibres: so much of an older one is seen together with a later one, less the more that one
 * scatters, down to half at this scattering; and less where the older one is body colour, which has filled the fibres.
 * What is left of their order is what a painter sees of it.
 */
const TOGETHER = 0.85;
const TOGETHER_SCATTER = 0.35;
const BODY_SCATTER = 1.2;

/** Tables by load, in steps of a 64th of a wash. */
const STEPS = 64;
const byLoad = (of: (load: number) => number) => Float32Array.from({ length: 4 * STEPS + 1 }, (_, i) => of(i / STEPS));
const BARE_BY_LOAD = byLoad((load) => MATT + BARE * maths.exp(-load / BARE_LOAD));
const SHARED_BY_LOAD = byLoad((load) => maths.exp(-SHARED * load));
const stepOf = (load: number) => Math.min(4 * STEPS, (load * STEPS) | 0);

/** Mean scattering of a coat of a pigment over the bands. */
export function meanScattering(pigment: number): number {
  let sum = 0;
  for (let b = 0; b < BANDS.count; b++) sum += BANDS.S[pigment * BANDS.count + b];
  return sum / BANDS.count;
}

/** A film of a wash whose coats are to be summed: planes by pigment (word addresses). */
export interface WashCoats {
  readonly pigments: readonly (readonly number[])[];
  /** Load of a coat of each pigment, and its scattering. */
  readonly loads: readonly number[];
  readonly scatters: readonly number[];
}

/** What a run of cells needs to know of the pigments' numbers. */
export const coatsOf = (present: readonly number[], pigments: readonly (readonly number[])[]): WashCoats => ({
  pigments,
  loads: present.map((pigment) => 1 / washRates(pigment).unit),
  scatters: present.map(meanScattering),
});

/** How the two films of a wash share the fibres, along a run of at most TILE cells. */
export class AmongFibres {
  /** Loads of the older and of the later film. */
  private readonly load = [new Float32Array(TILE), new Float32Array(TILE)];
  /** How much of the older film is seen with the later one. */
  readonly together = new Float32Array(TILE);
  private readonly body = new Float32Array(TILE);

  /** Looks at the films of a run. @param cell first cell in the planes */
  measure(
    f32: Float32Array,
    older: WashCoats | undefined,
    later: WashCoats | undefined,
    cell: number,
    count: number,
  ): void {
    const { load, together, body } = this;
    this.sum(f32, older, 'loads', cell, count, load[0]);
    this.sum(f32, later, 'loads', cell, count, load[1]);
    together.fill(0, 0, count);
    if (!older || !later) return;
    this.sum(f32, later, 'scatters', cell, count, together);
    this.sum(f32, older, 'scatters', cell, count, body);
    for (let x = 0; x < count; x++) {
      if (load[1][x] <= 0) {
        together[x] = 0;
        continue;
      }
      const scatter = together[x] / TOGETHER_SCATTER;
      const filled = body[x] / BODY_SCATTER;
      together[x] = TOGETHER / ((1 + scatter * scatter) * (1 + filled * filled));
      const moved = together[x] * load[0][x];
      load[0][x] -= moved;
      load[1][x] += moved;
    }
  }

  /**
   * Scattering of the fibres in a film, and the thickness by which the kernel takes it as one that does not close.
   * @param wet word address of how wet the cells look, 0 when they are dry
   */
  lay(f32: Float32Array, later: boolean, count: number, wet: number, fibre: number, thickness: number): void {
    const own = this.load[later ? 1 : 0];
    const other = this.load[later ? 0 : 1];
    for (let x = 0; x < count; x++) {
      const load = own[x];
      if (load <= 0) {
        f32[fibre + x] = f32[thickness + x] = 0;
        continue;
      }
      const all = load + other[x];
      const filled = all / FIBRE_FILLED;
      const dry = wet ? 1 - f32[wet + x] : 1;
      const own1 = (FIBRE * (FIBRE_WET + (1 - FIBRE_WET) * dry) * load) / (all * (1 + filled * filled));
      f32[fibre + x] = later ? own1 * SHARED_BY_LOAD[stepOf(other[x])] : own1;
      f32[thickness + x] = GRAINS_UM * (1 - dry * BARE_BY_LOAD[stepOf(load)]);
    }
    // the kernel may work on up to three cells more
    f32.fill(0, thickness + count, thickness + Math.min(TILE, count + 4));
  }

  private sum(
    f32: Float32Array,
    film: WashCoats | undefined,
    of: 'loads' | 'scatters',
    cell: number,
    count: number,
    into: Float32Array,
  ): void {
    into.fill(0, 0, count);
    film?.pigments.forEach((planes, k) => {
      const part = film[of][k];
      for (const plane of planes) for (let x = 0; x < count; x++) into[x] += part * f32[plane + cell + x];
    });
  }
}
