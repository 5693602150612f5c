import { BANDS } from '@/core/colour/bands';
import { isColoured } from '@/core/colour/pigments';
import type { ArenaScope } from '@/core/film/arenaScope';
import { dustAir } from '@/core/flow/washRates';
import { FIBRE_TABLE } from './amongFibres';

/** What pigments lie in: a film of binder, air between grains of dust, or the fibres of a sheet (as one more plane). */
export type LiesIn = 'binder' | 'air' | 'fibres';

/** What paint takes of light and sends back, by pigment and band, for a coat; and what a micrometre of its binder takes. */
export interface PaintOptics {
  readonly K: (pigment: number, band: number) => number;
  readonly S: (pigment: number, band: number, liesIn: LiesIn) => number;
  /** Undefined where the binder is clear: then it is no plane of a film. */
  readonly binder?: (band: number) => number;
}

/** Paint as it is. */
export const FRESH: PaintOptics = {
  K: (pigment, band) => BANDS.K[pigment * BANDS.count + band],
  S: (pigment, band) => BANDS.S[pigment * BANDS.count + band],
};

/**
 * K and S of sets of pigments, laid out for the kernel. The sets of a painting are few. In a film of a binder that is not
 * clear, the binder is one more plane: its thickness.
 */
export class FilmTables {
  private readonly known = new Map<string, { readonly at: number; readonly fill: () => void }>();

  constructor(
    private readonly memory: ArenaScope,
    readonly optics: PaintOptics = FRESH,
  ) {}

  /** Word address of the table of a set: for each band, for each coloured pigment, K and S of a coat. */
  of(all: readonly number[], liesIn: LiesIn = 'binder'): number {
    const pigments = all.filter(isColoured);
    const key = `${liesIn} ${pigments.join()}`;
    let known = this.known.get(key);
    if (!known) {
      const at = this.memory.allocate((pigments.length + 1) * BANDS.count * 8) >> 2;
      this.known.set(key, (known = { at, fill: () => this.fill(at, pigments, liesIn) }));
      known.fill();
    }
    return known.at;
  }

  /** Works all tables out anew: optics have changed. */
  refill(): void {
    for (const { fill } of this.known.values()) fill();
  }

  private fill(at: number, pigments: readonly number[], liesIn: LiesIn): void {
    const { arena } = this.memory;
    const { K, S, binder } = this.optics;
    let j = at;
    for (let b = 0; b < BANDS.count; b++) {
      for (const pigment of pigments) {
        arena.f32[j++] = K(pigment, b);
        arena.f32[j++] = S(pigment, b, liesIn) + (liesIn === 'air' ? dustAir(pigment) : 0);
      }
      if (liesIn === 'binder' && binder) {
        arena.f32[j++] = binder(b);
        arena.f32[j++] = 0;
      }
      if (liesIn !== 'fibres') continue;
      for (const v of FIBRE_TABLE) arena.f32[j++] = v;
    }
  }
}
