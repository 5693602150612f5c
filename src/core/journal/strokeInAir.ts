import { Guard } from '@/core/film/guard';
import type { Layer } from '@/core/film/layer';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import type { Sample } from '@/core/marks/path';
import type { StrokeInProgress } from '@/core/marks/stampedStroke';
import { lightStrokeFor } from '@/core/tools/lightStrokeFor';
import { noChange, type Change } from '@/core/commands/change';
import { isOnLight, layerForLight, layerForTool, layerOfSlab } from '@/core/commands/target';
import { MOST_SAMPLES, type StrokeCommand } from '@/core/commands/families/timeline';
import type { StudioState } from './state';

/** How far beside the painting a reading counts as it is, beyond twice its size, mm. */
export const FAR_MM = 200;
const clamp = (v: number, least: number, most: number) => Math.max(least, Math.min(most, v));
const isReading = (v: number): boolean => v >= -1e6 && v <= 1e6;

/** What is said of a stroke beside its readings: where it is made, and how fast water flows by their times. */
export type StrokeTold = Pick<StrokeCommand, 'on' | 'pace'>;

/** What a stroke has come to. */
export interface EndedStroke {
  readonly command: StrokeCommand;
  /** What it changed in all. */
  readonly change: Change;
  /** Cells that look otherwise than they were published. */
  readonly unshown: PixelRect;
}

/** A stroke from the moment in which the tool is put down until it is lifted. */
export class StrokeInAir {
  private readonly stroke: StrokeInProgress;
  private readonly samples: number[][] = [];
  private readonly rect = noRect();
  private readonly guard: Guard | undefined;
  private readonly flowed = new Set<number>();

  /**
   * Puts the tool down.
   * @param keep keeps a tile before it is changed
   * @throws PainterError when the layer (or the slab) and the tool do not go together
   */
  constructor(
    private readonly state: StudioState,
    private readonly told: StrokeTold,
    keep: (layer: Layer, index: number) => void,
  ) {
    const { tools } = state;
    const { on, pace = 1 } = told;
    const painting = on ? state.slab : state.painting;
    const onLight = !on && isOnLight(painting);
    const layer = on
      ? layerOfSlab(painting, tools)
      : onLight
        ? layerForLight(painting, tools)
        : layerForTool(painting, tools);
    const guard = on ? undefined : Guard.of(painting, layer);
    const before = (l: Layer, index: number) => {
      keep(l, index);
      if (!on && l.basin) this.flowed.add(index);
    };
    const seed = (Math.imul(painting.spec.seed, 7907) + Math.imul(state.strokes + 1, 104729)) >>> 1;
    // on the slab a brush takes up what it finds
    if (!on && !onLight) tools.reloadByItself();
    const settings = tools.current;
    const setting = { painting, layer, settings, seed, before: guard?.wrap(before) ?? before, pace, guard };
    const { light, stroke } = tools.definition;
    this.stroke = onLight ? lightStrokeFor(tools, setting, light!, painting.part) : stroke(setting, tools);
    this.guard = onLight ? undefined : guard;
  }

  get onSlab(): boolean {
    return this.told.on !== undefined;
  }

  /**
   * Adds a reading of the pen: [t, x, y, pressure, tiltX, tiltY, twist]. One that no journal could tell (a number that
   * is none, more readings than a stroke may have) is left out.
   */
  add(sample: readonly number[]): void {
    if (!sample.every(isReading) || this.samples.length >= MOST_SAMPLES) return;
    const [t, x, y, pressure, tiltX = 0, tiltY = 0, twist = 0] = sample;
    const read: Sample = { t, ...this.nearby(x, y), pressure: clamp(pressure, 0, 1), tiltX, tiltY, twist };
    this.samples.push([...sample]);
    this.stroke.add(read);
  }

  /** A place no farther from what is painted on than a hand with a long arm: the way there and back costs time. */
  private nearby(x: number, y: number): { x: number; y: number } {
    const { widthMm, heightMm } = (this.onSlab ? this.state.slab : this.state.painting).spec;
    const far = FAR_MM + 2 * Math.max(widthMm, heightMm);
    return { x: clamp(x, -far, widthMm + far), y: clamp(y, -far, heightMm + far) };
  }

  /** Brings what was painted into the tiles. @returns the cells that changed since the last call, and where water moved */
  publish(): { rect: PixelRect; flowed: ReadonlySet<number> } {
    const rect = this.stroke.publish();
    growRect(this.rect, rect);
    return { rect, flowed: this.flowed };
  }

  /**
   * Lifts the tool.
   * @param as the command that the stroke was read from, which then stands in the history itself
   * @returns undefined when there was no reading: then nothing has happened
   */
  end(as?: StrokeCommand): EndedStroke | undefined {
    const { stroke, samples, rect, told, guard, flowed } = this;
    stroke.end();
    if (samples.length === 0) return undefined;
    guard?.settle();
    const last = stroke.publish();
    growRect(rect, last);
    const { on, pace } = told;
    const command: StrokeCommand = as ?? {
      do: 'stroke',
      samples,
      ...(on && { on }),
      ...(pace !== undefined && { pace }),
    };
    return {
      command,
      change: on ? { ...noChange(), slab: rect } : { ...noChange(), rect, flowed },
      unshown: on ? noRect() : stroke.staysAsShown && !guard ? last : rect,
    };
  }
}
