import type { Painting } from '@/core/film/painting';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import type { FilmWindow } from '@/core/film/window/window';
import { kernelsFor, type Kernels } from '@/core/kernels/kernels';
import { maths } from '@/core/maths/maths';

/** Length on which rates rest, mm. */
const UNIT_MM = 0.25;
/** Passes after which a cell that was touched begins to level: until then the tool is still over it. */
const LAG = 3;

/**
 * Levelling behind a tool: every cell that was touched goes through so many passes once the tool has left it,
 * wherever the window moves meanwhile. Fluid paint gets three times as many.
 */
export class Settling {
  private readonly kernels: Kernels;
  private readonly passes: number;
  private readonly rate: number;
  private recent: PixelRect[] = [noRect()];
  private since = 0;

  constructor(
    private readonly painting: Painting,
    private readonly window: FilmWindow,
    body: number,
  ) {
    this.kernels = kernelsFor(painting.arena);
    const s = UNIT_MM / painting.mmPerPx;
    const base = Math.max(2, Math.round(3 * maths.pow(s, 1.2)));
    this.passes = base * (body < 0.3 ? 3 : 1);
    this.rate = Math.min(0.5, (0.22 * 3 * s * s) / base);
  }

  /** What a kernel writes for a cell that it touched. */
  get mark(): number {
    return this.passes + LAG;
  }

  /** Everything that still levels. */
  get area(): PixelRect {
    const area = noRect();
    for (const rect of this.recent) growRect(area, rect);
    return area;
  }

  /** Notes a stamp; levels when the tool has gone on by a third of `lengthMm`. @returns the cells that levelled. */
  stamped(rect: PixelRect, wayMm: number, lengthMm: number): PixelRect | undefined {
    growRect(this.recent[this.recent.length - 1], rect);
    this.since += wayMm;
    if (this.since < lengthMm / LAG) return undefined;
    this.since = 0;
    return this.level();
  }

  /** The tool is lifted: everything goes through what it has left. */
  finish(): PixelRect {
    const all = noRect();
    for (let i = 0; i < this.passes + LAG; i++) growRect(all, this.level() ?? noRect());
    return all;
  }

  private level(): PixelRect | undefined {
    const { window, painting } = this;
    const { area } = this;
    this.recent.push(noRect());
    if (this.recent.length > this.passes + LAG) this.recent.shift();
    const x0 = Math.max(0, area.left - window.x0);
    const y0 = Math.max(0, area.top - window.y0);
    const x1 = Math.min(window.width, area.right - window.x0, painting.width - window.x0);
    const y1 = Math.min(window.height, area.bottom - window.y0, painting.height - window.y0);
    if (x1 <= x0 || y1 <= y0) return undefined;
    this.kernels.levelPass(
      window.film >> 2,
      window.relief >> 2,
      window.body >> 2,
      window.cure >> 2,
      window.fresh >> 2,
      window.channels,
      window.width,
      this.passes,
      this.rate,
      painting.mmPerPx / UNIT_MM,
      x0,
      y0,
      x1,
      y1,
    );
    window.touch(x0, y0, x1 - 1, y1 - 1);
    return { left: x0 + window.x0, top: y0 + window.y0, right: x1 + window.x0, bottom: y1 + window.y0 };
  }
}
