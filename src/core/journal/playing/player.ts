import type { Change } from '@/core/commands/change';
import type { Command } from '@/core/commands/commands';
import { PainterError } from '@/core/errors';
import type { PaintingSpec } from '@/core/film/painting';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import { tileRect, wholeRect } from '@/core/film/tilesIn';
import { STEP_SECONDS } from '@/core/flow/washRates';
import { Studio } from '@/core/journal/studio';
import { KeptMoments } from './keptMoments';

/** A place in a history: so many commands are done, and of the next, where it is a stroke, so many readings. */
export interface Place {
  readonly done: number;
  readonly readings: number;
}

export const placeBefore = (a: Place, b: Place): boolean =>
  a.done < b.done || (a.done === b.done && a.readings < b.readings);

export const samePlace = (a: Place, b: Place): boolean => a.done === b.done && a.readings === b.readings;

/** Gets what changes in the picture; `canvas` where it is another canvas, of another size perhaps. */
type Seen = (rect: PixelRect, canvas: boolean) => void;

/** What a player may use. */
interface Means {
  /** Bytes that the states which it keeps may take. */
  readonly mostBytes: number;
  /** Counts what painting costs, ms: a state is kept whenever so much was painted since the last. */
  readonly now: () => number;
  readonly keepEvery: number;
}
const MEANS: Means = { mostBytes: 700e6, now: () => performance.now(), keepEvery: 600 };

/** Readings of a stroke that are laid before the clock is looked at again. */
const READINGS_AT_ONCE = 8;
/** Steps of water likewise. */
const STEPS_AT_ONCE = 2;

/**
 * Plays a history forwards and back, in slices of time: any of its moments, also in the middle of a stroke, is painted
 * from the nearest whole state that was kept on the way. What it comes to is the same bytes as of a painting that was
 * never wound back.
 */
export class Player {
  readonly studio: Studio;
  private readonly kept: KeptMoments;
  private readonly means: Means;
  /** How many commands are done, of the stroke in the air so many readings, of the wait so many steps of water. */
  private done = 0;
  private farthest = 0;
  private readings = 0;
  private waited = 0;
  /** Cells that the stroke in the air has changed so far. */
  private laid = noRect();
  /** Cost of coming here from the empty ground. */
  private cost = 0;

  /** @param history commands without those that were taken back (`effectiveCommands`) */
  constructor(
    begun: PaintingSpec,
    readonly history: readonly Command[],
    means: Partial<Means> = {},
  ) {
    this.means = { ...MEANS, ...means };
    // the way back is what is kept here
    this.studio = new Studio(begun, 0);
    this.kept = new KeptMoments(this.studio, this.means.mostBytes);
    this.kept.keep(0, 0);
  }

  /** Where it is. */
  get place(): Place {
    return { done: this.done, readings: this.readings };
  }
  get end(): Place {
    return { done: this.history.length, readings: 0 };
  }
  /** How many commands from the beginning have been painted once, so that any moment of them is near. */
  get explored(): number {
    return this.farthest;
  }
  get keptBytes(): number {
    return this.kept.bytes;
  }

  /**
   * Goes on towards a place for some time.
   * @param seen gets what changes in the picture
   * @returns whether it is there
   */
  go(wanted: Place, ms: number, seen: Seen): boolean {
    const { now } = this.means;
    const to = this.within(wanted);
    const until = now() + ms;
    this.wind(to, seen);
    while (placeBefore(this.place, to)) {
      const from = now();
      this.step(to, seen);
      this.cost += now() - from;
      if (this.readings === 0 && this.waited === 0) this.keepHere();
      if (now() >= until) break;
    }
    return !placeBefore(this.place, to) && this.waited === 0;
  }

  /** A place that there is: in the middle of a stroke only where there is a stroke. */
  private within({ done, readings }: Place): Place {
    const next = this.history[done];
    if (!next) return this.end;
    return { done, readings: next.do === 'stroke' ? Math.min(readings, next.samples.length - 1) : 0 };
  }

  /** Goes on from where most is kept to where nothing has been painted yet. @returns whether all has been painted once */
  explore(ms: number, seen: Seen): boolean {
    if (this.explored < this.history.length) this.go(this.end, ms, seen);
    return this.explored >= this.history.length;
  }

  /** Goes to the nearest state that is kept, where that is a shorter way than on from here. */
  private wind(to: Place, seen: Seen): void {
    const onward = to.done > this.done || (to.done === this.done && !this.waited && to.readings >= this.readings);
    const nearest = this.kept.nearest(to.done)!;
    if (onward && nearest <= this.done) return;
    const waits = this.waited > 0;
    this.leaveOff(seen);
    if (to.done === this.done && !waits) return;
    const { change, cost } = this.kept.goTo(nearest);
    this.done = nearest;
    this.cost = cost;
    this.studio.timeline.adopt(this.history.slice(0, nearest));
    seen(change.rect, change.canvas === true);
  }

  /** What has begun of the next command is not done: a stroke in the air is put back, a wait is over too early. */
  private leaveOff(seen: Seen): void {
    if (this.studio.strokeInAir) {
      this.studio.abandonStroke();
      seen(this.laid, false);
    }
    if (this.waited > 0) this.studio.endWait();
    this.readings = 0;
    this.waited = 0;
    this.laid = noRect();
  }

  /** Does some of the next command. */
  private step(to: Place, seen: Seen): void {
    const { studio } = this;
    const command = this.history[this.done];
    try {
      if (command.do === 'stroke') {
        if (this.readings === 0) studio.beginStroke(command.on, command.pace);
        const most = to.done > this.done ? command.samples.length : to.readings;
        const until = Math.min(most, this.readings + READINGS_AT_ONCE);
        for (; this.readings < until; this.readings++) studio.addSample(command.samples[this.readings]);
        if (this.readings < command.samples.length) return this.publish(command.on !== undefined, seen);
        this.tell(studio.endStroke(command)!.change, seen);
      } else if (command.do === 'wait' && this.studio.time.hasWater && inSteps(command.seconds)) {
        const left = Math.round(command.seconds / STEP_SECONDS) - this.waited;
        studio.time.advance(Math.min(STEPS_AT_ONCE, left));
        this.waited += Math.min(STEPS_AT_ONCE, left);
        seen(this.rectOf(studio.time.takeFlowed()), false);
        if (left > STEPS_AT_ONCE) return;
        this.tell(studio.endWait()!.change, seen);
      } else this.tell(studio.apply(command), seen);
    } catch (error) {
      if (!(error instanceof PainterError)) throw error;
      throw new PainterError(`Step ${this.done + 1} cannot be painted again: ${error.message}`);
    }
    this.readings = 0;
    this.waited = 0;
    this.laid = noRect();
    this.done++;
    this.farthest = Math.max(this.farthest, this.done);
  }

  private publish(onSlab: boolean, seen: Seen): void {
    const rect = this.studio.publishStroke();
    const flowed = this.rectOf(this.studio.time.takeFlowed());
    if (!onSlab) growRect(flowed, rect);
    growRect(this.laid, flowed);
    seen(flowed, false);
  }

  private tell({ rect, flowed, canvas }: Change, seen: Seen): void {
    seen(canvas ? wholeRect(this.studio.painting) : rect, canvas === true);
    for (const tiles of [flowed, this.studio.time.takeFlowed()]) if (tiles.size > 0) seen(this.rectOf(tiles), false);
  }

  private rectOf(tiles: ReadonlySet<number>): PixelRect {
    const rect = noRect();
    for (const index of tiles) growRect(rect, tileRect(this.studio.painting, index));
    return rect;
  }

  /** Keeps the state as it is where none is near. */
  private keepHere(): void {
    const { reach } = this.kept;
    if (this.done <= reach.at || this.cost - reach.cost < this.means.keepEvery) return;
    this.kept.keep(this.done, this.cost);
  }

  /** Gives all memory back. */
  dispose(): void {
    this.studio.dispose();
  }
}

/** Whether a wait is whole steps of water, and so may be made in parts. */
const inSteps = (seconds: number): boolean =>
  Math.abs(seconds / STEP_SECONDS - Math.round(seconds / STEP_SECONDS)) < 1e-6 &&
  Math.round(seconds * 100) / 100 === seconds;
