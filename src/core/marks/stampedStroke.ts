import type { Guard } from '@/core/film/guard';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import { FilmWindow, type BeforeTile } from '@/core/film/window/window';
import { kernelsFor } from '@/core/kernels/kernels';
import { maths } from '@/core/maths/maths';
import { DabWalker } from '@/core/marks/brush/dabbing';
import { PathBuilder, StampWalker, type Sample, type Stamp } from './path';
import type { HeldTool } from './heldTool';

/** A stroke while it is being made: samples go in, the paint changes. */
export interface StrokeInProgress {
  /** Takes the next sample. */
  add(sample: Sample): void;
  /** Makes what was painted since last time visible in the tiles, and says where that is. */
  publish(): PixelRect;
  /** The tool is lifted. */
  end(): void;
  /** Whether what was published looks the same once the tool is lifted, but for cells that are published then. */
  readonly staysAsShown?: boolean;
}

/** Everything that a stroke is made with. */
export interface StrokeSetting {
  readonly painting: Painting;
  readonly layer: Layer;
  readonly settings: HeldTool;
  /** Randomness of this stroke alone. */
  readonly seed: number;
  readonly before: BeforeTile;
  /** How fast time passes on wet paper, by the times of the readings. */
  readonly pace: number;
  /** What holds it back, if anything. */
  readonly guard?: Guard;
}

/** What strokes of all tools share: samples become a path, the path stamps, and stamps change a window on the film. */
export abstract class StampedStroke implements StrokeInProgress {
  protected readonly painting: Painting;
  protected readonly layer: Layer;
  protected readonly settings: HeldTool;
  protected readonly seed: number;
  protected readonly window: FilmWindow;
  /** Cells that changed since they were last published. */
  protected changed = noRect();
  private readonly path: PathBuilder;
  private readonly walker: StampWalker | DabWalker;

  /** @param rubbing whether the stroke takes paint off (see FilmWindow) */
  constructor({ painting, layer, settings, seed, before, guard }: StrokeSetting, rubbing = false) {
    this.painting = painting;
    this.layer = layer;
    this.settings = settings;
    this.seed = seed;
    this.window = new FilmWindow(painting, layer, before, rubbing, kernelsFor(painting.arena), guard);
    const spacing = (point: Sample, dx: number, dy: number) => this.spacing(point, dx, dy);
    const stamp = (s: Stamp) => this.stamp(s);
    this.walker =
      settings.touch === 'dab'
        ? new DabWalker(settings.sizeMm, seed, spacing, () => this.touchDown(), stamp)
        : new StampWalker(spacing, stamp);
    this.path = new PathBuilder((point) => this.walker.add(point));
  }

  /** Distance to the next stamp, mm. */
  protected abstract spacing(point: Sample, dx: number, dy: number): number;
  protected abstract stamp(stamp: Stamp): void;
  /** The tool was lifted within the stroke and is set down anew. */
  protected touchDown(): void {}

  add(sample: Sample): void {
    this.path.add({ ...sample, pressure: felt(sample.pressure, this.settings) });
  }

  publish(): PixelRect {
    this.window.publish();
    const rect = this.changed;
    this.changed = noRect();
    return rect;
  }

  end(): void {
    this.path.end();
    this.walker.end();
    this.finish();
    this.window.dispose();
  }

  /** Everything has been stamped: the window goes back to the tiles. */
  protected finish(): void {
    this.window.flush();
  }

  /** Cells of the painting within a reach of a place, mm; undefined when there are none. */
  protected reach(x: number, y: number, reachXMm: number, reachYMm = reachXMm): PixelRect | undefined {
    const { mmPerPx, width, height } = this.painting;
    const rect = {
      left: Math.max(0, Math.floor((x - reachXMm) / mmPerPx) - 1),
      top: Math.max(0, Math.floor((y - reachYMm) / mmPerPx) - 1),
      right: Math.min(width, Math.ceil((x + reachXMm) / mmPerPx) + 1),
      bottom: Math.min(height, Math.ceil((y + reachYMm) / mmPerPx) + 1),
    };
    return rect.right > rect.left && rect.bottom > rect.top ? rect : undefined;
  }

  /** Notes that cells changed. */
  protected touch(rect: PixelRect): void {
    const { window } = this;
    window.touch(rect.left - window.x0, rect.top - window.y0, rect.right - 1 - window.x0, rect.bottom - 1 - window.y0);
    growRect(this.changed, rect);
  }
}

/** Pressure as the tool feels it: the pen's curve, above its floor. A lifted pen stays lifted. */
export const felt = (pressure: number, { floor, curve }: HeldTool): number => {
  const p = Math.min(1, pressure);
  if (p <= 0 || (floor === 0 && curve === 1)) return p;
  return floor + (1 - floor) * maths.pow(p, curve);
};
