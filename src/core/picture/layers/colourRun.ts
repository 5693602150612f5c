import { BANDS } from '@/core/colour/bands';
import { K1, K2, VEIL } from '@/core/colour/kubelkaMunk';
import { CHANNEL_SPECTRA, CURVE_STEPS, decodeFast, encoded } from '@/core/colour/rgbBands';
import type { Arena } from '@/core/film/arena';
import type { ArenaScope } from '@/core/film/arenaScope';
import { TILE } from '@/core/film/cells';
import type { Kernels } from '@/core/kernels/kernels';
import { BLOCK, type Block } from './block';

/** Saunderson's numerator folded into the matrix: works with R / (1 - K2 R). */
export const FOLDED_MATRIX = Float32Array.from({ length: BANDS.count * 3 }, (_, j) => {
  const band = Math.floor(j / 3);
  return (1 - K1) * (1 - K2) * BANDS.toRgb[(j % 3) * BANDS.count + band];
});

/** Word addresses of what all runs of a painting share: the bands' matrix, the transfer curve. */
export interface ColourTables {
  readonly matrix: number;
  readonly curve: number;
}

export function colourTables(memory: ArenaScope): ColourTables {
  const { arena } = memory;
  const matrix = memory.allocate(FOLDED_MATRIX.byteLength) >> 2;
  arena.write(matrix << 2, FOLDED_MATRIX);
  const curve = memory.allocate(encoded.byteLength) >> 2;
  arena.write(curve << 2, encoded);
  return { matrix, curve };
}

/**
 * The colours of a block of cells as a screen has them, beside its bands. Blend modes, pixels and adjustments work on
 * these; where paint lies on them again, the bands are brought up to what they have become. Cells whose colour did not
 * change keep their bands to the last bit.
 */
export class ColourRun {
  /** Word address of encoded sRGB: planes of red, green and blue, BLOCK apart. */
  readonly rgb: number;
  /** Word addresses of linear light when the colours were made from the bands, and of the encoded colours then. */
  readonly linear: number;
  private readonly was: number;
  private readonly arena: Arena;
  /** Whether `rgb` and not the bands say how the block looks. */
  active = false;

  /** @param run word address of the bands */
  constructor(
    memory: ArenaScope,
    private readonly kernels: Kernels,
    readonly run: number,
    private readonly tables: ColourTables,
  ) {
    this.arena = memory.arena;
    this.rgb = memory.allocate(9 * BLOCK * 4) >> 2;
    this.linear = this.rgb + 3 * BLOCK;
    this.was = this.rgb + 6 * BLOCK;
  }

  /** From here on `rgb` holds. */
  enter({ count, rows }: Block): void {
    if (this.active) return;
    this.active = true;
    const { linear, rgb } = this;
    const { matrix, curve } = this.tables;
    this.kernels.bandsToColours(
      count,
      rows,
      this.run,
      BLOCK,
      BANDS.count,
      matrix,
      VEIL,
      K2,
      curve,
      CURVE_STEPS,
      linear,
      rgb,
    );
    const { f32 } = this.arena;
    for (let c = 0; c < 3 * BLOCK; c += BLOCK) f32.copyWithin(this.was + c, rgb + c, rgb + c + rows * TILE);
  }

  /** From here on the bands hold, brought up to what `rgb` has become. */
  leave({ count, rows }: Block): void {
    if (!this.active) return;
    this.active = false;
    const { f32 } = this.arena;
    const { linear, rgb, was, run } = this;
    const same = (at: number) => f32[rgb + at] === f32[was + at];
    for (let i = 0; i < rows * TILE; i++) {
      if ((i & 63) >= count || (same(i) && same(BLOCK + i) && same(2 * BLOCK + i))) continue;
      const dr = decodeFast(f32[rgb + i]) - f32[linear + i];
      const dg = decodeFast(f32[rgb + BLOCK + i]) - f32[linear + BLOCK + i];
      const db = decodeFast(f32[rgb + 2 * BLOCK + i]) - f32[linear + 2 * BLOCK + i];
      for (let k = 0; k < BANDS.count; k++) {
        const R = f32[run + k * BLOCK + i];
        const seen =
          VEIL +
          ((1 - K1) * (1 - K2) * R) / (1 - K2 * R) +
          dr * CHANNEL_SPECTRA[k] +
          dg * CHANNEL_SPECTRA[BANDS.count + k] +
          db * CHANNEL_SPECTRA[2 * BANDS.count + k];
        f32[run + k * BLOCK + i] = inside(seen);
      }
    }
  }

  /** The planes of `rgb` from a row on, until the memory grows. */
  planes(row = 0): Float32Array {
    return this.arena.f32.subarray(this.rgb + row * TILE, this.rgb + 3 * BLOCK);
  }

  /** sRGB codes that `rgb` says, 0xffBBGGRR. @param out word address; its rows are `outRow` apart */
  toCodes({ count, rows }: Block, out: number, outRow: number): void {
    this.kernels.coloursToCodes(count, rows, this.rgb, BLOCK, out, outRow);
  }
}

/** Bands may seem to reflect less than nothing and more than all: strong colours of a screen need it. Within these. */
const LEAST = -0.6;
const MOST = 1.8;

/** Internal reflectance of what is seen: Saunderson's formula turned round, without its bounds. */
function inside(seen: number): number {
  const q = Math.max(LEAST, Math.min(MOST, seen - VEIL));
  return q / ((1 - K1) * (1 - K2) + K2 * q);
}
