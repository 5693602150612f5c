import { BANDS } from '@/core/colour/bands';
import { isColoured } from '@/core/colour/pigments';
import type { ArenaScope } from '@/core/film/arenaScope';
import { dustAir } from '@/core/flow/washRates';
import { FIBRE_TABLE } from './amongFibres';

/** What pigments lie in: a film of binder, air between grains of dust, or the fibres of a sheet (as one more plane). */
export type LiesIn = 'binder' | 'air' | 'fibres';

/** K and S of sets of pigments, laid out for the kernel. The sets of a painting are few. */
export class FilmTables {
  private readonly known = new Map<string, number>();

  constructor(private readonly memory: ArenaScope) {}

  /** Word address of the table of a set: for each band, for each coloured pigment, K and S of a coat. */
  of(all: readonly number[], liesIn: LiesIn = 'binder'): number {
    const pigments = all.filter(isColoured);
    const key = `${liesIn} ${pigments.join()}`;
    const known = this.known.get(key);
    if (known !== undefined) return known;
    const { arena } = this.memory;
    const at = this.memory.allocate((pigments.length + 1) * BANDS.count * 8) >> 2;
    let j = at;
    for (let b = 0; b < BANDS.count; b++) {
      for (const pigment of pigments) {
        arena.f32[j++] = BANDS.K[pigment * BANDS.count + b];
        arena.f32[j++] = BANDS.S[pigment * BANDS.count + b] + (liesIn === 'air' ? dustAir(pigment) : 0);
      }
      if (liesIn !== 'fibres') continue;
      for (const v of FIBRE_TABLE) arena.f32[j++] = v;
    }
    this.known.set(key, at);
    return at;
  }
}
