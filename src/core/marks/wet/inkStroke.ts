import { normalise, type Mixture } from '@/core/colour/mixture';
import { pigmentIndex } from '@/core/colour/pigments';
import { FRAME } from '@/core/film/basin';
import { PLANE_BYTES } from '@/core/film/cells';
import { Wash } from '@/core/film/wash';
import { flowOf } from '@/core/flow/flowing';
import { fullWash } from '@/core/flow/washRates';
import type { Sample, Stamp } from '@/core/marks/path';
import { PlainStroke } from '@/core/marks/plainStroke';
import type { StrokeSetting } from '@/core/marks/stampedStroke';

/** A pen: whether a wash takes its ink up, how strong it is (washes), its width at no pressure (share of the full one). */
export const PENS = {
  'ink-fast': { coat: 'fast', strength: 2.4, least: 0.3 },
  'ink-soluble': { coat: 'soluble', strength: 2.4, least: 0.3 },
  'pen-bold': { coat: 'fast', strength: 3, least: 0.08 },
  marker: { coat: 'fast', strength: 0.9, least: 1 },
} as const;
export type PenName = keyof typeof PENS;

/**
 * A pen with ink: waterproof ink stays for good once it is on the paper, soluble ink is taken up by the next wash. On
 * paper that is wet both run. What it leaves is entered in the ledger as loaded, for a pen is dipped all the time.
 */
export class InkStroke extends PlainStroke {
  private readonly parts: readonly { pigment: number; coats: number }[];

  constructor(
    setting: StrokeSetting,
    private readonly pen: { readonly coat: 'fast' | 'soluble'; readonly strength: number; readonly least: number },
    mixture: Mixture,
  ) {
    super(setting);
    const parts = Object.entries(normalise(mixture)).map(([id, part]) => [pigmentIndex(id), part] as const);
    const full = pen.strength * fullWash(new Map(parts));
    this.parts = [...parts].sort((a, b) => a[0] - b[0]).map(([pigment, part]) => ({ pigment, coats: part * full }));
  }

  protected spacing(point: Sample): number {
    return Math.max(0.04, this.radius(point.pressure) * 0.35);
  }

  private radius(pressure: number): number {
    return (this.setting.settings.sizeMm / 2) * (this.pen.least + (1 - this.pen.least) * pressure);
  }

  protected stamp({ point }: Stamp): void {
    const { painting, layer, settings, before } = this.setting;
    const { arena, cellArea } = painting;
    const wetLayer = layer.basin;
    let laid = 0;
    let planes: { dry: number; wet: number; coats: number; pigment: number }[] = [];
    let resist = { masking: 0, wax: 0 };
    const put = new Float64Array(this.parts.length);
    this.disc(
      point.x,
      point.y,
      this.radius(point.pressure),
      (tile, index) => {
        tile.wash ??= new Wash(arena);
        tile.laid ||= arena.allocate(PLANE_BYTES);
        const wet = (wetLayer?.state[index] ?? 0) > 0;
        if (wet) flowOf(painting).wake(layer, index, before);
        for (const { pigment } of this.parts) {
          tile.wash.plane(this.pen.coat, pigment);
          if (wet) {
            tile.wash.plane('suspended', pigment);
            tile.wash.plane('settled', pigment);
          }
        }
        planes = this.parts.map(({ pigment, coats }) => {
          const k = tile.wash!.pigments.indexOf(pigment);
          const { coats: all } = tile.wash!;
          return { dry: all[this.pen.coat][k] >> 2, wet: wet ? all.suspended[k] >> 2 : 0, coats, pigment };
        });
        laid = tile.laid >> 2;
        resist = { masking: tile.wash.resist.masking >> 2, wax: tile.wash.resist.wax >> 2 };
        return true;
      },
      (cell, inside, px, py) => {
        const { f32 } = arena;
        let share = inside;
        if (resist.masking) share *= 1 - f32[resist.masking + cell];
        if (resist.wax) share *= 1 - 0.8 * f32[resist.wax + cell];
        // a line does not get darker where the pen's stamps overlap
        const more = share * settings.strength - f32[laid + cell];
        if (more <= 0) return;
        f32[laid + cell] += more;
        const cover = wetLayer ? f32[wetLayer.cover + (py + 1) * wetLayer.coverStride + px + FRAME] : 0;
        planes.forEach(({ dry, wet, coats }, k) => {
          const amount = more * coats;
          const runs = wet ? amount * cover : 0;
          if (wet) f32[wet + cell] += runs;
          f32[dry + cell] += amount - runs;
          put[k] += amount;
        });
      },
    );
    this.parts.forEach(({ pigment }, k) => (painting.ledger.loaded[pigment] += put[k] * cellArea));
  }
}
