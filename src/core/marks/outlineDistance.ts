import type { Painting } from '@/core/film/painting';
import type { PixelRect } from '@/core/film/pixelRect';
import { hypot } from '@/core/maths/maths';

/** Corners of a closed outline, mm. */
export type Outline = readonly (readonly number[])[];

/** How far inside a closed outline the cells of a painting lie, exactly near the outline; farther off only the side counts. */
export class OutlineDistance {
  /** Cells that it is known for. */
  readonly rect: PixelRect;
  private readonly inside: Float32Array;
  private readonly wide: number;
  private readonly beyond: number;

  /** @param reachMm distance on either side up to which it is exact */
  constructor(painting: Painting, outline: Outline, reachMm: number) {
    const { mmPerPx, width, height } = painting;
    const points = outline.map(([x, y]) => [x / mmPerPx, y / mmPerPx]);
    const reach = Math.ceil(reachMm / mmPerPx) + 2;
    const xs = points.map(([x]) => x);
    const ys = points.map(([, y]) => y);
    this.rect = {
      left: Math.max(0, Math.floor(Math.min(...xs)) - reach),
      top: Math.max(0, Math.floor(Math.min(...ys)) - reach),
      right: Math.min(width, Math.ceil(Math.max(...xs)) + reach),
      bottom: Math.min(height, Math.ceil(Math.max(...ys)) + reach),
    };
    const { left, top, right, bottom } = this.rect;
    this.wide = Math.max(0, right - left);
    const high = Math.max(0, bottom - top);
    const far = new Float32Array(this.wide * high).fill(reach);
    const within = new Uint8Array(this.wide * high);
    points.forEach(([x0, y0], i) => {
      const [x1, y1] = points[(i + 1) % points.length];
      const l2 = (x1 - x0) ** 2 + (y1 - y0) ** 2;
      for (
        let py = Math.max(top, Math.floor(Math.min(y0, y1)) - reach);
        py < Math.min(bottom, Math.max(y0, y1) + reach);
        py++
      ) {
        for (
          let px = Math.max(left, Math.floor(Math.min(x0, x1)) - reach);
          px < Math.min(right, Math.max(x0, x1) + reach);
          px++
        ) {
          const [cx, cy] = [px + 0.5, py + 0.5];
          const t = l2 > 0 ? Math.max(0, Math.min(1, ((cx - x0) * (x1 - x0) + (cy - y0) * (y1 - y0)) / l2)) : 0;
          const d = hypot(cx - x0 - t * (x1 - x0), cy - y0 - t * (y1 - y0));
          const at = (py - top) * this.wide + px - left;
          if (d < far[at]) far[at] = d;
        }
      }
      // what lies right of an odd number of edges lies inside
      for (
        let py = Math.max(top, Math.ceil(Math.min(y0, y1) - 0.5));
        py < bottom && py + 0.5 < Math.max(y0, y1);
        py++
      ) {
        const x = x0 + ((py + 0.5 - y0) / (y1 - y0)) * (x1 - x0);
        for (let px = Math.max(left, Math.ceil(x - 0.5)); px < right; px++)
          within[(py - top) * this.wide + px - left] ^= 1;
      }
    });
    this.beyond = -reach * mmPerPx;
    this.inside = far.map((d, i) => (within[i] ? d : -d) * mmPerPx);
  }

  /** How far inside the middle of a cell lies, mm; negative outside. */
  at(px: number, py: number): number {
    const { left, top, right, bottom } = this.rect;
    if (px < left || py < top || px >= right || py >= bottom) return this.beyond;
    return this.inside[(py - top) * this.wide + px - left];
  }
}
