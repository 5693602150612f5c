import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { noRect, type PixelRect } from '@/core/film/pixelRect';
import { FilmWindow, type BeforeTile } from '@/core/film/window';
import { PathBuilder, StampWalker, type Sample, type Stamp } from './path';

/** A stroke while it is being made: samples go in, the paint changes. */
export interface StrokeInProgress {
  /** Takes the next sample. */
  add(sample: Sample): void;
  /** Makes what was painted since last time visible in the tiles, and says where that is. */
  publish(): PixelRect;
  /** The tool is lifted. */
  end(): void;
}

/** What strokes of all tools share: samples become a path, the path stamps, and stamps change a window on the film. */
export abstract class StampedStroke implements StrokeInProgress {
  protected readonly window: FilmWindow;
  /** Cells that changed since they were last published. */
  protected changed = noRect();
  private readonly path: PathBuilder;
  private readonly walker: StampWalker;

  /** @param rubbing whether the stroke takes paint off (see FilmWindow) */
  constructor(
    protected readonly painting: Painting,
    layer: Layer,
    before: BeforeTile,
    rubbing = false,
  ) {
    this.window = new FilmWindow(painting, layer, before, rubbing);
    this.walker = new StampWalker(
      (point, dx, dy) => this.spacing(point, dx, dy),
      (stamp) => this.stamp(stamp),
    );
    this.path = new PathBuilder((point) => this.walker.add(point));
  }

  /** Distance to the next stamp, mm. */
  protected abstract spacing(point: Sample, dx: number, dy: number): number;
  protected abstract stamp(stamp: Stamp): void;

  add(sample: Sample): void {
    this.path.add(sample);
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
}
