import type { Picture } from './picture';
import type { PixelRect } from '@/core/film/pixelRect';

/** The lit picture at half, quarter, ... size, for looking at it from farther away. */
export class Pyramid {
  /** Level 0 is the picture itself. Word addresses of sRGB codes. */
  readonly levels: { at: number; width: number; height: number }[];

  constructor(readonly picture: Picture) {
    const { arena, width, height } = picture.painting;
    this.levels = [{ at: picture.lit, width, height }];
    for (let w = width, h = height; w > 256 || h > 256;) {
      w = Math.ceil(w / 2);
      h = Math.ceil(h / 2);
      this.levels.push({ at: arena.allocate(w * h * 4) >> 2, width: w, height: h });
    }
  }

  /** Gives its rasters back; the picture's own stays. */
  dispose(): void {
    const { arena } = this.picture.painting;
    for (const { at, width, height } of this.levels.slice(1)) arena.free(at << 2, width * height * 4);
  }

  /** Follows a change of the lit picture. */
  update(rect: PixelRect): void {
    const { u32 } = this.picture.painting.arena;
    let { left, top, right, bottom } = rect;
    for (let k = 1; k < this.levels.length; k++) {
      const from = this.levels[k - 1];
      const to = this.levels[k];
      left >>= 1;
      top >>= 1;
      right = Math.min(to.width, (right + 1) >> 1);
      bottom = Math.min(to.height, (bottom + 1) >> 1);
      for (let y = top; y < bottom; y++) {
        const y0 = from.at + Math.min(from.height - 1, 2 * y) * from.width;
        const y1 = from.at + Math.min(from.height - 1, 2 * y + 1) * from.width;
        for (let x = left; x < right; x++) {
          const x0 = Math.min(from.width - 1, 2 * x);
          const x1 = Math.min(from.width - 1, 2 * x + 1);
          u32[to.at + y * to.width + x] = mean4(u32[y0 + x0], u32[y0 + x1], u32[y1 + x0], u32[y1 + x1]);
        }
      }
    }
  }
}

/** Mean of four packed colours, two channels at a time. */
function mean4(a: number, b: number, c: number, d: number): number {
  const even = (a & 0xff00ff) + (b & 0xff00ff) + (c & 0xff00ff) + (d & 0xff00ff) + 0x20002;
  const odd = ((a >>> 8) & 0xff) + ((b >>> 8) & 0xff) + ((c >>> 8) & 0xff) + ((d >>> 8) & 0xff) + 2;
  return (((even >>> 2) & 0xff00ff) | ((odd << 6) & 0xff00) | 0xff000000) >>> 0;
}
