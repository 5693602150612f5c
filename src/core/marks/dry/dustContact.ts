import { TILE_CELLS } from '@/core/film/cells';
import type { Tile } from '@/core/film/tile';
import { dustUm } from '@/core/flow/washRates';
import { fineTooth, type FineTooth } from '@/core/surface/fineTooth';
import { PlainStroke } from '@/core/marks/plainStroke';
import type { StrokeSetting } from '@/core/marks/stampedStroke';

/** Dust of one pigment on a tile: word addresses of its planes. */
export interface DustPlanes {
  readonly pigment: number;
  readonly loose: number;
  readonly pressed: number;
  /** Height of one coat, um. */
  readonly um: number;
}

/** Share of the height of dust that stands against what is pressed on it. */
export const STANDS = 0.4;

/** Strokes that find dust and move it or take it off: what they share. */
export abstract class DustStroke extends PlainStroke {
  protected readonly tooth: FineTooth;

  constructor(setting: StrokeSetting) {
    super(setting);
    this.tooth = fineTooth(setting.painting.surface, setting.painting.mmPerPx);
  }

  /** Dust of a tile; undefined where there is none. */
  protected dustOf(tile: Tile): DustPlanes[] | undefined {
    const { wash } = tile;
    if (!wash?.dusty) return undefined;
    wash.pigments.forEach((pigment, k) => {
      if (wash.coats.pressed[k]) wash.plane('loose', pigment);
    });
    return wash.pigments.flatMap((pigment, k) => {
      const { loose, pressed } = wash.coats;
      return loose[k] ? [{ pigment, loose: loose[k] >> 2, pressed: pressed[k] >> 2, um: dustUm(pigment) }] : [];
    });
  }

  /** Height of the tooth at a cell with the dust in it, um. */
  protected heightOf(dust: readonly DustPlanes[], cell: number, px: number, py: number): number {
    const { surface, arena } = this.setting.painting;
    const { f32 } = arena;
    let there = 0;
    for (const { loose, pressed, um } of dust) there += um * (f32[loose + cell] + (pressed ? f32[pressed + cell] : 0));
    return this.tooth.um[(py % surface.size) * surface.size + (px % surface.size)] + STANDS * there;
  }

  override end(): void {
    super.end();
    dropEmptyDust(this.setting);
  }
}

/** Planes of dust that hold nothing are given back. */
export function dropEmptyDust({ layer, painting }: StrokeSetting): void {
  const { f32 } = painting.arena;
  layer.forEachTile((tile) => {
    const { wash } = tile;
    if (!wash?.dusty) return;
    for (const pigment of [...wash.pigments]) {
      for (const coat of ['loose', 'pressed'] as const) {
        const plane = wash.coats[coat][wash.pigments.indexOf(pigment)] ?? 0;
        if (plane && !f32.subarray(plane >> 2, (plane >> 2) + TILE_CELLS).some((v) => v > 0)) wash.drop(coat, pigment);
      }
    }
    if (wash.empty && !layer.basin) tile.wash = undefined;
  });
}
