import type { Arena } from '@/core/film/arena';

/**
 * Copies of planes out of the arena, side by side in one piece of memory: keeping many tiles at once, as a stroke on
 * wet paper does, then costs little more than the copying.
 */
export class Copies {
  private readonly room: Float32Array;
  private used = 0;

  /** @param words room for all copies that will be made, 32-bit words */
  constructor(
    private readonly arena: Arena,
    words: number,
  ) {
    this.room = new Float32Array(words);
  }

  /** A copy of a plane at a byte address. */
  plane(address: number, words: number): Float32Array {
    const at = address >> 2;
    const out = this.take(words);
    out.set(this.arena.f32.subarray(at, at + words));
    return out;
  }

  /** A copy of a rectangle of a raster, row after row. @param from word address; @param stride words from row to row */
  rectangle(from: number, stride: number, width: number, height: number): Float32Array {
    const out = this.take(width * height);
    const { f32 } = this.arena;
    for (let y = 0; y < height; y++) {
      const row = from + y * stride;
      const to = y * width;
      for (let x = 0; x < width; x++) out[to + x] = f32[row + x];
    }
    return out;
  }

  private take(words: number): Float32Array {
    if (this.used + words > this.room.length) throw new RangeError('More was copied than room was made for.');
    const out = this.room.subarray(this.used, this.used + words);
    this.used += words;
    return out;
  }
}
