import { DUST_REFLECTS, dustOn, leftOf, scatterLeftOf, yellowOf, type Ageing } from '@/core/colour/ageing';
import { BANDS } from '@/core/colour/bands';
import type { Painting } from '@/core/film/painting';
import { isDrawingPaper } from '@/core/surface/drawingPaper';
import { isPaper } from '@/core/surface/paper';
import { Albedo } from './albedo';
import { BLOCK, type Block } from './block';
import { FRESH, type LiesIn, type PaintOptics } from './filmTables';

const NEW: Ageing = { years: 0, place: 'room' };

/** Optics of paint after some years. */
class AgedOptics implements PaintOptics {
  ageing = NEW;
  readonly K = (pigment: number, band: number) => FRESH.K(pigment, band) * leftOf(pigment, this.ageing);
  readonly S = (pigment: number, band: number, liesIn: LiesIn) =>
    FRESH.S(pigment, band, liesIn) *
    leftOf(pigment, this.ageing) *
    // only oil is old oil: on paper grains lie in the fibres, dust in air
    (liesIn === 'binder' ? scatterLeftOf(pigment, this.ageing) : 1);
  readonly binder = (band: number) => yellowOf(band, this.ageing);
}

/** The unlit picture of a painting after some years: the same paint, seen otherwise. The painting itself knows nothing of it. */
class AgedAlbedo extends Albedo {
  private readonly aged: AgedOptics;

  constructor(painting: Painting) {
    const optics = new AgedOptics();
    super(painting, optics);
    this.aged = optics;
  }

  /** From now on it is so old. */
  age(ageing: Ageing): void {
    this.aged.ageing = ageing;
    this.stack.plans.optics = `${ageing.place} ${ageing.years} `;
    this.stack.films.tables.refill();
  }

  protected override layOver(block: Block): void {
    const { painting, run } = this;
    const { kind } = painting.spec.surface;
    const dust = dustOn(isPaper(kind) || isDrawingPaper(kind), this.aged.ageing);
    if (dust === 0) return;
    this.stack.settle(block);
    const { f32 } = painting.arena;
    for (let b = 0; b < BANDS.count; b++) {
      const from = run + b * BLOCK;
      for (let i = from; i < from + BLOCK; i++) f32[i] += dust * (DUST_REFLECTS - f32[i]);
    }
  }
}

/** The unlit picture of a painting as it will be; one at a time is kept. */
export function agedAlbedoOf(painting: Painting, ageing: Ageing): Albedo {
  const albedo = painting.derived(AgedAlbedo);
  albedo.age(ageing);
  return albedo;
}
